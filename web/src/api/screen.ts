import type { Named } from './named'

export type ScreenKind = 'control' | 'reference'

/** How a screen is measured and corrected. */
export interface ScreenSettings {
  target: string
  white: 'd65' | 'seen'
  /** Codes of the white that is matched by eye. */
  seen: [number, number, number]
  size: number
  range: string
  drift: number
}

/** A screen that is graded on. */
export interface OwnScreen {
  id: number
  name: string
  kind: ScreenKind
  /** Addresses of the screen and of the probe before it. */
  screen: string
  probe: string
  settings: ScreenSettings
  /** After which it is to be verified again. */
  days: number
  canvas: string
  /** The session whose correction its pictures pass through. */
  loaded: number | null
  age: number | null
  overdue: boolean
  words: string
  sessions?: ScreenSession[]
}

export interface SideFigures {
  de2000_mean: number
  de2000_max: number
  dl_mean: number
  dl_max: number
  white_duv: number
  /** Share of the target's gamut; null where the probe could not read the primaries. */
  gamut: number | null
  peak: number
}

export interface SessionFigures {
  target: string
  reachable: boolean | null
  before: SideFigures | null
  after: SideFigures | null
}

/** A session that measures a screen, as it is told while it runs and afterwards. */
export interface ScreenSession {
  id: number
  screen: number
  verifies: number | null
  status: 'waiting' | 'running' | 'paused' | 'done' | 'cancelled' | 'failed'
  phase: string | null
  /** Codes of the patch, and what the screen shows for them. */
  showing: { codes: [number, number, number]; shown: [number, number, number] } | null
  count: number
  done: number
  /** Seconds. */
  left: number | null
  message: string | null
  began: string
  ended: string | null
  corrects: boolean
  latest: { codes: [number, number, number]; phase: string; light: [number, number, number] | null; uv: [number, number] | null } | null
  settings: ScreenSettings
  figures: SessionFigures | null
}

/** A patch as it was read, beside what was wanted. */
export interface JudgedPatch {
  codes: [number, number, number]
  kind: string
  light: [number, number, number]
  wanted: [number, number, number]
  de: number
  l: number
  wanted_l: number
  dl: number
  uv: [number, number]
  wanted_uv: [number, number]
}

export interface JudgedSide extends SideFigures {
  readings: number
  takes: number
  unread: { codes: [number, number, number]; why: string }[]
  patches: JudgedPatch[]
  reachable: boolean | null
}

export interface ScreenReport {
  settings: ScreenSettings
  white: [number, number]
  drift: number
  seconds: number
  notes: string[]
  settling?: { seconds: number; noise: number; floor: number; white: number[]; black: number[] | null }
  before?: JudgedSide
  after?: JudgedSide
  readings?: number
  reachable?: boolean
  reach?: { reachable: boolean; gamut: number; gamut_reachable: boolean; black: number; contrast: number | null; black_reachable: boolean; words: string[] }
  /** xy of red, green and blue, and the same in u'v'. */
  primaries?: [number, number][]
  corners?: [number, number][]
  peak?: number
  additivity?: { beyond_sum: number; coupled: boolean; readings: number }
}

export interface FullSession extends ScreenSession {
  report: ScreenReport
  points: { phase: string; codes: [number, number, number]; uv: [number, number] }[]
}

export interface ScreenTarget extends Named {
  canvas: string
  /** u'v' of red, green, blue and white. */
  corners: [number, number][]
}

export interface ScreenList {
  screens: OwnScreen[]
  targets: ScreenTarget[]
  /** u'v' of the spectrum. */
  spectrum: [number, number][]
  sizes: number[]
  ranges: string[]
}

/** What answers on this machine. */
export interface FoundDevice {
  address: string
  device: 'screen' | 'probe'
  name: string
}
