import { describe, expect, it } from 'vitest'
import { ref } from 'vue'
import { useZoom } from './useZoom'

const stage = ref({ width: 800, height: 450 })
const raster = ref({ width: 1600, height: 900 })

describe('useZoom', () => {
  it('fits the picture at first', () => {
    const { place, scale } = useZoom(stage, raster)
    expect(scale.value).toBe(0.5)
    expect(place.value).toEqual({ x: 0, y: 0, width: 800, height: 450 })
  })

  it('keeps what is under the pointer there', () => {
    const { place, scale, wheel } = useZoom(stage, raster)
    const pointer = { x: 200, y: 300 }
    const before = { x: (pointer.x - place.value.x) / scale.value, y: (pointer.y - place.value.y) / scale.value }
    wheel(-700, pointer)
    expect(scale.value).toBeGreaterThan(0.9)
    expect((pointer.x - place.value.x) / scale.value).toBeCloseTo(before.x)
    expect((pointer.y - place.value.y) / scale.value).toBeCloseTo(before.y)
  })

  it('moves with the hand when zoomed, and not when fitted', () => {
    const { place, pan, actual, fit } = useZoom(stage, raster)
    actual()
    const before = place.value.x
    pan(10, 0)
    expect(place.value.x).toBeCloseTo(before + 10)
    fit()
    pan(10, 0)
    expect(place.value.x).toBe(0)
  })
})
