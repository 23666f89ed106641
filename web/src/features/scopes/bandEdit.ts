import type { BandSet, Quantity } from '@/api/catalogue'

type Band = BandSet['bands'][number]
const COLOURS = ['#3d5a70', '#4f7572', '#93994f', '#b59a4a', '#a95a45', '#7d2f4a', '#d9cfc0', '#5f6f9a']
const NARROWEST = 0.004 // share of the scale

/** The range a set is edited over: the quantity's, or shares of the picture's most. */
export const rangeOf = (set: BandSet, quantity: Quantity): [number, number, boolean] => (set.scale === 'relative' ? [0, 1.1, false] : [quantity.min, quantity.max, quantity.log])

/** The place of a value on the scale, 0..1. */
export function placeOf(value: number, [min, max, log]: [number, number, boolean]): number {
  const share = log ? Math.log(Math.max(value, min) / min) / Math.log(max / min) : (value - min) / (max - min)
  return Math.min(1, Math.max(0, share))
}

export const valueAt = (place: number, [min, max, log]: [number, number, boolean]) => (log ? min * (max / min) ** place : min + place * (max - min))

const rounded = (value: number) => Number(value.toPrecision(4))

/** With a limit moved; a neighbour that touches it goes along, one that does not is not passed. */
export function limitMoved(bands: Band[], index: number, end: 'from' | 'to', place: number, range: [number, number, boolean]): Band[] {
  const band = bands[index]
  if (!band) return bands
  const neighbour = end === 'from' ? index - 1 : index + 1
  const other = bands[neighbour]
  const touching = other && Math.abs((end === 'from' ? other.to : other.from) - band[end]) < 1e-9
  const at = (value: number) => placeOf(value, range)
  const low = end === 'from' ? (other ? at(touching ? other.from : other.to) + (touching ? NARROWEST : 0) : 0) : at(band.from) + NARROWEST
  const high = end === 'to' ? (other ? at(touching ? other.to : other.from) - (touching ? NARROWEST : 0) : 1) : at(band.to) - NARROWEST
  const value = rounded(valueAt(Math.min(high, Math.max(low, place)), range))
  return bands.map((one, at_) => (at_ === index ? { ...one, [end]: value } : touching && at_ === neighbour ? { ...one, [end === 'from' ? 'to' : 'from']: value } : one))
}

/** With a band parted in its middle. */
export function parted(bands: Band[], index: number, range: [number, number, boolean]): Band[] {
  const band = bands[index]
  if (!band) return bands
  const middle = rounded(valueAt((placeOf(band.from, range) + placeOf(band.to, range)) / 2, range))
  const used = (one: string) => bands.some((other) => other.colour === one)
  const beside = (one: string) => [band, bands[index + 1]].some((other) => other?.colour === one)
  const colour = COLOURS.find((one) => !used(one)) ?? COLOURS.find((one) => !beside(one)) ?? '#808080'
  return [...bands.slice(0, index), { ...band, to: middle }, { from: middle, to: band.to, colour }, ...bands.slice(index + 1)]
}

/** With a limit where somebody typed it; what is no number leaves it. */
export function limitTyped(bands: Band[], index: number, end: 'from' | 'to', text: string, range: [number, number, boolean]): Band[] {
  const value = Number(text.replace(',', '.').replace('−', '-'))
  return text.trim() === '' || !Number.isFinite(value) ? bands : limitMoved(bands, index, end, placeOf(value, range), range)
}

/** Without a band; one is always left. */
export const without = (bands: Band[], index: number) => (bands.length > 1 ? bands.filter((_, at) => at !== index) : bands)

/** Equal bands over the whole range. */
export function equal(count: number, range: [number, number, boolean]): Band[] {
  return Array.from({ length: count }, (_, index) => ({
    from: rounded(valueAt(index / count, range)),
    to: rounded(valueAt((index + 1) / count, range)),
    // the last of them repeat, never beside each other
    colour: COLOURS[index % COLOURS.length] ?? '#808080',
  }))
}

/** A value with its unit. */
export function bandWords(value: number, set: BandSet, quantity: Quantity): string {
  if (set.scale === 'relative') return `${(value * 100).toFixed(0)} % of the most`
  if (quantity.unit === '%') return `${(value * 100).toFixed(1)} %`
  if (quantity.unit === 'degrees') return `${value.toFixed(0)}°`
  if (quantity.log) return `${Number(value.toPrecision(3))} ${quantity.unit}`
  return `${value > 0 ? '+' : ''}${value.toFixed(1)} ${quantity.unit}`
}
