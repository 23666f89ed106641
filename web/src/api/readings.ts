/** What instruments and controls are told of a picture. */

/** Over the tone axis of the working space, in equal bins. */
export interface ToneTrace {
  light: number[]
  warmth: (number | null)[]
  tint: (number | null)[]
}

/** What a step sees: how often each place of its curves occurs, in equal bins. */
export interface StepInput {
  step: string
  luma: number[]
  red: number[]
  green: number[]
  blue: number[]
  hue: number[]
  saturation: number[]
  /** Of luma alone. */
  tone: number[]
}

/** Log exposures about mid grey that a film step sees: of the picture's darkest and lightest, and of a picked patch. */
export interface Exposed {
  step: string
  ends: [number, number]
  patch?: number
}

/** Whether black or white just touches a guide: its place, how far it is, in 10-bit codes, and the share of pixels at it or beyond. */
export interface GuideReading {
  place: number
  beyond: number
  state: 'under' | 'met' | 'past'
  codes: number
}

/** Low, middle and high of each channel, as shares of the full range. */
export type Extents = Record<'luma' | 'red' | 'green' | 'blue', [number, number, number]>

/** A patch of skin against the skin-tone line. */
export interface SkinReading {
  angle: number
  /** Degrees from the line, positive towards yellow. */
  off: number
  direction: string
  saturation: number
  level: number
  line: number
  /** Cb and Cr of its medians, and of some of its pixels. */
  middle: [number, number]
  points: [number, number][]
}

/** Left, top, width and height as shares of the picture. */
export type Region = [number, number, number, number]
