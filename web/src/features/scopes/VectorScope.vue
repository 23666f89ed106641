<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Reading } from '../bench/usePicture'
import { useCatalogue } from '../shell/useCatalogue'
import { useBoxDrag } from './useBoxDrag'
import { PAIR, traceImage, useCanvas } from './useCanvas'
import { useScopes } from './useScopes'

/** Colour differences: Cb to the right, Cr up, the skin-tone line, and where the bars of the target stand. */
const props = defineProps<{ shown: Reading | null }>()

const scopes = useScopes()
const catalogue = useCatalogue()
const box = ref<HTMLElement>()
const zoom = computed(() => scopes.kept.zoom)

const canvas = ref<HTMLCanvasElement>()
const { width, height } = useCanvas(canvas, box, (context, wide, tall) => {
  const part = props.shown?.parts.vector
  const size = props.shown?.header.vector?.size
  if (!part || !size) return
  const edge = Math.min(wide, tall)
  const second = props.shown?.parts.beside_vector
  context.globalCompositeOperation = 'lighter'
  ;[part, second].forEach((bytes, which) => {
    if (!bytes) return
    const image = traceImage(bytes, size, size, second ? (PAIR[which] ?? PAIR[0]) : [205, 205, 205], scopes.kept.intensity, (column, row) => row * size + column)
    context.drawImage(image, (wide - edge) / 2, (tall - edge) / 2, edge, edge)
  })
})
const edge = computed(() => Math.min(width.value, height.value))
/** Shares of the square from the lower left. */
const half = computed(() => props.shown?.header.vector?.half ?? 1)
const share = (difference: number) => 0.5 + difference / (2 * half.value)
const targets = computed(() => (scopes.vectorTargets ?? []).map((one) => ({ ...one, x: share(one.cb), y: 1 - share(one.cr) })).filter(({ x, y }) => x >= 0 && x <= 1 && y >= 0 && y <= 1))
const line = computed(() => {
  const angle = ((catalogue.catalogue?.skin_line ?? 0) * Math.PI) / 180
  return { x: 50 + Math.cos(angle) * 50, y: 50 - Math.sin(angle) * 50 }
})

const drag = useBoxDrag(
  (from, to) => {
    const difference = ([x, y]: [number, number]): [number, number] => [(x - 0.5) * 2 * half.value, (y - 0.5) * 2 * half.value]
    scopes.light = { instrument: 'vectorscope', from: difference(from), to: difference(to) }
  },
  () => (scopes.light = null),
)
</script>

<template>
  <div ref="box" class="relative min-h-0 flex-1">
    <div class="absolute inset-0 flex items-center justify-center">
      <svg class="absolute" :style="{ width: `${edge}px`, height: `${edge}px` }" viewBox="0 0 100 100" aria-hidden="true">
        <circle v-for="radius in [12.5, 25, 37.5, 50]" :key="radius" cx="50" cy="50" :r="radius - 0.2" class="fill-none stroke-[#2b2b2b]" stroke-width="0.4" />
        <path d="M50 0V100M0 50H100" class="stroke-[#2b2b2b]" stroke-width="0.4" />
        <path :d="`M50 50L${line.x} ${line.y}`" class="stroke-weld/70" stroke-width="0.5" />
        <g v-for="one in targets" :key="`${one.name}${one.level}`">
          <path :d="`M${one.x * 100 - 2} ${one.y * 100 - 2}h4v4h-4z`" class="fill-none" :class="one.level === 1 ? 'stroke-faint' : 'stroke-dim'" stroke-width="0.5" />
          <text v-if="one.level !== 1" :x="one.x * 100 + 3" :y="one.y * 100 - 2" class="fill-dim text-[4.5px]">{{ one.name }}</text>
        </g>
      </svg>
    </div>
    <canvas ref="canvas" class="pointer-events-none absolute inset-0 size-full" role="img" :aria-label="`colour differences of frame ${shown?.header.frame ?? 'none'}`" />
    <div class="absolute inset-0 m-auto cursor-crosshair touch-none" :style="{ width: `${edge}px`, height: `${edge}px` }" @pointerdown="drag.press" @pointermove="drag.move" @pointerup="drag.release">
      <i v-if="drag.box.value" class="absolute border border-weld" :style="drag.box.value" />
    </div>
    <div class="absolute right-0 bottom-0 flex gap-1 text-2xs" role="radiogroup" aria-label="zoom of the vectorscope">
      <button v-for="one in [1, 2, 4] as const" :key="one" role="radio" :aria-checked="zoom === one" class="px-0.5" :class="zoom === one ? 'text-ink' : 'text-faint hover:text-ink'" @click="scopes.set({ zoom: one })">{{ one }}×</button>
    </div>
  </div>
</template>
