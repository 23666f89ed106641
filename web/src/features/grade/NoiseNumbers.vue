<script setup lang="ts">
import type { StepSpec } from '@/api/declared'
import { computed } from 'vue'
import NumberField from './NumberField.vue'
import type { StepEditor } from './useStepEditor'

/** How much of the noise goes: of luma and of colour, by other frames and by detail size. */
const props = defineProps<{ spec: StepSpec; editor: StepEditor }>()
const text = (name: string) => props.spec.texts.find((one) => one.name === name)
const value = (name: string) => {
  const found = text(name)
  return found ? props.editor.text(found) : ''
}
const choices = (name: string) => {
  const from = text(name)?.from
  return Array.isArray(from) ? from : []
}
const linked = computed(() => value('link') === 'linked')
interface Cell {
  name: string
  channel?: number
  words: string
}
const rows = computed((): { head: string; cells: Cell[]; choice: string }[] => [
  { head: 'amount', cells: [{ name: 'luma', words: linked.value ? 'luma and colour' : 'luma' }, ...(linked.value ? [] : [{ name: 'colour', words: 'colour' }])], choice: 'link' },
  {
    head: 'by frames',
    cells: [
      { name: 'frames', words: 'each way' },
      { name: 'temporal', channel: 0, words: linked.value ? 'both' : 'luma' },
      ...(linked.value ? [] : [{ name: 'temporal', channel: 1, words: 'colour' }]),
      { name: 'movement', words: 'movement' },
    ],
    choice: 'effort',
  },
  { head: 'by size', cells: (props.editor.parameter('sizes').channels ?? []).map((words, channel) => ({ name: 'sizes', channel, words })), choice: 'method' },
])
const number = ({ name, channel }: Cell) => (channel === undefined ? (props.editor.value(name) as number) : ((props.editor.value(name) as number[])[channel] ?? props.editor.parameter(name).neutral))
const set = ({ name, channel }: Cell, to: number) => (channel === undefined ? props.editor.set(name, to) : props.editor.setAt(name, channel, to))
</script>

<template>
  <div class="space-y-2 px-3 pt-1 pb-3">
    <div v-for="row in rows" :key="row.head">
      <p class="mb-0.5 flex items-baseline gap-2 text-2xs text-dim">
        <span class="flex-1">{{ row.head }}</span>
        <span class="flex gap-2" role="radiogroup" :aria-label="text(row.choice)?.label" :title="text(row.choice)?.about">
          <span v-if="row.choice !== 'link'" class="text-faint">{{ text(row.choice)?.label }}</span>
          <button v-for="one in choices(row.choice)" :key="one" role="radio" :aria-checked="value(row.choice) === one" :class="value(row.choice) === one ? 'text-weld' : 'hover:text-ink'" @click="editor.set(row.choice, one)">
            {{ one }}
          </button>
        </span>
      </p>
      <div class="grid grid-cols-4 gap-x-1.5">
        <div v-for="cell in row.cells" :key="`${cell.name} ${cell.channel}`">
          <NumberField
            compact
            :spec="editor.parameter(cell.name)"
            :label="cell.channel === undefined ? editor.parameter(cell.name).label : `${row.head} ${cell.words}`"
            :bind="editor.address(cell.name, cell.channel)"
            :model-value="number(cell)"
            @update:model-value="set(cell, $event)"
            @begin="editor.begin"
            @end="editor.end"
          />
          <span class="block pt-0.5 text-center text-2xs text-faint">{{ cell.words }}</span>
        </div>
      </div>
    </div>
  </div>
</template>
