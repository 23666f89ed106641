import type { ParameterValue } from './declared'

export interface StepDocument {
  id: string
  kind: string
  name: string
  enabled: boolean
  strength: number
  /** Neighbours with the same braid take the same input, and their changes are added. */
  braid?: string
  /** Id of the recipe's bundle that it is kept in. */
  bundle?: string
  parameters: Record<string, ParameterValue>
  /** Of the parameters that move, by name. */
  keys?: Courses
  /** Ids of the recipe's spans that it takes part in; without any it acts all through the shot. */
  spans?: string[]
  /** What of the picture it acts on; all without one. */
  matte?: MatteDocument
}

export interface MatteDocument {
  contributors: ContributorDocument[]
  /** What is done to it once they are combined, in order. */
  refinements?: RefinementDocument[]
  strength: number
}

export interface RefinementDocument {
  id: string
  kind: string
  enabled: boolean
  parameters: Record<string, ParameterValue>
}

export type MatteMode = 'add' | 'subtract' | 'intersect' | 'out'

export interface ContributorDocument {
  id: string
  kind: string
  /** A name of its own. */
  name?: string
  mode: MatteMode
  /** Standard deviation of what softens it, as a share of the picture's height. */
  softness: number
  invert: boolean
  strength: number
  parameters: Record<string, ParameterValue>
  keys?: Courses
  /** The path that carries a shape, and the frame it is followed from. */
  path?: { id: number; from: number }
}

export type Ease = 'hold' | 'straight' | 'smooth'

/** A value that a parameter has at a frame, counted from the first one of what owns the step, and its way on from there. */
export interface CourseKey {
  frame: number
  value: ParameterValue
  ease?: Ease
  /** Slopes of a smooth way before and after it, as multiples of the straight way's; left out: found. */
  in?: number
  out?: number
}

/** Keys by the name of a parameter, in order. */
export type Courses = Record<string, CourseKey[]>

/** A stretch of the shot, or of a wash, that steps are bound to. Fades: frames before and after either mark. */
export interface SpanDocument {
  id: string
  name: string
  start: number
  /** Its last frame. */
  finish: number
  fade_in: [number, number]
  fade_out: [number, number]
  curve: 'cosine' | 'straight'
}

/** Neighbouring steps kept together: switched, and given one strength. */
export interface BundleDocument {
  id: string
  name: string
  enabled: boolean
  strength: number
}

export interface RecipeDocument {
  steps: StepDocument[]
  spans?: SpanDocument[]
  bundles?: BundleDocument[]
}

export interface Recipe {
  wash: number | null
  family: number | null
  /** Of a family's: ground or finish. */
  place: string | null
  id: number
  /** Null of the steps of a wash or a family. */
  shot: number | null
  /** Id of the shot whose renditions it corrects. */
  corrects?: number | null
  name: string
  revision: number
  document: RecipeDocument
}

/** A kept recipe with the picture it made, for shots of any project. */
export interface Swatch {
  id: number
  name: string
  description: string
  /** Folders and their folders, parted by slashes. */
  folder: string
  /** Digit key it hangs on. */
  peg: number | null
  origin: { project?: string; cut?: string; shot?: string; version?: string; timecode?: string }
  document: RecipeDocument
}
