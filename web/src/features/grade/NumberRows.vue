<script setup lang="ts">
import type { ParameterSpec } from '@/api/declared'
import NumberField from './NumberField.vue'
import type { StepEditor } from './useStepEditor'

/** Rows of numbers of a step, a line for each parameter, as cells of the grid that they stand in. */
withDefaults(defineProps<{ parameters: ParameterSpec[]; editor: StepEditor; /** Without their unit, which stands elsewhere. */ bare?: boolean; /** What its channels are called here, where not by their own names. */ names?: string[] }>(), {
  bare: false,
  names: undefined,
})
</script>

<template>
  <template v-for="parameter in parameters" :key="parameter.name">
    <span class="truncate text-2xs text-dim" :title="parameter.about">{{ parameter.label }}</span>
    <NumberField
      v-for="(channel, index) in names ?? parameter.channels ?? []"
      :key="channel"
      compact
      :spec="bare ? { ...parameter, suffix: '' } : parameter"
      :label="`${parameter.label} ${channel}`"
      :bind="editor.address(parameter.name, index)"
      :model-value="(editor.value(parameter.name) as number[])[index] ?? parameter.neutral"
      @update:model-value="editor.setAt(parameter.name, index, $event)"
      @begin="editor.begin"
      @end="editor.end"
    />
  </template>
</template>
