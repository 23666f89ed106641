<script setup lang="ts">
import type { Recipe, StepDocument } from '@/api/recipe'
import { useScreen } from '../screen/useScreen'
import { useCatalogue } from '../shell/useCatalogue'
import { useLutTarget } from './useLutTarget'

/** Says of a LUT that renders before the view does, and offers what sets it right. */
defineProps<{ recipe: Recipe; step: StepDocument }>()
const screen = useScreen()
const catalogue = useCatalogue()
const luts = useLutTarget()
</script>

<template>
  <div v-if="luts.twice(step)" class="mx-3 mt-1 mb-2 border-l-2 border-madder py-0.5 pl-2 text-2xs text-dim" role="note" data-test="lut-twice">
    <p>Its table returns a finished picture ({{ catalogue.encodingLabel(luts.twice(step)) }}); {{ screen.target?.name }} renders that a second time.</p>
    <button class="control mt-1 px-2 py-0 text-xs" @click="luts.makeTarget(recipe, step)">use it as a target at {{ Math.round(step.strength * 100) }} %</button>
  </div>
</template>
