import type { HandleSpec } from '@/api/declared'
import { describe, expect, it } from 'vitest'
import { STAVES, curvePath, handlePlace, tracePath, travel, pivotTone, tonePivot } from './staves'

const low: HandleSpec = { stave: 'warmth', zone: 'low', parameter: 'lift', direction: [0, 0.5, 0, -0.5], at: 0.1 }

describe('the staves', () => {
  it('put a handle above its line when it adds', () => {
    const rest = handlePlace(low, 0)
    expect(rest.y).toBe(STAVES.warmth.centre)
    expect(handlePlace(low, 0.05).y).toBeCloseTo(rest.y - 0.05 * travel(low))
  })

  it('keep a handle in sight however far it stands off', () => {
    expect(handlePlace(low, -9).y).toBe(STAVES.warmth.centre + STAVES.warmth.reach + 2)
  })

  it('break a trace where a tone does not occur', () => {
    expect(tracePath([0, null, 0, 0], 100, 20).match(/M/g)).toHaveLength(2)
  })

  it('draw an untouched curve from corner to corner', () => {
    expect(curvePath([0, 1])).toBe(`M${STAVES.black}.0 ${STAVES.light.bottom}.0L${STAVES.white}.0 ${STAVES.light.top}.0`)
  })
})

describe('the pivot', () => {
  const pivots: [number, number][] = [
    [-2, 0.2],
    [0, 0.5],
    [2, 0.8],
  ]
  it('stands where the working space says, and comes back from there', () => {
    expect(pivotTone(0, pivots)).toBe(0.5)
    expect(pivotTone(1, pivots)).toBeCloseTo(0.65)
    for (const stops of [-2, -0.7, 0, 1.3, 2]) expect(tonePivot(pivotTone(stops, pivots), pivots)).toBeCloseTo(stops)
  })
  it('is held to the marks there are', () => {
    expect(pivotTone(9, pivots)).toBe(0.8)
    expect(tonePivot(-1, pivots)).toBe(-2)
  })
})
