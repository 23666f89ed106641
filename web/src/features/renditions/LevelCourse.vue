<script setup lang="ts">
import type { Levels, ShotRendition } from '@/api/rendition'
import { computed } from 'vue'
import { heightOf, LIGHTS, pathOf } from './levels'

/** A shot's levels over its frames, light upwards in equal steps of stops; the target's peak and where the shot stands. */
const props = defineProps<{ line: ShotRendition | null; length: number; at: number; peak: number }>()
const emit = defineEmits<{ go: [frame: number] }>()
const WIDTH = 400
const HEIGHT = 150
const course = computed<Levels[]>(() => props.line?.course ?? [])
const place = (light: number) => HEIGHT - heightOf(light) * HEIGHT
const across = (index: number) => (course.value.length > 1 ? ((index * (props.line?.every ?? 1)) / Math.max(1, props.length - 1)) * WIDTH : 0)
const path = (part: number) =>
  pathOf(
    course.value.map((row, index): [number, number] => [across(index), place(row[part] ?? 0)]),
    WIDTH,
  )
const nits = (light: number) => (light >= 100 ? light.toFixed(0) : light >= 1 ? light.toFixed(1) : light.toFixed(4))
const words = computed(() => (props.line?.greatest === undefined ? null : { least: nits(props.line.least ?? 0), mean: nits(props.line.mean ?? 0), greatest: nits(props.line.greatest) }))

function press(event: PointerEvent) {
  const bounds = (event.currentTarget as SVGElement).getBoundingClientRect()
  if (event.buttons === 1) emit('go', Math.round(((event.clientX - bounds.left) / bounds.width) * (props.length - 1)))
}
</script>

<template>
  <figure class="flex min-h-0 min-w-0 flex-1 flex-col px-2 pt-1.5 pb-1" aria-label="levels over the shot">
    <figcaption class="mb-0.5 flex items-baseline gap-2 text-2xs whitespace-nowrap">
      <span class="font-medium text-dim" title="of the HDR picture: what is brightest of red, green and blue">Levels</span><span class="text-faint">cd/m²</span>
      <span class="flex-1" />
      <span v-if="words" class="text-dim" data-test="levels"
        >least <b class="font-medium text-ink">{{ words.least }}</b> · mean <b class="font-medium text-ink">{{ words.mean }}</b> · greatest <b class="font-medium text-ink">{{ words.greatest }}</b></span
      >
    </figcaption>
    <div class="relative min-h-0 flex-1 bg-[#131313]">
      <svg class="absolute inset-0 size-full cursor-pointer touch-none" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" preserveAspectRatio="none" role="img" aria-label="course of the levels" @pointerdown="press" @pointermove="press">
        <line v-for="light in LIGHTS" :key="light" x1="0" :x2="WIDTH" :y1="place(light)" :y2="place(light)" :stroke="light === 100 || light === 203 ? '#5c5c5c' : '#2c2c2c'" vector-effect="non-scaling-stroke" />
        <line x1="0" :x2="WIDTH" :y1="place(peak)" :y2="place(peak)" stroke="#d8b55b" stroke-dasharray="5 4" vector-effect="non-scaling-stroke" />
        <template v-if="course.length">
          <path :d="path(2)" fill="none" stroke="#d4d4d4" stroke-width="1.4" vector-effect="non-scaling-stroke" />
          <path :d="path(1)" fill="none" stroke="#9a9a9a" stroke-width="1.2" vector-effect="non-scaling-stroke" />
          <path :d="path(0)" fill="none" stroke="#5f8fb8" stroke-width="1.2" vector-effect="non-scaling-stroke" />
        </template>
        <line :x1="(at / Math.max(1, length - 1)) * WIDTH" :x2="(at / Math.max(1, length - 1)) * WIDTH" y1="0" :y2="HEIGHT" stroke="#d8b55b" vector-effect="non-scaling-stroke" />
      </svg>
      <span v-for="light in LIGHTS" :key="light" class="pointer-events-none absolute left-1 -translate-y-1/2 text-2xs text-faint" :style="{ top: `${(1 - heightOf(light)) * 100}%` }">{{ light }}</span>
      <span class="pointer-events-none absolute right-1 -translate-y-full text-2xs text-weld" :style="{ top: `${(1 - heightOf(peak)) * 100}%` }">target {{ peak }}</span>
      <p v-if="!course.length" class="absolute inset-0 flex items-center justify-center text-dim">not measured yet</p>
    </div>
  </figure>
</template>
