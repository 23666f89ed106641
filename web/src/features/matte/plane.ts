/** Places in a picture, in its heights from its middle, right and down positive. */
export type Point = [number, number]

/** A map of the plane that keeps lines straight: the rows of a 3x3 matrix. */
export type PlaneMap = number[]

export const NONE: PlaneMap = [1, 0, 0, 0, 1, 0, 0, 0, 1]

/** The map that does b and then a. */
export function after(a: PlaneMap, b: PlaneMap): PlaneMap {
  return a.map((_, at) => [0, 1, 2].reduce((sum, k) => sum + (a[Math.floor(at / 3) * 3 + k] ?? 0) * (b[k * 3 + (at % 3)] ?? 0), 0))
}

export function inverse(map: PlaneMap): PlaneMap {
  const [a, b, c, d, e, f, g, h, i] = map as [number, number, number, number, number, number, number, number, number]
  const made = [e * i - f * h, c * h - b * i, b * f - c * e, f * g - d * i, a * i - c * g, c * d - a * f, d * h - e * g, b * g - a * h, a * e - b * d]
  return made.map((one) => one / (made[8] ?? 1))
}

export function mapped([x, y]: Point, map: PlaneMap): Point {
  const [a, b, c, d, e, f, g, h, i] = map as [number, number, number, number, number, number, number, number, number]
  const weight = g * x + h * y + i
  return [(a * x + b * y + c) / weight, (d * x + e * y + f) / weight]
}

/** A handle as it is off its point, carried with it. */
export function mappedOff(point: Point, off: Point, map: PlaneMap): Point {
  const [from, to] = [mapped(point, map), mapped([point[0] + off[0], point[1] + off[1]], map)]
  return [to[0] - from[0], to[1] - from[1]]
}

/** Moved, turned and scaled about a pivot. */
export function placing(move: Point, turn: number, scale: Point, pivot: Point): PlaneMap {
  const [cosine, sine] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  const [a, b, d, e] = [cosine * scale[0], -sine * scale[1], sine * scale[0], cosine * scale[1]]
  return [a, b, pivot[0] + move[0] - a * pivot[0] - b * pivot[1], d, e, pivot[1] + move[1] - d * pivot[0] - e * pivot[1], 0, 0, 1]
}
