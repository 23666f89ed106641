import { describe, expect, it } from 'vitest'
import { ref } from 'vue'
import type { Region } from '@/api/readings'
import { regionStyle, useRegionDrag } from './useRegionDrag'

const place = ref({ x: 10, y: 0, width: 200, height: 100 })
const event = (x: number, y: number) =>
  ({ clientX: x + 5, clientY: y + 5, pointerId: 1, stopPropagation: () => {}, currentTarget: { setPointerCapture: () => {}, getBoundingClientRect: () => ({ left: 5, top: 5 }) } }) as unknown as PointerEvent

function dragging() {
  const found: (Region | null)[] = []
  return { found, drag: useRegionDrag(place, (region) => found.push(region)) }
}

describe('dragging a region of the picture', () => {
  it('counts in shares of the picture, from any corner, held to its edges', () => {
    const { found, drag } = dragging()
    drag.press(event(110, 50))
    expect(drag.move(event(60, 25))).toBe(true)
    expect(found.at(-1)).toEqual([0.25, 0.25, 0.25, 0.25])
    drag.move(event(400, 500))
    expect(found.at(-1)).toEqual([0.5, 0.5, 0.5, 0.5])
    expect([drag.release(), drag.release()]).toEqual([true, false])
  })

  it('is no region before it has gone some way, nor outside the picture', () => {
    const { found, drag } = dragging()
    expect(drag.move(event(0, 0))).toBe(false)
    drag.press(event(50, 50))
    expect(drag.move(event(52, 51))).toBe(false)
    drag.press(event(0, 20))
    drag.move(event(8, 60)) // left of the picture
    expect(found).toEqual([null])
  })

  it('lies where it was dragged', () => {
    expect(regionStyle(ref([0.5, 0, 0.25, 1] as Region), place).value).toEqual({ left: '110px', top: '0px', width: '50px', height: '100px' })
    expect(regionStyle(ref(null), place).value).toBeUndefined()
  })
})
