import { getJson } from '@/api/client'
import type { Shot } from '@/api/cut'
import type { Recipe, RecipeDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'

/** Another version of the shot's grade, shown in place of the one in use while a key is held. */
export const useComparedVersion = defineStore('compared version', () => {
  const cut = useCut()
  const notices = useNotices()
  /** Somebody's choice by shot; without one the version before the one in use, or the next. */
  const chosen = ref<Record<number, number>>({})
  const held = ref(false)
  const other = ref<Recipe | null>(null)

  const candidate = computed(() => {
    const shot = cut.shot
    if (!shot || shot.versions.length < 2) return null
    const wanted = shot.versions.find((one) => one.id === chosen.value[shot.id] && one.id !== shot.recipe.id)
    const at = shot.versions.findIndex((one) => one.id === shot.recipe.id)
    return wanted ?? shot.versions[at > 0 ? at - 1 : 1] ?? null
  })
  const document = computed<RecipeDocument | null>(() => (held.value && other.value?.id === candidate.value?.id ? (other.value?.document ?? null) : null))

  watch(
    () => cut.shot?.id,
    () => (held.value = false),
  )

  async function fetch() {
    const version = candidate.value
    if (!version) return
    try {
      other.value = await getJson<Recipe>(`/recipes/${version.id}`)
    } catch (error) {
      notices.trouble(error)
    }
  }

  /** @returns false when the shot has one version only */
  async function hold(): Promise<boolean> {
    if (!candidate.value) return false
    held.value = true
    await fetch()
    return true
  }

  return {
    candidate,
    other,
    fetch,
    document,
    words: computed(() => (document.value ? (candidate.value?.name ?? null) : null)),
    hold,
    release: () => (held.value = false),
    choose: (shot: Shot, version: number) => (chosen.value = { ...chosen.value, [shot.id]: version }),
  }
})
