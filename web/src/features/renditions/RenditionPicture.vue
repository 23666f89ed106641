<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { computed } from 'vue'
import PictureStage from '../bench/PictureStage.vue'
import { usePicture, type Measuring, type PictureWish } from '../bench/usePicture'
import type { Looking } from '../bench/useZoom'
import SplitLayer from '../compare/SplitLayer.vue'
import { useCut } from '../cut/useCut'
import { handMoving } from '../grade/useStepEditor'
import { useScreen } from '../screen/useScreen'
import { useNotices } from '../shell/useNotices'

/** A shot's picture for a target, as this screen can show it. */
const props = defineProps<{
  shot: Shot
  target: string
  bright: 'rolled' | number
  label: string
  measuring?: Measuring
  looking?: Looking
  moves?: boolean
  /** A reference over it, right of a line. */ over?: ImageBitmap | null
  words?: [string, string]
}>()
const split = defineModel<number>('split', { default: 0.5 })
const cut = useCut()
const screen = useScreen()
const notices = useNotices()

const wish = computed<PictureWish | null>(() =>
  cut.cut
    ? {
        cut: cut.cut.id,
        frame: cut.frame,
        source: false,
        on: { ...screen.wish, target: props.target, bright: props.bright },
        moving: props.moves === true && handMoving.value,
        trial: cut.trialOf(props.shot),
        measuring: props.measuring,
        instruments: props.measuring !== undefined,
      }
    : null,
)
const picture = usePicture(wish, notices.trouble)
defineExpose({ shown: picture.shown })
</script>

<template>
  <PictureStage
    v-if="cut.project"
    shots-only
    :bitmap="picture.shown.value?.bitmap ?? null"
    :raster="cut.project"
    :label="label"
    :looking="looking"
    :source="false"
    :loading="picture.loading.value"
    :failed="picture.failed.value"
    :reduced="!picture.settled.value && picture.reduced.value"
    :data-settled="picture.settled.value"
    :data-size="picture.shown.value?.header.size"
  >
    <template #over="{ place }"><SplitLayer v-if="over !== undefined" v-model:split="split" :bitmap="over" :place="place" :whole="false" :first="words?.[0]" :words="words?.[1] ?? ''" /></template>
    <template #label><slot /></template>
  </PictureStage>
</template>
