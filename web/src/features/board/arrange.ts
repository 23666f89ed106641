import type { Shot } from '@/api/cut'

/** In what order the board shows shots; the cut stays as it is. */
export const ORDERS = [
  { id: 'cut', label: 'cut' },
  { id: 'source', label: 'reel and timecode' },
  { id: 'camera', label: 'camera' },
  { id: 'scene', label: 'scene' },
]

export const POSTERS = [
  { id: 'first', label: 'first frame' },
  { id: 'middle', label: 'middle' },
  { id: 'last', label: 'last frame' },
  { id: 'worked', label: 'worked on last' },
  { id: 'chosen', label: 'chosen' },
]

export interface Filters {
  words: string
  /** '' for all. */
  grade: '' | 'ungraded' | 'graded'
  step: string
  /** A colour, 'any' or 'none'. */
  flag: string
  /** An id, or 'none'. */
  family: string
  camera: string
  encoding: string
}

export const noFilters = (): Filters => ({ words: '', grade: '', step: '', flag: '', family: '', camera: '', encoding: '' })

const text = (value: string | null | undefined) => value ?? ''
const compare = (a: (string | number)[], b: (string | number)[]): number => {
  for (const [index, one] of a.entries()) {
    const other = b[index] as string | number
    if (one !== other) return one < other ? -1 : 1
  }
  return 0
}

const PLACES: Record<string, (shot: Shot) => (string | number)[]> = {
  cut: (shot) => [shot.position],
  source: ({ clip, source_in, position }) => [text(clip.reel), text(clip.start), clip.path, source_in, position],
  camera: ({ clip, position }) => [text(clip.camera), position],
  scene: ({ scene, position }) => [scene, position],
}

/** Shots in an order. */
export const ordered = (shots: Shot[], order: string): Shot[] => {
  const place = PLACES[order] ?? (({ position }: Shot) => [position])
  return shots
    .map((shot) => ({ shot, at: place(shot) }))
    .sort((a, b) => compare(a.at, b.at))
    .map(({ shot }) => shot)
}

/** Kinds of steps of a shot's own grade. */
export const kindsOf = (shot: Shot): string[] => shot.recipe.document.steps.map((step) => step.kind)

/** Whether a shot passes all filters. */
export function passes(shot: Shot, filters: Filters): boolean {
  const words = filters.words.trim().toLowerCase()
  const graded = shot.recipe.document.steps.length > 0
  return (
    (!words || [shot.name, shot.scene, shot.note, shot.clip.path, shot.clip.reel].join(' ').toLowerCase().includes(words)) &&
    (!filters.grade || graded === (filters.grade === 'graded')) &&
    (!filters.step || kindsOf(shot).includes(filters.step)) &&
    (!filters.flag || (filters.flag === 'any' ? shot.flag !== null : text(shot.flag) === (filters.flag === 'none' ? '' : filters.flag))) &&
    (!filters.family || (filters.family === 'none' ? shot.family === null : String(shot.family) === filters.family)) &&
    (!filters.camera || text(shot.clip.camera) === filters.camera) &&
    (!filters.encoding || text(shot.clip.encoding) === filters.encoding)
  )
}

/** The frame that stands for a shot, counted from its first; undefined leaves the middle to the server. */
export function posterOf(shot: Shot, choice: string): number | undefined {
  switch (choice) {
    case 'first':
      return shot.dissolve
    case 'last':
      return shot.length - 1
    case 'worked':
      return shot.worked ?? undefined
    case 'chosen':
      return shot.poster ?? undefined
    default:
      return undefined
  }
}
