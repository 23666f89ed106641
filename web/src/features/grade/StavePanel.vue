<script setup lang="ts">
import type { StepSpec } from '@/api/declared'
import type { WorkingSpace } from '@/api/project'
import type { ToneTrace } from '@/api/readings'
import { computed } from 'vue'
import PivotHandle from './PivotHandle.vue'
import StaveHandle from './StaveHandle.vue'
import { STAVES, curvePath, histogramPath, toneX, tracePath } from './staves'
import type { StepEditor } from './useStepEditor'

const props = defineProps<{
  editor: StepEditor
  spec: StepSpec
  /** Measured in the picture after the recipe. */
  trace: ToneTrace | null
  /** Tone out over tone in, as the core computes it. */
  curve: number[] | null
  space: WorkingSpace
}>()

const { light, warmth, tint } = STAVES
const middle = computed(() => toneX((props.space.middle - props.space.black) / (props.space.white - props.space.black)))
const paths = computed(() => ({
  light: props.trace && histogramPath(props.trace.light),
  warmth: props.trace && tracePath(props.trace.warmth, warmth.centre, warmth.reach),
  tint: props.trace && tracePath(props.trace.tint, tint.centre, tint.reach),
  curve: props.curve && curvePath(props.curve),
}))
</script>

<template>
  <svg class="block w-full touch-none" :viewBox="`0 0 ${STAVES.width} ${STAVES.height}`" role="group" aria-label="staves: light, warmth and tint over the tone axis">
    <g class="stroke-line">
      <path :d="`M${STAVES.black} ${light.bottom}H${STAVES.white}M${STAVES.black} ${warmth.centre}H${STAVES.white}M${STAVES.black} ${tint.centre}H${STAVES.white}`" />
      <path :d="`M${middle} ${light.top}V${tint.centre + tint.reach}`" stroke-dasharray="1 3" />
      <path :d="`M${STAVES.overall} ${light.top}V${light.bottom}M${STAVES.overall} ${warmth.centre - warmth.reach}V${warmth.centre + warmth.reach}M${STAVES.overall} ${tint.centre - tint.reach}V${tint.centre + tint.reach}`" />
      <path :d="`M${STAVES.black} ${light.bottom}L${STAVES.white} ${light.top}`" class="opacity-60" />
    </g>
    <path v-if="paths.light" :d="paths.light" class="fill-[#434343]" />
    <clipPath id="light-stave"><rect x="0" :y="light.top - 6" :width="STAVES.width" :height="light.bottom - light.top + 10" /></clipPath>
    <path v-if="paths.curve" :d="paths.curve" clip-path="url(#light-stave)" class="fill-none stroke-ink" stroke-width="1.3" />
    <path v-if="paths.warmth" :d="paths.warmth" class="fill-none stroke-dim" stroke-width="1.6" data-test="warmth-trace" />
    <path v-if="paths.tint" :d="paths.tint" class="fill-none stroke-dim" stroke-width="1.6" />

    <g class="fill-dim text-[9.5px]">
      <text :x="STAVES.black" y="11" class="fill-ink">light</text>
      <text :x="STAVES.black" :y="warmth.centre - warmth.reach - 4" class="fill-ink">warmth</text>
      <text :x="STAVES.black" :y="tint.centre - tint.reach - 4" class="fill-ink">tint</text>
      <text :x="STAVES.white" :y="warmth.centre - warmth.reach - 4" text-anchor="end" class="fill-madder">red</text>
      <text :x="STAVES.white" :y="warmth.centre + warmth.reach + 10" text-anchor="end" class="fill-woad">blue</text>
      <text :x="STAVES.white" :y="tint.centre - tint.reach - 4" text-anchor="end" class="fill-leaf">green</text>
      <text :x="STAVES.white" :y="tint.centre + tint.reach + 10" text-anchor="end" class="fill-[#b06a9a]">magenta</text>
      <text :x="STAVES.overall" y="11" text-anchor="middle">all</text>
      <text :x="STAVES.black" :y="STAVES.height - 2">black</text>
      <text :x="middle" :y="STAVES.height - 2" text-anchor="middle">mid grey</text>
      <text :x="STAVES.white" :y="STAVES.height - 2" text-anchor="end">white</text>
    </g>

    <PivotHandle :editor="editor" :space="space" />
    <StaveHandle v-for="handle in spec.handles" :key="`${handle.stave}-${handle.zone}`" :handle="handle" :editor="editor" />
  </svg>
</template>
