<script setup lang="ts">
import { computed, ref } from 'vue'
import { useKeys } from '../shell/useKeys'
import type { Region } from '@/api/types'
import { usePick } from './usePick'

/** The place of the picture in this layer, pixels. */
const props = defineProps<{ place: { x: number; y: number; width: number; height: number } }>()
const pick = usePick()

const POINT = 0.02 // share of the width that a click takes
const SLACK = 4 // px before it is a patch
const from = ref<{ x: number; y: number } | null>(null)
const to = ref<{ x: number; y: number } | null>(null)
const box = computed(() => {
  if (!from.value || !to.value) return null
  return { left: Math.min(from.value.x, to.value.x), top: Math.min(from.value.y, to.value.y), width: Math.abs(to.value.x - from.value.x), height: Math.abs(to.value.y - from.value.y) }
})

const at = (event: PointerEvent) => {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return { x: event.clientX - bounds.left, y: event.clientY - bounds.top }
}

function press(event: PointerEvent) {
  if (event.button !== 0) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  from.value = to.value = at(event)
}
function move(event: PointerEvent) {
  if (from.value) to.value = at(event)
}
function release() {
  const patch = box.value
  from.value = to.value = null
  if (!patch) return
  const { x, y, width, height } = props.place
  const share = (left: number, top: number, w: number, h: number): Region => [(left - x) / width, (top - y) / height, w / width, h / height]
  if (patch.width > SLACK && patch.height > SLACK) return pick.take(share(patch.left, patch.top, patch.width, patch.height))
  const edge = POINT * width
  pick.take(share(patch.left - edge / 2, patch.top - edge / 2, edge, edge))
}

useKeys([{ key: 'escape', words: 'leave picking', press: pick.cancel }])
</script>

<template>
  <div class="absolute inset-0 cursor-crosshair" role="application" :aria-label="pick.asked?.words" @pointerdown.stop="press" @pointermove="move" @pointerup="release" @wheel.stop>
    <i v-if="box" class="absolute border border-weld" :style="{ left: `${box.left}px`, top: `${box.top}px`, width: `${box.width}px`, height: `${box.height}px` }" />
    <span class="pointer-events-none absolute bottom-2 left-2 bg-ground/80 px-2 py-1 text-xs text-weld">{{ pick.asked?.words }}</span>
  </div>
</template>
