import type { Project } from '@/api/types'

/** The address of a shot's small picture; it holds all the picture depends on. */
export function smallPicture(project: Project, shot: { id: number; revision: number; encoding: string | null; range?: string | null }): string {
  return `/api/shots/${shot.id}/small.png?revision=${shot.revision}.${shot.encoding}.${shot.range ?? ''}.${project.stamp}`
}
