<script setup lang="ts">
import type { Exposed } from '@/api/readings'
import type { WorkingSpace } from '@/api/project'
import { computed, ref } from 'vue'
import { across, CX, CY, DENSEST, down, HEIGHT, left, onPrint, POINT, REACH, type Shapes, STOP, up, wayOf, WIDTH } from './filmChart'
import { tonePivot } from './staves'
import { followDrag } from './useDrag'

/**
 * A tone reproduction diagram: the negative over log exposure, the print over the negative's density, the way to light, and what
 * comes of it over log exposure, as the core computes them. What is drawn is pulled where it is drawn.
 */
const props = defineProps<{
  /** By name and channel; see Film::Chain#way and #holds. */
  shapes: Shapes
  negative: string
  print: string
  /** How often each tone occurs. */
  histogram: number[] | null
  exposed: Exposed | null
  space: WorkingSpace
}>()

/** What is pulled, and by how much: stops, points, or times the slope. */
export type Pull = { name: 'exposure' | 'speed' | 'toe' | 'shoulder' | 'print_exposure'; stops: number } | { name: 'slope'; times: number } | { name: 'points'; channel: number; points: number }
const emit = defineEmits<{ pull: [pull: Pull]; begin: []; end: [] }>()

const LINES = [
  { channel: 'red', stroke: 'stroke-madder', fill: 'fill-madder', held: 0.6 },
  { channel: 'green', stroke: 'stroke-leaf', fill: 'fill-leaf', held: 1.1 },
  { channel: 'blue', stroke: 'stroke-woad', fill: 'fill-woad', held: 1.7 },
] as const
const box = ref<SVGSVGElement>()

const of = (name: string) => props.shapes[name] ?? []
const line = (xs: number[], ys: number[]) => xs.map((x, index) => `${index ? 'L' : 'M'}${x.toFixed(1)} ${(ys[index] ?? 0).toFixed(1)}`).join('')
const paths = computed(() =>
  LINES.map(({ channel, stroke }) => ({
    stroke,
    negative: line(of('exposure').map(across), of(`negative_${channel}`).map(up)),
    print: line(of(`print_${channel}`).map(left), of(`dyes_${channel}`).map(up)),
    light: line(of(`print_${channel}`).map(left), of(`light_${channel}`).map(down)),
    result: line(of('exposure').map(across), of(`light_${channel}`).map(down)),
  })),
)
/** Ways round the quarters: of the darkest and the lightest, of mid grey, or in its place of a patch. */
const ways = computed(() => {
  const [dark, light] = props.exposed?.ends ?? []
  const patch = props.exposed?.patch
  return [
    ...(dark === undefined || light === undefined
      ? []
      : [
          { name: 'darkest', stroke: 'stroke-faint', ...wayOf(props.shapes, dark) },
          { name: 'lightest', stroke: 'stroke-dim', ...wayOf(props.shapes, light) },
        ]),
    { name: patch === undefined ? 'middle' : 'patch', stroke: 'stroke-weld', ...wayOf(props.shapes, patch ?? 0) },
  ]
})
const behind = computed(() => {
  const bins = props.histogram
  if (!bins) return ''
  const points = bins.map((share, index) => `L${across(tonePivot((index + 0.5) / bins.length, props.space.pivots) * STOP).toFixed(1)} ${(CY + HEIGHT - Math.sqrt(share) * 36).toFixed(1)}`)
  return `M${CX} ${CY + HEIGHT}${points.join('')}L${CX + WIDTH} ${CY + HEIGHT}Z`
})
const placeOf = (name: string): [number, number] | null => (of(name).length ? [across(of(name)[0] ?? 0), up(of(name)[1] ?? 0)] : null)
const holds = computed(() =>
  (['toe', 'shoulder'] as const).flatMap((name) => {
    const place = placeOf(name)
    return place ? [{ name, place }] : []
  }),
)
const straight = computed(() => placeOf('line'))
/** Where the negative begins to rise, at the foot of its quarter. */
const foot = computed(() => placeOf('toe'))
const lights = computed(() =>
  LINES.flatMap(({ channel, fill, held }, index) => {
    const place = onPrint(props.shapes, channel, held)
    return place ? [{ channel, fill, index, place }] : []
  }),
)

const perUnit = () => 320 / (box.value?.getBoundingClientRect().width ?? 320)
const stopsAcross = (dx: number) => (dx * perUnit() * REACH) / WIDTH / STOP
const densityUp = (dy: number) => (-dy * perUnit() * DENSEST) / HEIGHT
function pull(event: PointerEvent, how: (dx: number, dy: number) => Pull) {
  followDrag(event, { start: () => emit('begin'), move: (dx, dy) => emit('pull', how(dx, dy)), end: () => emit('end') })
}
const steepen = (dy: number): Pull => {
  const density = Math.max(0.1, of('line')[1] ?? 1)
  return { name: 'slope', times: Math.max(0.2, (density + densityUp(dy)) / density) }
}
</script>

<template>
  <svg ref="box" class="w-full bg-ground text-2xs select-none" viewBox="0 0 320 284" role="img" aria-label="tone reproduction diagram">
    <g class="stroke-line" stroke-width="0.5">
      <path
        v-for="step in 3"
        :key="step"
        :d="`M${CX + (step * WIDTH) / 4} ${CY - HEIGHT}V${CY + HEIGHT}M${CX - (step * WIDTH) / 4} ${CY - HEIGHT}V${CY + HEIGHT}M${CX - WIDTH} ${CY - (step * HEIGHT) / 4}H${CX + WIDTH}M${CX - WIDTH} ${CY + (step * HEIGHT) / 4}H${CX + WIDTH}`"
      />
    </g>
    <path :d="`M${CX} ${CY - HEIGHT}V${CY + HEIGHT}M${CX - WIDTH} ${CY}H${CX + WIDTH}`" class="stroke-faint" stroke-width="0.8" />
    <path :d="behind" class="fill-line" />
    <g v-for="one in paths" :key="one.stroke" class="fill-none" :class="one.stroke" stroke-width="1.2">
      <path :d="one.negative" data-test="negative" />
      <path :d="one.print" data-test="print" />
      <path :d="one.light" stroke-width="0.6" />
      <path :d="one.result" data-test="result" />
    </g>
    <g v-for="way in ways" :key="way.name" class="fill-none" :class="way.stroke" stroke-width="0.8" :data-test="`way-${way.name}`">
      <path :d="way.path" stroke-dasharray="3 3" />
      <circle v-for="([x, y], index) in way.dots" :key="index" :cx="x" :cy="y" :r="way.stroke === 'stroke-weld' ? 2.5 : 1.6" :class="way.stroke === 'stroke-weld' ? 'fill-weld' : 'fill-ground'" />
    </g>
    <g class="fill-dim text-[9px]">
      <text x="10" y="18">print: {{ print }}</text>
      <text :x="CX + WIDTH" y="18" text-anchor="end">negative: {{ negative }}</text>
      <text x="10" :y="CY + HEIGHT - 4">print density</text>
      <text :x="CX + 6" :y="CY + 24">light</text>
      <text :x="CX + WIDTH" :y="CY + HEIGHT - 4" text-anchor="end">log exposure</text>
    </g>
    <rect
      :x="CX"
      :y="CY - HEIGHT"
      :width="WIDTH"
      :height="HEIGHT"
      class="cursor-ew-resize touch-none fill-transparent"
      aria-label="exposure of the negative, pulled"
      @pointerdown="pull($event, (dx) => ({ name: 'exposure', stops: -stopsAcross(dx) }))"
    >
      <title>pull it along: exposure of the negative</title>
    </rect>
    <rect
      :x="CX - WIDTH"
      :y="CY - HEIGHT"
      :width="WIDTH"
      :height="HEIGHT"
      class="cursor-ns-resize touch-none fill-transparent"
      aria-label="print exposure, pulled"
      @pointerdown="pull($event, (_, dy) => ({ name: 'print_exposure', stops: densityUp(dy) / STOP }))"
    >
      <title>pull it up or down: print exposure</title>
    </rect>
    <path
      v-for="{ name, place: [x, y] } in holds"
      :key="name"
      :d="`M${x - 4.5} ${y}L${x} ${y - 4.5}L${x + 4.5} ${y}L${x} ${y + 4.5}Z`"
      class="cursor-ew-resize touch-none fill-ground stroke-ink hover:fill-weld"
      :aria-label="`${name}, pulled`"
      :data-test="`hold-${name}`"
      @pointerdown="pull($event, (dx) => ({ name, stops: stopsAcross(dx) }))"
    >
      <title>{{ name }}: pull it along</title>
    </path>
    <path
      v-if="straight"
      :d="`M${straight[0] - 6} ${straight[1] + 4}L${straight[0] + 6} ${straight[1] - 4}`"
      class="cursor-ns-resize touch-none fill-none stroke-ink hover:stroke-weld"
      stroke-width="3.5"
      aria-label="slope of the straight line, pulled"
      data-test="hold-slope"
      @pointerdown="pull($event, (_, dy) => steepen(dy))"
    >
      <title>straight line: pull it up or down to make it steeper or flatter</title>
    </path>
    <path
      v-if="foot"
      :d="`M${foot[0] - 5} ${CY + 8}H${foot[0] + 5}L${foot[0]} ${CY + 1}Z`"
      class="cursor-ew-resize touch-none fill-dim hover:fill-weld"
      aria-label="speed, pulled"
      data-test="hold-speed"
      @pointerdown="pull($event, (dx) => ({ name: 'speed', stops: -stopsAcross(dx) }))"
    >
      <title>speed: pull it along; mid grey stays</title>
    </path>
    <circle
      v-for="{ channel, fill, index, place: [x, y] } in lights"
      :key="channel"
      :cx="x"
      :cy="y"
      r="3.6"
      class="cursor-ns-resize touch-none stroke-ground hover:stroke-ink"
      :class="fill"
      :aria-label="`printer light of ${channel}, pulled`"
      :data-test="`hold-${channel}`"
      @pointerdown="pull($event, (_, dy) => ({ name: 'points', channel: index + 1, points: densityUp(dy) / POINT }))"
    >
      <title>{{ channel }} printer light: pull it up or down</title>
    </circle>
  </svg>
</template>
