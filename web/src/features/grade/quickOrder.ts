import type { Extents } from '@/api/readings'

/** A line of the quick order: a parameter of Balance, what to aim at, and what is read meanwhile. */
export interface QuickLine {
  name: string
  aim: string
  /** Which end of each channel a row of numbers is judged by. */
  end?: 0 | 1 | 2
  read?: (extents: Extents) => string
}

const LOW = 0
const MIDDLE = 1
const HIGH = 2
const CHANNELS = ['luma', 'red', 'green', 'blue'] as const

/** A share of the scale, in per cent with one decimal. */
export const percent = (share: number) => (share * 100).toFixed(1)

const green = ({ green: [low, , high] }: Extents) => `green ${percent(low)} to ${percent(high)} %`

export const quickOrder: QuickLine[] = [
  { name: 'contrast', aim: 'Until green fills the scale; overshoot is allowed.', read: green },
  { name: 'pivot', aim: 'Brings an overshoot back.', read: green },
  { name: 'offset', aim: 'Until black is black on all channels.', end: LOW },
  { name: 'temperature', aim: 'Until red meets blue at the peak; the black stays where it was set.', read: ({ red, blue }) => `peak: red ${percent(red[HIGH])} blue ${percent(blue[HIGH])}` },
  { name: 'tint', aim: 'Until green meets red and blue at the peak.', read: ({ red, green: g, blue }) => `peak: green ${percent(g[HIGH])}, others ${percent((red[HIGH] + blue[HIGH]) / 2)}` },
  { name: 'gain', aim: 'Restores white.', end: HIGH },
  { name: 'gamma', aim: 'Only for a cast that is left in the middle.', end: MIDDLE },
  { name: 'saturation', aim: 'Last.' },
]

/** What a line, or a number of its row, is judged by; empty without a picture. */
export function readingOf(line: QuickLine, extents: Extents | null, place: number | null): string {
  if (!extents) return ''
  if (line.read) return line.read(extents)
  const channel = place === null ? undefined : CHANNELS[place]
  return line.end !== undefined && channel ? percent(extents[channel][line.end]) : ''
}
