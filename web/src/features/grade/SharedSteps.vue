<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { Family } from '@/api/cut'
import { computed } from 'vue'
import { counted } from '../shell/counted'
import StepAdder from './StepAdder.vue'
import StepList from './StepList.vue'
import { useSteps } from './useSteps'

/** Steps of a family, which act on all its members. */
const props = defineProps<{ family: Family; place: 'ground' | 'finish'; header: AnswerHeader | null }>()
const recipe = computed(() => props.family[props.place])
const { add, addLook } = useSteps(recipe)
</script>

<template>
  <section :aria-label="`${place} of family ${family.name}`" class="border-l-2 border-woad/50">
    <header class="flex items-center justify-between px-3 pt-2 pb-1">
      <span class="caption truncate"
        ><span class="text-ink">{{ family.name }}</span> · family {{ place }} · {{ counted(family.shots.length, 'shot') }}</span
      >
      <StepAdder :label="`add a step to the ${place} of ${family.name}`" @add="add" @look="addLook" />
    </header>
    <StepList :recipe="recipe" :header="header" />
  </section>
</template>
