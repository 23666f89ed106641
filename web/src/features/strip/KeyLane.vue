<script setup lang="ts">
import { computed } from 'vue'
import { withMovedPicks } from './courses'
import { usePicks } from './usePicks'
import { useStrip, type KeyRow } from './useStrip'
import { useStripDrag } from './useStripDrag'
import { useTimeView } from './useTimeView'

/** Keys of a parameter, or of several at once, in their frames. */
const props = defineProps<{ row: KeyRow; marked: { first: number; count: number } | null }>()
const emit = defineEmits<{ go: [frame: number] }>()
const strip = useStrip()
const picks = usePicks()
const view = useTimeView()
const { drag } = useStripDrag(() => props.marked)

const frames = computed(() => [...new Set(props.row.picks.map((pick) => pick.frame))].sort((a, b) => a - b))
const picksAt = (frame: number) => props.row.picks.filter((pick) => pick.frame === frame)
const picked = (frame: number) => picksAt(frame).every(picks.has)
const at = (frame: number) => `${view.at(frame + (strip.open?.start ?? 0) + 0.5)}%`

/** How it goes on from a key. */
const eases = computed(() => {
  const step = strip.open?.step
  return frames.value.slice(0, -1).map((frame, index) => {
    const all = picksAt(frame).map((pick) => (step ? (strip.coursesOf(step, pick.part)[pick.name]?.find((key) => key.frame === frame)?.ease ?? 'straight') : 'straight'))
    return { from: frame, to: frames.value[index + 1] ?? frame, ease: new Set(all).size === 1 ? (all[0] ?? 'straight') : 'straight' }
  })
})

function press(event: PointerEvent, frame: number) {
  const mine = picksAt(frame)
  const more = event.ctrlKey || event.metaKey
  const already = mine.every(picks.has)
  if (more || !already) picks.pick(mine, more)
  const [open, all] = [strip.open, [...picks.keys]]
  if (!open || all.length === 0) return
  const from = { document: open.recipe.document, step: open.step }
  drag(event, frame, (by, gesture) => strip.change((courses, on) => withMovedPicks(courses, on, by), 'keys moved', all, gesture, from), {
    end: (by) => (picks.keys = all.map((pick) => ({ ...pick, frame: pick.frame + by }))),
    click: () => already && !more && picks.pick(mine, false),
  })
}
</script>

<template>
  <div class="relative h-5" role="group" :aria-label="`keys of ${row.label}`">
    <i
      v-for="way in eases"
      :key="way.from"
      class="absolute top-1/2"
      :class="way.ease === 'hold' ? 'border-t border-dashed border-faint' : way.ease === 'smooth' ? 'h-0.5 -translate-y-px bg-dim' : 'border-t border-faint'"
      :style="{ left: at(way.from), width: `${view.at(way.to) - view.at(way.from)}%` }"
      :title="way.ease"
    />
    <button
      v-for="(frame, index) in frames"
      :key="index"
      class="pointer-events-auto absolute top-1/2 size-2.5 -translate-x-1/2 -translate-y-1/2 rotate-45 cursor-ew-resize touch-none rounded-[1px] border border-ground focus-visible:outline focus-visible:outline-weld"
      :class="picked(frame) ? 'bg-weld' : 'bg-ink'"
      :style="{ left: at(frame) }"
      :aria-label="`key of ${row.label} at frame ${frame + 1}`"
      :aria-pressed="picked(frame)"
      title="drag it; arrows nudge, Delete takes it off, a double click goes there"
      @pointerdown.stop="press($event, frame)"
      @dblclick.stop="emit('go', frame + (strip.open?.start ?? 0))"
    />
  </div>
</template>
