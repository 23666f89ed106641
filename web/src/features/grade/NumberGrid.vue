<script setup lang="ts">
import type { ParameterSpec } from '@/api/declared'
import NumberField from './NumberField.vue'
import type { StepEditor } from './useStepEditor'

/** Single numbers of a step, three in a row. */
defineProps<{ parameters: ParameterSpec[]; editor: StepEditor }>()
</script>

<template>
  <div v-if="parameters.length" class="grid grid-cols-3 gap-x-2 gap-y-1.5">
    <NumberField
      v-for="parameter in parameters"
      :key="parameter.name"
      :spec="parameter"
      :bind="editor.address(parameter.name)"
      :model-value="editor.value(parameter.name) as number"
      @update:model-value="editor.set(parameter.name, $event)"
      @begin="editor.begin"
      @end="editor.end"
    />
  </div>
</template>
