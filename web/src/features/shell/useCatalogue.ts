import { getJson } from '@/api/client'
import type { Catalogue } from '@/api/types'
import { defineStore } from 'pinia'
import { ref } from 'vue'

/** What the core declares: steps with their parameters, encodings, kinds of output. */
export const useCatalogue = defineStore('catalogue', () => {
  const catalogue = ref<Catalogue | null>(null)
  let loading: Promise<Catalogue> | null = null

  /** Loads it once. */
  async function load(): Promise<Catalogue> {
    loading ??= getJson<Catalogue>('/catalogue').catch((error: unknown) => {
      loading = null
      throw error
    })
    catalogue.value = await loading
    return catalogue.value
  }

  return {
    catalogue,
    load,
    step: (id: string) => catalogue.value?.steps.find((step) => step.id === id),
    encodingLabel: (id: string | null) => catalogue.value?.encodings.find((one) => one.id === id)?.label ?? id ?? '',
  }
})
