<script setup lang="ts">
import type { KeyReading } from '@/api/answer'
import { computed, ref, watch } from 'vue'
import { followDrag, useNudging, fineness } from '../grade/useDrag'

/** The plane of hue and chroma that a key is drawn in, over what its picture has there; red to the right, green upwards. */
export type PlaneHold =
  | { kind: 'range'; hue: number; width: number; soft: [number, number]; low: number; high: number; chromaSoft: [number, number] }
  | { kind: 'samples'; places: [number, number][]; distance: number }
  | { kind: 'outline'; places: [number, number][] }

const props = defineProps<{ reading: KeyReading | null; hold: PlaneHold }>()
const emit = defineEmits<{ change: [hold: PlaneHold]; begin: []; end: [] }>()

const SIZE = 150
const reach = computed(() => props.reading?.reach ?? 0.4)
const box = ref<SVGSVGElement>()
const canvas = ref<HTMLCanvasElement>()
const x = (value: number) => SIZE / 2 + (value / reach.value) * (SIZE / 2)
const y = (value: number) => SIZE / 2 - (value / reach.value) * (SIZE / 2)
const WELD = [216, 181, 91] as const
const NEAR = [138, 122, 78] as const

watch(
  [() => props.reading, canvas],
  ([reading, surface]) => {
    const context = surface?.getContext('2d')
    if (!reading || !surface || !context) return
    surface.width = surface.height = reading.cells
    const image = context.createImageData(reading.cells, reading.cells)
    reading.plane.counts.forEach((count, cell) => {
      if (count === 0) return
      const [column, row] = [cell % reading.cells, reading.cells - 1 - Math.floor(cell / reading.cells)]
      const taken = reading.plane.weights[cell] ?? 0
      const light = 0.35 + 0.65 * count ** 0.25
      const colour = taken > 0.98 ? WELD : taken > 0.02 ? NEAR : ([120, 120, 120] as const)
      image.data.set([...colour.map((one) => one * light), 255], (row * reading.cells + column) * 4)
    })
    context.putImageData(image, 0, 0)
  },
  { immediate: true },
)

const radians = (degrees: number) => (degrees * Math.PI) / 180
const polar = (hue: number, chroma: number): [number, number] => [Math.cos(radians(hue)) * chroma, Math.sin(radians(hue)) * chroma]
const rim = computed(() => reach.value * 1.0)
const seen = (chroma: number) => Math.min(chroma, rim.value)

/** Between two hues and two chromas, as a path. */
function wedge(from: number, to: number, low: number, high: number) {
  const span = Math.min(359.9, to - from)
  const steps = Math.max(2, Math.ceil(span / 6))
  const arc = (chroma: number, back: boolean) => Array.from({ length: steps + 1 }, (_, k) => polar(from + (span * (back ? steps - k : k)) / steps, chroma))
  return `M${[...arc(seen(high), false), ...arc(seen(low), true)].map(([px, py]) => `${x(px).toFixed(1)} ${y(py).toFixed(1)}`).join('L')}Z`
}
const range = computed(() => (props.hold.kind === 'range' ? props.hold : null))
const inner = computed(() => range.value && wedge(range.value.hue - range.value.width / 2, range.value.hue + range.value.width / 2, range.value.low, range.value.high))
const outer = computed(
  () =>
    range.value &&
    wedge(range.value.hue - range.value.width / 2 - range.value.soft[0], range.value.hue + range.value.width / 2 + range.value.soft[1], Math.max(0, range.value.low - range.value.chromaSoft[0]), range.value.high + range.value.chromaSoft[1]),
)
const whole = computed(() => range.value !== null && range.value.width >= 360)

interface Handle {
  id: string
  words: string
  at: [number, number]
}
const handles = computed<Handle[]>(() => {
  const hold = props.hold
  if (hold.kind !== 'range') return hold.places.map((at, index) => ({ id: String(index), words: `${hold.kind === 'samples' ? 'sample' : 'corner'} ${index + 1}`, at }))
  const middle = seen((hold.low + Math.min(hold.high, rim.value)) / 2)
  const list: Handle[] = [
    { id: 'low', words: 'least chroma', at: polar(hold.hue, hold.low) },
    { id: 'high', words: 'greatest chroma', at: polar(hold.hue, seen(hold.high)) },
    { id: 'hue', words: 'hue', at: polar(hold.hue, middle) },
  ]
  const from = { id: 'from', words: 'hues from', at: polar(hold.hue - hold.width / 2, middle) }
  const to = { id: 'to', words: 'hues to', at: polar(hold.hue + hold.width / 2, middle) }
  return [...list, from, to]
})

const turned = (degrees: number) => ((degrees % 360) + 360) % 360
function angled(hold: Extract<PlaneHold, { kind: 'range' }>, id: string, hue: number, chroma: number): PlaneHold {
  const off = ((hue - hold.hue + 540) % 360) - 180
  if (id === 'hue') return { ...hold, hue: turned(hue) }
  if (id === 'low') return { ...hold, low: Math.max(0, Math.min(chroma, hold.high)) }
  if (id === 'high') return { ...hold, high: chroma >= rim.value * 0.99 ? 2 : Math.max(chroma, hold.low) }
  const width = Math.max(1, Math.min(360, hold.width / 2 + (id === 'to' ? off : -off)))
  return { ...hold, width, hue: turned(hold.hue + (id === 'to' ? 1 : -1) * (width - hold.width) * 0.5) }
}
function place(id: string, to: [number, number]) {
  const hold = props.hold
  if (hold.kind === 'samples') return
  if (hold.kind === 'range') {
    const hue = (Math.atan2(to[1], to[0]) * 180) / Math.PI
    emit('change', angled(hold, id, hue, Math.hypot(...to)))
  } else emit('change', { ...hold, places: hold.places.map((one, index) => (String(index) === id ? to : one)) })
}

function press(event: PointerEvent, handle: Handle) {
  const scale = (2 * reach.value) / (box.value?.getBoundingClientRect().width ?? SIZE)
  let [px, py] = handle.at
  followDrag(event, {
    start: () => emit('begin'),
    move: (dx, dy) => {
      px += dx * scale
      py -= dy * scale
      place(handle.id, [px, py])
    },
    end: () => emit('end'),
  })
}
const nudging = useNudging(
  () => emit('begin'),
  () => emit('end'),
)
const WAYS: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }
function key(event: KeyboardEvent, handle: Handle) {
  const way = WAYS[event.key]
  const hold = props.hold
  if (way) {
    nudging()
    const by = 0.004 * fineness(event)
    place(handle.id, [handle.at[0] + way[0] * by, handle.at[1] + way[1] * by])
  } else if ((event.key === 'Delete' || event.key === 'Backspace') && hold.kind !== 'range') drop(handle)
  else return
  event.preventDefault()
  event.stopPropagation()
}
function drop(handle: Handle) {
  const hold = props.hold
  if (hold.kind !== 'range') emit('change', { ...hold, places: hold.places.filter((_, index) => String(index) !== handle.id) })
}
/** A corner where somebody clicks, on the edge that is nearest. */
function add(event: MouseEvent) {
  const hold = props.hold
  const bounds = box.value?.getBoundingClientRect()
  if (hold.kind !== 'outline' || !bounds) return
  const at: [number, number] = [((event.clientX - bounds.left) / bounds.width - 0.5) * 2 * reach.value, (0.5 - (event.clientY - bounds.top) / bounds.height) * 2 * reach.value]
  const far = (index: number) => {
    const [a, b] = [hold.places[index], hold.places[(index + 1) % hold.places.length]]
    if (!a || !b) return Infinity
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
    const share = Math.min(1, Math.max(0, ((at[0] - a[0]) * dx + (at[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)))
    return Math.hypot(a[0] + dx * share - at[0], a[1] + dy * share - at[1])
  }
  const edge = hold.places.reduce((best, _, index) => (far(index) < far(best) ? index : best), 0)
  emit('change', { ...hold, places: hold.places.length < 3 ? [...hold.places, at] : [...hold.places.slice(0, edge + 1), at, ...hold.places.slice(edge + 1)] })
}
const outline = computed(() => (props.hold.kind === 'outline' && props.hold.places.length > 1 ? `M${props.hold.places.map(([px, py]) => `${x(px)} ${y(py)}`).join('L')}Z` : ''))
</script>

<template>
  <div>
    <span class="block text-2xs text-dim">hue and chroma</span>
    <div class="relative bg-ground">
      <canvas ref="canvas" class="pointer-events-none absolute inset-0 size-full" style="image-rendering: pixelated" />
      <svg ref="box" class="relative block w-full touch-none" :viewBox="`0 0 ${SIZE} ${SIZE}`" role="group" aria-label="hue and chroma">
        <circle v-for="share in [0.5, 1]" :key="share" :cx="SIZE / 2" :cy="SIZE / 2" :r="(SIZE / 2 - 1) * share" class="fill-none stroke-line" />
        <path :d="`M0 ${SIZE / 2}H${SIZE}M${SIZE / 2} 0V${SIZE}`" class="stroke-line/60" />
        <template v-if="range">
          <path v-if="outer" :d="outer" class="pointer-events-none fill-none stroke-weld/60" stroke-dasharray="2 2" />
          <path v-if="inner" :d="inner" class="pointer-events-none fill-weld/10 stroke-weld" />
        </template>
        <template v-else-if="hold.kind === 'samples'">
          <circle v-for="([px, py], index) in hold.places" :key="index" :cx="x(px)" :cy="y(py)" :r="(hold.distance / reach) * (SIZE / 2)" class="pointer-events-none fill-weld/10 stroke-weld/70" />
        </template>
        <template v-else>
          <rect width="100%" height="100%" fill="transparent" class="cursor-crosshair" @dblclick="add" />
          <path :d="outline" class="pointer-events-none fill-weld/10 stroke-weld" />
        </template>
        <g
          v-for="handle in handles"
          :key="handle.id"
          class="cursor-move outline-none [&:focus-visible>path]:stroke-ink"
          role="slider"
          tabindex="0"
          :aria-label="handle.words"
          :aria-valuenow="Number(handle.at[0].toFixed(3))"
          :aria-valuetext="handle.at.map((one) => one.toFixed(3)).join(', ')"
          :transform="`translate(${x(handle.at[0])} ${y(handle.at[1])})`"
          @pointerdown.stop="press($event, handle)"
          @keydown="key($event, handle)"
          @dblclick.stop="drop(handle)"
        >
          <circle r="7" fill="transparent" />
          <path d="M0 -3.5L3.5 0L0 3.5L-3.5 0Z" class="stroke-ground hover:fill-weld" :class="whole && ['from', 'to', 'hue'].includes(handle.id) ? 'fill-faint' : 'fill-ink'" />
        </g>
      </svg>
    </div>
  </div>
</template>
