<script setup lang="ts">
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { computed, toRef } from 'vue'
import KeysLine from '../grade/KeysLine.vue'
import NumberGrid from '../grade/NumberGrid.vue'
import NumberRows from '../grade/NumberRows.vue'
import { useOpenStep } from '../grade/useOpenStep'
import { useStepEditor } from '../grade/useStepEditor'

/** The numbers of one correction. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; title: string; /** Rows that stand as a table of channels, each with its own. */ sectors?: string[] }>()
const opened = useOpenStep()
const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const single = computed(() => props.spec.parameters.filter((one) => !one.channels))
const rows = computed(() => props.spec.parameters.filter((one) => one.channels && !props.sectors?.includes(one.name)))
const table = computed(() => props.spec.parameters.filter((one) => props.sectors?.includes(one.name)).map((one) => ({ ...one, decimals: 0 })))
const SHADES: Record<string, string> = { red: '#b06a62', yellow: '#a89c5c', green: '#6d9a68', cyan: '#5f9a9c', blue: '#6478b4', magenta: '#a06aa2' }
const FOLLOWS: Record<string, string> = { whole: 'the whole shot', following: 'slow changes' }
const isOpen = computed(() => opened.id === props.step.id)
</script>

<template>
  <section class="border-b border-line pb-1.5" :aria-label="title" @pointerdown.capture="opened.open(step)" @focusin="opened.open(step)">
    <h2 class="flex items-baseline gap-2 px-3 pt-2.5 pb-1.5">
      <span class="text-base font-semibold">{{ title }}</span><slot name="about" /><span class="flex-1" /><slot name="hands" />
    </h2>
    <div class="space-y-2 px-3 pb-1.5">
      <div v-for="row in rows" :key="row.name">
        <div class="grid grid-cols-[52px_repeat(3,minmax(0,1fr))] items-center gap-x-1.5"><NumberRows :parameters="[row]" :editor="editor" /></div>
        <div class="grid grid-cols-[52px_repeat(3,minmax(0,1fr))] gap-x-1.5">
          <span /><span v-for="channel in row.channels" :key="channel" class="text-center text-2xs text-faint">{{ channel }}</span>
        </div>
      </div>
      <NumberGrid :parameters="single" :editor="editor" />
      <slot />
      <div v-for="text in spec.texts" :key="text.name" class="flex items-center gap-2 text-2xs text-dim">
        <span :title="text.about">{{ text.label }}</span>
        <button v-for="word in text.from as string[]" :key="word" class="hover:text-ink" :class="editor.text(text) === word ? 'text-weld' : ''" :aria-pressed="editor.text(text) === word" @click="editor.set(text.name, word)">
          {{ FOLLOWS[word] ?? word }}
        </button>
      </div>
      <div v-if="table.length" class="grid gap-x-1 gap-y-1" :style="{ gridTemplateColumns: `40px repeat(${table[0]?.channels?.length ?? 6}, minmax(0, 1fr))` }">
        <span />
        <span v-for="channel in table[0]?.channels ?? []" :key="channel" class="border-t-2 pt-0.5 text-center text-2xs text-dim" :style="{ borderColor: SHADES[channel] }" :title="channel">{{ channel.slice(0, 3) }}</span>
        <NumberRows bare :parameters="table" :editor="editor" />
      </div>
    </div>
    <KeysLine v-if="isOpen" :step="step" />
  </section>
</template>
