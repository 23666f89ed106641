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
  /** Whether each picture is waited for, so that none is passed over before it has been made. */
  patient?: Ref<boolean>
  go: (frame: number) => void
}

/**
 * Plays by the clock: the frame that is due is shown if it is there, else it is
 * dropped and counted. Frames are asked for as far ahead as answers take. Where it is patient
 * the clock stands until the next picture is there: the first round is as quick as they are made.
 */
export function usePlayer({ store, ...options }: PlayerOptions) {
  const playing = ref(false)
  const picture = shallowRef<ImageBitmap | null>(null)
  const shownRate = ref(0)
  const dropped = ref(0)
  /** It waits for pictures that are made for the first time. */
  const waiting = ref(false)
  let generation = options.generation.value
  let started = 0
  let from = 0
  let due = -1
  let request = 0
  let shownAt: number[] = []
  let waitedAt = -Infinity

  const at = (step: number) => {
    const { first, count } = options.range.value
    return first + ((((from - first + step) % count) + count) % count)
  }

  function refresh() {
    if (generation === options.generation.value) return
    generation = options.generation.value
    store.forget()
  }

  /** How far it gets of a step that is due: not past a frame that is missing, nor over one that has not been made. */
  function reached(step: number, now: number) {
    let to = due
    while (to < step && store.has(at(to + 1)) && (to === due || store.ready(at(to)))) to++
    if (to === step) return step
    started = now - ((to === due ? due + 1 : to) * 1000) / options.rate.value
    waitedAt = now
    return to
  }

  function fill(step: number) {
    const reach = Math.min(AHEAD, options.range.value.count)
    const lead = options.patient?.value ? 0 : Math.ceil((store.wait() / 1000) * options.rate.value)
    store.fill(
      Array.from({ length: reach }, (_, ahead) => at(step + lead + ahead)),
      stop,
    )
  }

  function tick(now: number) {
    if (!playing.value) return
    refresh()
    const wanted = Math.floor(((now - started) / 1000) * options.rate.value)
    const step = options.patient?.value ? reached(wanted, now) : wanted
    waiting.value = now - waitedAt < RATE_OVER
    if (step !== due) {
      if (due >= 0) dropped.value += Math.max(0, step - due - 1)
      due = step
      const bitmap = store.has(at(step)) ? store.show(at(step)) : null
      if (bitmap) {
        picture.value = bitmap
        options.go(at(step))
        shownAt.push(now)
      } else dropped.value++
    }
    shownAt = shownAt.filter((time) => now - time < RATE_OVER)
    shownRate.value = shownAt.length
    fill(Math.max(step, 0))
    request = requestAnimationFrame(tick)
  }

  function play(frame: number) {
    refresh()
    from = frame
    due = -1
    dropped.value = 0
    waiting.value = false
    waitedAt = -Infinity
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

  return { playing, picture, shownRate, dropped, waiting, play, stop }
}
