<script setup lang="ts">
import type { ContributorDocument, Recipe, StepDocument } from '@/api/recipe'
import { computed, watch } from 'vue'
import type { Place } from '../bench/useRegionDrag'
import { useCatalogue } from '../shell/useCatalogue'
import ShapeHandles from './ShapeHandles.vue'
import { useMatte } from './useMatte'

/** The shapes of the open step over the picture; the open one with its handles. */
const props = defineProps<{ place: Place; recipe: Recipe; step: StepDocument }>()
const catalogue = useCatalogue()
const matte = useMatte()
const familyOf = (part: ContributorDocument) => catalogue.catalogue?.contributors.find((kind) => kind.id === part.kind)?.family
/** A matte from elsewhere is seen while it is open. */
const shapes = computed(() => (props.step.matte?.contributors ?? []).filter((part) => part.mode !== 'out' && (familyOf(part) === 'shape' || (familyOf(part) === 'elsewhere' && matte.part === part.id))))
watch(
  () => shapes.value.some((part) => part.path && !matte.pathOf(part.path.id)),
  (missing) => missing && void matte.loadPaths(),
  { immediate: true },
)
</script>

<template>
  <svg v-if="!matte.bare && shapes.length" class="pointer-events-none absolute inset-0 size-full" role="group" aria-label="shapes">
    <ShapeHandles v-for="part in shapes" :key="part.id" :place="place" :recipe="recipe" :step="step" :part="part" />
  </svg>
</template>
