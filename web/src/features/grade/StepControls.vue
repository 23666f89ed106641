<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { computed } from 'vue'
import MattePanel from '../matte/MattePanel.vue'
import { useMatte } from '../matte/useMatte'
import KeysLine from './KeysLine.vue'
import { panelOf } from './panels'

/** The two sides of an open step: what it does, and what of the picture it acts on. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()
const matte = useMatte()
const SIDES = [
  { id: 'does', words: 'what it does' },
  { id: 'acts', words: 'acts on' },
] as const
const count = computed(() => props.step.matte?.contributors.length ?? 0)
const said = computed(() => {
  if (!count.value) return 'the whole picture'
  return props.header?.acting?.step === props.step.id ? `${(props.header.acting.share * 100).toFixed(0)} % of the picture` : `${count.value} ${count.value === 1 ? 'part' : 'parts'}`
})
</script>

<template>
  <div class="flex items-center gap-1.5 px-3 pb-1.5 text-2xs" role="tablist" :aria-label="`sides of ${step.name}`">
    <button
      v-for="side in SIDES"
      :key="side.id"
      role="tab"
      class="border px-1.5 py-0.5"
      :class="matte.side === side.id ? 'border-weld/80 text-ink' : 'border-line text-dim hover:text-ink'"
      :aria-selected="matte.side === side.id"
      @click="matte.side = side.id"
    >
      {{ side.words }}
    </button>
    <span class="ml-auto" :class="count ? 'text-ink' : 'text-faint'">{{ said }}</span>
  </div>
  <component :is="panelOf(step.kind)" v-if="matte.side === 'does'" :recipe="recipe" :step="step" :spec="spec" :header="header" />
  <MattePanel v-else :recipe="recipe" :step="step" :header="header" />
  <KeysLine :step="step" />
</template>
