<script lang="ts">
/** The kind of step whose controls these are; see panels. */
export const kind = 'curves'
</script>

<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { StepInput } from '@/api/readings'
import type { Recipe, StepDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { computed, toRef } from 'vue'
import { useKeys } from '../shell/useKeys'
import { useNotices } from '../shell/useNotices'
import CurveGraph from './CurveGraph.vue'
import { added, restAt } from './curvePoints'
import { usePatchPick } from './usePatchPick'
import { useStepEditor } from './useStepEditor'

/** Where a patch stands on the axes of curves, as the core reads it. */
interface PatchReading {
  tone: number
  tones: [number, number, number]
  hue: number
  saturation: number
  grey: boolean
}

const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()

const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const notices = useNotices()
const picking = usePatchPick(computed(() => props.step.id))
const shownName = useStorage('mordant.curves.shown', 'luma')
const shown = computed(() => props.spec.curves.find((one) => one.name === shownName.value) ?? props.spec.curves[0])
const bent = (name: string) => editor.points(name).length > 0
const CHANNELS = ['red', 'green', 'blue']

/** What occurs along the shown curve, in what the step sees. */
const histogram = computed(() => {
  const input = props.header?.input
  const curve = shown.value
  if (!curve || input?.step !== props.step.id) return null
  if (curve.across === 'hue' || curve.across === 'saturation') return input[curve.across]
  return input[(curve.name in input ? curve.name : 'tone') as Exclude<keyof StepInput, 'step'>]
})

const PICK = computed(() => `click or drag over a colour, for a point on ${shown.value?.label ?? ''}`)
function pickPoint() {
  const curve = shown.value
  if (!curve) return
  picking.point<PatchReading>(PICK.value, 'reading', (found) => {
    if (curve.across === 'hue' && found.grey) return notices.news('That is grey: it has no hue to put a point on.')
    const channel = CHANNELS.indexOf(curve.name)
    const place = curve.across === 'hue' || curve.across === 'saturation' ? found[curve.across] : (found.tones[channel] ?? found.tone)
    const made = added(editor.points(curve.name), [place, valueAt(place)], curve)
    if (made) editor.set(curve.name, made.points)
    else notices.news('There is a point already, or the colour lies beyond the curve.')
  })
}
useKeys('the open step', [{ key: 'n', words: 'pick a colour, for a point on the curve', press: pickPoint }])

/** What the curve makes of a place now, so that a new point changes nothing yet. */
function valueAt(place: number) {
  const curve = shown.value
  const samples = curve && props.header?.shapes?.[props.step.id]?.[curve.name]
  if (!curve) return 0
  return samples ? (samples[Math.round(Math.min(1, Math.max(0, place)) * (samples.length - 1))] ?? 0) : restAt(curve, place)
}
</script>

<template>
  <div v-if="shown" class="px-3 pt-1 pb-3">
    <div class="mb-2 flex flex-wrap gap-x-3 gap-y-1" role="radiogroup" aria-label="curve">
      <button
        v-for="one in spec.curves"
        :key="one.name"
        role="radio"
        :aria-checked="one.name === shown.name"
        class="border-b text-xs"
        :class="one.name === shown.name ? 'border-weld text-ink' : 'border-transparent text-dim hover:text-ink'"
        :title="one.about"
        @click="shownName = one.name"
      >
        {{ one.label }}<span v-if="bent(one.name)" class="ml-1 text-weld" title="has points">·</span>
      </button>
    </div>
    <CurveGraph :spec="shown" :points="editor.points(shown.name)" :samples="header?.shapes?.[step.id]?.[shown.name] ?? null" :histogram="histogram" @change="editor.set(shown.name, $event)" @begin="editor.begin" @end="editor.end" />
    <p class="mt-1.5 flex items-center gap-2 text-2xs text-dim">
      <button class="control px-2 py-0 text-xs" :class="{ 'border-weld/70 bg-weld/15': picking.asking(PICK) }" :aria-pressed="picking.asking(PICK)" title="N: click or drag over a colour" @click="pickPoint">pick a colour</button>
      <span class="flex-1">or click the graph; Delete removes a point.</span>
      <button v-if="bent(shown.name)" class="whitespace-nowrap hover:text-ink" @click="editor.set(shown.name, [])">reset</button>
    </p>
  </div>
</template>
