import { useCut } from '../cut/useCut'
import { followDrag } from '../grade/useDrag'
import { handMoving } from '../grade/useStepEditor'
import { placeOf } from './spans'
import { usePicks } from './usePicks'
import { useSpans } from './useSpans'
import { useStrip } from './useStrip'
import { useTimeView } from './useTimeView'

const NEAR = 6 // px within which a place catches

/** The nearest of some places within reach, or the frame itself. */
export function caught(frame: number, places: number[], reach: number): number {
  const near = places.filter((place) => Math.abs(place - frame) <= reach).sort((a, b) => Math.abs(a - frame) - Math.abs(b - frame))
  return near[0] ?? Math.round(frame)
}

/** Drags on the strip: in frames, caught by the playhead, marks, the shot's ends, keys and spans that stand. */
export function useStripDrag(marked: () => { first: number; count: number } | null) {
  const cut = useCut()
  const strip = useStrip()
  const spans = useSpans()
  const picks = usePicks()
  const view = useTimeView()

  /** Frames of the step's owner that catch, without those that are dragged. */
  function places(without: number[]): number[] {
    const start = strip.open?.start ?? 0
    const shot = cut.shot
    const range = marked()
    const ends = shot ? [shot.record_in, shot.record_in + shot.length - 1] : []
    const others = [
      ...strip.rows.flatMap((row) => row.picks.filter((pick) => !picks.has(pick)).map((pick) => pick.frame)),
      ...spans.all.filter((span) => span.id !== picks.span).flatMap((span) => [placeOf(span, 'start'), placeOf(span, 'finish')]),
    ]
    return [...[cut.frame, ...ends, ...(range ? [range.first, range.first + range.count - 1] : [])].map((frame) => frame - start), ...others].filter((frame) => !without.includes(frame) || frame === cut.frame - start)
  }

  /**
   * @param from frame that what is dragged is at
   * @param move called with how far it is from there, and the gesture; what it changes is one undo
   */
  function drag(event: PointerEvent, from: number, move: (by: number, gesture: string) => void, done: { end?: (by: number) => void; click?: (event: PointerEvent) => void } = {}) {
    const lane = (event.currentTarget as HTMLElement).closest('[data-lane]')
    const perFrame = (lane?.getBoundingClientRect().width ?? 1) / view.view.count
    const gesture = crypto.randomUUID()
    let [at, last] = [0, 0]
    const catching = places([from])
    followDrag(event, {
      start: () => (handMoving.value = true),
      move(dx) {
        at += dx / perFrame
        const by = caught(from + at, catching, NEAR / perFrame) - from
        if (by !== last) move((last = by), gesture)
      },
      end() {
        handMoving.value = false
        done.end?.(last)
      },
      click: done.click,
    })
  }

  return { drag }
}
