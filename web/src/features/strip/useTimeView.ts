import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'

const LEAST = 6 // frames that are seen
const STEP = 1.5 // of one zoom by a button

/** The frames that cut bar and strip show: the whole cut, the open shot, or a stretch somebody has zoomed to. */
export const useTimeView = defineStore('time view', () => {
  const cut = useCut()
  const mode = ref<'cut' | 'shot' | 'free'>('cut')
  const free = ref({ from: 0, count: 1 })

  const view = computed(() => {
    const shot = cut.shot
    if (mode.value === 'free') return free.value
    return mode.value === 'shot' && shot ? { from: shot.record_in, count: shot.length } : { from: 0, count: Math.max(1, cut.length) }
  })

  function look(from: number, count: number) {
    const wanted = Math.min(Math.max(LEAST, count), Math.max(LEAST, cut.length))
    if (wanted >= cut.length) return void (mode.value = 'cut')
    free.value = { from: Math.min(Math.max(0, from), cut.length - wanted), count: wanted }
    mode.value = 'free'
  }
  /** By a factor, below 1 closer; the place under the pointer stays where it is. */
  function zoom(factor: number, about = (cut.frame + 0.5 - view.value.from) / view.value.count) {
    const { from, count } = view.value
    const next = Math.max(LEAST, count * factor)
    look(from + about * (count - next), next)
  }

  /** What is zoomed to goes along with the playhead. */
  watch(
    () => cut.frame,
    (frame) => {
      const { from, count } = free.value
      if (mode.value !== 'free' || (frame >= from && frame < from + count)) return
      look(frame < from ? frame - count * 0.1 : frame - count * 0.9, count)
    },
  )
  watch(
    () => cut.cut?.id,
    () => (mode.value = mode.value === 'free' ? 'cut' : mode.value),
  )

  return {
    mode,
    view,
    zoom,
    closer: () => zoom(1 / STEP),
    wider: () => zoom(STEP),
    flip: () => (mode.value = mode.value === 'shot' ? 'cut' : 'shot'),
    /** Percent across. */
    at: (frame: number) => ((frame - view.value.from) / view.value.count) * 100,
    /** The frame at a share of the way across. */
    frameAt: (share: number) => view.value.from + share * view.value.count,
    /** A wheel turned over either: closer and wider about the pointer, with Shift along. */
    wheel(event: WheelEvent, over = event.currentTarget as HTMLElement) {
      const bounds = over.getBoundingClientRect()
      const along = event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)
      event.preventDefault()
      if (along) return look(view.value.from + ((event.deltaX || event.deltaY) / bounds.width) * view.value.count, view.value.count)
      zoom(event.deltaY > 0 ? STEP : 1 / STEP, (event.clientX - bounds.left) / bounds.width)
    },
  }
})
