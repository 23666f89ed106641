<script setup lang="ts">
import type { WorkingSpace } from '@/api/project'
import { computed } from 'vue'
import { pivotTone, tonePivot } from './staves'
import { fineness, followDrag, isReset, useNudging } from './useDrag'
import { limitsMoved } from './zones'

/** The zones along the tone axis, what occurs there, and limits to drag. */
const props = defineProps<{
  names: string[]
  /** By zone: weights; and under "stops" and "places" where they and the limits stand, in stops. */
  shapes: Record<string, number[]>
  limits: number[]
  /** How often each tone occurs. */
  histogram: number[] | null
  shown: string | null
  space: WorkingSpace
}>()
const emit = defineEmits<{ change: [limits: number[]]; begin: []; end: []; show: [name: string] }>()

const WIDTH = 320
const HEIGHT = 96
const EDGE = 6
const FOOT = 14
const STEP = 0.05 // stops a nudge

const x = (stops: number) => EDGE + pivotTone(stops, props.space.pivots) * (WIDTH - 2 * EDGE)
const y = (share: number) => HEIGHT - FOOT - share * (HEIGHT - FOOT - 8)
const areas = computed(() =>
  props.names.map((name) => {
    const points = (props.shapes[name] ?? []).map((weight, index) => `L${x(props.shapes.stops?.[index] ?? 0).toFixed(1)} ${y(weight).toFixed(1)}`)
    return { name, path: `M${x(-9)} ${y(0)}${points.join('')}L${x(7)} ${y(0)}Z` }
  }),
)
const behind = computed(() => {
  const bins = props.histogram
  if (!bins) return ''
  const points = bins.map((share, index) => `L${(EDGE + ((index + 0.5) / bins.length) * (WIDTH - 2 * EDGE)).toFixed(1)} ${y(Math.sqrt(share) * 0.85).toFixed(1)}`)
  return `M${EDGE} ${y(0)}${points.join('')}L${WIDTH - EDGE} ${y(0)}Z`
})
const places = computed(() => props.shapes.places ?? [])
const middles = computed(() => {
  const ends = [EDGE, ...places.value.map(x), WIDTH - EDGE]
  return props.names.map((name, index) => ({ name, x: ((ends[index] ?? 0) + (ends[index + 1] ?? 0)) / 2 }))
})

const move = (index: number, stops: number) => emit('change', limitsMoved(props.limits, places.value, index, stops))

function press(event: PointerEvent, index: number) {
  const scale = WIDTH / ((event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect().width ?? WIDTH)
  followDrag(event, {
    start: () => emit('begin'),
    move: (dx) => {
      const from = places.value[index] ?? 0
      const tone = pivotTone(from, props.space.pivots) + (dx * scale) / (WIDTH - 2 * EDGE)
      move(index, tonePivot(tone, props.space.pivots) - from)
    },
    end: () => emit('end'),
  })
}

const nudging = useNudging(
  () => emit('begin'),
  () => emit('end'),
)
const WAYS: Record<string, number> = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }
function key(event: KeyboardEvent, index: number) {
  const way = WAYS[event.key]
  if (way) {
    nudging()
    move(index, way * STEP * fineness(event))
  } else if (isReset(event)) move(index, -(props.limits[index] ?? 0))
  else return
  event.preventDefault()
  event.stopPropagation()
}
const NAMES = ['first', 'second', 'third', 'fourth']
</script>

<template>
  <svg class="block w-full touch-none bg-ground" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="group" aria-label="zones over the tone axis">
    <path v-if="behind" :d="behind" class="fill-[#3a3a3a]" />
    <path v-for="area in areas" :key="area.name" :d="area.path" :class="area.name === shown ? 'fill-weld/20 stroke-weld' : 'fill-none stroke-faint'" stroke-width="1" />
    <path :d="`M${x(0)} 6V${y(0)}`" class="stroke-line" stroke-dasharray="1 3" />
    <g
      v-for="(stops, index) in places"
      :key="index"
      class="group cursor-ew-resize outline-none"
      role="slider"
      tabindex="0"
      :aria-label="`${NAMES[index]} limit`"
      :aria-valuenow="Number(stops.toFixed(3))"
      :aria-valuetext="`${stops.toFixed(2)} stops about mid grey`"
      :transform="`translate(${x(stops)} 0)`"
      @pointerdown="press($event, index)"
      @dblclick="move(index, -(limits[index] ?? 0))"
      @keydown="key($event, index)"
    >
      <rect x="-7" width="14" :height="HEIGHT - FOOT" fill="transparent" />
      <path :d="`M0 6V${y(0)}`" class="stroke-ink group-focus-visible:stroke-weld group-hover:stroke-weld" :class="limits[index] ? '' : 'opacity-60'" />
      <path d="M-4 2H4V7L0 11L-4 7Z" class="fill-dim stroke-ground group-focus-visible:fill-weld group-hover:fill-weld" />
      <text class="pointer-events-none fill-ink text-[9px] opacity-0 group-hover:opacity-100 group-focus-visible:opacity-100" x="6" y="10">{{ stops.toFixed(1) }} st</text>
    </g>
    <text v-for="zone in middles" :key="zone.name" class="cursor-pointer text-[9px]" :class="zone.name === shown ? 'fill-weld' : 'fill-dim hover:fill-ink'" text-anchor="middle" :x="zone.x" :y="HEIGHT - 3" @click="emit('show', zone.name)">
      {{ zone.name }}
    </text>
  </svg>
</template>
