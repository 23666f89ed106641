/** Weights of a matte, by their digest, and their raster. */
export interface WeightName {
  name: string
  width: number
  height: number
}

/** What changes a value: share * weight * (lattice(value) - value). */
export interface Strand {
  /** Digest of its nodes. */
  lattice: string
  /** Lowest and highest red, green, blue that go in. */
  domain: [number[], number[]]
  /** And that its codes stand between. */
  range: [number[], number[]]
  share: number
  /** Null acts everywhere. */
  weight: WeightName | null
  /** A tile of noise that weighs it instead: its digest, pixels on an edge, standard deviations that its codes reach, and where the picture's corner lies in it. */
  noise?: { name: string; edge: number; reach: number; at: [number, number] }
}

/** Strands side by side: what each changes is added. */
export type Rung = Strand[]

/** What a screen draws a frame with while a hand moves. */
export interface Ladder {
  /** Digest of the picture it is climbed from. */
  start: string
  /** On an edge of each lattice. */
  nodes: number
  rungs: Rung[]
  /** Of a start picture that comes with it: its raster, what its codes stand between, and what occurs. */
  width?: number
  height?: number
  range?: [number[], number[]]
  domain?: [number[], number[]]
}

/** Of a frame that is played; null where it cannot be drawn by the screen. */
export interface PlayedLadder {
  frame: number
  rungs: Rung[] | null
  /** Of what is kept of the frame without its noise, where it is drawn from that. */
  start?: string
}
