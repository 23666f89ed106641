import type { Target } from './project'
import type { Recipe } from './recipe'

export type LevelState = 'none' | 'measured' | 'stale'

/** Least, mean and greatest level, cd/m2. */
export type Levels = [number, number, number]

/** What is measured and corrected of a shot. */
export interface ShotRendition {
  shot: number
  state: LevelState
  /** Name of the shot whose levels stand for its own. */
  copied: string | null
  corrections: Recipe | null
  /** "all", and ids of targets that are corrected themselves. */
  corrected: string[]
  least?: number
  mean?: number
  greatest?: number
  /** The picture without bars, in shares; null: all of it. */
  active?: [number, number, number, number] | null
  /** Frames from one row of the course to the next. */
  every?: number
  course?: Levels[]
}

/** A screen to choose from. */
export interface ListedScreen {
  name: string
  /** Found by gamut and peak where it is left out. */
  encoding?: string
  limit?: string
  rendition: { peak: number; black: number; gamut?: string }
}

export interface RenditionList {
  /** What they are made of. */
  hdr: Target | null
  /** The smallest first. */
  targets: Target[]
  shots: ShotRendition[]
  listed: ListedScreen[]
  /** Blacks above it grey the bars of a shot that has some. */
  lift: number
}
