import type { Region } from '@/api/readings'
import { computed, ref, type Ref } from 'vue'

const SLACK = 4 // px before it is a region

/** Place of the picture in its layer, pixels. */
export interface Place {
  x: number
  y: number
  width: number
  height: number
}

const held = (share: number) => Math.min(1, Math.max(0, share))

/** A part of the picture that is dragged in a layer over it. */
export function useRegionDrag(place: Ref<Place>, dragged: (region: Region | null) => void) {
  const from = ref<{ x: number; y: number } | null>(null)

  const at = (event: PointerEvent) => {
    const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
    return { x: event.clientX - bounds.left, y: event.clientY - bounds.top }
  }
  const between = (a: number, b: number) => [a, b].map(held).sort((one, other) => one - other) as [number, number]

  return {
    press(event: PointerEvent) {
      event.stopPropagation()
      ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
      from.value = at(event)
    },
    /** @returns whether it has become a drag */
    move(event: PointerEvent): boolean {
      const to = at(event)
      if (!from.value || Math.hypot(to.x - from.value.x, to.y - from.value.y) < SLACK) return false
      const { x, y, width, height } = place.value
      const [left, right] = between((from.value.x - x) / width, (to.x - x) / width)
      const [top, bottom] = between((from.value.y - y) / height, (to.y - y) / height)
      dragged(right > left && bottom > top ? [left, top, right - left, bottom - top] : null)
      return true
    },
    /** @returns whether a press was under way */
    release(): boolean {
      const pressed = from.value !== null
      from.value = null
      return pressed
    },
  }
}

/** Where a region lies in the layer, as a style. */
export const regionStyle = (region: Ref<Region | null>, place: Ref<Place>) =>
  computed(() => {
    if (!region.value) return undefined
    const [left, top, width, height] = region.value
    const { x, y, width: w, height: h } = place.value
    return { left: `${x + left * w}px`, top: `${y + top * h}px`, width: `${Math.max(6, width * w)}px`, height: `${Math.max(6, height * h)}px` }
  })
