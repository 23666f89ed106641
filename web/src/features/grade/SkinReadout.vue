<script setup lang="ts">
import type { SkinReading } from '@/api/readings'
import { computed } from 'vue'

/** The picked patch alone against the skin-tone line: a sector of the colour difference plane, the line upright. */
const props = defineProps<{ reading: SkinReading }>()
defineEmits<{ drop: [] }>()

const WIDTH = 132
const HEIGHT = 74
const REACH = 0.3 // distance from grey at the upper edge

/** Turned so that the line stands upright; yellow is to the left of it, red to the right. */
function place([cb, cr]: [number, number]) {
  const angle = Math.atan2(cr, cb) - ((props.reading.line - 90) * Math.PI) / 180
  const size = (Math.hypot(cb, cr) / REACH) * (HEIGHT - 8)
  return { x: WIDTH / 2 + Math.cos(angle) * size, y: HEIGHT - 4 - Math.sin(angle) * size }
}
const cloud = computed(() => props.reading.points.map(place))
const middle = computed(() => place(props.reading.middle))
const words = computed(() => (['grey', 'on the line', 'nothing like skin'].includes(props.reading.direction) ? props.reading.direction : `${Math.abs(props.reading.off).toFixed(1)}° ${props.reading.direction}`))
</script>

<template>
  <div class="flex items-stretch gap-3 bg-ground px-2 py-1.5" role="group" aria-label="skin">
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" class="w-[132px] shrink-0" aria-hidden="true">
      <path :d="`M${WIDTH / 2} ${HEIGHT - 4}V2`" class="stroke-weld" stroke-width="1" />
      <path :d="`M4 ${HEIGHT - 4}H${WIDTH - 4}`" class="stroke-line" />
      <circle v-for="(point, index) in cloud" :key="index" :cx="point.x" :cy="point.y" r="0.9" class="fill-dim" />
      <path :d="`M${middle.x} ${middle.y - 4}L${middle.x + 4} ${middle.y}L${middle.x} ${middle.y + 4}L${middle.x - 4} ${middle.y}Z`" class="fill-ink stroke-ground" />
      <text x="4" y="9" class="fill-dim text-[8.5px]">yellower</text>
      <text :x="WIDTH - 4" y="9" text-anchor="end" class="fill-dim text-[8.5px]">redder</text>
    </svg>
    <div class="flex min-w-0 flex-1 flex-col text-2xs text-dim">
      <span class="flex justify-between"><span class="caption">skin</span><button class="hover:text-ink" aria-label="drop the patch of skin" @click="$emit('drop')">drop</button></span>
      <b class="text-sm font-medium text-ink" data-test="skin">{{ words }}</b>
      <span>level {{ (reading.level * 100).toFixed(1) }} %</span>
      <span>from grey {{ (reading.saturation * 100).toFixed(1) }} %</span>
    </div>
  </div>
</template>
