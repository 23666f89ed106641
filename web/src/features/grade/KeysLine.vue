<script setup lang="ts">
import type { Recipe, StepDocument } from '@/api/recipe'
import { computed } from 'vue'
import { useKeys } from '../shell/useKeys'
import { withKey, withoutKey } from './edit'
import { useMoves } from './useMoves'
import { useRecipes } from './useRecipes'

/** Keys of the open step: frames at which its parameters are set, and between which they move. */
const props = defineProps<{ recipe: Recipe; step: StepDocument }>()
const moves = useMoves()
const recipes = useRecipes()
const here = computed(() => moves.keyAt(props.step) !== undefined)
const count = computed(() => props.step.keys?.length ?? 0)

function flip() {
  const { document } = props.recipe
  const made = here.value ? withoutKey(document, props.step.id, moves.frameOf(props.step)) : withKey(document, props.step.id, moves.frameOf(props.step), moves.parameters(props.step))
  recipes.change(props.recipe, made, `${props.step.name}: ${here.value ? 'key taken off' : 'key'} at frame ${moves.frameOf(props.step) + 1}`)
}
useKeys([
  { key: 'shift+k', words: 'key of the open step at this frame, on and off', press: flip },
  { key: 'shift+a', words: 'to the key before', press: () => moves.go(props.step, -1) },
  { key: 'shift+d', words: 'to the key after', press: () => moves.go(props.step, 1) },
])
</script>

<template>
  <p class="flex items-center gap-2 px-3 pb-2 text-2xs text-dim" role="group" :aria-label="`keys of ${step.name}`">
    <button v-if="count" class="px-1 hover:text-ink" aria-label="key before" @click="moves.go(step, -1)">‹</button>
    <button class="hover:text-ink" :class="here ? 'text-weld' : ''" :aria-pressed="here" title="Shift K" @click="flip">{{ here ? 'keyed at this frame' : count ? 'key this frame' : 'change over time: key this frame' }}</button>
    <button v-if="count" class="px-1 hover:text-ink" aria-label="key after" @click="moves.go(step, 1)">›</button>
    <span v-if="count" class="flex-1 text-right">{{ count }} {{ count === 1 ? 'key' : 'keys' }}</span>
  </p>
</template>
