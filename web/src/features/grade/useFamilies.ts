import { sendJson } from '@/api/client'
import type { Family, Shot } from '@/api/cut'
import type { Project } from '@/api/project'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { useRecipes } from './useRecipes'

interface Changed {
  families: Family[]
  /** Family of each shot, by its id. */
  members: Record<string, number | null>
  project: Project
}

/** Families: forming, joining and leaving them; each a change that can be undone. */
export function useFamilies() {
  const cut = useCut()
  const recipes = useRecipes()
  const notices = useNotices()

  async function answered(work: () => Promise<Changed>): Promise<boolean> {
    try {
      await recipes.settled()
      const { families, members, project } = await work()
      if (cut.cut) cut.cut.families = families
      for (const shot of cut.shots) shot.family = members[shot.id] ?? null
      recipes.adopt(families.flatMap((family) => [family.ground, family.finish]))
      recipes.kept(project)
      return true
    } catch (error) {
      notices.trouble(error)
      return false
    }
  }

  return {
    /** The first of them becomes its hero. */
    form: (name: string, shots: Shot[]) => answered(() => sendJson<Changed>('POST', `/cuts/${cut.cut?.id}/families`, { name: name.slice(0, 60), shots: shots.map((shot) => shot.id), words: `family ${name} formed`.slice(0, 120) })),
    join: (shot: Shot, family: number | null) => answered(() => sendJson<Changed>('PATCH', `/shots/${shot.id}/family`, { family })),
    takeIn: (family: Family, shots: Shot[]) => answered(() => sendJson<Changed>('POST', `/families/${family.id}/members`, { shots: shots.map((shot) => shot.id), words: `${shots.length} shots join ${family.name}`.slice(0, 120) })),
    rename: (family: Family, name: string) => answered(() => sendJson<Changed>('PATCH', `/families/${family.id}`, { name, words: `family ${family.name} named ${name}`.slice(0, 120) })),
    lead: (family: Family, hero: Shot) => answered(() => sendJson<Changed>('PATCH', `/families/${family.id}`, { hero: hero.id, words: `${hero.name} leads ${family.name}`.slice(0, 120) })),
  }
}
