import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'

/** What stands around the picture; kept in this browser, for the picture within the room and for the large one. */
export const useLayout = defineStore('layout', () => {
  const large = useStorage('mordant.large', false)
  const panels = useStorage('mordant.panels', { room: { recipe: true, scopes: true }, large: { recipe: true, scopes: false } })
  /** Notes beside the shots. */
  const notes = useStorage('mordant.notes', false)
  const strip = useStorage('mordant.strip', false)
  const now = computed(() => (large.value ? panels.value.large : panels.value.room))

  function flip(panel: 'recipe' | 'scopes') {
    const mode = large.value ? 'large' : 'room'
    panels.value = { ...panels.value, [mode]: { ...panels.value[mode], [panel]: !panels.value[mode][panel] } }
  }

  return {
    large,
    /** What changes over time, under the picture. */
    strip,
    notes,
    recipe: computed(() => now.value.recipe),
    scopes: computed(() => now.value.scopes),
    flip,
    columns: computed(() => (large.value ? 'minmax(0, 1fr)' : `156px ${notes.value ? '228px' : ''} minmax(0, 1fr) ${now.value.recipe ? '344px' : ''}`)),
  }
})
