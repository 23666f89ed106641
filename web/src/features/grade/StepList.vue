<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { Recipe } from '@/api/recipe'
import { computed, ref, toRef } from 'vue'
import BundleRow from './BundleRow.vue'
import LutNotice from './LutNotice.vue'
import StepCard from './StepCard.vue'
import StepControls from './StepControls.vue'
import { runsOf } from './bundles'
import { besideAbove } from './edit'
import { useFolds } from './useFolds'
import { useLutTarget } from './useLutTarget'
import { useOpenStep } from './useOpenStep'
import { useSteps } from './useSteps'

/** The steps of a recipe as cards, one of them open, to be dragged into another order. */
const props = defineProps<{ recipe: Recipe; header: AnswerHeader | null }>()

const opened = useOpenStep()
const luts = useLutTarget()
const { steps, specOf, flip, rename, strengthen, move, act, changeBundle, actOnBundle } = useSteps(toRef(props, 'recipe'))
const folds = useFolds()
const runs = computed(() => runsOf(props.recipe.document))
const indexOf = (id: string) => steps.value.findIndex((one) => one.id === id)

/** With its parts goes the one that is open. */
function fold(id: string, parts: { id: string }[]) {
  if (!folds.has(id) && parts.some((step) => step.id === opened.id)) opened.id = null
  folds.flip(id)
}

/** A card that is dragged, and the place it would be dropped at. */
const dragged = ref<string | null>(null)
const place = ref<number | null>(null)

function over(event: DragEvent, index: number) {
  if (!dragged.value) return
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  place.value = index + (event.clientY > bounds.top + bounds.height / 2 ? 1 : 0)
}
function drop() {
  const from = steps.value.findIndex((one) => one.id === dragged.value)
  const step = steps.value[from]
  if (step && place.value !== null) {
    const to = place.value > from ? place.value - 1 : place.value
    if (to !== from) move(step, to)
  }
  dragged.value = place.value = null
}
</script>

<template>
  <div v-for="(run, at) in runs" :key="run.bundle?.id ?? run.steps[0]?.id" :data-bundle="run.bundle?.name">
    <BundleRow
      v-if="run.bundle"
      :bundle="run.bundle"
      :parts="run.steps"
      :folded="folds.has(run.bundle.id)"
      :first="at === 0"
      :last="at === runs.length - 1"
      @change="(change, gesture) => changeBundle(run.bundle!, change, gesture)"
      @act="actOnBundle(run.bundle, $event)"
      @fold="fold(run.bundle.id, run.steps)"
    />
    <template v-if="!run.bundle || !folds.has(run.bundle.id)">
      <div
        v-for="step in run.steps"
        :key="step.id"
        :class="[place === indexOf(step.id) ? 'border-weld' : 'border-transparent', run.bundle ? 'border-t ml-2.5' : 'border-t-2', run.bundle && !run.bundle.enabled ? 'opacity-50' : '']"
        :style="{ marginLeft: besideAbove(steps, indexOf(step.id)) || besideAbove(steps, indexOf(step.id) + 1) ? (run.bundle ? '20px' : '10px') : undefined }"
        :draggable="opened.id !== step.id"
        @dragstart="dragged = step.id"
        @dragover.prevent="over($event, indexOf(step.id))"
        @drop.prevent="drop"
        @dragend="dragged = place = null"
      >
        <StepCard
          v-if="specOf(step)"
          :first="indexOf(step.id) === 0"
          :last="indexOf(step.id) === steps.length - 1"
          :beside="besideAbove(steps, indexOf(step.id))"
          :step="step"
          :slim="run.bundle !== null"
          :fault="luts.twice(step) ? 'renders before the view' : null"
          :spec="specOf(step)!"
          :open="opened.id === step.id"
          @toggle="opened.toggle(step)"
          @strength="(value, gesture) => strengthen(step, value, gesture)"
          @switch="flip(step)"
          @name="rename(step, $event)"
          @act="act(step, $event)"
        >
          <LutNotice :recipe="recipe" :step="step" />
          <StepControls :recipe="recipe" :step="step" :spec="specOf(step)!" :header="header" />
        </StepCard>
      </div>
    </template>
  </div>
</template>
