import { onScopeDispose, ref, shallowRef, type Ref } from 'vue'
import type { PlayStore } from './playStore'

const AHEAD = 48 // frames wanted before they are due
const RATE_OVER = 1000 // ms the shown rate is measured over

export interface PlayerOptions {
  store: PlayStore
  rate: Ref<number>
  /** First frame and count to play round. */
  range: Ref<{ first: number; count: number }>
  /** Grows with every change of a grade or of the screen. */
  generation: Ref<number>
  go: (frame: number) => void
}

/**
 * Plays by the clock: the frame that is due is shown if it is there, else it is
 * dropped and counted. Frames are asked for as far ahead as answers take.
 */
export function usePlayer({ store, ...options }: PlayerOptions) {
  const playing = ref(false)
  const picture = shallowRef<ImageBitmap | null>(null)
  const shownRate = ref(0)
  const dropped = ref(0)
  let generation = options.generation.value
  let started = 0
  let from = 0
  let due = -1
  let request = 0
  let shownAt: number[] = []

  const at = (step: number) => {
    const { first, count } = options.range.value
    return first + ((((from - first + step) % count) + count) % count)
  }

  function refresh() {
    if (generation === options.generation.value) return
    generation = options.generation.value
    store.forget()
  }

  function fill(step: number) {
    const reach = Math.min(AHEAD, options.range.value.count)
    const lead = Math.ceil((store.wait() / 1000) * options.rate.value)
    store.fill(
      Array.from({ length: reach }, (_, ahead) => at(step + lead + ahead)),
      stop,
    )
  }

  function tick(now: number) {
    if (!playing.value) return
    const step = Math.floor(((now - started) / 1000) * options.rate.value)
    if (step !== due) {
      refresh()
      if (due >= 0) dropped.value += Math.max(0, step - due - 1)
      due = step
      const bitmap = store.has(at(step)) ? store.show(at(step)) : null
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
    refresh()
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
    store.close()
  })

  return { playing, picture, shownRate, dropped, play, stop }
}
