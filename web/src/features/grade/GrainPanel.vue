<script lang="ts">
/** The kind of step whose controls these are; see panels. */
export const kind = 'grain'
</script>

<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { computed, toRef } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'
import StepPanel from './StepPanel.vue'
import { useStepEditor } from './useStepEditor'

/** Its numbers, and the granularity that the negative of the recipe's Emulsion has: a proposal, which nobody has to take. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()
const catalogue = useCatalogue()
const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const negative = computed(() => {
  const steps = props.recipe.document.steps.filter((step) => step.kind === 'emulsion' && step.enabled)
  return catalogue.catalogue?.materials.find((one) => one.granularity !== null && steps.some((step) => step.parameters.negative === one.id))
})
const taken = computed(() => negative.value?.granularity === props.step.parameters.granularity)
</script>

<template>
  <p v-if="negative && !taken" class="flex items-center justify-between gap-2 px-3 pb-1 text-2xs text-dim">
    <span class="truncate">{{ negative.name }} has a granularity of {{ negative.granularity?.toFixed(1) }}</span>
    <button class="control px-1.5 py-0 text-2xs" @click="editor.set('granularity', negative.granularity!)">take it</button>
  </p>
  <StepPanel :recipe="recipe" :step="step" :spec="spec" />
</template>
