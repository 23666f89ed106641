import { computed, ref } from 'vue'

const SLACK = 4 // px before a click is a box

/** A box somebody drags in an element, in shares of it from the lower left; a click takes it away. */
export function useBoxDrag(done: (from: [number, number], to: [number, number]) => void, cleared: () => void) {
  const from = ref<[number, number] | null>(null)
  const to = ref<[number, number] | null>(null)
  let start = { x: 0, y: 0 }

  const place = (event: PointerEvent): [number, number] => {
    const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
    const held = (share: number) => Math.min(1, Math.max(0, share))
    return [held((event.clientX - bounds.left) / bounds.width), held(1 - (event.clientY - bounds.top) / bounds.height)]
  }

  return {
    box: computed(() => {
      if (!from.value || !to.value) return null
      const [left, right] = [from.value[0], to.value[0]].sort((a, b) => a - b) as [number, number]
      const [low, high] = [from.value[1], to.value[1]].sort((a, b) => a - b) as [number, number]
      return { left: `${left * 100}%`, width: `${(right - left) * 100}%`, bottom: `${low * 100}%`, height: `${(high - low) * 100}%` }
    }),
    press(event: PointerEvent) {
      if (event.button !== 0) return
      ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
      start = { x: event.clientX, y: event.clientY }
      from.value = to.value = place(event)
    },
    move(event: PointerEvent) {
      if (from.value) to.value = place(event)
    },
    release(event: PointerEvent) {
      const [a, b] = [from.value, to.value]
      from.value = to.value = null
      if (!a || !b) return
      if (Math.hypot(event.clientX - start.x, event.clientY - start.y) > SLACK) done(a, b)
      else cleared()
    },
  }
}
