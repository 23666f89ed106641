import { ApiError, getJson, sendJson } from '@/api/client'
import type { Project } from '@/api/project'
import type { Recipe, RecipeDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed, reactive, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { sameDocument } from './edit'

const BETWEEN_SAVES = 200 // ms, while a hand is moving
const RETRY_AFTER = 1500 // ms, when no server answers
const MOST_UNANSWERED = 100 // the first ones: nothing is kept while no server is there
const NO_ANSWER = [0, 401, 503] // no server, or none that can store, or somebody has to sign in first

interface Pending {
  document: RecipeDocument
  words: string
  gesture?: string
}

/**
 * Grades as they are under the hand, and their way to the server.
 *
 * A change shows at once and is sent as soon as the one before has been accepted;
 * of what waits only the newest is sent. Nothing is taken off before it is kept.
 */
export const useRecipes = defineStore('recipes', () => {
  const cut = useCut()
  const notices = useNotices()
  const pending = reactive(new Map<number, Pending>())
  const savedAt = ref<Date | null>(null)
  const offline = ref(false)
  const conflict = ref<{ mine: Pending; theirs: Recipe } | null>(null)
  const generation = ref(0)
  /** Grows when the history has changed more than recipes; rooms that show such things read them anew. */
  const beyond = ref(0)
  let sending: Promise<void> | null = null
  /** What was sent since the last answer and had none, by recipe: one of it may have been kept all the same. */
  const unanswered = new Map<number, RecipeDocument[]>()

  const recipeOf = (id: number) => cut.recipes.find((one) => one.id === id)

  function change(recipe: Recipe, document: RecipeDocument, words: string, gesture?: string) {
    recipe.document = document
    pending.set(recipe.id, { document, words, gesture })
    generation.value++
    sending ??= drain().finally(() => (sending = null))
  }

  async function drain() {
    while (pending.size > 0 && !conflict.value) {
      const [id, next] = [...pending][0] as [number, Pending]
      const recipe = recipeOf(id)
      if (!recipe) {
        pending.delete(id)
        continue
      }
      await save(recipe, next)
    }
  }

  async function save(recipe: Recipe, next: Pending) {
    try {
      const answer = await sendJson<{ recipe: Recipe; project: Project }>('PUT', `/recipes/${recipe.id}`, { ...next, revision: recipe.revision, ...workedAt(recipe) })
      recipe.revision = answer.recipe.revision
      unanswered.delete(recipe.id)
      if (pending.get(recipe.id) === next) {
        pending.delete(recipe.id)
        recipe.document = answer.recipe.document
      }
      kept(answer.project)
      if (next.gesture) await pause(BETWEEN_SAVES)
    } catch (error) {
      await refused(recipe, next, error)
    }
  }

  /** Where the hand is, told with a change of the open shot's own grade. */
  function workedAt(recipe: Recipe) {
    if (recipe.shot === null || recipe.shot !== cut.shot?.id) return {}
    cut.shot.worked = cut.frame - cut.shot.record_in
    return { frame: cut.frame }
  }

  async function refused(recipe: Recipe, next: Pending, error: unknown) {
    if (error instanceof ApiError && NO_ANSWER.includes(error.status)) {
      offline.value = true
      unanswered.set(recipe.id, [...(unanswered.get(recipe.id) ?? []).slice(0, MOST_UNANSWERED), next.document])
      await pause(RETRY_AFTER)
    } else if (error instanceof ApiError && error.status === 409 && ours(error.details.recipe as Recipe)) {
      recipe.revision = (error.details.recipe as Recipe).revision
    } else if (error instanceof ApiError && error.status === 409) {
      conflict.value = { mine: pending.get(recipe.id) ?? next, theirs: error.details.recipe as Recipe }
      pending.delete(recipe.id)
    } else {
      pending.delete(recipe.id)
      notices.trouble(error)
      take(await getJson<Recipe>(`/recipes/${recipe.id}`))
    }
  }

  /** What is stored was sent from here, and its answer was lost. */
  function ours(stored: Recipe) {
    const sent = unanswered.get(stored.id) ?? []
    unanswered.delete(stored.id)
    return sent.some((document) => sameDocument(document, stored.document))
  }

  function kept(project: Project) {
    offline.value = false
    savedAt.value = new Date()
    if (cut.project) cut.project = project
  }

  function take(fresh: Recipe) {
    const recipe = recipeOf(fresh.id)
    if (!recipe) return
    Object.assign(recipe, fresh)
    generation.value++
  }

  /**
   * Ends a conflict. What was done here is kept on top of what is stored either
   * way; if the other is wanted it is then undone, so that redo has it.
   */
  async function settle(mine: boolean) {
    const found = conflict.value
    conflict.value = null
    if (!found) return
    await sending
    take(found.theirs)
    const recipe = recipeOf(found.theirs.id)
    if (!recipe) return
    change(recipe, found.mine.document, found.mine.words)
    if (!mine) await step('undo')
  }

  const step = (direction: 'undo' | 'redo') => go(direction)

  /** To any point of the history; null: before all of it. */
  const travel = (change: number | null) => go('history', { change })

  /** One after the other, however quickly they are pressed: an answer that came late would show what stood before. */
  let going: Promise<void> = Promise.resolve()
  const go = (where: string, body?: unknown) => (going = going.then(() => goNow(where, body)))

  async function goNow(where: string, body?: unknown) {
    await sending
    if (!cut.project) return
    try {
      const answer = await sendJson<{ project: Project; recipes: Recipe[]; beyond: boolean }>('POST', `/projects/${cut.project.id}/${where}`, body)
      answer.recipes.forEach(take)
      if (answer.beyond) await readAnew()
      kept(answer.project)
      const [first] = answer.recipes
      const touched = cut.shots.findIndex((shot) => first && (shot.recipe.id === first.id || shot.id === first.corrects))
      if (touched >= 0 && touched !== cut.shotIndex) cut.goShot(touched)
    } catch (error) {
      notices.trouble(error)
    }
  }

  /** Something besides recipes has changed: washes, versions, settings, clips. */
  async function readAnew() {
    await cut.reload()
    generation.value++
    beyond.value++
  }

  const unsaved = computed(() => pending.size > 0)
  window.addEventListener('beforeunload', (event) => {
    if (unsaved.value) event.preventDefault()
  })

  return {
    change,
    settled: async () => void (await sending),
    isPending: (id: number) => pending.has(id),
    readAnew,
    adopt: (fresh: Recipe[]) => fresh.forEach(take),
    undo: () => step('undo'),
    redo: () => step('redo'),
    travel,
    settle,
    conflict,
    savedAt,
    unsaved,
    offline,
    generation,
    beyond,
    kept,
  }
})

function pause(milliseconds: number) {
  return new Promise((resolve) => setTimeout(resolve, milliseconds))
}
