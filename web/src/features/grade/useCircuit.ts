import type { Recipe, RecipeDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'

export type Circuit = 'film' | 'noise'

/**
 * Steps taken out of circuit: pictures, patches, bands and scopes are those of what stands without them. Recipes stay as they are, and
 * deliveries have all that is in them.
 */
export const useCircuit = defineStore('circuit', () => {
  const catalogue = useCatalogue()
  const kept = useStorage<Circuit[]>('mordant.circuits.out', [])
  const isOut = (name: string | null | undefined) => kept.value.some((one) => one === name)

  /** A document as it is seen: steps of what is out, and all that is kept in bundles with film, are off. */
  function within(document: RecipeDocument): RecipeDocument {
    const found = kept.value.length ? document.steps.filter((step) => isOut(catalogue.step(step.kind)?.circuit)) : []
    if (found.length === 0) return document
    const bundles = found.flatMap((step) => (catalogue.step(step.kind)?.circuit === 'film' ? (step.bundle ?? []) : []))
    return { ...document, steps: document.steps.map((step) => (found.includes(step) || (step.bundle !== undefined && bundles.includes(step.bundle)) ? { ...step, enabled: false } : step)) }
  }

  return {
    within,
    /** Some recipe has a step of it. */
    used: (name: Circuit, recipes: Recipe[]) => recipes.some((one) => one.document.steps.some((step) => catalogue.step(step.kind)?.circuit === name)),
    /** Something is out. */
    any: computed(() => kept.value.length > 0),
    names: computed(() => kept.value),
    film: computed(() => isOut('film')),
    noise: computed(() => isOut('noise')),
    flip: (name: Circuit) => (kept.value = isOut(name) ? kept.value.filter((one) => one !== name) : [...kept.value, name]),
  }
})
