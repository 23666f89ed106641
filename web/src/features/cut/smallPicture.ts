import { useCut } from './useCut'
import type { Shot } from '@/api/cut'
import type { Project } from '@/api/project'

/** The address of a shot's small picture; it holds all the picture depends on. */
export function smallPicture(project: Project, shot: { id: number; revision: string; encoding: string | null; range?: string | null; place: string }): string {
  return `/api/shots/${shot.id}/small.png?revision=${shot.revision}.${shot.encoding}.${shot.range ?? ''}.${shot.place}.${project.stamp}`
}

/** Changes when a shot's pictures do by where it stands in its clip. */
const stands = ({ clip, source_in, length, speed }: Shot) => [clip.id, source_in, length, speed, clip.fit].join('.')

/** The same of a shot of the open cut; frame: counted from its first, without it the middle. */
export function smallPictureOf(project: Project, shot: Shot, frame?: number): string {
  const { id, clip } = shot
  const address = smallPicture(project, { id, revision: useCut().revisionOf(shot), encoding: clip.encoding, range: clip.range, place: stands(shot) })
  return frame === undefined ? address : `${address}&frame=${frame}`
}

/** The same with a version of its grade. */
export function smallPictureOfVersion(project: Project, shot: Shot, version: Shot['versions'][number]): string {
  const revision = version.id === shot.recipe.id ? shot.recipe.revision : version.revision
  return `${smallPictureOf(project, shot)}&recipe=${version.id}&of=${revision}`
}

/** A picture of a shot while its ends are trimmed: a frame counted from its first, which it may not show yet. */
export function edgePicture(project: Project, shot: Shot, offset: number, slip = 0): string {
  const { id, clip } = shot
  return `/api/shots/${id}/edge.png?revision=${useCut().revisionOf(shot)}.${clip.encoding}.${clip.range ?? ''}.${stands(shot)}.${project.stamp}&offset=${offset}${slip ? `&slip=${slip}` : ''}`
}
