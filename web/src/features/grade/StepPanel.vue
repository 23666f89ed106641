<script setup lang="ts">
import type { Recipe, StepDocument, StepSpec } from '@/api/types'
import { computed, toRef } from 'vue'
import NumberField from './NumberField.vue'
import NumberGrid from './NumberGrid.vue'
import TextChoice from './TextChoice.vue'
import { useStepEditor } from './useStepEditor'

/** Controls of a step from its declared parameters alone. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec }>()

const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const singles = computed(() => props.spec.parameters.filter((parameter) => !parameter.channels))
const rows = computed(() => props.spec.parameters.filter((parameter) => parameter.channels))
</script>

<template>
  <div class="space-y-2.5 px-3 pt-1 pb-3">
    <TextChoice v-for="text in spec.texts" :key="text.name" :spec="text" :model-value="editor.text(text)" @update:model-value="editor.set(text.name, $event)" />
    <div v-for="parameter in rows" :key="parameter.name">
      <span class="mb-0.5 block text-2xs text-dim" :title="parameter.about">{{ parameter.label }}</span>
      <div class="grid gap-x-1.5" :style="{ gridTemplateColumns: `repeat(${Math.max(4, parameter.channels?.length ?? 0)}, minmax(0, 1fr))` }">
        <div v-for="(channel, index) in parameter.channels" :key="channel">
          <NumberField
            compact
            :spec="parameter"
            :label="`${parameter.label} ${channel}`"
            :bind="editor.address(parameter.name, index)"
            :model-value="(editor.value(parameter.name) as number[])[index] ?? parameter.neutral"
            @update:model-value="editor.setAt(parameter.name, index, $event)"
            @begin="editor.begin"
            @end="editor.end"
          />
          <span class="block pt-0.5 text-center text-2xs text-faint">{{ channel === 'master' ? 'all' : channel }}</span>
        </div>
      </div>
    </div>
    <NumberGrid :parameters="singles" :editor="editor" />
  </div>
</template>
