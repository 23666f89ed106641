import type { HandleSpec } from '@/api/declared'

/** Where things stand on the staves, in pixels of the drawing. */
export const STAVES = {
  width: 330,
  height: 282,
  /** The tone axis: black at the left, white at the right. */
  black: 12,
  white: 282,
  /** Column of the overall handles. */
  overall: 308,
  light: { top: 16, bottom: 88 },
  warmth: { centre: 150, reach: 26 },
  tint: { centre: 230, reach: 26 },
} as const

/** Pixels a handle stands off for a deviation of one. */
const TRAVEL: Record<string, number> = { lift: 260, gamma: 90, gain: 110, offset: 260, warmth: 200 }

/** What a trace of one share of the tone axis is drawn as, in pixels. */
export const TRACE_TRAVEL = 130

export const toneX = (tone: number) => STAVES.black + tone * (STAVES.white - STAVES.black)

export const lightY = (tone: number) => STAVES.light.bottom - tone * (STAVES.light.bottom - STAVES.light.top)

export function travel(handle: HandleSpec): number {
  return handle.stave === 'light' ? (TRAVEL[handle.parameter] ?? 100) / 2 : (TRAVEL[handle.parameter] ?? 100)
}

/** The place of a handle that stands off by so much. */
export function handlePlace(handle: HandleSpec, off: number): { x: number; y: number } {
  const x = handle.at === null ? STAVES.overall : toneX(handle.at)
  const rest = handle.stave === 'light' ? lightY(handle.at ?? 0.5) : STAVES[handle.stave].centre
  const [top, bottom] = handle.stave === 'light' ? [STAVES.light.top - 8, STAVES.light.bottom + 8] : [STAVES[handle.stave].centre - STAVES[handle.stave].reach - 2, STAVES[handle.stave].centre + STAVES[handle.stave].reach + 2]
  return { x, y: Math.min(bottom, Math.max(top, rest - off * travel(handle))) }
}

/** An SVG path through the points there are; gaps break it. */
export function tracePath(values: (number | null)[], centre: number, reach: number): string {
  let path = ''
  let drawing = false
  values.forEach((value, index) => {
    if (value === null) {
      drawing = false
      return
    }
    const off = Math.max(-reach, Math.min(reach, value * TRACE_TRAVEL))
    path += `${drawing ? 'L' : 'M'}${toneX((index + 0.5) / values.length).toFixed(1)} ${(centre - off).toFixed(1)}`
    drawing = true
  })
  return path
}

/** The histogram behind light, with square roots so that rare tones are seen. */
export function histogramPath(shares: number[]): string {
  const { top, bottom } = STAVES.light
  const points = shares.map((share, index) => `L${toneX((index + 0.5) / shares.length).toFixed(1)} ${(bottom - Math.sqrt(share) * (bottom - top) * 0.8).toFixed(1)}`)
  return `M${toneX(0)} ${bottom}${points.join('')}L${toneX(1)} ${bottom}Z`
}

/** The tone curve of the step, from equal distances of tone in; beyond the stave it is cut off by whoever draws it. */
export function curvePath(curve: number[]): string {
  return curve.map((out, index) => `${index === 0 ? 'M' : 'L'}${toneX(index / (curve.length - 1)).toFixed(1)} ${lightY(out).toFixed(1)}`).join('')
}

/** Straight between rising points, held to the first and the last. */
function between(x: number, points: [number, number][]): number {
  const index = points.findIndex(([at]) => at >= x)
  const after = points[index < 0 ? points.length - 1 : index]
  const before = points[index - 1]
  if (!after) return 0
  if (!before || index < 0) return after[1]
  return before[1] + ((x - before[0]) / (after[0] - before[0])) * (after[1] - before[1])
}

/** Where a pivot stands on the tone axis, by the working space's own marks. */
export const pivotTone = (stops: number, pivots: [number, number][]) => between(stops, pivots)

/** The pivot at a place on the tone axis, in stops about mid grey. */
export const tonePivot = (tone: number, pivots: [number, number][]) =>
  between(
    tone,
    pivots.map(([stops, at]) => [at, stops]),
  )
