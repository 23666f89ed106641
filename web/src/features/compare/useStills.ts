import { getJson, send, sendJson } from '@/api/client'
import type { Still } from '@/api/cut'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useCut } from '../cut/useCut'
import type { SecondWish } from '../bench/usePicture'
import { useRecipes } from '../grade/useRecipes'
import { useScreen } from '../screen/useScreen'
import { useErrands } from '../shell/useErrands'
import { useNotices } from '../shell/useNotices'
import { useReference } from './useReference'

const LATE = 3000 // ms

/** Finished pictures of the project: brought in, or frozen; and pictures that leave. */
export const useStills = defineStore('stills', () => {
  const cut = useCut()
  const recipes = useRecipes()
  const screen = useScreen()
  const notices = useNotices()
  const reference = useReference()
  const all = ref<Still[]>([])
  const errands = useErrands(computed(() => cut.project?.id.toString()))

  async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
    try {
      return await work()
    } catch (error) {
      notices.trouble(error)
    }
  }

  /** What a worker makes; whoever waits longer is told so. */
  async function made<Result>(path: string, body: unknown) {
    const late = setTimeout(() => notices.news('a worker is at it; the picture comes by itself'), LATE)
    const result = await attempt(() => errands.run<Result>(path, body))
    clearTimeout(late)
    return result
  }

  async function load() {
    if (cut.project) all.value = (await attempt(() => getJson<Still[]>(`/projects/${cut.project?.id}/stills`))) ?? all.value
  }

  function show(still: Still | undefined) {
    if (!still) return
    reference.kind = 'still'
    reference.still = still.id
    reference.on = true
  }

  async function take(work: () => Promise<Still[]>) {
    const found = await attempt(work)
    if (!found) return
    all.value = found
    show(found.at(-1))
  }

  /** The reference as it is now, or the graded one; later changes do not reach it. */
  async function freeze(second: SecondWish | null) {
    const shot = second ? reference.shot : cut.shot
    if (!cut.cut || !shot) return
    await recipes.settled()
    const body = { frame: cut.frame, on: screen.wish, trial: cut.shot ? cut.trialOf(cut.shot) : null, second, name: `${shot.name} ${second ? reference.words.replace(`${shot.name} `, '') : 'graded'}, frozen` }
    const kept = await made<{ still: Still }>(`/cuts/${cut.cut?.id}/stills`, body)
    if (!kept) return
    await load()
    show(kept.still)
  }

  const bringIn = (file: File) => take(async () => (await send('POST', `/projects/${cut.project?.id}/stills?name=${encodeURIComponent(file.name)}`, file)).json() as Promise<Still[]>)

  async function forget(still: Still) {
    const found = await attempt(() => sendJson<Still[]>('DELETE', `/stills/${still.id}`))
    if (!found) return
    all.value = found
    if (reference.still === still.id) reference.still = null
  }

  /** Writes the picture that is seen below the delivery folder. */
  async function leave(format: string) {
    if (!cut.cut || !cut.shot) return
    await recipes.settled()
    const written = await made<{ path: string }>(`/cuts/${cut.cut?.id}/export`, { frame: cut.frame, on: screen.wish, format })
    if (written) notices.news(`written: ${written.path}`)
  }

  return { all, load, show, freeze, bringIn, forget, leave }
})
