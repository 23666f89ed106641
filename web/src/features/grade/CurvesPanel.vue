<script setup lang="ts">
import type { Recipe, StepDocument, StepSpec, ToneTrace } from '@/api/types'
import { useStorage } from '@vueuse/core'
import { computed, toRef } from 'vue'
import CurveGraph from './CurveGraph.vue'
import { useStepEditor } from './useStepEditor'

const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; trace: ToneTrace | null; curves: Record<string, number[]> | null }>()

const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const shownName = useStorage('mordant.curves.shown', 'luma')
const shown = computed(() => props.spec.curves.find((one) => one.name === shownName.value) ?? props.spec.curves[0])
const bent = (name: string) => editor.points(name).length > 0
</script>

<template>
  <div v-if="shown" class="px-3 pt-1 pb-3">
    <div class="mb-2 flex flex-wrap gap-x-3 gap-y-1" role="radiogroup" aria-label="curve">
      <button
        v-for="one in spec.curves"
        :key="one.name"
        role="radio"
        :aria-checked="one.name === shown.name"
        class="border-b text-xs"
        :class="one.name === shown.name ? 'border-weld text-ink' : 'border-transparent text-dim hover:text-ink'"
        :title="one.about"
        @click="shownName = one.name"
      >
        {{ one.label }}<span v-if="bent(one.name)" class="ml-1 text-weld" title="has points">·</span>
      </button>
    </div>
    <CurveGraph
      :spec="shown"
      :points="editor.points(shown.name)"
      :samples="curves?.[shown.name] ?? null"
      :histogram="trace?.light ?? null"
      @change="editor.set(shown.name, $event)"
      @begin="editor.begin"
      @end="editor.end"
    />
    <p class="mt-1.5 flex justify-between text-2xs text-dim">
      <span>Click for a point; Delete or a double click takes it away.</span>
      <button v-if="bent(shown.name)" class="whitespace-nowrap hover:text-ink" @click="editor.set(shown.name, [])">reset</button>
    </p>
  </div>
</template>
