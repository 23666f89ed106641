import { getJson, sendJson } from '@/api/client'
import type { BandSet } from '@/api/catalogue'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'

/** Colour bands in the picture: the set that is shown, edited as one likes, and the sets there are. */
export const useBands = defineStore('bands', () => {
  const catalogue = useCatalogue()
  const notices = useNotices()
  const on = ref(false)
  const small = useStorage('mordant.bands.small', false)
  const shown = useStorage<BandSet | null>('mordant.bands', null, undefined, { serializer: { read: (text) => JSON.parse(text) as BandSet | null, write: (set) => JSON.stringify(set) } })
  const sets = ref<BandSet[]>([])

  const quantity = computed(() => catalogue.catalogue?.quantities.find((one) => one.id === shown.value?.quantity) ?? null)

  async function attempt(work: () => Promise<BandSet[]>): Promise<boolean> {
    try {
      sets.value = await work()
      return true
    } catch (error) {
      notices.trouble(error)
      return false
    }
  }

  /** Without its "own": as a file has it. */
  function plain(set: BandSet): BandSet {
    const copy = JSON.parse(JSON.stringify(set)) as BandSet
    delete copy.own
    return copy
  }

  async function flip() {
    if (sets.value.length === 0) await attempt(() => getJson<BandSet[]>('/bands'))
    shown.value ??= sets.value[0] ? plain(sets.value[0]) : null
    on.value = !on.value && shown.value !== null
  }

  const set = (change: Partial<BandSet>) => shown.value && (shown.value = { ...shown.value, ...change })

  /** Another quantity, with the range of it in two bands to begin with. */
  function measure(id: string) {
    const found = catalogue.catalogue?.quantities.find((one) => one.id === id)
    if (!found || !shown.value) return
    const middle = found.log ? Math.sqrt(found.min * found.max) : (found.min + found.max) / 2
    set({
      quantity: id,
      scale: 'absolute',
      bands: [
        { from: found.min, to: middle, colour: '#3d5a70' },
        { from: middle, to: found.max, colour: '#b99b4e' },
      ],
    })
  }

  return {
    on,
    small,
    shown,
    sets,
    quantity,
    wish: computed(() => (on.value && shown.value ? plain(shown.value) : null)),
    flip,
    set,
    measure,
    choose: (name: string) => {
      const found = sets.value.find((one) => one.name === name)
      if (found) shown.value = plain(found)
    },
    keep: (name: string) => attempt(() => sendJson<BandSet[]>('PUT', '/bands', { ...plain(shown.value as BandSet), name })).then((kept) => kept && set({ name })),
    drop: (name: string) => attempt(() => sendJson<BandSet[]>('DELETE', `/bands?name=${encodeURIComponent(name)}`)),
    /** A set from a file; the server says what is wrong with it. */
    bring: async (text: string) => {
      try {
        const given = JSON.parse(text) as BandSet
        if (await attempt(() => sendJson<BandSet[]>('PUT', '/bands', given))) shown.value = plain(given)
      } catch {
        notices.news('That file is no set of bands: it is not JSON.')
      }
    },
  }
})
