<script setup lang="ts">
import type { Region } from '@/api/types'
import { computed, ref } from 'vue'

/** A part of a picture, dragged, that is looked at alone; a click takes it away. */
const props = defineProps<{ place: { x: number; y: number; width: number; height: number } }>()
const part = defineModel<Region | null>({ required: true })
const SLACK = 4 // px
const from = ref<{ x: number; y: number } | null>(null)

const at = (event: PointerEvent) => {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return { x: event.clientX - bounds.left, y: event.clientY - bounds.top }
}
const held = (share: number) => Math.min(1, Math.max(0, share))
function press(event: PointerEvent) {
  if (event.button !== 0) return
  event.stopPropagation()
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  from.value = at(event)
  part.value = null
}
function move(event: PointerEvent) {
  const to = at(event)
  if (!from.value || Math.hypot(to.x - from.value.x, to.y - from.value.y) < SLACK) return
  const { x, y, width, height } = props.place
  const [left, right] = [from.value.x, to.x].map((one) => held((one - x) / width)).sort((a, b) => a - b) as [number, number]
  const [top, bottom] = [from.value.y, to.y].map((one) => held((one - y) / height)).sort((a, b) => a - b) as [number, number]
  if (right > left && bottom > top) part.value = [left, top, right - left, bottom - top]
}
const style = computed(() => {
  if (!part.value) return null
  const [left, top, width, height] = part.value
  const { x, y, width: w, height: h } = props.place
  return { left: `${x + left * w}px`, top: `${y + top * h}px`, width: `${width * w}px`, height: `${height * h}px` }
})
</script>

<template>
  <div class="absolute inset-0 cursor-crosshair" @pointerdown="press" @pointermove="move" @pointerup="from = null">
    <i v-if="style" class="pointer-events-none absolute border border-dashed border-ink outline outline-black/50" :style="style" />
  </div>
</template>
