<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { useCut } from '../cut/useCut'
import ScreenMenu from '../screen/ScreenMenu.vue'
import SurfaceMenu from '../surface/SurfaceMenu.vue'
import { useHere } from '../people/useHere'
import PersonMenu from '../people/PersonMenu.vue'
import HistoryMenu from './HistoryMenu.vue'
import NewsLine from './NewsLine.vue'
import { useCircuit } from '../grade/useCircuit'
import { useRecipes } from '../grade/useRecipes'
import { useKeys } from './useKeys'

const route = useRoute()
const cut = useCut()
const recipes = useRecipes()
const circuit = useCircuit()
const here = useHere()

useKeys('everywhere', [
  { key: 'mod+z', words: 'undo', press: () => void recipes.undo() },
  { key: 'mod+shift+z', words: 'redo', press: () => void recipes.redo() },
])

const inCut = computed(() => Boolean(route.params.cut) && cut.cut)
const project = computed(() => (route.params.project ? cut.project : null))
const saved = computed(() => {
  if (recipes.unsaved) return recipes.offline ? 'not saved yet, trying again' : 'saving…'
  return recipes.savedAt ? `saved ${recipes.savedAt.toLocaleTimeString('en-GB')}` : ''
})
</script>

<template>
  <header class="flex items-center gap-4 border-b border-line px-3 text-xs whitespace-nowrap text-dim">
    <RouterLink :to="{ name: 'start' }" class="flex items-center gap-2 text-ink" aria-label="all projects">
      <img src="/mark.svg" alt="" class="size-4" />
      <b class="font-semibold">{{ project?.name ?? 'Mordant' }}</b>
    </RouterLink>
    <span v-if="inCut">{{ cut.cut?.name }}</span>
    <NewsLine />
    <button
      v-if="circuit.noise && project"
      class="border border-weld px-1.5 text-weld"
      title="Noise steps are left out of every picture here, so that work goes on quickly; deliveries have them. Click, or Shift N on the Bench: back."
      data-test="noise-out"
      @click="circuit.flip('noise')"
    >
      noise reduction bypassed
    </button>
    <template v-if="project">
      <span v-if="!here.may('grade')" data-test="looks">you look, and may leave notes</span>
      <span v-else-if="inCut" data-test="saved" :class="{ 'text-madder': recipes.offline }">{{ saved }}</span>
      <SurfaceMenu v-if="route.name === 'bench'" />
      <ScreenMenu v-if="route.name === 'bench' || route.name === 'pairing'" />
      <HistoryMenu :project="project" />
      <span class="flex gap-1">
        <button class="px-1.5 text-sm text-ink disabled:text-faint" :disabled="!project.undo" :title="project.undo ? `undo: ${project.undo}` : 'nothing to undo'" aria-label="undo" @click="recipes.undo()">↶</button>
        <button class="px-1.5 text-sm text-ink disabled:text-faint" :disabled="!project.redo" :title="project.redo ? `redo: ${project.redo}` : 'nothing to redo'" aria-label="redo" @click="recipes.redo()">↷</button>
      </span>
    </template>
    <PersonMenu />
    <span title="press ? for the keys of this room">? keys</span>
  </header>
</template>
