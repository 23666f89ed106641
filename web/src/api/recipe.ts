import type { ParameterValue } from './declared'

export interface StepDocument {
  id: string
  kind: string
  name: string
  enabled: boolean
  strength: number
  /** Neighbours with the same braid take the same input, and their changes are added. */
  braid?: string
  parameters: Record<string, ParameterValue>
  /** Parameters at some frames, counted from the first one of what owns the step; between them they move. */
  keys?: StepKey[]
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
  keys?: StepKey[]
  /** The path that carries a shape, and the frame it is followed from. */
  path?: { id: number; from: number }
}

export interface StepKey {
  frame: number
  parameters: Record<string, ParameterValue>
}

export interface RecipeDocument {
  steps: StepDocument[]
}

export interface Recipe {
  wash: number | null
  family: number | null
  /** Of a family's: ground or finish. */
  place: string | null
  id: number
  /** Null of the steps of a wash or a family. */
  shot: number | null
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
