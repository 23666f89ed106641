<script setup lang="ts">
import type { HandleSpec, ParameterSpec } from '@/api/declared'
import { computed } from 'vue'
import { deviation, moved, shownValue } from './edit'
import { handlePlace, travel } from './staves'
import { followDrag, isReset, nudges, useNudging } from './useDrag'
import type { StepEditor } from './useStepEditor'

const props = defineProps<{ handle: HandleSpec; editor: StepEditor }>()

const spec = computed<ParameterSpec>(() => props.editor.parameter(props.handle.parameter))
const row = computed(() => props.editor.value(props.handle.parameter) as number[])
const off = computed(() => deviation(row.value, props.handle, spec.value))
const place = computed(() => handlePlace(props.handle, off.value))
const name = computed(() => `${props.handle.stave}, ${props.handle.zone} (${spec.value.label})`)
const shown = computed(() => shownValue(props.handle.stave === 'light' ? off.value + spec.value.neutral : off.value, spec.value))
/** Beside the overall handles, above or below the others, and never outside the drawing. */
const label = computed(() => {
  const { at, stave } = props.handle
  if (at === null) return { anchor: 'end', x: -9, y: 3 }
  const below = place.value.y < 20 || (stave !== 'light' && off.value > 0.06)
  const y = below ? 16 : -9
  if (at > 0.8) return { anchor: 'end', x: 4, y }
  return at < 0.2 ? { anchor: 'start', x: -4, y } : { anchor: 'middle', x: 0, y }
})
const rounded = (x: number) => Math.round(x * 1e5) / 1e5

function move(by: number) {
  props.editor.set(props.handle.parameter, moved(row.value, props.handle, spec.value, by).map(rounded))
}

function press(event: PointerEvent) {
  followDrag(event, { start: props.editor.begin, move: (_, dy) => move(-dy / travel(props.handle)), end: props.editor.end })
}

const nudging = useNudging(props.editor.begin, props.editor.end)

function key(event: KeyboardEvent) {
  const count = nudges(event)
  if (count) {
    nudging()
    move(count * spec.value.nudge)
  } else if (isReset(event)) move(-off.value)
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <g
    class="group cursor-ns-resize outline-none"
    role="slider"
    tabindex="0"
    :aria-label="name"
    :aria-valuenow="Number(off.toFixed(4))"
    :aria-valuetext="`${shown} ${spec.suffix}`.trim()"
    :transform="`translate(${place.x} ${place.y})`"
    @pointerdown="press"
    @dblclick="move(-off)"
    @keydown="key"
  >
    <circle r="11" fill="transparent" />
    <circle class="fill-none stroke-weld opacity-0 group-focus-visible:opacity-100" r="8" />
    <path :d="handle.at === null ? 'M-6 -2.5H6V2.5H-6Z' : 'M0 -5L4 0L0 5L-4 0Z'" class="stroke-ground group-hover:fill-weld" :class="Math.abs(off) > 1e-6 ? 'fill-ink' : 'fill-dim'" />
    <text class="pointer-events-none fill-ink text-[9px] group-hover:opacity-100 group-focus-visible:opacity-100" :class="Math.abs(off) > 1e-6 ? 'opacity-100' : 'opacity-0'" :text-anchor="label.anchor" :x="label.x" :y="label.y">
      {{ shown }}
    </text>
  </g>
</template>
