import type { Shot } from '@/api/cut'
import type { RecipeDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import { useRecipes } from './useRecipes'

const graded = (shot: Shot) => shot.recipe.document.steps.length > 0

/**
 * The grade of a preceding graded shot, on trial in place of this shot's own: the
 * nearest first, one further back each time. Nothing changes until it is kept.
 */
export const useBorrow = defineStore('borrow', () => {
  const cut = useCut()
  const recipes = useRecipes()
  const from = ref<Shot | null>(null)

  const lenders = computed(() => cut.shots.slice(0, Math.max(0, cut.shotIndex)).filter(graded).reverse())
  const document = computed<RecipeDocument | null>(() => from.value?.recipe.document ?? null)

  watch(() => cut.shot?.id, drop)

  /** One further back; round again after the farthest. */
  function next() {
    const index = lenders.value.findIndex((shot) => shot.id === from.value?.id)
    from.value = lenders.value[(index + 1) % Math.max(1, lenders.value.length)] ?? null
    return from.value !== null
  }

  function drop() {
    from.value = null
  }

  function keep() {
    const lender = from.value
    const recipe = cut.shot?.recipe
    if (!lender || !recipe) return
    const steps = lender.recipe.document.steps.map((step) => ({ ...step, id: crypto.randomUUID(), parameters: { ...step.parameters } }))
    recipes.change(recipe, { steps }, `grade of ${lender.name} borrowed`)
    drop()
  }

  return { from, document, lenders, next, keep, drop }
})
