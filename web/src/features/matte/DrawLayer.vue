<script setup lang="ts">
import type { ShapeUse } from '@/api/catalogue'
import type { ContributorDocument, StepDocument } from '@/api/recipe'
import type { Shot } from '@/api/cut'
import { computed, nextTick, ref, watch } from 'vue'
import type { Place } from '../bench/useRegionDrag'
import { neutralParameters, newContributor, newStep } from '../grade/edit'
import { useOpenStep } from '../grade/useOpenStep'
import { useRecipes } from '../grade/useRecipes'
import { useCatalogue } from '../shell/useCatalogue'
import { useKeys } from '../shell/useKeys'
import type { Point } from './plane'
import { useMatte } from './useMatte'

/** A shape that is drawn in the picture before anything is open: dragged, an ellipse; clicked point by point, a polygon. Then it is asked what for. */
const props = defineProps<{ place: Place; shot: Shot }>()
const catalogue = useCatalogue()
const matte = useMatte()
const opened = useOpenStep()
const recipes = useRecipes()
const SLACK = 5 // px before a press is a drag
const NEAR = 10 // px from the first point that closes a polygon

const from = ref<Point | null>(null)
const to = ref<Point | null>(null)
const corners = ref<Point[]>([])
const done = ref<'ellipse' | 'polygon' | null>(null)
const uses = computed(() => catalogue.catalogue?.uses ?? [])

function at(event: PointerEvent): Point {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return [event.clientX - bounds.left, event.clientY - bounds.top]
}
const own = ([x, y]: Point): Point => [(x - props.place.x - props.place.width / 2) / props.place.height, (y - props.place.y - props.place.height / 2) / props.place.height]

function press(event: PointerEvent) {
  if (event.button !== 0 || done.value) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  from.value = to.value = at(event)
}
function move(event: PointerEvent) {
  if (from.value && !done.value) to.value = at(event)
}
function release() {
  const [a, b] = [from.value, to.value]
  from.value = null
  if (!a || !b) return
  if (Math.hypot(b[0] - a[0], b[1] - a[1]) >= SLACK && corners.value.length === 0) {
    from.value = a
    done.value = 'ellipse'
    return
  }
  const first = corners.value[0]
  if (first && corners.value.length > 2 && Math.hypot(first[0] - a[0], first[1] - a[1]) < NEAR) done.value = 'polygon'
  else corners.value = [...corners.value, a]
}
function leave() {
  from.value = to.value = done.value = null
  corners.value = []
  matte.drawing = false
}
watch(() => props.shot.id, leave) // what was drawn lies in the picture of another
const round = computed(() => {
  const [a, b] = [from.value, to.value]
  return a && b && corners.value.length === 0 ? { x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2, across: Math.abs(a[0] - b[0]) / 2, down: Math.abs(a[1] - b[1]) / 2 } : null
})
const asked = computed<Point>(() => (round.value ? [round.value.x + round.value.across + 12, round.value.y - 40] : (corners.value.at(-1) ?? [0, 0])))

/** @param feather how far it falls, in heights of the picture */
function shape(feather: number): ContributorDocument | null {
  const kinds = catalogue.catalogue?.contributors ?? []
  if (done.value === 'ellipse' && round.value) {
    const kind = kinds.find((one) => one.id === 'ellipse')
    const centre = own([round.value.x, round.value.y])
    const radii = [round.value.across / props.place.height, round.value.down / props.place.height]
    return kind ? withValues(newContributor(kind, crypto.randomUUID()), { centre, radii, softness: feather }) : null
  }
  const kind = kinds.find((one) => one.id === 'outline')
  const points = corners.value.map((corner) => [...own(corner), 0, 0, 0, 0, 0, 0])
  return kind ? withValues(newContributor(kind, crypto.randomUUID()), { points, pivot: middle(points), feather: [feather / 2, feather / 2] }) : null
}
const middle = (points: number[][]) => [0, 1].map((axis) => points.reduce((sum, point) => sum + (point[axis] ?? 0), 0) / points.length)
const withValues = (part: ContributorDocument, parameters: ContributorDocument['parameters']) => ({ ...part, parameters: { ...part.parameters, ...parameters } })

async function choose(use: ShapeUse | null) {
  const drawn = shape(use?.shape.feather ?? 0.06)
  const balance = catalogue.step(use?.step.kind ?? 'balance')
  if (!drawn || !balance) return leave()
  const fresh: StepDocument = { ...newStep(balance, crypto.randomUUID()), ...(use ? { name: use.step.name, parameters: { ...neutralParameters(balance), ...use.step.parameters } } : {}) }
  const beside = (use?.contributors ?? []).map((part) => ({ ...(JSON.parse(JSON.stringify(part)) as ContributorDocument), id: crypto.randomUUID() }))
  const step: StepDocument = { ...fresh, matte: { contributors: [{ ...drawn, invert: use?.shape.invert ?? false }, ...beside], strength: 1 } }
  recipes.change(props.shot.recipe, { ...props.shot.recipe.document, steps: [...props.shot.recipe.document.steps, step] }, `${step.name} in a shape`)
  opened.open(step)
  matte.side = 'acts'
  leave()
  await nextTick()
  matte.part = drawn.id
}
useKeys('drawing a shape', [
  { key: 'escape', words: 'stop drawing', press: leave },
  { key: 'enter', words: 'close the polygon', press: () => corners.value.length > 2 && (done.value = 'polygon') },
])
</script>

<template>
  <div class="absolute inset-0 cursor-crosshair" role="application" aria-label="draw a shape" @pointerdown.stop="press" @pointermove="move" @pointerup="release" @wheel.stop>
    <svg class="pointer-events-none absolute inset-0 size-full">
      <ellipse v-if="round" :cx="round.x" :cy="round.y" :rx="round.across" :ry="round.down" class="fill-none stroke-white" stroke-width="1.3" />
      <template v-if="corners.length">
        <path :d="`M${corners.map((one) => one.join(' ')).join('L')}${done ? 'Z' : ''}`" class="fill-none stroke-white" stroke-width="1.3" />
        <circle v-for="(corner, index) in corners" :key="index" :cx="corner[0]" :cy="corner[1]" :r="index === 0 ? 5 : 3" class="fill-[#161616] stroke-white" />
      </template>
    </svg>
    <span v-if="!done" class="pointer-events-none absolute bottom-2 left-2 bg-ground/80 px-2 py-1 text-xs text-weld">drag an ellipse, or click point by point and close at the first; Escape stops</span>
    <div
      v-else
      class="absolute w-40 border border-line bg-raise py-1 text-sm shadow-lg shadow-black/50"
      role="menu"
      aria-label="what the shape is for"
      :style="{ left: `${Math.max(8, Math.min(asked[0], place.x + place.width - 168))}px`, top: `${Math.max(8, Math.min(asked[1], place.y + place.height - 150))}px` }"
      @pointerdown.stop
      @pointerup.stop
    >
      <button v-for="use in uses" :key="use.id" role="menuitem" class="block w-full px-3 py-1 text-left hover:bg-line" :title="use.about" @click="choose(use)">{{ use.label }}</button>
      <button role="menuitem" class="block w-full border-t border-line px-3 py-1 text-left text-dim hover:bg-line" @click="choose(null)">Balance, as it is</button>
    </div>
  </div>
</template>
