/** Light that is marked, cd/m²; 100 and 203 are diffuse white of SDR and of HDR (ITU-R BT.2408). */
export const LIGHTS = [0.01, 0.1, 1, 10, 100, 203, 1000]
const LOWEST = 0.003
const HIGHEST = 4000

/** Place of a light on a scale of equal stops, 0..1. */
export function heightOf(light: number): number {
  return Math.min(1, Math.max(0, Math.log(Math.max(light, LOWEST) / LOWEST) / Math.log(HIGHEST / LOWEST)))
}

/** A line through points, going on level to the end. */
export function pathOf(points: [number, number][], width: number): string {
  const [first, ...rest] = points
  if (!first) return ''
  const last = points[points.length - 1] as [number, number]
  return [`M${first[0].toFixed(1)} ${first[1].toFixed(1)}`, ...rest.map(([x, y]) => `L${x.toFixed(1)} ${y.toFixed(1)}`), `L${width} ${last[1].toFixed(1)}`].join('')
}
