/** A mark in a picture, in shares of its width and height. */
export interface NoteMark {
  kind: 'point' | 'box' | 'line'
  from: [number, number]
  to: [number, number]
}

export interface NoteAnswer {
  id: number
  by: string
  words: string
  at: string
}

/** What somebody said about a frame. */
export interface ShotNote {
  id: number
  /** Record frame, where its shot stands now. */
  frame: number
  timecode: string
  shot: number | null
  by: string
  /** Who the link was for that it came by. */
  via: string | null
  words: string
  mark: NoteMark | null
  at: string
  closed: boolean
  answers: NoteAnswer[]
}

/** A link to look at a stretch of a cut by. */
export interface ReviewLink {
  id: number
  cut: number
  name: string
  first: number
  count: number
  by: string | null
  made: string
  ends: string | null
  ended: boolean
  notes: number
  /** Told once, when it is made. */
  address?: string
}

/** What somebody who looks is told. */
export interface ReviewSheet {
  name: string
  cut: string
  rate: string
  width: number
  height: number
  first: number
  count: number
  /** Changes with any of its pictures. */
  stamp: string
  start_frames: number
  drop: boolean
  shots: { name: string; first: number }[]
  notes: ShotNote[]
}
