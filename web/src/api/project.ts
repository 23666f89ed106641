import type { Clip } from './media'
import type { Named } from './named'

/** The space grades are made in, and its tone axis. */
export interface WorkingSpace extends Named {
  about: string
  log: string
  scene: boolean
  black: number
  middle: number
  white: number
  /** Stops about mid grey and their place on the tone axis, 0 at black and 1 at white. */
  pivots: [number, number][]
}

/** What pictures are made for. */
export interface Target {
  id: string
  name: string
  encoding: string
  rendering: string | null
  limit: string | null
  lut: string | null
  expects: string | null
  /** How much of the LUT, the rest rendered; null: all of it. */
  strength: number | null
  /** Of a rendition of what the HDR target shows: light in cd/m2, and the gamut it is held to. */
  rendition: { peak: number; black: number; gamut: string } | null
  /** An HDR target, of which renditions can be made. */
  leads: boolean
  label: string
  /** What instruments count in: marks as place and words, light at equal distances of code. */
  scale?: {
    percent: [number, string][]
    code: [number, string][]
    legal: [number, string][]
    luminance: [number, string][]
    light: number[]
    absolute: boolean
    /** Where bars stand on the vectorscope. */
    targets: { name: string; level: number; cb: number; cr: number }[]
  }
}

export interface Project {
  /** Raster and rate are those of its first footage, and stay. */
  fixed: boolean
  id: number
  name: string
  rate: string
  width: number
  height: number
  working_space: string
  space: WorkingSpace
  targets: Target[]
  canvas: string
  /** Changes when every picture of the project does. */
  stamp: string
  /** Grows when something of it changes that is more than recipes. */
  turn: number
  /** Id of the change where its history stands. */
  head: number | null
  /** What undo would take back, in words. */
  undo: string | null
  redo: string | null
}

export interface ProjectSummary extends Project {
  cuts: { id: number; name: string; shots: { id: number; revision: string; encoding: string | null; range: string | null; place: string }[] }[]
}

export interface InputRule {
  field: string
  pattern: string
  encoding: string
}

export interface Finding {
  level: 'fault' | 'notice'
  about: string
  words: string
}

export interface ProjectSettings {
  name: string
  /** What is set, as it is seen here; told again with a change of it. */
  seen: Record<string, unknown>
  working_space: string
  targets: Target[]
  canvas: string
  output_range: 'full' | 'legal'
  compress_gamut: boolean
  /** Where transitions are mixed. */
  mixing: string
  input_rules: InputRule[]
  /** Shots whose grades change pictures. */
  graded: number
  findings: Finding[]
  clips: Clip[]
  spaces: WorkingSpace[]
  library: { folder: string; faults: string[] }
}
