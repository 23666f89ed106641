import type { Clip } from './media'
import type { Project } from './project'
import type { Recipe } from './recipe'

export interface Shot {
  id: number
  name: string
  scene: string
  position: number
  source_in: number
  record_in: number
  length: number
  /** Frames of the transition at its begin; of a wipe its pattern's number. */
  dissolve: number
  wipe: number | null
  /** How its transition goes. */
  manner: Manner
  /** Its transition is between two grades of the same frames. */
  crossover: boolean
  /** Frames of the clip for one of record, below 0 backwards; and how far its first frame is beyond source_in. */
  speed: number
  phase: number
  /** What its first frame is for keys and all that is bound to frames. */
  clock: number
  /** The rule by which a list linked it to its clip, "by hand", or null. */
  link: string | null
  /** Frames that its clip has before and after, at its speed. */
  head: number
  tail: number
  family: number | null
  /** A colour somebody marked it with, and why. */
  flag: string | null
  note: string
  /** Frames from its first one: the one chosen to stand for it, and where its grade was changed last. */
  poster: number | null
  worked: number | null
  clip: Clip
  /** The version in use. */
  recipe: Recipe
  versions: { id: number; name: string; revision: number }[]
}

/** How a transition goes; what is left out is as usual. */
export interface Manner {
  curve?: 'straight' | 'eased' | 'measured'
  /** Of the new shot in each frame, measured. */
  shares?: number[]
  /** Of a wipe's edge, as a share of the way. */
  softness?: number
  /** A wipe runs the other way. */
  backward?: boolean
  /** The shot before stands still where its clip has no more frames. */
  hold?: boolean
}

/** Steps over a stretch of a cut, after the shots' own. */
export interface Wash {
  id: number
  name: string
  /** Ids of its first and last shot; null: the cut's own. */
  from: number | null
  to: number | null
  enabled: boolean
  recipe: Recipe
  /** Its state as it is seen here, told again with a change of it. */
  seen?: Record<string, unknown>
}

/** Shots that share steps: ground runs before each member's own, finish after. */
export interface Family {
  id: number
  name: string
  /** The shot the others are made like. */
  hero: number | null
  shots: number[]
  ground: Recipe
  finish: Recipe
}

/** A finished picture to compare with, brought in or frozen. */
export interface Still {
  id: number
  name: string
  encoding: string
  origin: { file?: string; cut?: string; shot?: string; timecode?: string }
}

export interface Cut {
  id: number
  name: string
  /** Grows with every change of where shots stand. */
  edition: number
  /** A movie of the edit that lies under the cut; offset: frames of it before the cut's first. */
  reference: { clip: number; name: string; offset: number; frames: number } | null
  project: Project
  /** Timecode of its first frame: as text, in frames since midnight, and whether frames are dropped. */
  start: string
  start_frames: number
  drop: boolean
  length: number
  shots: Shot[]
  washes: Wash[]
  families: Family[]
}

/** Where each shot of a cut stands after a change of it. */
export interface Placed {
  edition: number
  length: number
  places: ({ id: number; clip: number } & Pick<Shot, 'source_in' | 'phase' | 'length' | 'speed' | 'dissolve' | 'wipe' | 'manner' | 'crossover' | 'clock' | 'link' | 'head' | 'tail'>)[]
  /** Shots that are new in the cut. */
  fresh: Shot[]
  washes: Pick<Wash, 'id' | 'from' | 'to'>[]
  project: Project
  /** What else has become of it: transitions that have lost their handles. */
  notes: string[]
}
