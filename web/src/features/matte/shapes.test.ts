import { describe, expect, it } from 'vitest'
import { handlesOf } from './handles'
import { along, bent, nearest, path, read, rounded, smooth, split, turned, written } from './outline'
import { after, inverse, mapped, NONE, placing, type Point } from './plane'

const near = (a: Point, b: Point) => expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(1e-9)
const square = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
].map((at) => read([...at, 0, 0, 0, 0, 0, 0]))
const circle = rounded([0.2, 0.1], [0.3, 0.3])

describe('maps of the plane', () => {
  it('turn and scale about a pivot and then move, as the server does', () => {
    near(mapped([1, 0], placing([0.5, 0.25], 90, [2, 1], [0, 0])), [0.5, 2.25])
    near(mapped([2, 0], placing([0, 0], 180, [1, 1], [1, 0])), [0, 0])
  })
  it('are gone back by their inverse, perspective too', () => {
    const map = after([1, 0, 0.1, 0, 1, 0, 0.2, -0.1, 1], placing([0.3, 0], 20, [1.5, 0.7], [0.1, 0.1]))
    near(mapped(mapped([0.4, -0.3], map), inverse(map)), [0.4, -0.3])
    expect(after(NONE, map)).toEqual(map)
  })
})

describe('a closed shape', () => {
  it('keeps its rows', () => {
    const row = [0.1, 0.2, -0.1, 0, 0.1, 0, 0.01, 0.02]
    expect(written(read(row))).toEqual(row)
  })
  it('takes a point on an edge without changing its line', () => {
    for (const share of [0.1, 0.5, 0.8]) {
      const more = split(circle, 1, share)
      expect(more.length).toBe(5)
      near(more[2]?.at ?? [9, 9], along(circle, 1, share))
      near(along(more, 1, 0.5), along(circle, 1, share / 2))
      near(along(more, 2, 0.5), along(circle, 1, share + (1 - share) / 2))
    }
    expect(split(square, 0, 0.5)[1]?.at).toEqual([0, -1])
  })
  it('finds the edge that is pressed', () => {
    expect(nearest(square, [1.05, 0.5]).edge).toBe(1)
    expect(nearest(square, [0.5, 1.1])).toMatchObject({ edge: 2, share: expect.closeTo(0.25, 1) as number })
  })
  it('turns a corner smooth, along its neighbours, and back', () => {
    const round = turned(square, 1)
    expect(smooth(round[1] ?? square[0]!)).toBe(true)
    expect(round[1]?.out[0]).toBeCloseTo(round[1]?.out[1] ?? 0)
    expect(turned(round, 1)).toEqual(square)
  })
  it('keeps handles in line unless one is pulled alone', () => {
    const both = bent(circle, 0, 'out', [0, 0.5], false)[0]
    expect(both?.into[0]).toBeCloseTo(0)
    expect(both?.into[1]).toBeCloseTo(circle[0]?.into[1] ?? 0)
    expect(bent(circle, 0, 'out', [0.2, 0.5], true)[0]?.into).toEqual(circle[0]?.into)
  })
  it('is drawn of lines and curves', () => {
    expect(path(square, (point) => point)).toBe('M-1.00 -1.00L1.00 -1.00L1.00 1.00L-1.00 1.00L-1.00 -1.00Z')
    expect(path(circle, (point) => point)).toMatch(/^M0\.50 0\.10C/)
  })
})

describe('what shapes are pulled by', () => {
  const values = { points: square.map(written), move: [0.5, 0], turn: 90, scale: [2, 2], pivot: [0, 0] }
  it('moves a point where it is pulled to, however the shape is placed', () => {
    const drawn = handlesOf('outline', values, (point) => point)
    const handle = drawn.handles.find((one) => one.id === 'point 1')
    near(handle?.at ?? [9, 9], [2.5, 2])
    const made = handle?.moved(values, [0.4, 0.2], false)
    near(mapped(read((made?.['points'] as number[][])[1] ?? []).at, placing([0.5, 0], 90, [2, 2], [0, 0])), [2.9, 2.2])
  })
  it('keeps three points at least, and stays where it is when its pivot is moved', () => {
    const three = { points: square.slice(0, 3).map(written) }
    expect(
      handlesOf('outline', three, (point) => point)
        .handles.find((one) => one.id === 'point 0')
        ?.removed?.(three),
    ).toBeNull()
    const made = {
      ...values,
      ...handlesOf('outline', values, (point) => point)
        .handles.find((one) => one.id === 'pivot')
        ?.moved(values, [0.3, -0.2], false),
    }
    const at = (of: typeof values) => mapped([1, -1], placing(of.move as Point, of.turn, of.scale as Point, of.pivot as Point))
    near(at(made as typeof values), at(values))
  })
  it('pulls an ellipse by its axes and a gradient by its ends', () => {
    const ellipse = { centre: [0, 0], radii: [0.3, 0.2], turn: 90, softness: 0 }
    const made = handlesOf('ellipse', ellipse, (point) => point)
      .handles.find((one) => one.words === 'width')
      ?.moved(ellipse, [0, 0.1], false)
    expect((made?.['radii'] as number[])[0]).toBeCloseTo(0.4)
    const line = { full: [0, 0], none: [0.5, 0] }
    expect(handlesOf('gradient', line, (point) => point).handles[1]?.moved(line, [0, 0.1], false)).toEqual({ none: [0.5, 0.1] })
  })
})
