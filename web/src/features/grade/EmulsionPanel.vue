<script lang="ts">
/** The kind of step whose controls these are; see panels. */
export const kind = 'emulsion'
</script>

<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { computed, toRef } from 'vue'
import { useCut } from '../cut/useCut'
import { useCatalogue } from '../shell/useCatalogue'
import EmulsionChart from './EmulsionChart.vue'
import NumberField from './NumberField.vue'
import TextChoice from './TextChoice.vue'
import { useStepEditor } from './useStepEditor'

/** A negative and what is done to it, a print and what is done to that, and the diagram of both. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()
const cut = useCut()
const catalogue = useCatalogue()
const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const chart = useStorage('mordant.film.chart', true)

const SIDES = [
  { text: 'negative', numbers: ['exposure', 'push', 'warmth', 'flash', 'coupling'] },
  { text: 'print', numbers: ['print_exposure', 'limits', 'silver'] },
] as const
const text = (name: string) => props.spec.texts.find((one) => one.name === name)
const nameOf = (name: string) => catalogue.catalogue?.materials.find(({ id }) => id === props.step.parameters[name])?.name ?? 'none'
const shapes = computed(() => props.header?.shapes?.[props.step.id])
const histogram = computed(() => (props.header?.input?.step === props.step.id ? props.header.input.tone : null))
const points = computed(() => editor.parameter('points'))
const row = computed(() => editor.value('points') as number[])
const add = (name: string, stops: number) => editor.set(name, Math.min(editor.parameter(name).max, Math.max(editor.parameter(name).min, (editor.value(name) as number) + stops)))
</script>

<template>
  <div class="space-y-2 px-3 pt-1 pb-2">
    <EmulsionChart v-if="chart && shapes && cut.project" :shapes="shapes" :negative="nameOf('negative')" :print="nameOf('print')" :histogram="histogram" :space="cut.project.space" @expose="add('exposure', $event)" @print-expose="add('print_exposure', $event)" @begin="editor.begin" @end="editor.end" />
    <template v-for="side in SIDES" :key="side.text">
      <TextChoice v-if="text(side.text)" :spec="text(side.text)!" :model-value="editor.text(text(side.text)!)" @update:model-value="editor.set(side.text, $event)" />
      <div class="grid grid-cols-3 gap-x-2 gap-y-1.5">
        <NumberField v-for="name in side.numbers" :key="name" :spec="editor.parameter(name)" :bind="editor.address(name)" :model-value="editor.value(name) as number" @update:model-value="editor.set(name, $event)" @begin="editor.begin" @end="editor.end" />
      </div>
    </template>
    <div class="grid grid-cols-[64px_repeat(4,minmax(0,1fr))] items-center gap-x-1.5">
      <span class="text-2xs text-dim" :title="points.about">{{ points.label }}</span>
      <NumberField v-for="(channel, index) in points.channels ?? []" :key="channel" compact :spec="points" :label="`${points.label} ${channel}`" :bind="editor.address('points', index)" :model-value="row[index] ?? 0" @update:model-value="editor.setAt('points', index, $event)" @begin="editor.begin" @end="editor.end" />
    </div>
    <button class="text-2xs text-dim hover:text-ink" :aria-pressed="chart" @click="chart = !chart">{{ chart ? 'fold the diagram' : 'show the diagram' }}</button>
  </div>
</template>
