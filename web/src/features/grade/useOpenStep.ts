import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Recipe } from '@/api/recipe'

/** The one step whose controls are open, in a shot's recipe or a wash. */
export const useOpenStep = defineStore('open step', () => {
  const id = ref<string | null>(null)
  /** What kind was open last, here or in another shot; empty: all were closed. */
  const kind = useStorage('mordant.step.kind', 'balance')

  /** Goes on down the quick order of the open Balance. */
  const advance = shallowRef<(() => void) | null>(null)

  function open(step: { id: string; kind: string } | null) {
    id.value = step?.id ?? null
    kind.value = step?.kind ?? ''
  }

  /** On coming to a shot: its step of the kind that was open, as panels stay as they were. */
  function arrive(recipe: Recipe) {
    const steps = recipe.document.steps
    id.value = (kind.value === '' ? null : (steps.find((step) => step.kind === kind.value) ?? steps[0]))?.id ?? null
  }

  return { id, kind, advance, open, arrive, toggle: (step: { id: string; kind: string }) => open(id.value === step.id ? null : step) }
})
