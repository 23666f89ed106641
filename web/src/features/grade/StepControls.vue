<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import KeysLine from './KeysLine.vue'
import MattePanel from '../matte/MattePanel.vue'
import { panelOf } from './panels'

/** The controls of an open step. */
defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()
</script>

<template>
  <component :is="panelOf(step.kind)" :recipe="recipe" :step="step" :spec="spec" :header="header" />
  <MattePanel :recipe="recipe" :step="step" :header="header" />
  <KeysLine :recipe="recipe" :step="step" />
</template>
