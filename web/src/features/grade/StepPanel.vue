<script setup lang="ts">
import type { ColourSpec, ParameterSpec, StepSpec, TextSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { computed, toRef } from 'vue'
import { partsOf } from './edit'
import NumberField from './NumberField.vue'
import NumberGrid from './NumberGrid.vue'
import TextChoice from './TextChoice.vue'
import { useStepEditor } from './useStepEditor'

/** Controls of a step from its declared parameters alone, in the order they are declared. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec }>()
defineOptions({ inheritAttrs: false })

const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))

const setPart = (spec: ColourSpec, index: number, value: number) =>
  editor.set(
    spec.name,
    editor.row(spec.name, spec.neutral).map((one, at) => (at === index ? value : one)),
  )

type Part = { text: TextSpec } | { colour: ColourSpec } | { row: ParameterSpec } | { numbers: ParameterSpec[] }
/** Neighbouring single numbers share a grid. */
const parts = computed(() =>
  props.spec.order.reduce<Part[]>((made, name) => {
    const text = props.spec.texts.find((one) => one.name === name)
    const colour = props.spec.colours.find((one) => one.name === name)
    const number = props.spec.parameters.find((one) => one.name === name)
    const last = made.at(-1)
    if (text) made.push({ text })
    else if (colour) made.push({ colour })
    else if (number?.channels) made.push({ row: number })
    else if (number && last && 'numbers' in last) last.numbers.push(number)
    else if (number) made.push({ numbers: [number] })
    return made
  }, []),
)
</script>

<template>
  <div class="space-y-2.5 px-3 pt-1 pb-3">
    <template v-for="(part, at) in parts" :key="at">
      <TextChoice v-if="'text' in part" :spec="part.text" :model-value="editor.text(part.text)" @update:model-value="editor.set(part.text.name, $event)" />
      <NumberGrid v-else-if="'numbers' in part" :parameters="part.numbers" :editor="editor" />
      <div v-else-if="'colour' in part" class="grid grid-cols-3 gap-x-2">
        <NumberField
          v-for="(number, index) in partsOf(part.colour)"
          :key="number.label"
          :spec="number"
          :model-value="editor.row(part.colour.name, part.colour.neutral)[index] ?? number.neutral"
          @update:model-value="setPart(part.colour, index, $event)"
          @begin="editor.begin"
          @end="editor.end"
        />
      </div>
      <div v-else>
        <span class="mb-0.5 block text-2xs text-dim" :title="part.row.about">{{ part.row.label }}</span>
        <div class="grid gap-x-1.5" :style="{ gridTemplateColumns: `repeat(${Math.max(4, part.row.channels?.length ?? 0)}, minmax(0, 1fr))` }">
          <div v-for="(channel, index) in part.row.channels" :key="channel">
            <NumberField
              compact
              :spec="part.row"
              :label="`${part.row.label} ${channel}`"
              :bind="editor.address(part.row.name, index)"
              :model-value="(editor.value(part.row.name) as number[])[index] ?? part.row.neutral"
              @update:model-value="editor.setAt(part.row.name, index, $event)"
              @begin="editor.begin"
              @end="editor.end"
            />
            <span class="block pt-0.5 text-center text-2xs text-faint">{{ channel === 'master' ? 'all' : channel }}</span>
          </div>
        </div>
      </div>
    </template>
  </div>
</template>
