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
  from: 'encoding' | 'lut' | 'reference' | 'negative' | 'print' | string[]
  neutral: string
  about: string
}

/** A parameter that is a curve through freely placed points. */
export interface CurveSpec {
  name: string
  label: string
  across: 'tone' | 'hue' | 'saturation' | 'share'
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

/** A colour, as hue in degrees, chroma and lightness. */
export interface ColourSpec {
  name: string
  label: string
  neutral: number[]
  about: string
  /** Lowest and highest of each. */
  ranges: Record<string, [number, number]>
}

/** A parameter that is a list of rows of named numbers. */
export interface RowsSpec {
  name: string
  label: string
  columns: string[]
  /** Lowest and highest of each. */
  ranges: [number, number][]
  most: number
  about: string
}

/** What a step, a contributor to mattes or a refinement declares. */
export interface DeclaredSpec {
  id: string
  label: string
  /** Names of all parameters as they are declared. */
  order: string[]
  parameters: ParameterSpec[]
  texts: TextSpec[]
  colours: ColourSpec[]
  curves: CurveSpec[]
  rows: RowsSpec[]
}

export interface ContributorSpec extends DeclaredSpec {
  family: 'key' | 'shape' | 'elsewhere'
  /** It takes picks in the picture. */
  picks: boolean
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
  /** What it is taken out of circuit with. */
  circuit: string | null
  /** What it takes away is shown of it by itself, not what it adds. */
  takes_away: boolean
}

export type ParameterValue = number | number[] | string | CurvePoint[] | number[][]
