<script setup lang="ts">
import type { StepSpec } from '@/api/declared'
import type { Extents } from '@/api/readings'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import NumberField from './NumberField.vue'
import { quickOrder, readingOf } from './quickOrder'
import { useOpenStep } from './useOpenStep'
import type { StepEditor } from './useStepEditor'

/** The eight corrections in the order that each leaves the ones before it standing, with what to look at. */
const props = defineProps<{ editor: StepEditor; spec: StepSpec; extents: Extents | null }>()

const opened = useOpenStep()
const list = ref<HTMLElement>()
const TINTS = ['text-faint', 'text-madder', 'text-leaf', 'text-woad']
const rows = computed(() => quickOrder.map((row) => ({ ...row, parameter: props.editor.parameter(row.name) })))

/** To the next line after the one that has the focus; to the first from anywhere else. */
function next() {
  const lines = [...(list.value?.querySelectorAll('[data-line]') ?? [])]
  const at = lines.findIndex((line) => line.contains(document.activeElement))
  lines[(at + 1) % lines.length]?.querySelector<HTMLElement>('[role=spinbutton]')?.focus()
}
onMounted(() => (opened.advance = next))
onBeforeUnmount(() => (opened.advance = null))
</script>

<template>
  <ol ref="list" class="space-y-[3px]" aria-label="quick order">
    <li v-for="(row, index) in rows" :key="row.name" data-line class="grid grid-cols-[14px_72px_minmax(0,1fr)] border-l border-transparent pl-1 focus-within:border-weld" :title="row.aim">
      <span class="pt-1 text-2xs text-faint">{{ index + 1 }}</span>
      <span class="truncate pt-[3px] text-xs text-dim">{{ row.parameter.label }}</span>
      <div v-if="row.parameter.channels" class="grid grid-cols-4 gap-x-1">
        <div v-for="(channel, place) in row.parameter.channels" :key="channel">
          <NumberField
            compact
            :spec="row.parameter"
            :label="`${row.parameter.label} ${place === 0 ? 'all' : channel}`"
            :bind="editor.address(row.name, place)"
            :model-value="(editor.value(row.name) as number[])[place] ?? row.parameter.neutral"
            @update:model-value="editor.setAt(row.name, place, $event)"
            @begin="editor.begin"
            @end="editor.end"
          />
          <span class="block h-3 text-[9px] leading-3" :class="TINTS[place]" :data-reading="`${row.name} ${place === 0 ? 'all' : channel}`">{{ readingOf(row, extents, place) }}</span>
        </div>
      </div>
      <div v-else class="grid grid-cols-[62px_minmax(0,1fr)] items-center gap-2">
        <NumberField
          compact
          :spec="row.parameter"
          :label="row.parameter.label"
          :bind="editor.address(row.name)"
          :model-value="editor.value(row.name) as number"
          @update:model-value="editor.set(row.name, $event)"
          @begin="editor.begin"
          @end="editor.end"
        />
        <span v-if="$slots[row.name]" class="truncate text-right"><slot :name="row.name" /></span>
        <span v-else class="truncate text-2xs text-dim" :data-reading="row.name">{{ readingOf(row, extents, null) }}</span>
      </div>
    </li>
  </ol>
</template>
