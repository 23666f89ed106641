<script lang="ts">
/** The kind of step whose controls these are; see panels. */
export const kind = 'emulsion'
</script>

<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, toRef } from 'vue'
import { usePick } from '../bench/usePick'
import { useSight } from '../bench/useSight'
import { useCut } from '../cut/useCut'
import { useCatalogue } from '../shell/useCatalogue'
import { held } from './edit'
import EmulsionChart, { type Pull } from './EmulsionChart.vue'
import NumberField from './NumberField.vue'
import NumberRows from './NumberRows.vue'
import TextChoice from './TextChoice.vue'
import TouchGuides from './TouchGuides.vue'
import { useStepEditor } from './useStepEditor'

/** A negative and what is done to it, a print and what is done to that, and the diagram of both. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()
const cut = useCut()
const sight = useSight()
const pick = usePick()
const catalogue = useCatalogue()
const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const chart = useStorage('mordant.film.chart', true)

const SIDES = [
  { text: 'negative', numbers: ['exposure', 'push', 'warmth', 'flash', 'coupling', 'speed', 'toe', 'slope', 'shoulder'] },
  { text: 'print', numbers: ['print_exposure', 'limits', 'silver'] },
] as const
const PATCH = 'a patch to follow through the film'
const text = (name: string) => props.spec.texts.find((one) => one.name === name)
const materialOf = (name: string) => catalogue.catalogue?.materials.find(({ id }) => id === props.step.parameters[name])
const shapes = computed(() => props.header?.shapes?.[props.step.id])
const histogram = computed(() => (props.header?.input?.step === props.step.id ? props.header.input.tone : null))
const exposed = computed(() => (props.header?.exposed?.step === props.step.id ? props.header.exposed : null))
const points = computed(() => editor.parameter('points'))
const row = computed(() => editor.value('points') as number[])
const number = (name: string) => editor.value(name) as number

function pull(one: Pull) {
  if (one.name === 'points') editor.setAt('points', one.channel, held((row.value[one.channel] ?? 0) + one.points, points.value))
  else editor.set(one.name, held(one.name === 'slope' ? number('slope') * one.times : number(one.name) + one.stops, editor.parameter(one.name)))
}
onBeforeUnmount(() => {
  if (pick.asked?.words === PATCH) pick.cancel()
})
</script>

<template>
  <div class="space-y-2 px-3 pt-1 pb-2">
    <EmulsionChart
      v-if="chart && shapes && cut.project"
      :shapes="shapes"
      :negative="materialOf('negative')?.name ?? 'none'"
      :print="materialOf('print')?.name ?? 'none'"
      :histogram="histogram"
      :exposed="exposed"
      :space="cut.project.space"
      @pull="pull"
      @begin="editor.begin"
      @end="editor.end"
    />
    <p class="flex gap-3 text-2xs text-dim">
      <button class="hover:text-ink" :aria-pressed="chart" @click="chart = !chart">{{ chart ? 'fold the diagram' : 'show the diagram' }}</button>
      <button class="hover:text-ink" :class="{ 'text-weld': pick.asked?.words === PATCH }" @click="pick.ask(PATCH, (region) => sight.pickPatch(region))">follow a patch</button>
      <button v-if="sight.patch" class="hover:text-ink" @click="sight.pickPatch(null)">drop the patch</button>
    </p>
    <TouchGuides :guides="header?.guides" />
    <template v-for="side in SIDES" :key="side.text">
      <TextChoice v-if="text(side.text)" :spec="text(side.text)!" :model-value="editor.text(text(side.text)!)" @update:model-value="editor.set(side.text, $event)" />
      <div class="grid grid-cols-3 gap-x-2 gap-y-1.5">
        <NumberField v-for="name in side.numbers" :key="name" :spec="editor.parameter(name)" :bind="editor.address(name)" :model-value="number(name)" @update:model-value="editor.set(name, $event)" @begin="editor.begin" @end="editor.end" />
      </div>
    </template>
    <div class="grid grid-cols-[64px_repeat(4,minmax(0,1fr))] items-center gap-x-1.5">
      <NumberRows :parameters="[points]" :editor="editor" />
    </div>
  </div>
</template>
