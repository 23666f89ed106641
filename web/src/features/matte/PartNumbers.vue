<script setup lang="ts">
import type { ContributorSpec, ParameterSpec } from '@/api/declared'
import type { ContributorDocument } from '@/api/recipe'
import { computed } from 'vue'
import NumberField from '../grade/NumberField.vue'
import type { MatteEditor } from './useMatteEditor'

/** Numbers of a contributor, those of a row too: all of them, or some. */
const props = defineProps<{ editor: MatteEditor; part: ContributorDocument; spec: ContributorSpec; only?: string[] }>()
const shown = computed(() =>
  props.spec.parameters.filter((one) => (props.only ? props.only.includes(one.name) : one.name !== 'calm')).flatMap((parameter) => (parameter.channels ?? [null]).map((channel, index) => ({ parameter, channel, index }))),
)
/** Where small steps count, as they do for shapes, numbers are finer. */
const finer = (spec: ParameterSpec): ParameterSpec => (spec.unit === 'share' ? { ...spec, decimals: spec.decimals + 1, nudge: spec.nudge / 10 } : spec)
const value = (parameter: ParameterSpec, index: number) => {
  const found = props.editor.value(props.part, parameter.name)
  return Array.isArray(found) ? ((found as number[])[index] ?? parameter.neutral) : (found as number)
}
function set(parameter: ParameterSpec, index: number, to: number) {
  const row = parameter.channels?.map((_, at) => (at === index ? to : value(parameter, at)))
  props.editor.set(props.part, { [parameter.name]: row ?? to }, parameter.label)
}
</script>

<template>
  <div class="grid gap-x-2 gap-y-1 pt-1" :class="shown.length === 4 ? 'grid-cols-4' : shown.length > 1 ? 'grid-cols-3' : ''">
    <NumberField
      v-for="{ parameter, channel, index } in shown"
      :key="`${parameter.name} ${index}`"
      :spec="finer(channel ? { ...parameter, label: `${parameter.label} ${channel}` } : parameter)"
      :model-value="value(parameter, index)"
      @update:model-value="set(parameter, index, $event)"
      @begin="editor.gesture.begin"
      @end="editor.gesture.end"
    />
  </div>
</template>
