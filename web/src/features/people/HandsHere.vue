<script setup lang="ts">
import type { PresentWindow } from '@/api/people'
import { computed } from 'vue'
import { useCut } from '../cut/useCut'
import { useTogether } from './useTogether'

/** Whose hand is on the recipes of the open shot just now, before one touches them. */
const cut = useCut()
const together = useTogether()
const recipes = computed(() => (cut.shot ? cut.recipesOf(cut.shot) : []))
const hands = computed(() => together.on(recipes.value.map((one) => one.id)))

function words(one: PresentWindow) {
  const recipe = recipes.value.find(({ id }) => id === one.recipe)
  const wash = cut.washes.find(({ recipe: own }) => own.id === one.recipe)
  const of = wash ? `the wash ${wash.name}` : recipe?.family ? `the family’s ${recipe.place} steps` : 'this recipe'
  const who = one.name ?? 'Another window of yours'
  return one.touching ? `${who} has a hand on ${of} just now` : `${who} has a step of ${of} open`
}
</script>

<template>
  <p v-for="one in hands" :key="one.window" class="border-b border-line px-3 py-1 text-2xs" :class="one.touching ? 'bg-weld/15 text-ink' : 'text-dim'" data-test="hand">{{ words(one) }}</p>
</template>
