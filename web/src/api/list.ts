import type { Recipe } from './recipe'

/** A clip that an event of a list may be of. */
export interface Candidate {
  id: number
  path: string
}

/** An event of a cut list, and what it is linked to. */
export interface ListEvent {
  number: number
  reel: string
  clip: string | null
  transition: { kind: 'cut' | 'dissolve' | 'wipe' | 'key'; length: number; wipe: number | null }
  source_in: string
  source_out: string
  record_in: string
  record_out: string
  speed: number
  length: number
  /** Null of black. */
  link: { clip: number | null; name: string | null; rule: string | null; reason: string | null; candidates: Candidate[] } | null
}

/** A list as it was read. */
export interface ReadList {
  title: string
  rate: string
  events: ListEvent[]
  /** Transitions that want more handle than there is. */
  short: number
  /** What was passed over, and what is odd. */
  notes: string[]
}

/** What a new version of a list changes of a cut. */
export interface Difference {
  kind: 'kept' | 'moved' | 'trimmed' | 'new' | 'gone'
  shot: number | null
  name: string | null
  event: number | null
  from: string | null
  graded: boolean
  moved: boolean
  head: number
  tail: number
  length: number | null
  was: number | null
  record: string | null
  was_at: string | null
  words: string
}

/** A list beside a cut. */
export interface ComparedList extends ReadList {
  edition: number
  differences: Difference[]
}

/** A shot that has left the cut, with what was made of it. */
export interface AtticShot {
  id: number
  name: string
  scene: string
  clip: string
  length: number
  source: string
  steps: number
  versions: number
  flag: string | null
  note: string
  recipe: Recipe
  revision: string
  encoding: string | null
  range: string | null
  place: string
}

/** Where the programme under a cut plainly shows other pictures. */
export interface Disagreement {
  shot: number
  name: string
  kind: 'picture' | 'cut' | 'flop' | 'slip' | 'speed' | 'length'
  record: number
  timecode: string
  count: number
  by: number
  words: string
}
