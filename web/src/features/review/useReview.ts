import { getJson, send, sendJson } from '@/api/client'
import type { NoteMark, ReviewSheet, ShotNote } from '@/api/review'
import { computed, onMounted, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { rateOf } from '../cut/timecode'

const AHEAD = 24 // frames read before they are shown
const AT_ONCE = 4 // requests
const HELD = 120 // pictures
const LOOK_EVERY = 4000 // ms, for notes and pictures that are there

/** What a link opens: pictures of a stretch, played or one by one, and its notes. */
export function useReview(secret: string) {
  const sheet = ref<ReviewSheet | null>(null)
  const failed = ref<string | null>(null)
  const frame = ref(0)
  const playing = ref(false)
  const bitmap = shallowRef<ImageBitmap | null>(null)
  const kept = ref<[number, number][]>([])
  const pictures = new Map<number, Promise<ImageBitmap>>()
  let asking = 0
  let gone = false

  const ready = computed(() => kept.value.reduce((sum, [, count]) => sum + count, 0))
  const isKept = (at: number) => kept.value.some(([first, count]) => at >= first && at < first + count)
  const clamp = (at: number) => (sheet.value ? Math.max(sheet.value.first, Math.min(sheet.value.first + sheet.value.count - 1, at)) : at)

  async function look() {
    try {
      const found = await getJson<ReviewSheet>(`/reviews/${secret}`)
      const other = found.stamp !== sheet.value?.stamp
      if (other) pictures.clear()
      sheet.value = found
      frame.value = clamp(frame.value)
      failed.value = null
      if (other || ready.value < found.count) kept.value = (await getJson<{ spans: [number, number][] }>(`/reviews/${secret}/kept`)).spans
      if (other) void show()
    } catch (error) {
      failed.value = error instanceof Error ? error.message : String(error)
    }
  }

  function picture(at: number): Promise<ImageBitmap> {
    const known = pictures.get(at)
    if (known) return known
    asking++
    const made = send('GET', `/reviews/${secret}/pictures/${at}${playing.value ? '?quick=1' : ''}`)
      .then(async (answer) => createImageBitmap(await answer.blob()))
      .finally(() => asking--)
    made.catch(() => pictures.delete(at))
    pictures.set(at, made)
    for (const old of [...pictures.keys()].slice(0, Math.max(0, pictures.size - HELD))) pictures.delete(old)
    return made
  }

  async function show() {
    const at = frame.value
    try {
      const found = await picture(at)
      if (at === frame.value) bitmap.value = found
    } catch (error) {
      if (at === frame.value) failed.value = error instanceof Error ? error.message : String(error)
    }
  }
  watch(frame, () => void show())

  /** One frame after another at the cut's rate; where pictures come late it waits, as every one is to be seen. */
  async function play() {
    const open = sheet.value
    if (!open || playing.value) return
    playing.value = true
    if (frame.value >= open.first + open.count - 1) frame.value = open.first
    const each = 1000 / rateOf(open.rate)
    let due = performance.now()
    while (playing.value && !gone && frame.value < open.first + open.count - 1) {
      for (let at = frame.value + 1; at <= frame.value + AHEAD && asking < AT_ONCE; at++) if (at < open.first + open.count && isKept(at)) void picture(at)
      const next = frame.value + 1
      const found = await picture(next).catch(() => null)
      if (!found) break
      due = Math.max(due + each, performance.now())
      await new Promise((resolve) => setTimeout(resolve, Math.max(0, due - performance.now())))
      if (!playing.value) break
      frame.value = next
      bitmap.value = found
    }
    playing.value = false
    pictures.delete(frame.value) // what stands still is seen as it is
    void show()
  }

  onMounted(look)
  const timer = setInterval(() => void (playing.value || look()), LOOK_EVERY)
  onScopeDispose(() => {
    gone = true
    clearInterval(timer)
  })

  return {
    sheet,
    failed,
    frame,
    playing,
    bitmap,
    ready,
    go: (at: number) => ((playing.value = false), (frame.value = clamp(at))),
    toggle: () => (playing.value ? (playing.value = false) : void play()),
    async leave(note: { words: string; by: string; mark?: NoteMark | null; answers?: number }) {
      await sendJson<ShotNote>('POST', `/reviews/${secret}/notes`, { frame: frame.value, ...note })
      await look()
    },
  }
}
