<script lang="ts">
/** The kind of step whose controls these are; see panels. */
export const kind = 'noise'
</script>

<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { computed, onBeforeUnmount, ref, toRef, watch } from 'vue'
import { useSight } from '../bench/useSight'
import CleanedLine from './CleanedLine.vue'
import NoiseNumbers from './NoiseNumbers.vue'
import NoiseProfile from './NoiseProfile.vue'
import { usePatchPick } from './usePatchPick'
import { useStepEditor } from './useStepEditor'
import { useCircuit } from './useCircuit'
import { useCleaned } from './useCleaned'
import { useSteps } from './useSteps'

/** Its numbers, what it takes shown by itself, its place in the chain, and the switch that suspends it everywhere. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()
const sight = useSight()
const circuit = useCircuit()
const cleaned = useCleaned()
watch(() => props.header, cleaned.soon)
const { steps, move } = useSteps(toRef(props, 'recipe'))
const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const picks = usePatchPick(computed(() => props.step.id))
const PATCH = 'a patch without detail of its own'
const measuring = ref(false)
const shapes = computed(() => props.header?.shapes?.[props.step.id])
const take = ({ profile }: { profile: number[][] }) => editor.set('profile', profile)
async function measure() {
  measuring.value = true
  await picks.ask('noise', take)
  measuring.value = false
}
const GAINS = [4, 8, 16, 32]
const first = computed(() => steps.value[0]?.id === props.step.id)
onBeforeUnmount(() => (sight.adding = false))
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-2 gap-y-1 px-3 pb-1 text-2xs text-dim">
    <button
      class="control px-1.5 py-0 text-2xs"
      :class="{ 'border-weld/70 bg-weld/15 text-ink': sight.adding }"
      role="switch"
      :aria-checked="sight.adding"
      title="= held: about middle grey. The subject in it means that too much is taken."
      @click="sight.adding = !sight.adding"
    >
      what it takes
    </button>
    <span class="flex gap-1" role="radiogroup" aria-label="amplified by"
      ><button v-for="gain in GAINS" :key="gain" role="radio" :aria-checked="sight.gain === gain" :class="sight.gain === gain ? 'text-weld' : 'hover:text-ink'" @click="sight.gain = gain">×{{ gain }}</button></span
    >
    <button v-if="!first" class="ml-auto hover:text-ink" title="before all that changes what is noise and what is not" @click="move(step, 0, 'moved first')">put it first</button>
    <button class="hover:text-ink" :class="{ 'ml-auto': first, 'text-weld': circuit.noise }" role="switch" :aria-checked="circuit.noise" title="Shift N: in every picture here; deliveries have it" @click="circuit.flip('noise')">
      {{ circuit.noise ? 'bypassed everywhere' : 'bypass everywhere' }}
    </button>
  </div>
  <NoiseProfile v-if="shapes" :shapes="shapes" />
  <p class="flex flex-wrap items-center gap-x-3 px-3 pb-1 text-2xs text-dim">
    <span>{{ shapes ? 'as measured' : 'estimated in each frame' }}</span>
    <button class="hover:text-ink disabled:text-faint" :disabled="measuring" title="from three frames of it: quicker, and the same all through" @click="measure">{{ measuring ? 'measuring…' : 'measure the shot' }}</button>
    <button class="hover:text-ink" :class="{ 'text-weld': picks.asking(PATCH) }" title="somewhere flat: as much as there is there" @click="picks.point(PATCH, 'noise', take)">measure a patch</button>
    <button v-if="shapes" class="hover:text-ink" @click="editor.set('profile', [])">drop it</button>
  </p>
  <CleanedLine />
  <NoiseNumbers :spec="spec" :editor="editor" />
</template>
