import type { HandleSpec } from '@/api/types'
import { describe, expect, it } from 'vitest'
import { STAVES, curvePath, handlePlace, tracePath, travel } from './staves'

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
