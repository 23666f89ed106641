import { getJson } from '@/api/client'
import type { Project } from '@/api/project'
import type { Recipe } from '@/api/recipe'
import { ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from '../shell/useNotices'

export const OWN_ANSWER = 350 // ms in which the answer to one's own change arrives

/** Brings in what others have changed: recipes one by one, and the cut anew where more than that is another. */
export function useNews() {
  const [cut, recipes, notices] = [useCut(), useRecipes(), useNotices()]
  const reading = ref(false)
  /** The cut as it is now; what a hand is on here is stored first. */
  async function readAnew() {
    if (reading.value) return
    reading.value = true
    try {
      await recipes.settled()
      if (!recipes.unsaved) await recipes.readAnew()
    } catch (error) {
      notices.trouble(error)
    } finally {
      reading.value = false
    }
  }

  async function recipe({ id, revision }: { id: number; revision: number }) {
    const old = () => cut.recipes.some((one) => one.id === id && one.revision < revision) && !recipes.isPending(id)
    if (!old()) return
    const fresh = await getJson<Recipe>(`/recipes/${id}`).catch(() => null) // gone since, or told again
    if (fresh && old()) recipes.adopt([fresh])
  }

  async function standing({ id, turn, head }: { id: number; turn: number; head: number | null }) {
    await new Promise((resolve) => setTimeout(resolve, OWN_ANSWER))
    if (cut.project?.id !== id) return
    if (cut.project.turn < turn) await readAnew()
    else if (cut.project.head !== head && cut.project.turn === turn) {
      const fresh = await getJson<Project>(`/projects/${id}`).catch(() => null)
      if (fresh && cut.project?.id === id && fresh.turn === cut.project.turn) cut.project = fresh
    }
  }

  // an answer to one's own change that counts more than this one: somebody else's came between
  watch([() => cut.cut, () => cut.project], ([nowCut, now], [thenCut, then]) => {
    if (nowCut === thenCut && now && then && now.id === then.id && now.turn > then.turn + 1) void readAnew()
  })

  return { recipe, standing }
}
