<script setup lang="ts">
import type { Region } from '@/api/types'
import { computed, ref } from 'vue'
import { handMoving } from '../grade/useStepEditor'
import { useScopes } from '../scopes/useScopes'

/**
 * A part of the picture that all instruments are restricted to while it is dragged; with Shift it is kept
 * until the next click. Where the picture can be panned, dragging without Shift is left to that.
 */
const props = defineProps<{ place: { x: number; y: number; width: number; height: number }; pans: boolean }>()
const scopes = useScopes()
const SLACK = 4 // px
const from = ref<{ x: number; y: number } | null>(null)

const style = computed(() => {
  const region = scopes.region
  if (!region) return null
  const [left, top, width, height] = region
  const { x, y, width: w, height: h } = props.place
  return { left: `${x + left * w}px`, top: `${y + top * h}px`, width: `${width * w}px`, height: `${height * h}px` }
})
const at = (event: PointerEvent) => {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return { x: event.clientX - bounds.left, y: event.clientY - bounds.top }
}
const held = (value: number) => Math.min(1, Math.max(0, value))

function press(event: PointerEvent) {
  if (event.button !== 0) return
  scopes.region = null
  if (props.pans && !event.shiftKey) return
  event.stopPropagation()
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  from.value = at(event)
}
function move(event: PointerEvent) {
  if (!from.value) return
  const to = at(event)
  if (Math.hypot(to.x - from.value.x, to.y - from.value.y) < SLACK) return
  handMoving.value = true
  const { x, y, width, height } = props.place
  const [left, right] = [from.value.x, to.x].map((one) => held((one - x) / width)).sort((a, b) => a - b) as [number, number]
  const [top, bottom] = [from.value.y, to.y].map((one) => held((one - y) / height)).sort((a, b) => a - b) as [number, number]
  scopes.region = right > left && bottom > top ? ([left, top, right - left, bottom - top] as Region) : null
}
function release(event: PointerEvent) {
  if (!from.value) return
  from.value = null
  handMoving.value = false
  if (!event.shiftKey) scopes.region = null
}
</script>

<template>
  <div class="absolute inset-0" @pointerdown="press" @pointermove="move" @pointerup="release">
    <i v-if="style" class="pointer-events-none absolute border border-dashed border-ink outline outline-black/50" :style="style" data-test="region" />
  </div>
</template>
