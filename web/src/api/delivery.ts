import type { Named } from './named'

/** What leaves: formats, sheets of outputs, orders. */

/** A file format of outputs. */
export interface OutputFormat {
  id: string
  label: string
  about: string
  extension: string
  sequence: boolean
  bits: number | null
  /** Ranges of its codes, the first is taken by default. */
  ranges: string[]
  /** Further choices, the first value is taken by default. */
  options: Record<string, string[]>
}

/** A text drawn into pictures; places are shares of the picture. */
export interface BurnItem {
  text: string
  x: number
  y: number
  size: number
  opacity?: number
  back?: number
}

/** What one output is to be; what is left out is the project's. */
export interface OutputSheet {
  format: string
  /** Id of a target of the project, or of an encoding of scene light. */
  target?: string
  view?: Record<string, string>
  name?: string
  options?: Record<string, string>
  width?: number
  height?: number
  fit?: string
  mask?: number | null
  range?: string
  burns?: BurnItem[]
  safe?: number[]
  graded?: boolean
  /** False: steps that take noise away are left out. */
  noise?: boolean
  look?: number
  dither?: boolean
  /** How files of a sequence are numbered; without it as the source where that is a run. */
  numbers?: 'source' | 'timecode'
}

export interface OrderPreset extends Named {
  about: string
  /** Id of one's own. */
  own?: number
  per_shot?: boolean
  handles?: number
  template?: string
  outputs: OutputSheet[]
}

export interface Output {
  id: number
  order: number
  shot: number | null
  kind: string
  label: string
  /** One line: what it is converted to. */
  statement: string
  path: string
  status: 'waiting' | 'running' | 'done' | 'cancelled' | 'failed'
  /** While it runs: frames are rendered, or the whole is encoded and checked. */
  stage: 'frames' | 'ending' | null
  frames: number
  done: number
  message: string | null
  cancelling: boolean
  seconds?: number | null
  /** When it began to be written. */
  started: string | null
  /** Whether the check found nothing wrong, and how many things to look at. */
  passed: boolean | null
  notices: number | null
}

export interface Order {
  cut: number
  template: string
  /** Frames that cannot be decoded are left out. */
  skip: boolean
  /** Transitions at the begin of shots are in their files. */
  baked: boolean
  id: number
  priority: number
  paused: boolean
  handles: number
  created: string
  outputs: Output[]
}
