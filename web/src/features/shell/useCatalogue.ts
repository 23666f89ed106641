import { getJson } from '@/api/client'
import type { Catalogue } from '@/api/catalogue'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { ChoiceGroup } from './ChoiceList.vue'

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

  const encodingGroups = computed<ChoiceGroup[]>(() => {
    const all = catalogue.value?.encodings ?? []
    const of = (kind: string, own: boolean) =>
      all
        .filter((one) => one.kind === kind && one.own === own)
        .sort((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true }))
        .map((one) => ({ id: one.id, label: one.label, about: one.mid_grey === null ? one.source : `${one.source}; mid grey at ${(one.mid_grey * 100).toFixed(1)} %, codes end at light ${one.ceiling}` }))
    return [
      { name: 'your own', options: [...of('scene', true), ...of('display', true)] },
      { name: 'of a scene', options: of('scene', false) },
      { name: 'of a display', options: of('display', false) },
    ].filter((group) => group.options.length > 0)
  })

  return {
    catalogue,
    load,
    encodingGroups,
    canvases: computed(() => (catalogue.value?.canvases ?? []).map(({ id, label }) => ({ id, label: { srgb: 'sRGB', p3: 'P3' }[id] ?? `gamma ${id}`, about: label }))),
    step: (id: string) => [...(catalogue.value?.steps ?? []), ...(catalogue.value?.corrections ?? [])].find((step) => step.id === id),
    kindOf: (id: string) => catalogue.value?.encodings.find((one) => one.id === id)?.kind,
    encodingLabel: (id: string | null) => catalogue.value?.encodings.find((one) => one.id === id)?.label ?? id ?? '',
  }
})
