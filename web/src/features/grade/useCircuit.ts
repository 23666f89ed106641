import type { RecipeDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'

const FILM = 'film'

/** The film look taken out of circuit: pictures, patches, bands and scopes are those of what stands without it. Recipes stay as they are. */
export const useCircuit = defineStore('circuit', () => {
  const catalogue = useCatalogue()
  const out = ref(false)

  /** A document as it is seen: film steps, and all that is kept in bundles with them, are off while they are out. */
  function within(document: RecipeDocument): RecipeDocument {
    const film = document.steps.filter((step) => catalogue.step(step.kind)?.circuit === FILM)
    if (!out.value || film.length === 0) return document
    const bundles = film.flatMap((step) => step.bundle ?? [])
    return { ...document, steps: document.steps.map((step) => (film.includes(step) || (step.bundle !== undefined && bundles.includes(step.bundle)) ? { ...step, enabled: false } : step)) }
  }

  return { out, within, flip: () => (out.value = !out.value) }
})
