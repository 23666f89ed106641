<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Reading } from '../bench/usePicture'
import { useBoxDrag } from './useBoxDrag'
import { PAIR, TINTS, useCanvas } from './useCanvas'
import { useScopes } from './useScopes'

/** How often each 10-bit code occurs: the channels, and luma under them. */
const props = defineProps<{ shown: Reading | null }>()

const scopes = useScopes()
const CODES = 1024
const FOOT = 14
const CHANNELS = ['luma', 'red', 'green', 'blue']
const box = ref<HTMLElement>()
function countsOf(part: Uint8Array | undefined) {
  if (!part) return null
  const all = new Uint32Array(part.buffer.slice(part.byteOffset, part.byteOffset + part.byteLength))
  return CHANNELS.map((_, index) => all.subarray(index * CODES, (index + 1) * CODES))
}
const counts = computed(() => countsOf(props.shown?.parts.histogram))
/** Of the reference; then luma alone is shown of both. */
const second = computed(() => countsOf(props.shown?.parts.beside_histogram))

/** Counts of as many bins as there are pixels for. */
function gathered(list: Uint32Array, bins: number): number[] {
  const sums = new Array<number>(bins).fill(0)
  list.forEach((count, code) => {
    const bin = Math.floor((code * bins) / CODES)
    sums[bin] = (sums[bin] ?? 0) + count
  })
  return sums
}

const canvas = ref<HTMLCanvasElement>()
const { width } = useCanvas(canvas, box, (context, wide, tall) => {
  if (!counts.value) return
  const foot = tall - FOOT * (tall / Math.max(1, box.value?.clientHeight ?? tall))
  const bins = Math.min(CODES, Math.floor(wide))
  const shown = second.value ? [counts.value[0], second.value[0]].filter((list) => list !== undefined) : counts.value
  const lists = shown.map((list) => gathered(list, bins))
  // ends often hold so many that nothing else could be seen
  const top = Math.sqrt(Math.max(1, ...lists.flatMap((list) => list.slice(1, -1)))) / scopes.kept.intensity
  const high = (count: number) => Math.max(count > 0 ? 1.5 : 0, Math.min(1, Math.sqrt(count) / top) * (foot - 4))
  lists.forEach((list, index) => {
    const [r, g, b] = (second.value ? PAIR[index as 0 | 1] : TINTS[CHANNELS[index] ?? 'luma']) ?? [205, 205, 205]
    context.fillStyle = '#3a3a3a'
    context.strokeStyle = `rgb(${r} ${g} ${b})`
    context.lineWidth = 1.2
    context.beginPath()
    context.moveTo(0, foot)
    list.forEach((count, bin) => context.lineTo((bin / (bins - 1)) * wide, foot - high(count)))
    context.lineTo(wide, foot)
    if (index === 0 && !second.value) context.fill()
    else context.stroke()
  })
})

const drag = useBoxDrag(
  (from, to) => (scopes.light = { instrument: 'histogram', channel: 'luma', from: from[0], to: to[0] }),
  () => (scopes.light = null),
)
</script>

<template>
  <div class="relative min-h-0 flex-1">
    <div ref="box" class="absolute inset-x-2 inset-y-0 cursor-crosshair touch-none" @pointerdown="drag.press" @pointermove="drag.move" @pointerup="drag.release">
      <canvas ref="canvas" class="size-full" role="img" :aria-label="`codes of frame ${shown?.header.frame ?? 'none'}`" />
      <i v-if="drag.box.value" class="absolute inset-y-0 border-x border-weld" :style="{ left: drag.box.value.left, width: drag.box.value.width }" />
    </div>
    <div class="pointer-events-none absolute inset-x-2 bottom-0 h-3 text-2xs text-faint">
      <span v-for="([place, words], index) in scopes.marks" :key="words" class="absolute" :class="index === 0 ? '' : place > 0.97 ? '-translate-x-full' : '-translate-x-1/2'" :style="{ left: `${place * width}px` }">{{ words }}</span>
    </div>
    <div v-for="guide in scopes.kept.guides" :key="guide" class="pointer-events-none absolute inset-y-0 border-l border-dashed border-weld/70" :style="{ left: `${8 + guide * width}px` }" />
  </div>
</template>
