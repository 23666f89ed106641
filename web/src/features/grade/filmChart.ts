/** Geometry of a tone reproduction diagram: four quarters about a middle, each with an axis of its own. */
export const [CX, CY, WIDTH, HEIGHT] = [158, 142, 152, 134] // the middle, and the size of a quarter
export const [DENSEST, DARKEST, REACH] = [2.8, 4.4, 4.8] // of the negative, of the print, log exposures that are shown
export const STOP = Math.log10(2)
export const POINT = 0.025 // log exposure

export type Place = [number, number]
export type Shapes = Record<string, number[]>

const held = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high)
export const across = (exposure: number) => CX + ((held(exposure, -REACH / 2, REACH / 2) + REACH / 2) / REACH) * WIDTH
export const up = (density: number) => CY - (held(density, 0, DENSEST) / DENSEST) * HEIGHT
export const left = (density: number) => CX - (held(density, 0, DARKEST) / DARKEST) * WIDTH
export const down = (light: number) => CY + HEIGHT - ((held(light, -REACH / 2, REACH / 2) + REACH / 2) / REACH) * HEIGHT

/** The value of a curve at a log exposure, straight between those that are told. */
export function at(shapes: Shapes, name: string, exposure: number): number {
  const [xs, ys] = [shapes.exposure ?? [], shapes[name] ?? []]
  const step = ((xs.at(-1) ?? 1) - (xs[0] ?? 0)) / Math.max(1, xs.length - 1)
  const place = held((exposure - (xs[0] ?? 0)) / step, 0, xs.length - 1)
  const low = Math.min(Math.floor(place), xs.length - 2)
  return (ys[low] ?? 0) + ((ys[low + 1] ?? 0) - (ys[low] ?? 0)) * (place - low)
}

/** The way of a grey round the four quarters: from its exposure over the negative, the print and the light back to it. */
export function wayOf(shapes: Shapes, exposure: number): { path: string; dots: Place[] } {
  const [x, a, q, r] = [across(exposure), up(at(shapes, 'negative_green', exposure)), left(at(shapes, 'print_green', exposure)), down(at(shapes, 'light_green', exposure))]
  return {
    path: `M${x} ${a}L${q} ${a}L${q} ${r}L${x} ${r}Z`,
    dots: [
      [x, a],
      [q, a],
      [x, r],
    ],
  }
}

/** Where a channel's print curve passes a density of the print, as a place in its quarter; null where it never does. */
export function onPrint(shapes: Shapes, channel: string, density: number): Place | null {
  const [print, dyes] = [shapes[`print_${channel}`] ?? [], shapes[`dyes_${channel}`] ?? []]
  const index = print.findIndex((value, place) => place > 0 && (value - density) * ((print[place - 1] ?? 0) - density) <= 0)
  return index < 0 ? null : [left(density), up(dyes[index] ?? 0)]
}
