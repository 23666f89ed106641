<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { Recipe, StepDocument, StepSpec } from '@/api/types'
import { useCut } from '../bench/useCut'
import BalancePanel from './BalancePanel.vue'
import CurvesPanel from './CurvesPanel.vue'
import KeysLine from './KeysLine.vue'
import MattePanel from './MattePanel.vue'
import StepPanel from './StepPanel.vue'
import ZonesPanel from './ZonesPanel.vue'

/** The controls of an open step: made by hand for the main ones, from its declaration for the rest. */
defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()
const cut = useCut()
</script>

<template>
  <BalancePanel
    v-if="step.kind === 'balance' && cut.project"
    :recipe="recipe"
    :step="step"
    :spec="spec"
    :header="header"
    :space="cut.project.space"
  />
  <CurvesPanel v-else-if="step.kind === 'curves'" :recipe="recipe" :step="step" :spec="spec" :header="header" />
  <ZonesPanel v-else-if="step.kind === 'zones'" :recipe="recipe" :step="step" :spec="spec" :header="header" />
  <StepPanel v-else :recipe="recipe" :step="step" :spec="spec" />
  <MattePanel :recipe="recipe" :step="step" />
  <KeysLine :recipe="recipe" :step="step" />
</template>
