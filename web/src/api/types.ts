/** What the server answers, as its models write it. */
import type { BurnItem, OutputFormat } from './delivery'

export * from './delivery'
export * from './readings'

export interface ParameterSpec {
  name: string
  label: string
  /** Names of the numbers of a row; null for a single number. */
  channels: string[] | null
  unit: string
  min: number
  max: number
  neutral: number
  about: string
  suffix: string
  decimals: number
  /** What one arrow key moves it by. */
  nudge: number
  /** What the stored number is multiplied by to be shown. */
  shown_times?: number
}

/** A handle of the staves: what moving it by one adds to the numbers of a parameter. */
export interface HandleSpec {
  stave: 'light' | 'warmth' | 'tint'
  zone: 'low' | 'middle' | 'high' | 'overall'
  parameter: string
  direction: number[]
  /** Place on the tone axis; null for the overall handle. */
  at: number | null
}

/** A parameter that is a text: an encoding's id, a LUT's path, or one of some words. */
export interface TextSpec {
  name: string
  label: string
  from: 'encoding' | 'lut' | string[]
  neutral: string
  about: string
}

/** A parameter that is a curve through freely placed points. */
export interface CurveSpec {
  name: string
  label: string
  across: 'tone' | 'hue' | 'saturation'
  /** Where it lies without points. */
  rest: 'diagonal' | 'flat'
  min: number
  max: number
  /** Range of places. */
  first: number
  last: number
  about: string
}

export type CurvePoint = [number, number]

/** What a step or a contributor to mattes declares. */
export interface DeclaredSpec {
  id: string
  label: string
  /** Names of all parameters as they are declared. */
  order: string[]
  parameters: ParameterSpec[]
  texts: TextSpec[]
  curves: CurveSpec[]
}

export interface StepSpec extends DeclaredSpec {
  domain: string
  /** What it sees of a picture. */
  reach: 'pixel' | 'area' | 'time'
  /** A look-up table can hold it. */
  pointwise: boolean
  handles: HandleSpec[]
  /** Parts of the picture it treats by themselves. */
  regions: string[]
}

export interface Encoding {
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

export interface Named {
  id: string
  label: string
}

export interface Catalogue {
  steps: StepSpec[]
  /** Kinds of contributors to mattes. */
  contributors: DeclaredSpec[]
  encodings: Encoding[]
  formats: OutputFormat[]
  /** What burn-ins can tell, layouts of ours, and ways onto another raster. */
  burn_tokens: string[]
  burns: Record<string, BurnItem[]>
  fits: Named[]
  tokens: string[]
  /** The folder outputs are written below. */
  delivery: string
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
  /** Formats of single pictures. */
  stills: Named[]
  /** Degrees of the skin-tone line on the vectorscope. */
  skin_line: number
  /** To start from. */
  looks: (Named & { about: string; steps: StepDocument[] })[]
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
  /** What undo would take back, in words. */
  undo: string | null
  redo: string | null
}

export interface ProjectSummary extends Project {
  cuts: { id: number; name: string; shots: { id: number; revision: string; encoding: string | null; range: string | null }[] }[]
}

export type ParameterValue = number | number[] | string | CurvePoint[]

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
  strength: number
}

export type MatteMode = 'add' | 'subtract' | 'intersect' | 'out'

export interface ContributorDocument {
  id: string
  kind: string
  mode: MatteMode
  parameters: Record<string, ParameterValue>
}

export interface StepKey {
  frame: number
  parameters: Record<string, ParameterValue>
}

export interface RecipeDocument {
  steps: StepDocument[]
}

export interface Recipe {
  id: number
  /** Null of the steps of a wash or a family. */
  shot: number | null
  name: string
  revision: number
  document: RecipeDocument
}

export interface Clip {
  id: number
  path: string
  name: string
  /** Changes when the clip does. */
  version: number
  status: 'ready' | 'refused'
  reason: string | null
  width: number
  height: number
  rate: string
  /** Frames of its file are not all equally long. */
  variable: boolean
  /** It has another rate than the project, and how that is taken: frame for frame, or by time. */
  other_rate: boolean
  pace: 'frames' | 'time'
  /** As the project counts them, and as its file does. */
  frames: number
  file_frames: number
  /** First and last number of each gap in a run of numbered frames. */
  gaps: [number, number][]
  run: boolean
  first_number: number | null
  floats: boolean
  /** A working copy: whether one is wanted, and how far it is; speed: of decoding, in times of the clip's rate. */
  copy: { wanted: 'auto' | 'always' | 'never'; status: 'none' | 'waiting' | 'making' | 'ready' | 'failed'; done: number; speed: number | null }
  start: string | null
  start_frames: number
  drop: boolean
  reel: string | null
  codec: string
  pixel_format: string
  bit_depth: number
  range: string | null
  declared_range: string | null
  /** Colour tags of the file: primaries, transfer, matrix. */
  tags: string
  camera: string | null
  scene: string | null
  take: string | null
  encoding: string | null
  encoding_reason: string | null
}

export interface Shot {
  id: number
  name: string
  scene: string
  position: number
  source_in: number
  record_in: number
  length: number
  dissolve: number
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

export interface MediaRoot {
  id: number
  label: string
}

export interface MediaEntry {
  name: string
  path: string
  folder: boolean
  size: number | null
}

export interface Intake {
  id: number
  path: string
  status: 'waiting' | 'running' | 'done' | 'failed'
  found: number
  done: number
  refused: number
  message: string | null
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
  input_rules: InputRule[]
  /** Shots whose grades change pictures. */
  graded: number
  findings: Finding[]
  clips: Clip[]
  spaces: WorkingSpace[]
  library: { folder: string; faults: string[] }
}
