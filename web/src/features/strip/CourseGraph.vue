<script setup lang="ts">
import type { ParameterSpec } from '@/api/declared'
import type { CourseKey } from '@/api/recipe'
import { computed, ref } from 'vue'
import { held, shownValue } from '../grade/edit'
import { fineness, followDrag } from '../grade/useDrag'
import { handMoving } from '../grade/useStepEditor'
import { useMoves } from '../grade/useMoves'
import { withAlteredPicks } from './courses'
import { usePicks, type StripPick } from './usePicks'
import { useStrip } from './useStrip'
import { useTimeView } from './useTimeView'

/** The value of a parameter over the shot, as the core computes it: keys are pulled up and down, slopes by their ends. */
defineProps<{ gutter: number }>()
const strip = useStrip()
const picks = usePicks()
const moves = useMoves()
const view = useTimeView()
const HEIGHT = 84
const EDGE = 8
const ARM = 26 // px of a slope's handle
const SHADES = ['stroke-ink', 'stroke-madder', 'stroke-leaf', 'stroke-woad']
const box = ref<SVGSVGElement>()

const of = computed<StripPick | null>(() => strip.graphed)
const keys = computed<CourseKey[]>(() => (of.value && strip.open ? (strip.coursesOf(strip.open.step, of.value.part)[of.value.name] ?? []) : []))
const spec = computed<ParameterSpec | null>(() => (of.value ? strip.numberSpec(of.value) : null))
const reading = computed(() => {
  const course = moves.course
  const wanted = of.value
  return course && wanted && course.step === strip.open?.step.id && course.parameter === wanted.name && (course.contributor ?? null) === wanted.part ? course : null
})
const rowOf = (value: unknown): number[] => (Array.isArray(value) ? (value as number[]) : [value as number])
const parts = computed(() => rowOf(keys.value[0]?.value).map((_, index) => index))
const range = computed(() => {
  const all = [...keys.value.flatMap((key) => rowOf(key.value)), ...(reading.value?.values.flat() ?? [])]
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const room = high > low ? (high - low) * 0.12 : Math.max(1e-3, Math.abs(high) * 0.2, spec.value?.nudge ?? 0)
  return [low - room, high + room] as const
})
const across = (frame: number) => view.at(frame + (strip.open?.start ?? 0) + 0.5)
const up = (value: number) => HEIGHT - EDGE - ((value - range.value[0]) / (range.value[1] - range.value[0])) * (HEIGHT - 2 * EDGE)
const lines = computed(() => parts.value.map((part) => reading.value?.frames.map((frame, index) => `${index ? 'L' : 'M'}${across(frame).toFixed(2)} ${up(reading.value?.values[index]?.[part] ?? 0).toFixed(1)}`).join('') ?? ''))
const shade = (part: number) => (parts.value.length === 1 ? SHADES[0] : parts.value.length === 4 && part === 3 ? SHADES[0] : SHADES[part + 1]) ?? 'stroke-ink'

function pull(event: PointerEvent, key: CourseKey, part: number) {
  const [open, wanted] = [strip.open, of.value]
  if (!open || !wanted) return
  const pick = [{ ...wanted, frame: key.frame }]
  picks.pick(pick, false)
  const from = { document: open.recipe.document, step: open.step }
  const scale = (range.value[1] - range.value[0]) / (HEIGHT - 2 * EDGE)
  const gesture = crypto.randomUUID()
  let value = rowOf(key.value)[part] ?? 0
  followDrag(event, {
    start: () => (handMoving.value = true),
    move(_, dy) {
      value -= dy * scale
      const next = spec.value ? held(value, spec.value) : value
      strip.change((courses, on) => withAlteredPicks(courses, on, { value: Array.isArray(key.value) ? rowOf(key.value).map((one, at) => (at === part ? next : one)) : next }), 'value of a key', pick, gesture, from)
    },
    end: () => (handMoving.value = false),
  })
}

/** Ends of slopes at a smooth way's keys, in pixels: across and up from the key. */
const slopes = computed(() => {
  const width = box.value?.getBoundingClientRect().width ?? 600
  const perFrame = width / view.view.count
  const perValue = (HEIGHT - 2 * EDGE) / (range.value[1] - range.value[0])
  return keys.value.flatMap((key, index) =>
    (['in', 'out'] as const).flatMap((side) => {
      const other = keys.value[index + (side === 'out' ? 1 : -1)]
      if (!other || (side === 'out' ? key : other).ease !== 'smooth') return []
      const rise = ((rowOf(other.value)[0] ?? 0) - (rowOf(key.value)[0] ?? 0)) / (other.frame - key.frame)
      if (rise === 0) return []
      const unit = (rise * perValue) / perFrame // pixels up for a pixel across, of the straight way
      const slope = key[side] ?? 0
      const long = Math.hypot(1, slope * unit)
      const way = side === 'out' ? 1 : -1
      return [{ key, side, unit, way, set: key[side] !== undefined, dx: (way * ARM) / long, dy: (-way * ARM * slope * unit) / long }]
    }),
  )
})
function turn(event: PointerEvent, one: (typeof slopes.value)[number]) {
  const [open, wanted] = [strip.open, of.value]
  if (!open || !wanted) return
  const pick = [{ ...wanted, frame: one.key.frame }]
  picks.pick(pick, false)
  const from = { document: open.recipe.document, step: open.step }
  const gesture = crypto.randomUUID()
  let [x, y] = [one.dx, one.dy]
  followDrag(event, {
    start: () => (handMoving.value = true),
    move(dx, dy) {
      x += dx
      y += dy
      const run = Math.max(2, x * one.way)
      const slope = Math.min(3, Math.max(0, (-y * one.way) / run / one.unit))
      strip.change((courses, on) => withAlteredPicks(courses, on, { [one.side]: Number(slope.toFixed(2)) }), 'slope of a key', pick, gesture, from)
    },
    end: () => (handMoving.value = false),
  })
}
const nudged = (event: KeyboardEvent, key: CourseKey, part: number) => {
  const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0
  if (!way || !of.value || !spec.value) return
  event.preventDefault()
  event.stopPropagation()
  const next = held((rowOf(key.value)[part] ?? 0) + way * spec.value.nudge * fineness(event), spec.value)
  strip.change((courses, on) => withAlteredPicks(courses, on, { value: Array.isArray(key.value) ? rowOf(key.value).map((one, at) => (at === part ? next : one)) : next }), 'value of a key', [{ ...of.value, frame: key.frame }])
}
const shown = (value: number) => (spec.value ? `${shownValue(value, spec.value)} ${spec.value.suffix}` : value.toFixed(3))
</script>

<template>
  <div class="mt-1 flex" role="group" aria-label="graph">
    <div class="flex shrink-0 flex-col justify-between pr-2 text-right text-2xs text-faint" :style="{ width: `${gutter}px`, height: `${HEIGHT}px` }">
      <template v-if="keys.length && spec"
        ><span>{{ shown(range[1]) }}</span
        ><span class="truncate text-dim">{{ spec.label.toLowerCase() }}</span
        ><span>{{ shown(range[0]) }}</span></template
      >
      <span v-else class="text-left">{{ strip.rows.length ? 'pick a key of a number' : '' }}</span>
    </div>
    <div class="relative min-w-0 flex-1 overflow-x-clip border border-line bg-ground" :style="{ height: `${HEIGHT}px` }">
      <svg ref="box" class="absolute inset-0 size-full" :viewBox="`0 0 100 ${HEIGHT}`" preserveAspectRatio="none">
        <path v-for="(line, part) in lines" :key="part" :d="line" class="fill-none" :class="shade(part)" stroke-width="1.2" vector-effect="non-scaling-stroke" data-test="course" />
      </svg>
      <template v-for="(key, index) in keys" :key="index">
        <button
          v-for="part in parts"
          :key="part"
          class="absolute size-2 -translate-x-1/2 -translate-y-1/2 cursor-ns-resize touch-none border border-ground bg-ink focus-visible:outline focus-visible:outline-weld"
          :class="of && picks.has({ ...of, frame: key.frame }) ? 'bg-weld' : ''"
          :style="{ left: `${across(key.frame)}%`, top: `${up(rowOf(key.value)[part] ?? 0)}px` }"
          :aria-label="`value at frame ${key.frame + 1}${parts.length > 1 ? `, ${spec?.channels?.[part] ?? part}` : ''}`"
          @pointerdown.stop="pull($event, key, part)"
          @keydown="nudged($event, key, part)"
        />
      </template>
      <template v-for="one in slopes" :key="`${one.key.frame}${one.side}`">
        <i
          class="absolute size-1.5 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none rounded-full border border-weld"
          :class="one.set ? 'bg-weld' : 'bg-ground'"
          :style="{ left: `calc(${across(one.key.frame)}% + ${one.dx}px)`, top: `${up(rowOf(one.key.value)[0] ?? 0) + one.dy}px` }"
          :aria-label="`slope ${one.side} at frame ${one.key.frame + 1}`"
          title="pull it: how steeply it goes here"
          @pointerdown.stop="turn($event, one)"
        />
      </template>
    </div>
  </div>
</template>
