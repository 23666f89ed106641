<script setup lang="ts">
import { computed } from 'vue'

/** Variance over level, of luma and two colour differences, the coarser the detail the fainter. */
const props = defineProps<{ shapes: Record<string, number[]> }>()
const [WIDTH, HEIGHT, EDGE] = [320, 96, 6]
const [LOW, HIGH] = [-8, -2] // logarithms of variances
const PLANES = [
  { name: 'luma', words: 'luma', stroke: 'stroke-ink', fill: 'fill-ink' },
  { name: 'u', words: 'red–blue', stroke: 'stroke-madder', fill: 'fill-madder' },
  { name: 'v', words: 'green–magenta', stroke: 'stroke-leaf', fill: 'fill-leaf' },
]
const SIZES = [0, 1, 2, 3]
const lines = computed(() => {
  const levels = props.shapes.levels ?? []
  const [first, last] = [levels[0] ?? 0, levels.at(-1) ?? 1]
  const x = (level: number) => EDGE + ((level - first) / Math.max(1e-6, last - first)) * (WIDTH - 2 * EDGE)
  const y = (value: number) => HEIGHT - EDGE - ((Math.min(HIGH, Math.max(LOW, value)) - LOW) / (HIGH - LOW)) * (HEIGHT - 2 * EDGE)
  return PLANES.flatMap(({ name, stroke }) =>
    SIZES.map((size) => ({ key: `${name}_${size}`, stroke, opacity: 1 - size * 0.22, path: (props.shapes[`${name}_${size}`] ?? []).map((value, at) => `${at ? 'L' : 'M'}${x(levels[at] ?? 0).toFixed(1)} ${y(value).toFixed(1)}`).join('') })),
  )
})
</script>

<template>
  <svg class="mx-3 mb-1 block bg-ground" style="width: calc(100% - 1.5rem)" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" aria-label="variance of the noise over level">
    <path v-for="line in lines" :key="line.key" :d="line.path" class="fill-none" :class="line.stroke" :style="{ opacity: line.opacity }" stroke-width="1.2" :data-test="`noise-${line.key}`" />
    <g class="text-[9px]">
      <text v-for="(plane, at) in PLANES" :key="plane.name" :x="EDGE + 4 + at * 70" y="12" :class="plane.fill">{{ plane.words }}</text>
    </g>
    <text class="fill-dim text-[9px]" :x="WIDTH - EDGE" :y="HEIGHT - 3" text-anchor="end">level; fine to coarse, bright to faint</text>
  </svg>
</template>
