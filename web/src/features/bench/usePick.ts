import { defineStore } from 'pinia'
import type { Region } from '@/api/readings'
import { ref } from 'vue'

interface Pick {
  /** What is to be picked, in words. */
  words: string
  take: (region: Region) => void
}

/** A patch somebody is asked to point at in the picture. */
export const usePick = defineStore('pick', () => {
  const asked = ref<Pick | null>(null)

  return {
    asked,
    ask: (words: string, take: Pick['take']) => (asked.value = asked.value?.words === words ? null : { words, take }),
    cancel: () => (asked.value = null),
    take(region: Region) {
      const pick = asked.value
      asked.value = null
      pick?.take(region)
    },
  }
})
