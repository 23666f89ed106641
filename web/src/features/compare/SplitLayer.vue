<script setup lang="ts">
import { computed, ref, watchEffect } from 'vue'
import { drawReal, type RealPixels } from '../bench/useRealPixels'

/** The reference over the first, right of a line that is dragged. */
const props = withDefaults(
  defineProps<{ bitmap: ImageBitmap | null; place: { x: number; y: number; width: number; height: number }; whole: boolean; words: string; /** What the first picture is called. */ first?: string; real?: RealPixels | null }>(),
  { first: 'graded', real: null },
)
const split = defineModel<number>('split', { required: true })
const canvas = ref<HTMLCanvasElement>()
const box = ref<HTMLElement>()
const pixels = window.devicePixelRatio || 1
const line = computed(() => props.place.x + split.value * props.place.width)

watchEffect(
  () => {
    const surface = canvas.value
    const context = surface?.getContext('2d')
    if (!surface || !context || !box.value) return
    const { x, y, width, height } = props.place
    surface.width = Math.round(box.value.clientWidth * pixels)
    surface.height = Math.round(box.value.clientHeight * pixels)
    if (!props.bitmap || props.bitmap.width === 0) return
    context.save()
    context.beginPath()
    context.rect((props.whole ? x : line.value) * pixels, 0, surface.width, surface.height)
    context.clip()
    context.imageSmoothingQuality = 'high'
    context.drawImage(props.bitmap, x * pixels, y * pixels, width * pixels, height * pixels)
    if (props.real) drawReal(context, props.real, props.place, pixels)
    context.restore()
  },
  { flush: 'post' },
)

function move(event: PointerEvent) {
  const bounds = box.value?.getBoundingClientRect()
  if (!bounds || event.buttons !== 1) return
  split.value = Math.min(0.99, Math.max(0.01, (event.clientX - bounds.left - props.place.x) / props.place.width))
}
function press(event: PointerEvent) {
  event.stopPropagation()
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
const WAYS: Record<string, number> = { ArrowLeft: -0.01, ArrowRight: 0.01 }
function key(event: KeyboardEvent) {
  const way = WAYS[event.key]
  if (!way) return
  split.value = Math.min(0.99, Math.max(0.01, split.value + way * (event.shiftKey ? 5 : 1)))
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div ref="box" class="pointer-events-none absolute inset-0">
    <canvas ref="canvas" class="size-full" role="img" aria-label="reference" />
    <div
      v-if="!whole"
      class="pointer-events-auto absolute inset-y-0 w-3 -translate-x-1/2 cursor-ew-resize touch-none outline-none"
      :style="{ left: `${line}px` }"
      role="slider"
      tabindex="0"
      aria-label="split"
      :aria-valuenow="Math.round(split * 100)"
      @pointerdown="press"
      @pointermove="move"
      @keydown="key"
    >
      <i class="absolute inset-y-0 left-1/2 w-px bg-woad" />
      <span class="absolute right-1/2 bottom-1 mr-1.5 bg-ground/80 px-1 text-2xs whitespace-nowrap text-weld">{{ first }}</span>
      <span class="absolute bottom-1 left-1/2 ml-1.5 bg-ground/80 px-1 text-2xs whitespace-nowrap text-[#7fb0e0]">{{ words }}</span>
    </div>
  </div>
</template>
