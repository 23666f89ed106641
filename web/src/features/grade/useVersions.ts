import { sendJson } from '@/api/client'
import type { Shot } from '@/api/cut'
import type { Project } from '@/api/project'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { useRecipes } from './useRecipes'

/** The versions of a shot's grade. */
export function useVersions() {
  const cut = useCut()
  const recipes = useRecipes()
  const notices = useNotices()

  async function answered(shot: Shot, work: () => Promise<{ shot: Shot; project: Project }>) {
    try {
      await recipes.settled()
      const { shot: fresh, project } = await work()
      Object.assign(shot, fresh)
      recipes.adopt([fresh.recipe])
      recipes.kept(project)
    } catch (error) {
      notices.trouble(error)
    }
  }

  const use = (shot: Shot, recipe: number) => answered(shot, () => sendJson<{ shot: Shot; project: Project }>('PATCH', `/shots/${shot.id}`, { recipe }))

  /** A copy of the one in use, under a name nobody has to think of. */
  function branch(shot: Shot) {
    const names = shot.versions.map((one) => one.name)
    let number = names.length + 1
    while (names.includes(`Version ${number}`)) number++
    return answered(shot, () => sendJson<{ shot: Shot; project: Project }>('POST', `/shots/${shot.id}/versions`, { name: `Version ${number}` }))
  }

  /** The one after the one in use, round and round. */
  function next() {
    const shot = cut.shot
    if (!shot || shot.versions.length < 2) return
    const index = shot.versions.findIndex((one) => one.id === shot.recipe.id)
    const to = shot.versions[(index + 1) % shot.versions.length]
    if (to) void use(shot, to.id)
  }

  return { use, branch, next }
}
