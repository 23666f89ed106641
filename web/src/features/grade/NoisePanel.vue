<script lang="ts">
/** The kind of step whose controls these are; see panels. */
export const kind = 'noise'
</script>

<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { computed, onBeforeUnmount, toRef } from 'vue'
import { useSight } from '../bench/useSight'
import StepPanel from './StepPanel.vue'
import { useCircuit } from './useCircuit'
import { useSteps } from './useSteps'

/** Its numbers, what it takes shown by itself, its place in the chain, and the switch that suspends it everywhere. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()
const sight = useSight()
const circuit = useCircuit()
const { steps, move } = useSteps(toRef(props, 'recipe'))
const GAINS = [4, 8, 16, 32]
const first = computed(() => steps.value[0]?.id === props.step.id)
onBeforeUnmount(() => (sight.adding = false))
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-2 gap-y-1 px-3 pb-1 text-2xs text-dim">
    <button class="control px-1.5 py-0 text-2xs" :class="{ 'border-weld/70 bg-weld/15 text-ink': sight.adding }" role="switch" :aria-checked="sight.adding" title="= held: about middle grey. The subject in it means that too much is taken." @click="sight.adding = !sight.adding">what it takes</button>
    <span class="flex gap-1" role="radiogroup" aria-label="amplified by"><button v-for="gain in GAINS" :key="gain" role="radio" :aria-checked="sight.gain === gain" :class="sight.gain === gain ? 'text-weld' : 'hover:text-ink'" @click="sight.gain = gain">×{{ gain }}</button></span>
    <button v-if="!first" class="ml-auto hover:text-ink" title="before all that changes what is noise and what is not" @click="move(step, 0, 'moved first')">put it first</button>
    <button class="hover:text-ink" :class="{ 'ml-auto': first, 'text-weld': circuit.noise }" role="switch" :aria-checked="circuit.noise" title="Shift N: in every picture here; deliveries have it" @click="circuit.flip('noise')">{{ circuit.noise ? 'suspended everywhere' : 'suspend everywhere' }}</button>
  </div>
  <StepPanel :recipe="recipe" :step="step" :spec="spec" />
</template>
