import type { ParameterValue } from './declared'
import type { Ladder, PlayedLadder } from './ladder'
import type { Exposed, Extents, GuideReading, SkinReading, StepInput, ToneTrace } from './readings'

/** Where a frame that is played is from; of what is kept without noise also its digest, and what its codes stand between. */
export interface PlayedFrame {
  frame: number
  shot: number
  width: number
  height: number
  start?: string
  range?: [number[], number[]]
}

export interface AnswerHeader {
  frame: number
  size: string
  /** Steps change detail that the picture's raster does not hold: real pixels look otherwise. */
  finer?: boolean
  width: number
  height: number
  /** Milliseconds of Ruby time. */
  took: number
  /** What the screen draws with, that came instead of a picture. */
  ladder?: Ladder
  /** Of frames that are played, and nodes on an edge of their lattices. */
  ladders?: PlayedLadder[]
  nodes?: number
  columns?: number
  levels?: number
  tone?: ToneTrace
  extents?: Extents
  /** What the open step sees. */
  input?: StepInput
  /** What an open film step sees of light. */
  exposed?: Exposed
  skin?: SkinReading
  /** Share of the pixels at which tones break. */
  breaks?: number
  /** Share of the pixels whose colours lie beyond P3-D65, of a view that holds such. */
  beyond?: number
  /** Of guides that are set. */
  guides?: Record<string, GuideReading>
  /** Pixels that were measured. */
  pixels?: number
  /** The vectorscope's edge, a colour difference, and its bins. */
  vector?: { half: number; size: number }
  solid?: { points: number; flattened: Record<string, number>; bounds: [number, number, number][][]; legal: [number, number, number][][]; axes: string[] }
  /** Of several frames in one answer: where each is from. */
  frames?: PlayedFrame[]
  /** Parameters at the frame, by the id of a step or a contributor that moves. */
  moved?: Record<string, Record<string, ParameterValue>>
  /** How much of a step its spans leave at the frame, by its id. */
  spanned?: Record<string, number>
  /** How a parameter goes over the shot: values at frames, counted from the owner's first one. */
  course?: CourseReading
  /** Share of the picture that the open step's matte takes, and share in between. */
  acting?: { step: string; share: number; between: number }
  /** The same of what is shown as acted on. */
  matte?: { share: number; between: number }
  /** What the open key looks at. */
  key?: KeyReading
  /** By step id: tone out for equal distances of tone in. */
  curves?: Record<string, number[]>
  /** By step id and parameter: a curve's values at equal distances of place. */
  shapes?: Record<string, Record<string, number[]>>
  parts: { name: string; length: number }[]
}

/** A row of numbers for each frame; see Readings#course. */
export interface CourseReading {
  step: string
  contributor: string | null
  parameter: string
  frames: number[]
  values: number[][]
}

/** How often places occur, as shares of the fullest, and how much of them a key takes. */
export interface KeyBins {
  counts: number[]
  weights: number[]
}

/** What a key sees, on the axes that it counts in; see Mordant::Scopes::KeyInput. */
export interface KeyReading {
  step: string
  contributor: string
  cells: number
  /** Codes that the plane shows either way, and bins of chroma reach to. */
  reach: number
  lightness_range: [number, number]
  /** Of samples, on the plane. */
  places: [number, number][]
  /** Row by row from below blue upwards to green, from cyan to red. */
  plane: KeyBins
  chroma: KeyBins
  lightness: KeyBins
}

export interface Answer {
  header: AnswerHeader
  parts: Record<string, Uint8Array<ArrayBuffer>>
}

/**
 * Takes a picture answer apart: the header's length (32 bits, little-endian), the
 * header as JSON, then its parts one after another.
 *
 * @throws RangeError when it is shorter than it says
 */
export function unpack(buffer: ArrayBuffer): Answer {
  const length = new DataView(buffer).getUint32(0, true)
  const header = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 4, length))) as AnswerHeader
  const parts: Answer['parts'] = {}
  let at = 4 + length
  for (const part of header.parts) {
    parts[part.name] = new Uint8Array(buffer, at, part.length)
    at += part.length
  }
  return { header, parts }
}

/** Sixteen-bit numbers that may begin at any byte of an answer. */
export function words(bytes: Uint8Array<ArrayBuffer>): Uint16Array {
  return new Uint16Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength))
}
