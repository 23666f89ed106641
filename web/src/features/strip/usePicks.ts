import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { useOpenStep } from '../grade/useOpenStep'
import type { Pick } from './courses'

/** A key of the open step, or of a contributor to its matte. */
export interface StripPick extends Pick {
  part: string | null
}

const same = (a: StripPick, b: StripPick) => a.part === b.part && a.name === b.name && a.frame === b.frame

/** What is picked on the strip: some keys, or a span. */
export const usePicks = defineStore('strip picks', () => {
  const opened = useOpenStep()
  const keys = ref<StripPick[]>([])
  const span = ref<string | null>(null)

  function clear() {
    keys.value = []
    span.value = null
  }
  watch(() => opened.id, clear)

  return {
    keys,
    span,
    clear,
    /** With more, to those that are picked, or off them where all are. */
    pick(found: StripPick[], more: boolean) {
      span.value = null
      const all = found.every((one) => keys.value.some((other) => same(one, other)))
      keys.value = !more ? found : all ? keys.value.filter((one) => !found.some((other) => same(one, other))) : [...keys.value, ...found]
    },
    pickSpan(id: string) {
      keys.value = []
      span.value = id
    },
    has: (one: StripPick) => keys.value.some((pick) => same(pick, one)),
  }
})
