<script setup lang="ts">
import type { ParameterValue } from '@/api/declared'
import type { ContributorDocument, Recipe, StepDocument } from '@/api/recipe'
import { computed, toRef } from 'vue'
import type { Place } from '../bench/useRegionDrag'
import { fineness, followDrag, useNudging } from '../grade/useDrag'
import { handlesOf, type ShapeHandle } from './handles'
import { after, inverse, mapped, NONE, type PlaneMap, type Point } from './plane'
import { useMatte } from './useMatte'
import { useMatteEditor } from './useMatteEditor'

/** One shape over the picture: its line, the edges of its feather, and, where it is open, what it is pulled by. */
const props = defineProps<{ place: Place; recipe: Recipe; step: StepDocument; part: ContributorDocument }>()
const matte = useMatte()
const editor = useMatteEditor(toRef(props, 'recipe'), toRef(props, 'step'))
const open = computed(() => matte.part === props.part.id)
const name = computed(() => editor.named(props.part))

/** Where a path has taken it, and where somebody has put it right before it is tracked on. */
const carried = computed<PlaneMap>(() => {
  const path = matte.pathOf(props.part.path?.id)
  const own = path && props.part.path ? after(matte.mapAt(path, editor.frame.value), inverse(matte.mapAt(path, props.part.path.from))) : NONE
  const put = matte.put?.part === props.part.id ? matte.put.by : null
  return put ? after([1, 0, put[0], 0, 1, put[1], 0, 0, 1], own) : own
})
const screen = (point: Point): Point => [props.place.x + props.place.width / 2 + point[0] * props.place.height, props.place.y + props.place.height / 2 + point[1] * props.place.height]
const drawn = computed(() => handlesOf(props.part.kind, editor.values(props.part), (point) => screen(mapped(point, carried.value)), props.place.width / props.place.height))
const trail = computed(() => {
  const path = matte.pathOf(props.part.path?.id)
  if (!path || !open.value) return ''
  return `M${path.places
    .map((place) =>
      screen(place)
        .map((one) => one.toFixed(1))
        .join(' '),
    )
    .join('L')}`
})

/** How far a place goes in the shape's own plane when the pointer goes so far on the screen. */
function own(at: Point, dx: number, dy: number): Point {
  const back = inverse(carried.value)
  const there = mapped(at, carried.value)
  const to = mapped([there[0] + dx / props.place.height, there[1] + dy / props.place.height], back)
  return [to[0] - at[0], to[1] - at[1]]
}
function set(to: Record<string, ParameterValue> | null, words: string) {
  if (to) editor.set(props.part, to, words)
}
function pull(handle: ShapeHandle, dx: number, dy: number, alone: boolean) {
  const by = own(handle.at, dx, dy)
  set(handle.moved(editor.values(props.part), by, alone), handle.words)
}
function press(event: PointerEvent, handle: ShapeHandle) {
  touch(handle)
  if (event.altKey && handle.removed) return set(handle.removed(editor.values(props.part)), 'point taken off')
  // handles are made anew as the shape changes: the one at the same place in the list goes on
  const index = drawn.value.handles.findIndex((one) => one.id === handle.id)
  followDrag(event, {
    start: editor.gesture.begin,
    move: (dx, dy) => pull(drawn.value.handles[index] ?? handle, dx, dy, event.ctrlKey),
    end: editor.gesture.end,
  })
}
/** The point that is told in numbers. */
function touch(handle: ShapeHandle) {
  const index = /^point (\d+)$/.exec(handle.id)?.[1]
  if (index !== undefined) matte.point = Number(index)
}
/** A point where the line is pressed, which the drag goes on to move. */
function pressLine(event: PointerEvent) {
  if (!open.value) return void (matte.part = props.part.id)
  const bounds = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect()
  if (!bounds || !drawn.value.added) return pressBody(event)
  const at = mapped([(event.clientX - bounds.left - props.place.x - props.place.width / 2) / props.place.height, (event.clientY - bounds.top - props.place.y - props.place.height / 2) / props.place.height], inverse(carried.value))
  const made = drawn.value.added(at)
  editor.gesture.begin()
  set(made.values, 'point added')
  followDrag(event, {
    move: (dx, dy) => {
      const handle = drawn.value.handles.find((one) => one.id === made.id)
      if (handle) pull(handle, dx, dy, false)
    },
    end: editor.gesture.end,
    click: editor.gesture.end,
  })
}
/** The whole shape; one that a path carries is put right at this frame with Ctrl. */
function pressBody(event: PointerEvent) {
  if (!open.value) matte.part = props.part.id
  const puts = event.ctrlKey && props.part.path
  followDrag(event, {
    start: editor.gesture.begin,
    move: (dx, dy) => {
      if (puts) {
        const by = matte.put?.part === props.part.id ? matte.put.by : [0, 0]
        matte.put = { part: props.part.id, frame: editor.frame.value, by: [(by[0] ?? 0) + dx / props.place.height, (by[1] ?? 0) + dy / props.place.height] }
      } else set(drawn.value.shifted(own(drawn.value.middle, dx, dy)), 'place')
    },
    end: editor.gesture.end,
  })
}
const nudging = useNudging(editor.gesture.begin, editor.gesture.end)
const WAYS: Record<string, Point> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }
function key(event: KeyboardEvent, handle: ShapeHandle | null) {
  const way = WAYS[event.key]
  if (way) {
    nudging()
    const by = 1.5 * fineness(event)
    if (handle) pull(handle, way[0] * by, way[1] * by, event.ctrlKey)
    else set(drawn.value.shifted(own(drawn.value.middle, way[0] * by, way[1] * by)), 'place')
  } else if ((event.key === 'Delete' || event.key === 'Backspace') && handle?.removed) set(handle.removed(editor.values(props.part)), 'point taken off')
  else if (event.key === 'Enter' && handle?.turned) set(handle.turned(editor.values(props.part)), 'smooth or corner')
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <g role="group" :aria-label="name">
    <path v-if="trail" :d="trail" class="fill-none stroke-woad" stroke-width="1.2" />
    <path v-for="(line, index) in drawn.feathers" :key="index" :d="line" class="fill-none stroke-white/50" stroke-dasharray="2 4" stroke-width="1" />
    <path
      :d="drawn.line"
      class="pointer-events-auto cursor-move fill-transparent outline-none focus-visible:stroke-weld"
      :style="{ pointerEvents: open ? 'all' : 'stroke' }"
      tabindex="0"
      role="button"
      :aria-label="`${name}, the whole`"
      @pointerdown.stop="pressBody"
      @keydown="key($event, null)"
    />
    <path :d="drawn.line" class="fill-none stroke-black/50" stroke-width="3" />
    <path :d="drawn.line" class="fill-none" :class="open ? 'stroke-white' : 'stroke-white/60'" stroke-width="1.3" />
    <path :d="drawn.line" class="pointer-events-auto cursor-copy fill-none stroke-transparent" style="pointer-events: stroke" stroke-width="9" @pointerdown.stop="pressLine" />
    <template v-if="open">
      <path v-for="(line, index) in drawn.arms" :key="index" :d="line" class="fill-none stroke-weld/80" stroke-dasharray="3 2" />
      <g
        v-for="handle in drawn.handles"
        :key="handle.id"
        class="pointer-events-auto cursor-move outline-none [&:focus-visible>*]:stroke-weld"
        role="slider"
        tabindex="0"
        :aria-label="`${name}, ${handle.words}`"
        :aria-valuenow="Number(handle.at[0].toFixed(3))"
        :aria-valuetext="handle.at.map((one) => (one * 100).toFixed(1)).join(', ')"
        :transform="`translate(${handle.on[0].toFixed(2)} ${handle.on[1].toFixed(2)})`"
        @pointerdown.stop="press($event, handle)"
        @dblclick.stop="handle.turned && set(handle.turned(editor.values(part)), 'smooth or corner')"
        @keydown="key($event, handle)"
        @focus="touch(handle)"
      >
        <circle r="9" fill="transparent" />
        <path v-if="handle.look === 'point'" d="M0 -5L5 0L0 5L-5 0Z" class="fill-[#161616] stroke-white hover:fill-weld" stroke-width="1.2" />
        <rect v-else-if="handle.look === 'corner'" x="-4" y="-4" width="8" height="8" class="fill-[#161616] stroke-white hover:fill-weld" stroke-width="1.2" />
        <circle v-else-if="handle.look === 'arm'" r="3" class="fill-white stroke-[#161616]" />
        <circle v-else r="5.5" class="fill-transparent stroke-weld" stroke-width="1.3" />
      </g>
    </template>
  </g>
</template>
