import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'

/** Bundles whose parts are out of sight, by their ids, kept in this browser. */
export const useFolds = defineStore('folds', () => {
  const folded = useStorage<string[]>('mordant.bundles.folded', [])
  const MOST = 200

  return {
    has: (id: string) => folded.value.includes(id),
    flip: (id: string) => (folded.value = folded.value.includes(id) ? folded.value.filter((one) => one !== id) : [...folded.value, id].slice(-MOST)),
  }
})
