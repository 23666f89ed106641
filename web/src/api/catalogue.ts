import type { ContributorSpec, DeclaredSpec, StepSpec } from './declared'
import type { BurnItem, OutputFormat } from './delivery'
import type { Named } from './named'
import type { BundleDocument, ContributorDocument, StepDocument } from './recipe'

export interface Encoding {
  /** Values are proportional to light. */
  linear: boolean
  primaries: string | null
  id: string
  label: string
  kind: 'scene' | 'display'
  source: string
  /** Of the person's library. */
  own: boolean
  /** Code of mid grey and light at the end of the codes, of scenes. */
  mid_grey: number | null
  ceiling: number | null
}

/** A negative or a print; see docs/materials.md. */
export interface Material {
  id: string
  kind: 'negative' | 'print'
  name: string
  about: string
  balance: 'daylight' | 'tungsten' | null
  speed: number | null
  granularity: number | null
}

export interface Catalogue {
  steps: StepSpec[]
  /** What renditions are corrected by. */
  corrections: StepSpec[]
  /** Kinds of contributors to mattes. */
  contributors: ContributorSpec[]
  /** What is done to mattes, in the order that is mostly wanted. */
  refinements: DeclaredSpec[]
  /** What a shape that is drawn can be for. */
  uses: ShapeUse[]
  encodings: Encoding[]
  formats: OutputFormat[]
  /** What burn-ins can tell, layouts of ours, and ways onto another raster. */
  burn_tokens: string[]
  burns: Record<string, BurnItem[]>
  fits: Named[]
  tokens: string[]
  /** The folder outputs are written below. */
  delivery: string
  /** Of the server, that make pictures. */
  processes: number
  renderings: (Named & { source: string; peak: number | null })[]
  limits: Named[]
  canvases: Named[]
  rule_fields: Named[]
  /** Test pictures. */
  tests: (Named & { about: string })[]
  /** What bands can measure, and the spaces of the colour solid. */
  quantities: Quantity[]
  solids: Named[]
  /** Colours of flags. */
  flags: string[]
  /** Negatives and prints of film. */
  materials: Material[]
  /** Where transitions can be mixed, the usual one first. */
  mixing: { id: string; label: string; about: string }[]
  /** Patterns of wipes (SMPTE ST 258). */
  wipes: { number: number; label: string }[]
  /** Formats of single pictures. */
  stills: Named[]
  /** Degrees of the skin-tone line on the vectorscope. */
  skin_line: number
  /** To start from. */
  looks: Look[]
  /** Bundles of steps that change nothing yet. */
  bundles: Look[]
}

export interface Look extends Named {
  about: string
  steps: StepDocument[]
  bundles: BundleDocument[]
}

/** A step to begin with, and what is beside the shape in its matte. */
export interface ShapeUse extends Named {
  about: string
  step: StepDocument
  shape: { invert: boolean; feather: number }
  contributors: ContributorDocument[]
}

/** Something measured at every pixel. */
export interface Quantity extends Named {
  unit: string
  min: number
  max: number
  log: boolean
}

/** A set of colour bands, as its open file has it. */
export interface BandSet {
  name: string
  quantity: string
  scale: 'absolute' | 'relative'
  join: 'hard' | 'blended'
  rest: 'grey' | 'picture'
  opacity: number
  softness: number
  /** opacity and join (to the band above) where they are not the set's. */
  bands: { from: number; to: number; colour: string; opacity?: number; join?: 'hard' | 'blended' }[]
  /** A person's own, not one of ours. */
  own?: boolean
}
