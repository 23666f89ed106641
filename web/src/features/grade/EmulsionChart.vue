<script setup lang="ts">
import type { WorkingSpace } from '@/api/project'
import { computed, ref } from 'vue'
import { tonePivot } from './staves'
import { followDrag } from './useDrag'

/**
 * A tone reproduction diagram: the negative over log exposure, the print over the negative's density, the way to light, and what
 * comes of it over log exposure, as the core computes them. The negative is pulled along exposure, the print along the negative's density.
 */
const props = defineProps<{
  /** By name and channel; see Film::Chain#way. */
  shapes: Record<string, number[]>
  negative: string
  print: string
  /** How often each tone occurs. */
  histogram: number[] | null
  space: WorkingSpace
}>()
const emit = defineEmits<{ expose: [stops: number]; 'print-expose': [stops: number]; begin: []; end: [] }>()

const [CX, CY, WIDTH, HEIGHT] = [158, 142, 152, 134] // the middle, and the size of a quarter
const [DENSEST, DARKEST, REACH] = [2.8, 4.4, 4.8] // of the negative, of the print, log exposures that are shown
const STOP = Math.log10(2)
const LINES = [
  { channel: 'red', stroke: 'stroke-madder' },
  { channel: 'green', stroke: 'stroke-leaf' },
  { channel: 'blue', stroke: 'stroke-woad' },
] as const
const box = ref<SVGSVGElement>()

const across = (exposure: number) => CX + ((exposure + REACH / 2) / REACH) * WIDTH
const up = (density: number) => CY - (Math.min(density, DENSEST) / DENSEST) * HEIGHT
const left = (density: number) => CX - (Math.min(Math.max(density, 0), DARKEST) / DARKEST) * WIDTH
const down = (light: number) => CY + HEIGHT - ((Math.min(Math.max(light, -REACH / 2), REACH / 2) + REACH / 2) / REACH) * HEIGHT
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
/** The way of mid grey, round the four quarters. */
const middle = computed(() => {
  const at = Math.floor(of('exposure').length / 2)
  const [x, a, q, r] = [across(of('exposure')[at] ?? 0), up(of('negative_green')[at] ?? 0), left(of('print_green')[at] ?? 0), down(of('light_green')[at] ?? 0)]
  return { path: `M${x} ${a}L${q} ${a}L${q} ${r}L${x} ${r}Z`, dots: [[x, a], [q, a], [x, r]] as [number, number][] }
})
const behind = computed(() => {
  const bins = props.histogram
  if (!bins) return ''
  const points = bins.map((share, index) => `L${across(tonePivot((index + 0.5) / bins.length, props.space.pivots) * STOP).toFixed(1)} ${(CY + HEIGHT - Math.sqrt(share) * 36).toFixed(1)}`)
  return `M${CX} ${CY + HEIGHT}${points.join('')}L${CX + WIDTH} ${CY + HEIGHT}Z`
})

function pull(event: PointerEvent, side: 'negative' | 'print') {
  const scale = 320 / (box.value?.getBoundingClientRect().width ?? 320)
  followDrag(event, {
    start: () => emit('begin'),
    move: (dx, dy) => (side === 'negative' ? emit('expose', (-dx * scale * REACH) / WIDTH / STOP) : emit('print-expose', (-dy * scale * DENSEST) / HEIGHT / STOP)),
    end: () => emit('end'),
  })
}
</script>

<template>
  <svg ref="box" class="w-full bg-ground text-2xs select-none" viewBox="0 0 320 284" role="img" aria-label="tone reproduction diagram">
    <g class="stroke-line" stroke-width="0.5">
      <path v-for="step in 3" :key="step" :d="`M${CX + (step * WIDTH) / 4} ${CY - HEIGHT}V${CY + HEIGHT}M${CX - (step * WIDTH) / 4} ${CY - HEIGHT}V${CY + HEIGHT}M${CX - WIDTH} ${CY - (step * HEIGHT) / 4}H${CX + WIDTH}M${CX - WIDTH} ${CY + (step * HEIGHT) / 4}H${CX + WIDTH}`" />
    </g>
    <path :d="`M${CX} ${CY - HEIGHT}V${CY + HEIGHT}M${CX - WIDTH} ${CY}H${CX + WIDTH}`" class="stroke-faint" stroke-width="0.8" />
    <path :d="behind" class="fill-line" />
    <g v-for="one in paths" :key="one.stroke" class="fill-none" :class="one.stroke" stroke-width="1.2"><path :d="one.negative" data-test="negative" /><path :d="one.print" data-test="print" /><path :d="one.light" stroke-width="0.6" /><path :d="one.result" data-test="result" /></g>
    <path :d="middle.path" class="fill-none stroke-weld" stroke-width="0.8" stroke-dasharray="3 3" />
    <circle v-for="([x, y], index) in middle.dots" :key="index" :cx="x" :cy="y" r="2.5" class="fill-weld" />
    <g class="fill-dim text-[9px]"><text x="10" y="18">print: {{ print }}</text><text :x="CX + WIDTH" y="18" text-anchor="end">negative: {{ negative }}</text><text x="10" :y="CY + HEIGHT - 4">print density</text><text :x="CX + 6" :y="CY + 12">light</text><text :x="CX + WIDTH" :y="CY + HEIGHT - 4" text-anchor="end">log exposure</text></g>
    <rect :x="CX" :y="CY - HEIGHT" :width="WIDTH" :height="HEIGHT" class="cursor-ew-resize touch-none fill-transparent" aria-label="exposure of the negative, pulled" @pointerdown="pull($event, 'negative')"><title>pull it along: exposure of the negative</title></rect>
    <rect :x="CX - WIDTH" :y="CY - HEIGHT" :width="WIDTH" :height="HEIGHT" class="cursor-ns-resize touch-none fill-transparent" aria-label="print exposure, pulled" @pointerdown="pull($event, 'print')"><title>pull it up or down: print exposure</title></rect>
  </svg>
</template>
