import { sendJson } from '@/api/client'
import type { Project } from '@/api/project'
import type { Recipe, RecipeDocument, StepDocument } from '@/api/recipe'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { useRecipes } from './useRecipes'

const LONGEST = 120 // characters of what was done

/** Copies of steps onto shots, in place of what is there or after it, as one change. */
export function usePaste() {
  const cut = useCut()
  const recipes = useRecipes()
  const notices = useNotices()

  /**
   * @param from the shot they were copied from, whose mattes they stay linked to
   * @param along spans and bundles of the recipe they were copied from
   * @returns whether it was kept
   */
  return async function paste(shots: number[], steps: StepDocument[], replace: boolean, words: string, from?: number, along: Pick<RecipeDocument, 'spans' | 'bundles'> = {}): Promise<boolean> {
    if (!cut.cut || shots.length === 0) return false
    try {
      await recipes.settled()
      const body = { shots, steps, ...along, replace, from, words: words.slice(0, LONGEST) }
      const answer = await sendJson<{ recipes: Recipe[]; project: Project }>('POST', `/cuts/${cut.cut.id}/paste`, body)
      recipes.adopt(answer.recipes)
      recipes.kept(answer.project)
      return true
    } catch (error) {
      notices.trouble(error)
      return false
    }
  }
}
