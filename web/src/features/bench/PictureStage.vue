<script setup lang="ts">
import type { Region } from '@/api/readings'
import { useElementSize } from '@vueuse/core'
import { computed, ref, toRef, watch, watchEffect } from 'vue'
import { followDrag } from '../grade/useDrag'
import PickLayer from './PickLayer.vue'
import SkinPatch from './SkinPatch.vue'
import ReferenceMenu from '../compare/ReferenceMenu.vue'
import TestMenu from './TestMenu.vue'
import { usePick } from './usePick'
import { drawReal, sightOf, type RealPixels, type Sight } from './useRealPixels'
import { makeLooking, useZoom, type Looking } from './useZoom'

const props = defineProps<{
  bitmap: ImageBitmap | null
  /** Raster of the project, in which zoom counts. */
  raster: { width: number; height: number }
  label: string
  source: boolean
  loading: boolean
  failed: string | null
  /** How it is looked at, where that is shared. */
  looking?: Looking
  /** A patch of skin to mark. */
  skin?: Region | null
  /** The visible part with pixels of its own, drawn over the picture. */
  real?: RealPixels | null
  /** Real pixels look otherwise, even where there are no more of them. */
  finer?: boolean
  /** A small picture stands in for one that is still being made. */
  standIn?: boolean
  /** It has fewer pixels for as long as a hand moves. */
  reduced?: boolean
  /** Pixels at the right that something lies over. */
  covered?: number
  /** Nothing but the picture. */
  bare?: boolean
  /** It shows shots alone, no test pictures. */
  shotsOnly?: boolean
}>()

const emit = defineEmits<{ sight: [sight: Sight | null]; seen: [seen: Region | null] }>()

const box = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(box)
const stage = computed(() => ({ width: width.value, height: height.value }))
const own = makeLooking()
const zoom = useZoom(
  stage,
  toRef(props, 'raster'),
  computed(() => props.looking ?? own),
)
const pick = usePick()
/** Whether more screen pixels are drawn than the picture has. */
const enlarged = computed(() => props.bitmap !== null && !props.standIn && props.bitmap.width > 0 && props.bitmap.width < props.raster.width && zoom.place.value.width * pixels > props.bitmap.width * 1.01)
const pixels = window.devicePixelRatio || 1
const sight = computed(() => (enlarged.value || (props.finer && !props.standIn) ? sightOf(props.raster, zoom.place.value, stage.value, pixels) : null))
watch(sight, (now, before) => JSON.stringify(now) !== JSON.stringify(before) && emit('sight', now), { immediate: true })

/** What a zoomed picture shows of itself, in shares of it. */
const seen = computed<Region | null>(() => {
  const found = zoom.fits.value ? null : sightOf(props.raster, zoom.place.value, stage.value, pixels)
  if (!found) return null
  const { raster: of, window: part } = found
  return [part.left / of.width, part.top / of.height, part.width / of.width, part.height / of.height]
})
watch(seen, (now) => emit('seen', now), { immediate: true })

watchEffect(
  () => {
    const surface = canvas.value
    const context = surface?.getContext('2d', { alpha: false })
    if (!surface || !context || width.value === 0) return
    const { x, y, width: w, height: h } = zoom.place.value
    surface.width = Math.round(width.value * pixels)
    surface.height = Math.round(height.value * pixels)
    context.fillStyle = '#111111'
    context.fillRect(0, 0, surface.width, surface.height)
    if (!props.bitmap || props.bitmap.width === 0) return
    context.imageSmoothingEnabled = zoom.scale.value < 2 || props.bitmap.width < props.raster.width
    context.imageSmoothingQuality = 'high'
    context.drawImage(props.bitmap, x * pixels, y * pixels, w * pixels, h * pixels)
    if (props.real) drawReal(context, props.real, zoom.place.value, pixels)
  },
  { flush: 'post' },
)

function wheel(event: WheelEvent) {
  const bounds = box.value?.getBoundingClientRect()
  if (bounds) zoom.wheel(event.deltaY, { x: event.clientX - bounds.left, y: event.clientY - bounds.top })
}

function press(event: PointerEvent) {
  followDrag(event, { move: zoom.pan })
}

defineExpose({ step: zoom.step })
</script>

<template>
  <div class="relative min-h-0 flex-1 bg-[#111]" :class="zoom.fits.value ? '' : 'cursor-grab'">
    <div ref="box" class="absolute overflow-hidden" :class="bare ? 'inset-0' : $slots.bar ? 'inset-x-3 top-8 bottom-6' : 'inset-x-3 top-8 bottom-3'" @wheel.prevent="wheel" @pointerdown="press" @dblclick="zoom.fit">
      <canvas ref="canvas" class="size-full" role="img" :aria-label="label" />
      <slot name="over" :place="zoom.place.value" :pans="!zoom.fits.value" />
      <SkinPatch v-if="skin" :region="skin" :place="zoom.place.value" words="skin" />
      <PickLayer v-if="pick.asked" :place="zoom.place.value" />
    </div>
    <slot name="bar" />
    <div v-if="!bare" class="absolute top-2 left-3 flex items-baseline justify-between gap-3 text-xs whitespace-nowrap text-dim" :style="{ right: `${(covered ?? 0) + 12}px` }">
      <span class="min-w-0 truncate"><slot name="label" /></span>
      <span class="flex items-center gap-3">
        <span v-if="source" class="border border-weld px-1.5 text-weld">source</span>
        <template v-if="!shotsOnly"><ReferenceMenu /><TestMenu /></template>
        <button class="hover:text-ink" title="F: fitted, 1:1, 2:1" @click="zoom.step">{{ zoom.fits.value ? 'fit ' : '' }}{{ Math.round(zoom.scale.value * 100) }} %</button>
        <span v-if="reduced" class="text-dim" data-test="reduced">reduced for now</span>
        <span v-else-if="enlarged && !real" class="text-weld" :title="`the picture is made at ${bitmap?.width}×${bitmap?.height} and enlarged to what is shown; what is delivered has the whole raster`" data-test="enlarged">enlarged</span>
      </span>
    </div>
    <i v-if="standIn && bitmap && !failed" class="pointer-events-none absolute inset-x-3 bottom-0 h-0.5 animate-pulse bg-dim" role="progressbar" aria-label="the picture is being made" />
    <p v-if="failed" class="absolute inset-0 flex items-center justify-center px-16 text-center text-madder">{{ failed }}</p>
    <p v-else-if="!bitmap" class="absolute inset-0 flex items-center justify-center text-dim">{{ loading ? 'making the picture…' : '' }}</p>
  </div>
</template>
