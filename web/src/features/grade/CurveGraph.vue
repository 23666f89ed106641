<script setup lang="ts">
import type { CurvePoint, CurveSpec } from '@/api/declared'
import { computed, ref } from 'vue'
import { added, moved, removed, restAt } from './curvePoints'
import { fineness, followDrag, isReset, useNudging } from './useDrag'

const props = defineProps<{
  spec: CurveSpec
  points: CurvePoint[]
  /** The curve as the core computes it: values at equal distances of place, 0..1. */
  samples: number[] | null
  /** How often each place of the curve occurs. */
  histogram: number[] | null
}>()
const emit = defineEmits<{ change: [points: CurvePoint[]]; begin: []; end: [] }>()

const WIDTH = 320
const HEIGHT = 150
const EDGE = 12
const HUES = ['#b0503f', '#b09a4a', '#6f9457', '#4f9a94', '#5878b0', '#94619a', '#b0503f']
const box = ref<SVGSVGElement>()

const diagonal = computed(() => props.spec.rest === 'diagonal')
const range = computed(() => (diagonal.value ? [0, 1] : [props.spec.min, props.spec.max]) as [number, number])
const x = (place: number) => EDGE + place * (WIDTH - 2 * EDGE)
const y = (value: number) => HEIGHT - EDGE - ((value - range.value[0]) / (range.value[1] - range.value[0])) * (HEIGHT - 2 * EDGE)
const place = (at: number) => (at - EDGE) / (WIDTH - 2 * EDGE)
const valueAt = (at: number) => range.value[0] + ((HEIGHT - EDGE - at) / (HEIGHT - 2 * EDGE)) * (range.value[1] - range.value[0])

const path = computed(() => {
  const values = props.samples ?? [0, 1].map((at) => restAt(props.spec, at))
  return values.map((value, index) => `${index ? 'L' : 'M'}${x(index / (values.length - 1)).toFixed(1)} ${y(value).toFixed(1)}`).join('')
})
const behind = computed(() => {
  const bins = props.histogram
  if (!bins) return ''
  const points = bins.map((share, index) => `L${x((index + 0.5) / bins.length).toFixed(1)} ${(HEIGHT - EDGE - Math.sqrt(share) * (HEIGHT - 2 * EDGE) * 0.8).toFixed(1)}`)
  return `M${x(0)} ${HEIGHT - EDGE}${points.join('')}L${x(1)} ${HEIGHT - EDGE}Z`
})

function at(event: { clientX: number; clientY: number }): CurvePoint {
  const bounds = box.value?.getBoundingClientRect()
  if (!bounds) return [0, 0]
  return [place(((event.clientX - bounds.left) / bounds.width) * WIDTH), valueAt(((event.clientY - bounds.top) / bounds.height) * HEIGHT)]
}

/** @param fresh the points with one just made, which a press goes on to move */
function drag(event: PointerEvent, index: number, fresh?: CurvePoint[]) {
  const scale = WIDTH / (box.value?.getBoundingClientRect().width ?? WIDTH)
  followDrag(event, {
    start: () => emit('begin'),
    move: (dx, dy) => {
      const [px, py] = props.points[index] ?? fresh?.[index] ?? [0, 0]
      emit('change', moved(props.points, index, [px + (dx * scale) / (WIDTH - 2 * EDGE), py - ((dy * scale) / (HEIGHT - 2 * EDGE)) * (range.value[1] - range.value[0])], props.spec))
    },
    end: () => emit('end'),
  })
}

function add(event: PointerEvent) {
  const made = added(props.points, at(event), props.spec)
  if (!made) return
  emit('change', made.points)
  drag(event, made.index, made.points)
}

const nudging = useNudging(
  () => emit('begin'),
  () => emit('end'),
)
const STEP = 0.005
const WAYS: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }

function key(event: KeyboardEvent, index: number) {
  const way = WAYS[event.key]
  const point = props.points[index]
  if (!point) return
  if (way) {
    nudging()
    const by = STEP * fineness(event)
    emit('change', moved(props.points, index, [point[0] + way[0] * by, point[1] + way[1] * by], props.spec))
  } else if (isReset(event)) emit('change', removed(props.points, index, props.spec))
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <svg ref="box" class="block w-full touch-none bg-ground" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="group" :aria-label="`curve ${spec.label}`">
    <defs>
      <linearGradient id="hues"><stop v-for="(colour, index) in HUES" :key="index" :offset="index / (HUES.length - 1)" :stop-color="colour" /></linearGradient>
    </defs>
    <rect width="100%" height="100%" fill="transparent" class="cursor-crosshair" @pointerdown="add" />
    <path v-if="behind" :d="behind" class="pointer-events-none fill-[#353535]" />
    <path class="pointer-events-none stroke-line" :d="`M${x(0)} ${y(diagonal ? 0 : 0)}L${x(1)} ${y(diagonal ? 1 : 0)}`" />
    <rect v-if="spec.across === 'hue'" :x="x(0)" :y="HEIGHT - 7" :width="x(1) - x(0)" height="4" fill="url(#hues)" />
    <path :d="path" class="pointer-events-none fill-none stroke-ink" stroke-width="1.4" />
    <g
      v-for="(point, index) in points"
      :key="index"
      class="cursor-move outline-none [&:focus-visible>circle]:stroke-weld"
      role="slider"
      tabindex="0"
      :aria-label="`point ${index + 1} of ${spec.label}`"
      :aria-valuenow="point[1]"
      :aria-valuetext="`${(point[0] * 100).toFixed(1)} % becomes ${(point[1] * 100).toFixed(1)} %`"
      :transform="`translate(${x(point[0])} ${y(point[1])})`"
      @pointerdown.stop="drag($event, index)"
      @dblclick="emit('change', removed(points, index, spec))"
      @keydown="key($event, index)"
    >
      <circle r="9" fill="transparent" stroke="transparent" />
      <path d="M0 -4.5L4.5 0L0 4.5L-4.5 0Z" class="fill-ink stroke-ground hover:fill-weld" />
    </g>
  </svg>
</template>
