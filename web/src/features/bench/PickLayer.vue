<script setup lang="ts">
import type { Region } from '@/api/readings'
import { ref, toRef } from 'vue'
import { useKeys } from '../shell/useKeys'
import { usePick } from './usePick'
import { regionStyle, useRegionDrag, type Place } from './useRegionDrag'

/** Takes the patch somebody is asked for: dragged, or a small one about a click. */
const props = defineProps<{ place: Place }>()
const pick = usePick()

const POINT = 0.02 // share of the width that a click takes
const patch = ref<Region | null>(null)
const drag = useRegionDrag(toRef(props, 'place'), (region) => (patch.value = region))
const style = regionStyle(patch, toRef(props, 'place'))

function press(event: PointerEvent) {
  if (event.button === 0) drag.press(event)
}
function release(event: PointerEvent) {
  if (!drag.release()) return
  const region = patch.value ?? about(event)
  patch.value = null
  pick.take(region, event)
}
function about(event: PointerEvent): Region {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const { x, y, width, height } = props.place
  const tall = (POINT * width) / height
  return [(event.clientX - bounds.left - x) / width - POINT / 2, (event.clientY - bounds.top - y) / height - tall / 2, POINT, tall]
}

useKeys('the picture', [{ key: 'escape', words: 'stop picking', press: pick.cancel }])
</script>

<template>
  <div class="absolute inset-0 cursor-crosshair" role="application" :aria-label="pick.asked?.words" @pointerdown.stop="press" @pointermove="drag.move" @pointerup="release" @wheel.stop>
    <i v-if="style" class="absolute border border-weld" :style="style" />
    <span class="pointer-events-none absolute bottom-2 left-2 bg-ground/80 px-2 py-1 text-xs text-weld">{{ pick.asked?.words }}</span>
  </div>
</template>
