<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { Recipe } from '@/api/recipe'
import { ref, toRef } from 'vue'
import LutNotice from './LutNotice.vue'
import StepCard from './StepCard.vue'
import StepControls from './StepControls.vue'
import { besideAbove } from './edit'
import { useLutTarget } from './useLutTarget'
import { useOpenStep } from './useOpenStep'
import { useSteps } from './useSteps'

/** The steps of a recipe as cards, one of them open, to be dragged into another order. */
const props = defineProps<{ recipe: Recipe; header: AnswerHeader | null }>()

const opened = useOpenStep()
const luts = useLutTarget()
const { steps, specOf, flip, rename, strengthen, move, act } = useSteps(toRef(props, 'recipe'))

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
  <div
    v-for="(step, index) in steps"
    :key="step.id"
    class="border-t-2"
    :style="{ marginLeft: besideAbove(steps, index) || besideAbove(steps, index + 1) ? '10px' : undefined }"
    :class="place === index ? 'border-weld' : 'border-transparent'"
    :draggable="opened.id !== step.id"
    @dragstart="dragged = step.id"
    @dragover.prevent="over($event, index)"
    @drop.prevent="drop"
    @dragend="dragged = place = null"
  >
    <StepCard
      v-if="specOf(step)"
      :first="index === 0"
      :last="index === steps.length - 1"
      :beside="besideAbove(steps, index)"
      :step="step"
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
