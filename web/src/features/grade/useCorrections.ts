import { sendJson } from '@/api/client'
import type { Project } from '@/api/project'
import type { Recipe } from '@/api/recipe'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { useRecipes } from './useRecipes'

interface Taken {
  recipes: Recipe[]
  /** Names of shots the file has nothing for. */
  without: string[]
  project: Project
}

/** CDLs that come in. */
export function useCorrections() {
  const cut = useCut()
  const recipes = useRecipes()
  const notices = useNotices()

  /** Puts the corrections of a file on shots, all of the cut without saying which. */
  async function bring(cutId: number, file: File, shots?: number[]) {
    try {
      const taken = await sendJson<Taken>('POST', `/cuts/${cutId}/corrections`, { name: file.name, text: await file.text(), shots })
      recipes.adopt(taken.recipes)
      cut.project = taken.project
      const missing = taken.without.length ? `; nothing in the file is named after ${taken.without.join(', ')}` : ''
      notices.news(`CDL put on ${taken.recipes.length} ${taken.recipes.length === 1 ? 'shot' : 'shots'}${missing}`)
    } catch (error) {
      notices.trouble(error)
    }
  }

  return { bring }
}
