import { defineStore } from 'pinia'
import type { Region } from '@/api/readings'
import { ref } from 'vue'

interface Pick {
  /** What is to be picked, in words. */
  words: string
  take: (region: Region, held: { more: boolean; fewer: boolean }) => void
  /** It is asked on, until somebody leaves. */
  stays?: boolean
}

/** A patch somebody is asked to point at in the picture. */
export const usePick = defineStore('pick', () => {
  const asked = ref<Pick | null>(null)

  return {
    asked,
    ask: (words: string, take: Pick['take'], stays = false) => (asked.value = asked.value?.words === words ? null : { words, take, stays }),
    cancel: () => (asked.value = null),
    /** @param keys held with it: Shift takes more, Alt fewer */
    take(region: Region, keys: { shiftKey: boolean; altKey: boolean }) {
      const pick = asked.value
      if (!pick?.stays) asked.value = null
      pick?.take(region, { more: keys.shiftKey, fewer: keys.altKey })
    },
  }
})
