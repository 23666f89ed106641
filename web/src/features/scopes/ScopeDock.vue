<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import type { ShownPicture } from '../bench/usePicture'
import { followDrag } from '../grade/useDrag'
import TraceScope from './TraceScope.vue'

defineProps<{
  shown: ShownPicture | null
  /** Over the large picture. */
  floating?: boolean
}>()

const SMALLEST = 120
const LARGEST = 420
const height = useStorage('mordant.scopes.height', 244)

function press(event: PointerEvent) {
  followDrag(event, { move: (_, dy) => (height.value = Math.min(LARGEST, Math.max(SMALLEST, height.value - dy))) })
}

const LUMA = [{ part: 'luma', tint: [200, 200, 200] as const }]
const PARADE = [
  { part: 'red', tint: [214, 112, 92] as const },
  { part: 'green', tint: [150, 176, 118] as const },
  { part: 'blue', tint: [104, 152, 198] as const },
]
</script>

<template>
  <div class="grid shrink-0 grid-cols-[2fr_3fr]" :class="floating ? 'absolute bottom-20 left-3 z-10 w-[560px] border border-line bg-ground/85' : 'relative border-t border-line'" :style="{ height: `${floating ? Math.min(height, 200) : height}px` }">
    <div class="absolute inset-x-0 -top-1 z-10 h-2 cursor-ns-resize touch-none" title="drag to size the scopes" @pointerdown="press" />
    <TraceScope title="Waveform" note="luma · 10-bit, full" :lanes="LUMA" :shown="shown" class="border-r border-line" />
    <TraceScope title="Parade" note="red, green, blue · 10-bit, full" :lanes="PARADE" :shown="shown" />
  </div>
</template>
