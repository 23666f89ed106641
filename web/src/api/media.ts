export interface Clip {
  /** Its media folder. */
  root: number
  id: number
  path: string
  name: string
  /** Changes when the clip does. */
  version: number
  /** Missing: a slate stands for it; black: no picture. */
  status: 'ready' | 'refused' | 'missing' | 'black'
  reason: string | null
  width: number
  height: number
  rate: string
  /** Frames of its file are not all equally long. */
  variable: boolean
  /** It has another rate than the project, and how that is taken: frame for frame, or by time. */
  other_rate: boolean
  pace: 'frames' | 'time'
  /** Its pictures have another shape than the project's, and how they come into its raster. */
  other_shape: boolean
  fit: 'inside' | 'fill' | 'stretch'
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
