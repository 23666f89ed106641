import type { CurvePoint, CurveSpec } from '@/api/declared'
import { describe, expect, it } from 'vitest'
import { added, moved, removed } from './curvePoints'

const tone: CurveSpec = { name: 'luma', label: 'luma', across: 'tone', rest: 'diagonal', min: -0.5, max: 1.5, first: -0.5, last: 1.5, about: '' }
const hue: CurveSpec = { ...tone, name: 'hue', across: 'hue', rest: 'flat', first: 0, last: 1, min: -1, max: 2 }

describe('points of a curve', () => {
  it('bring the ends of a tone curve along with the first one', () => {
    expect(added([], [0.4, 0.5], tone)).toEqual({
      points: [
        [0, 0],
        [0.4, 0.5],
        [1, 1],
      ],
      index: 1,
    })
    expect(added([], [0.4, 0.5], hue)).toEqual({ points: [[0.4, 0.5]], index: 0 })
  })

  it('stay between their neighbours and within the range', () => {
    const points: CurvePoint[] = [
      [0, 0],
      [0.4, 0.5],
      [1, 1],
    ]
    expect(moved(points, 1, [7, 9], tone)[1]).toEqual([0.996, 1.5])
    expect(moved(points, 0, [-3, 0.1], tone)[0]).toEqual([-0.5, 0.1])
    expect(points[1]).toEqual([0.4, 0.5])
  })

  it('do not crowd', () => {
    expect(
      added(
        [
          [0, 0],
          [0.4, 0.5],
          [1, 1],
        ],
        [0.401, 0.2],
        tone,
      ),
    ).toBeNull()
  })

  it('go, and with the last bend the curve is neutral again', () => {
    expect(
      removed(
        [
          [0, 0],
          [0.4, 0.5],
          [1, 1],
        ],
        1,
        tone,
      ),
    ).toEqual([])
    expect(
      removed(
        [
          [0, 0.1],
          [0.4, 0.5],
          [1, 1],
        ],
        1,
        tone,
      ),
    ).toEqual([
      [0, 0.1],
      [1, 1],
    ])
  })
})
