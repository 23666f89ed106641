<script setup lang="ts">
import type { Shot } from '@/api/cut'
import type { Region } from '@/api/readings'
import { computed } from 'vue'
import PictureStage from '../bench/PictureStage.vue'
import { useCut } from '../cut/useCut'
import { usePicture, type Measuring, type PictureWish } from '../bench/usePicture'
import type { RecipeDocument } from '@/api/recipe'
import { handMoving } from '../grade/useStepEditor'
import { useScreen } from '../screen/useScreen'
import { useNotices } from '../shell/useNotices'
import PartLayer from './PartLayer.vue'

/** One side of a pair. */
const props = defineProps<{ shot: Shot; frame: number; label: string; trial?: RecipeDocument | null; source?: boolean; measuring?: Measuring; graded?: boolean }>()
const part = defineModel<Region | null>('part', { default: null })
const cut = useCut()
const screen = useScreen()
const notices = useNotices()

const wish = computed<PictureWish | null>(() =>
  cut.cut ? { cut: cut.cut.id, frame: props.frame, source: props.source === true, on: screen.wish, moving: handMoving.value, trial: cut.trialOf(props.shot, props.trial), measuring: props.measuring } : null,
)
const picture = usePicture(wish, notices.trouble)
defineExpose({ shown: picture.shown })
</script>

<template>
  <PictureStage
    v-if="cut.project"
    shots-only
    :class="graded ? 'outline outline-weld -outline-offset-1' : ''"
    :bitmap="picture.shown.value?.bitmap ?? null"
    :raster="cut.project"
    :label="`picture of ${label}`"
    :source="false"
    :loading="picture.loading.value"
    :failed="picture.failed.value"
    :data-settled="picture.settled.value"
  >
    <template #over="{ place }"><PartLayer v-model="part" :place="place" /></template>
    <template #bar><slot name="bar" /></template>
    <template #label
      ><b class="font-medium text-ink">{{ shot.name }}</b> <slot
    /></template>
  </PictureStage>
</template>
