import { computed, ref, type Ref } from 'vue'

/** A marked range of the cut, to be played round. */
export function useMarks(length: Ref<number>) {
  const first = ref<number | null>(null)
  const last = ref<number | null>(null)

  return {
    range: computed(() => {
      if (first.value === null && last.value === null) return null
      const from = first.value ?? 0
      const to = last.value ?? length.value - 1
      return { first: from, count: to - from + 1 }
    }),
    /** A mark beyond the other one takes that away. */
    from(frame: number) {
      first.value = frame
      if (last.value !== null && last.value < frame) last.value = null
    },
    to(frame: number) {
      last.value = frame
      if (first.value !== null && first.value > frame) first.value = null
    },
    clear() {
      first.value = last.value = null
    },
  }
}
