<script setup lang="ts">
import type { DeclaredSpec, ParameterSpec } from '@/api/declared'
import type { ContributorDocument, MatteDocument, MatteMode, Recipe, StepDocument } from '@/api/recipe'
import { computed, ref } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'
import { newContributor, withMatte } from './edit'
import NumberField from './NumberField.vue'
import { useGesture } from './useStepEditor'
import { useRecipes } from './useRecipes'

/** What of the picture the open step acts on, from what contributors declare. */
const props = defineProps<{ recipe: Recipe; step: StepDocument }>()
const MODES: { mode: MatteMode; sign: string; words: string }[] = [
  { mode: 'add', sign: '+', words: 'add' },
  { mode: 'subtract', sign: '−', words: 'subtract' },
  { mode: 'intersect', sign: '×', words: 'intersect' },
  { mode: 'out', sign: '○', words: 'left out' },
]
const catalogue = useCatalogue()
const recipes = useRecipes()
const gesture = useGesture()
const opened = ref<string | null>(null)
const kinds = computed(() => catalogue.catalogue?.contributors ?? [])
const matte = computed<MatteDocument>(() => props.step.matte ?? { contributors: [], strength: 1 })
const specOf = (part: ContributorDocument) => kinds.value.find((kind) => kind.id === part.kind)

function change(contributors: ContributorDocument[], words: string, drag?: string) {
  recipes.change(props.recipe, withMatte(props.recipe.document, props.step.id, { ...matte.value, contributors }), `${props.step.name}: ${words}`, drag)
}
function add(kind: DeclaredSpec) {
  const part = newContributor(kind, crypto.randomUUID())
  opened.value = part.id
  change([...matte.value.contributors, part], `acts on ${kind.label.toLowerCase()}`)
}
const alter = (part: ContributorDocument, values: Partial<ContributorDocument>, words: string, drag?: string) =>
  change(matte.value.contributors.map((one) => (one.id === part.id ? { ...one, ...values } : one)), words, drag)
const remove = (part: ContributorDocument) => change(matte.value.contributors.filter((one) => one.id !== part.id), 'contributor taken off')

/** Numbers of a contributor one by one, those of a row too. */
const numbers = (spec: DeclaredSpec) => spec.parameters.flatMap((parameter) => (parameter.channels ?? [null]).map((channel, index) => ({ parameter, channel, index })))
function valueOf(part: ContributorDocument, parameter: ParameterSpec, index: number) {
  const value = part.parameters[parameter.name] ?? parameter.neutral
  return Array.isArray(value) ? ((value as number[])[index] ?? parameter.neutral) : (value as number)
}
function set(part: ContributorDocument, parameter: ParameterSpec, index: number, value: number) {
  const row = parameter.channels?.map((_, at) => (at === index ? value : valueOf(part, parameter, at)))
  alter(part, { parameters: { ...part.parameters, [parameter.name]: row ?? value } }, `${parameter.label} of its matte`, gesture.id())
}
</script>

<template>
  <div class="border-t border-line/60 px-3 py-1.5 text-2xs text-dim" role="group" :aria-label="`what ${step.name} acts on`">
    <p class="flex items-center gap-2">
      <span class="flex-1">{{ matte.contributors.length ? 'acts on' : 'acts on the whole picture' }}</span>
      <button v-for="kind in kinds" :key="kind.id" type="button" class="hover:text-ink" @click="add(kind)">+ {{ kind.label.toLowerCase() }}</button>
    </p>
    <section v-for="part in matte.contributors" :key="part.id" class="pt-1" :aria-label="specOf(part)?.label">
      <p class="flex items-center gap-2">
        <span class="flex gap-px">
          <button
            v-for="one in MODES" :key="one.mode" type="button" class="size-4 border leading-none" :class="part.mode === one.mode ? 'border-weld text-weld' : 'border-line hover:text-ink'"
            :aria-label="one.words" :title="one.words" :aria-pressed="part.mode === one.mode" @click="alter(part, { mode: one.mode }, `contributor ${one.words}`)"
          >{{ one.sign }}</button>
        </span>
        <button type="button" class="flex-1 text-left text-ink" :class="{ 'text-faint': part.mode === 'out' }" :aria-expanded="opened === part.id" @click="opened = opened === part.id ? null : part.id">{{ specOf(part)?.label }}</button>
        <button type="button" class="hover:text-madder" :aria-label="`take ${specOf(part)?.label} off`" @click="remove(part)">×</button>
      </p>
      <div v-if="opened === part.id && specOf(part)" class="grid grid-cols-3 gap-x-2 gap-y-1 pt-1">
        <NumberField
          v-for="{ parameter, channel, index } in numbers(specOf(part)!)" :key="`${parameter.name} ${index}`" :spec="channel ? { ...parameter, label: `${parameter.label} ${channel}` } : parameter"
          :model-value="valueOf(part, parameter, index)" @update:model-value="set(part, parameter, index, $event)" @begin="gesture.begin" @end="gesture.end"
        />
      </div>
    </section>
  </div>
</template>
