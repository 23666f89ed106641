<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'
import type { ShownPicture } from '../bench/usePicture'

interface Lane {
  /** Name of the part of the answer: brightness by column and level. */
  part: string
  tint: readonly [number, number, number]
}

const props = defineProps<{ title: string; note: string; lanes: Lane[]; shown: ShownPicture | null }>()

const MARKS = [0, 256, 512, 767, 1023]
const GAP = 8
const EDGE = 7 // px above and below, so that the outer marks can be read

const box = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(box)
const markY = (mark: number) => `${EDGE + (1 - mark / 1023) * (height.value - 2 * EDGE)}px`
const summary = computed(() => `${props.title} of frame ${props.shown?.header.frame ?? 'none'}`)

/** One lane as a picture, level 0 at the bottom. */
function laneImage(part: Uint8Array, columns: number, levels: number, tint: Lane['tint']): OffscreenCanvas {
  const image = new ImageData(columns, levels)
  for (let column = 0; column < columns; column++)
    for (let level = 0; level < levels; level++) {
      const bright = part[column * levels + level] ?? 0
      if (bright === 0) continue
      const at = ((levels - 1 - level) * columns + column) * 4
      image.data[at] = tint[0]
      image.data[at + 1] = tint[1]
      image.data[at + 2] = tint[2]
      image.data[at + 3] = bright
    }
  const surface = new OffscreenCanvas(columns, levels)
  surface.getContext('2d')?.putImageData(image, 0, 0)
  return surface
}

watchEffect(
  () => {
    const surface = canvas.value
    const context = surface?.getContext('2d')
    const header = props.shown?.header
    if (!surface || !context || !header?.columns || !header.levels || width.value === 0) return
    const pixels = window.devicePixelRatio || 1
    surface.width = Math.round(width.value * pixels)
    surface.height = Math.round(height.value * pixels)
    const lane = (surface.width - GAP * pixels * (props.lanes.length - 1)) / props.lanes.length
    props.lanes.forEach(({ part, tint }, index) => {
      const bytes = props.shown?.parts[part]
      if (!bytes || !header.columns || !header.levels) return
      const image = laneImage(bytes, header.columns, header.levels, tint)
      context.drawImage(image, index * (lane + GAP * pixels), EDGE * pixels, lane, surface.height - 2 * EDGE * pixels)
    })
  },
  { flush: 'post' },
)
</script>

<template>
  <figure class="flex min-h-0 min-w-0 flex-col px-2 pt-1.5 pb-1">
    <figcaption class="mb-0.5 text-2xs font-medium text-dim">{{ title }} <span class="ml-1.5 font-normal text-faint">{{ note }}</span></figcaption>
    <div class="relative ml-7 min-h-0 flex-1">
      <div v-for="mark in MARKS" :key="mark" class="pointer-events-none absolute inset-x-0 border-t border-[#2b2b2b]" :style="{ top: markY(mark) }">
        <span class="absolute -left-7 w-6 -translate-y-1/2 text-right text-2xs text-faint">{{ mark }}</span>
      </div>
      <div ref="box" class="absolute inset-0"><canvas ref="canvas" class="size-full" role="img" :aria-label="summary" /></div>
    </div>
  </figure>
</template>
