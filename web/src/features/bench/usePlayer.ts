import { send } from '@/api/client'
import { unpack } from '@/api/answer'
import { onScopeDispose, ref, shallowRef, type Ref } from 'vue'

const AHEAD = 48 // frames fetched before they are due
const AT_ONCE = 2 // requests under way, one a server process
const MOST_KEPT = 600 // pictures
const RATE_OVER = 1000 // ms the shown rate is measured over

export interface PlayerOptions {
  cut: Ref<number | null>
  rate: Ref<number>
  /** First frame and count to play round. */
  range: Ref<{ first: number; count: number }>
  /** Grows with every change of a grade: what was fetched before is stale. */
  generation: Ref<number>
  go: (frame: number) => void
  trouble: (error: unknown) => void
}

/**
 * Plays by the clock: the frame that is due is shown if it has arrived, else it is
 * dropped and counted. Frames are asked for as far ahead as answers take, and what
 * arrived is kept, so that the next round has more and the one after all of them.
 */
export function usePlayer(options: PlayerOptions) {
  const playing = ref(false)
  const picture = shallowRef<ImageBitmap | null>(null)
  const shownRate = ref(0)
  const dropped = ref(0)
  const kept = new Map<number, ImageBitmap>()
  const under = new Set<number>()
  let keptFor = options.generation.value
  let started = 0
  let from = 0
  let due = -1
  let request = 0
  let shownAt: number[] = []
  let wait = 100 // ms an answer takes, running mean

  const at = (step: number) => {
    const { first, count } = options.range.value
    return first + ((((from - first + step) % count) + count) % count)
  }

  function forget() {
    for (const bitmap of kept.values()) bitmap.close()
    kept.clear()
    keptFor = options.generation.value
  }

  async function fetchFrame(frame: number) {
    under.add(frame)
    const generation = keptFor
    const asked = performance.now()
    try {
      const response = await send('POST', `/cuts/${options.cut.value}/picture`, { frame, size: 'play', instruments: false })
      const bytes = unpack(await response.arrayBuffer()).parts.picture
      if (!bytes) return
      const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }), { colorSpaceConversion: 'none' })
      wait += (performance.now() - asked - wait) / 4
      if (generation === options.generation.value && kept.size < MOST_KEPT) kept.set(frame, bitmap)
      else bitmap.close()
    } catch (error) {
      stop()
      options.trouble(error)
    } finally {
      under.delete(frame)
    }
  }

  function fill(step: number) {
    const reach = Math.min(AHEAD, options.range.value.count)
    const lead = Math.ceil((wait / 1000) * options.rate.value)
    for (let ahead = 0; ahead < reach && under.size < AT_ONCE; ahead++) {
      const frame = at(step + lead + ahead)
      if (!kept.has(frame) && !under.has(frame)) void fetchFrame(frame)
    }
  }

  function tick(now: number) {
    if (!playing.value) return
    const step = Math.floor(((now - started) / 1000) * options.rate.value)
    if (step !== due) {
      if (keptFor !== options.generation.value) forget()
      if (due >= 0) dropped.value += Math.max(0, step - due - 1)
      due = step
      const bitmap = kept.get(at(step))
      if (bitmap) {
        picture.value = bitmap
        options.go(at(step))
        shownAt.push(now)
      } else dropped.value++
      shownAt = shownAt.filter((time) => now - time < RATE_OVER)
      shownRate.value = shownAt.length
    }
    fill(step)
    request = requestAnimationFrame(tick)
  }

  function play(frame: number) {
    if (options.cut.value === null) return
    if (keptFor !== options.generation.value) forget()
    from = frame
    due = -1
    dropped.value = 0
    shownAt = []
    started = performance.now()
    playing.value = true
    request = requestAnimationFrame(tick)
  }

  function stop() {
    playing.value = false
    cancelAnimationFrame(request)
    picture.value = null
  }

  onScopeDispose(() => {
    stop()
    forget()
  })

  return { playing, picture, shownRate, dropped, play, stop }
}
