<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Reading } from '../bench/usePicture'
import { useBoxDrag } from './useBoxDrag'
import { PAIR, TINTS, traceImage, useCanvas } from './useCanvas'
import { touchWords } from './touch'
import { useScopes, type ScopeKind } from './useScopes'

/** Levels over columns: luma, the channels over each other, or side by side. */
const props = defineProps<{ kind: ScopeKind; shown: Reading | null }>()

const scopes = useScopes()
const GAP = 8
const EDGE = 7 // px above and below, so that the outer marks can be read
const box = ref<HTMLElement>()
const lanes = computed(() => (props.kind === 'luma' ? ['luma'] : ['red', 'green', 'blue']))

const canvas = ref<HTMLCanvasElement>()
const { height } = useCanvas(canvas, box, (context, width, tall, pixels) => {
  const header = props.shown?.header
  const { columns, levels } = header ?? {}
  if (!columns || !levels) return
  const count = props.kind === 'parade' ? 3 : 1
  const lane = (width - GAP * pixels * (count - 1)) / count
  context.globalCompositeOperation = props.kind === 'rgb' || props.shown?.parts.beside_luma ? 'lighter' : 'source-over'
  lanes.value.forEach((channel, index) => {
    const both = [props.shown?.parts[channel], props.shown?.parts[`beside_${channel}`]]
    both.forEach((part, which) => {
      if (!part) return
      const tint = both[1] ? (PAIR[which] ?? PAIR[0]) : (TINTS[channel] ?? [205, 205, 205])
      const image = traceImage(part, columns, levels, tint, scopes.kept.intensity, (column, level) => column * levels + level)
      context.drawImage(image, (props.kind === 'parade' ? index : 0) * (lane + GAP * pixels), EDGE * pixels, lane, tall - 2 * EDGE * pixels)
    })
  })
})
const TOUCH = { under: { line: 'border-dim', text: 'text-dim' }, met: { line: 'border-leaf', text: 'text-leaf' }, past: { line: 'border-madder', text: 'text-madder' } }
const y = (place: number) => `${EDGE + (1 - place) * (height.value - 2 * EDGE)}px`

const drag = useBoxDrag(
  (from, to) => {
    const count = props.kind === 'parade' ? 3 : 1
    const lane = Math.min(count - 1, Math.floor(from[0] * count))
    const within = ([across, up]: [number, number]): [number, number] => [Math.min(1, Math.max(0, across * count - lane)), (up * height.value - EDGE) / (height.value - 2 * EDGE)]
    scopes.light = { instrument: 'waveform', channel: props.kind === 'parade' ? (lanes.value[lane] ?? 'luma') : 'luma', from: within(from), to: within(to) }
  },
  () => (scopes.light = null),
)
</script>

<template>
  <div class="relative ml-8 min-h-0 flex-1">
    <div v-for="[place, words] in scopes.marks" :key="words" class="pointer-events-none absolute inset-x-0 border-t border-[#2b2b2b]" :style="{ top: y(place) }">
      <span class="absolute -left-8 w-7 -translate-y-1/2 text-right text-2xs text-faint">{{ words }}</span>
    </div>
    <div ref="box" class="absolute inset-0 cursor-crosshair touch-none" @pointerdown="drag.press" @pointermove="drag.move" @pointerup="drag.release">
      <canvas ref="canvas" class="size-full" role="img" :aria-label="`levels of frame ${shown?.header.frame ?? 'none'}`" />
      <i v-if="drag.box.value" class="absolute border border-weld" :style="drag.box.value" />
    </div>
    <div v-for="(guide, side) in shown?.header.guides ?? {}" :key="side" class="pointer-events-none absolute inset-x-0 border-t" :class="TOUCH[guide.state].line" :style="{ top: y(guide.place) }" :data-test="`guide-${side}`">
      <span class="absolute left-0 bg-ground/70 px-0.5 text-2xs" :class="[TOUCH[guide.state].text, side === 'black' ? '-translate-y-full' : '']">{{ side }} {{ touchWords(guide) }}</span>
    </div>
    <div v-for="guide in scopes.kept.guides" :key="guide" class="pointer-events-none absolute inset-x-0 border-t border-dashed border-weld/70" :style="{ top: y(guide) }">
      <span class="absolute right-0 -translate-y-full text-2xs text-weld">{{ scopes.words(guide) }}</span>
    </div>
  </div>
</template>
