import { getJson, sendJson } from '@/api/client'
import type { Cut, Placed } from '@/api/cut'
import type { ComparedList, ReadList } from '@/api/list'
import type { Clip } from '@/api/media'
import { computed, ref, type Ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { useAssembly } from './useAssembly'

/** Bytes as the server takes them: lists come in more than one character set. */
async function coded(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  let text = ''
  for (let at = 0; at < bytes.length; at += 0x8000) text += String.fromCharCode(...bytes.subarray(at, at + 0x8000))
  return btoa(text)
}

/** A list that was brought in: what it says, what it is linked to, and what is done with it. */
export function useLists(project: Ref<string | undefined>) {
  const cut = useCut()
  const assembly = useAssembly()
  const notices = useNotices()
  const name = ref('')
  const bytes = ref('')
  const rate = ref('')
  const prefer = ref('')
  /** What becomes of transitions that want more handle than there is. */
  const handles = ref<'shorten' | 'hold' | 'leave'>('shorten')
  /** Numbers of events to the clips a person chose. */
  const links = ref<Record<string, number>>({})
  const read = ref<ReadList | null>(null)
  const compared = ref<ComparedList | null>(null)
  const busy = ref(false)

  const body = () => ({ list: { name: name.value, bytes: bytes.value, ...(rate.value ? { rate: rate.value } : {}) }, links: links.value, handles: handles.value, ...(prefer.value ? { prefer: prefer.value } : {}) })

  async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
    busy.value = true
    try {
      return await work()
    } catch (error) {
      notices.trouble(error)
      return undefined
    } finally {
      busy.value = false
    }
  }

  /** Reads it, with what was said of it so far. */
  const again = () =>
    attempt(async () => {
      if (!bytes.value) return
      read.value = await sendJson<ReadList>('POST', `/projects/${project.value}/lists`, body())
      compared.value = null
    })

  async function take(file: File) {
    Object.assign(name, { value: file.name })
    bytes.value = await coded(file)
    links.value = {}
    read.value = compared.value = null
    await again()
  }

  const unlinked = computed(() => read.value?.events.filter((event) => event.link && event.link.clip === null) ?? [])

  return {
    name,
    rate,
    prefer,
    handles,
    links,
    read,
    compared,
    busy,
    unlinked,
    take,
    again,
    choose: (event: number, clip: number | null) => {
      links.value = { ...Object.fromEntries(Object.entries(links.value).filter(([number]) => number !== String(event))), ...(clip === null ? {} : { [String(event)]: clip }) }
      return again()
    },
    close: () => ((read.value = compared.value = null), (bytes.value = '')),
    /** @returns the cut that is made of it, or of a programme that it is laid over */
    make: (title: string, over?: number) => attempt(() => sendJson<Cut>('POST', `/projects/${project.value}/cuts`, { ...body(), name: title, ...(over ? { over } : {}) })),
    compare: () =>
      attempt(async () => {
        compared.value = await sendJson<ComparedList>('POST', `/cuts/${cut.cut?.id}/recut`, body())
        read.value = compared.value
      }),
    accept: () =>
      attempt(async () => {
        await assembly.take(await sendJson<Placed>('PUT', `/cuts/${cut.cut?.id}/recut`, { ...body(), edition: compared.value?.edition }))
        read.value = compared.value = null
        bytes.value = ''
        notices.news(`${name.value} was laid over ${cut.cut?.name}; one undo takes it back`)
      }),
    clips: () => getJson<Clip[]>(`/projects/${project.value}/clips`),
  }
}
