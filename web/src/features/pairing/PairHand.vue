<script setup lang="ts">
import type { Shot } from '@/api/cut'
import type { StepSpec } from '@/api/declared'
import type { StepDocument } from '@/api/recipe'
import { computed } from 'vue'
import NumberField from '../grade/NumberField.vue'
import { newStep } from '../grade/edit'
import { useRecipes } from '../grade/useRecipes'
import { useStepEditor } from '../grade/useStepEditor'
import { useCatalogue } from '../shell/useCatalogue'

/** The main numbers of the member's Balance, to correct it by hand. */
const props = defineProps<{ shot: Shot }>()
const catalogue = useCatalogue()
const recipes = useRecipes()
const MAIN = ['exposure', 'contrast', 'temperature', 'tint', 'saturation']

const spec = computed(() => catalogue.step('balance') as StepSpec)
const step = computed(() => props.shot.recipe.document.steps.find((one) => one.kind === 'balance' && one.enabled))
const editor = useStepEditor(
  computed(() => props.shot.recipe),
  computed(() => step.value as StepDocument),
  spec,
)
const parameters = computed(() => spec.value.parameters.filter(({ name }) => MAIN.includes(name)))

function begin() {
  const { document } = props.shot.recipe
  recipes.change(props.shot.recipe, { ...document, steps: [...document.steps, newStep(spec.value, crypto.randomUUID())] }, `${props.shot.name}: Balance added`)
}
</script>

<template>
  <div v-if="spec" class="flex items-end gap-2" role="group" :aria-label="`Balance of ${shot.name} by hand`">
    <template v-if="step">
      <span class="caption pb-1 whitespace-nowrap">{{ shot.name }} by hand</span>
      <div v-for="one in parameters" :key="one.name" class="w-[76px]">
        <NumberField :spec="one" :bind="editor.address(one.name)" :model-value="editor.value(one.name) as number" @update:model-value="editor.set(one.name, $event)" @begin="editor.begin" @end="editor.end" />
      </div>
    </template>
    <button v-else class="control" @click="begin">Balance {{ shot.name }} by hand</button>
  </div>
</template>
