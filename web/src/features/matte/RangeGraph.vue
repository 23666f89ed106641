<script setup lang="ts">
import type { KeyBins } from '@/api/answer'
import { computed, ref } from 'vue'
import { fineness, followDrag, useNudging } from '../grade/useDrag'

/** A range of one quantity with a softness at either end, over what occurs of it; what is taken of that is lit. */
const props = defineProps<{ label: string; bins: KeyBins | null; from: number; to: number; low: number; high: number; soft: [number, number]; centred?: boolean }>()
const emit = defineEmits<{ change: [low: number, high: number, soft: [number, number]]; begin: []; end: [] }>()

const WIDTH = 150
const HEIGHT = 56
const FOOT = HEIGHT - 4
const box = ref<SVGSVGElement>()
const held = (value: number) => Math.min(props.to, Math.max(props.from, value))
const EDGE = 5
const x = (value: number) => EDGE + ((held(value) - props.from) / (props.to - props.from)) * (WIDTH - 2 * EDGE)
/** Where it begins to fall and where it has fallen. */
const ends = computed(() => {
  const [below, above] = props.soft
  const share = props.centred ? 0.5 : 0
  return { outerLow: props.low - below * (1 - share), innerLow: props.low + below * share, innerHigh: props.high - above * share, outerHigh: props.high + above * (1 - share) }
})
const shape = computed(() => `M${x(ends.value.outerLow)} ${FOOT}L${x(ends.value.innerLow)} 8L${x(ends.value.innerHigh)} 8L${x(ends.value.outerHigh)} ${FOOT}Z`)
const columns = computed(() => {
  const bins = props.bins
  if (!bins) return []
  const wide = (WIDTH - 2 * EDGE) / bins.counts.length
  return bins.counts.flatMap((count, index) => (count > 0 ? [{ x: EDGE + index * wide, wide, high: Math.sqrt(count) * (FOOT - 10), taken: bins.weights[index] ?? 0 }] : []))
})

type Handle = 'low' | 'high' | 'below' | 'above'
const HANDLES: { id: Handle; words: string }[] = [
  { id: 'below', words: 'soft below' },
  { id: 'low', words: 'from' },
  { id: 'high', words: 'to' },
  { id: 'above', words: 'soft above' },
]
const at = (id: Handle) => ({ low: ends.value.innerLow, high: ends.value.innerHigh, below: ends.value.outerLow, above: ends.value.outerHigh })[id]

function move(id: Handle, by: number) {
  const whole = props.centred ? 2 : 1
  let { low, high } = props
  let [below, above] = props.soft
  if (id === 'low') low = Math.min(high, low + by)
  else if (id === 'high') high = Math.max(low, high + by)
  else if (id === 'below') below = Math.max(0, below - by * whole)
  else above = Math.max(0, above + by * whole)
  emit('change', low, high, [below, above])
}
/** What lies beyond the ends of the drawing is taken hold of where it is seen. */
function press(event: PointerEvent, id: Handle) {
  const scale = (props.to - props.from) / (box.value?.getBoundingClientRect().width ?? WIDTH)
  let first = true
  followDrag(event, {
    start: () => emit('begin'),
    move: (dx) => {
      const beyond = first && (id === 'low' || id === 'high') ? held(at(id)) - at(id) : 0
      first = false
      move(id, beyond + dx * scale)
    },
    end: () => emit('end'),
  })
}
const nudging = useNudging(
  () => emit('begin'),
  () => emit('end'),
)
function key(event: KeyboardEvent, id: Handle) {
  const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (!way) return
  nudging()
  const beyond = id === 'low' || id === 'high' ? held(at(id)) - at(id) : 0
  move(id, beyond + way * 0.005 * fineness(event) * (props.to - props.from))
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div>
    <span class="block text-2xs text-dim">{{ label }}</span>
    <svg ref="box" class="block w-full touch-none bg-ground" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="group" :aria-label="label">
      <rect v-for="(column, index) in columns" :key="index" :x="column.x" :y="FOOT - column.high" :width="column.wide" :height="column.high" :fill="column.taken > 0.98 ? '#d8b55b' : column.taken > 0.02 ? '#8a7a4e' : '#454545'" />
      <path :d="shape" class="pointer-events-none fill-weld/10 stroke-weld/80" />
      <g
        v-for="one in HANDLES"
        :key="one.id"
        class="cursor-ew-resize outline-none [&:focus-visible>path]:stroke-ink"
        role="slider"
        tabindex="0"
        :aria-label="`${label} ${one.words}`"
        :aria-valuenow="Number(at(one.id).toFixed(3))"
        :transform="`translate(${x(at(one.id))} ${one.id === 'low' || one.id === 'high' ? 8 : FOOT})`"
        @pointerdown.stop="press($event, one.id)"
        @keydown="key($event, one.id)"
      >
        <rect x="-5" y="-8" width="10" height="16" fill="transparent" />
        <path :d="one.id === 'low' || one.id === 'high' ? 'M0 -4L4 0L0 4L-4 0Z' : 'M-3 1L0 -4L3 1Z'" class="fill-ink stroke-ground hover:fill-weld" />
      </g>
    </svg>
  </div>
</template>
