<script setup lang="ts">
import type { Region } from '@/api/readings'
import { toRef } from 'vue'
import { regionStyle, useRegionDrag, type Place } from '../bench/useRegionDrag'

/** A part of a picture, dragged, that is looked at alone; a click takes it away. */
const props = defineProps<{ place: Place }>()
const part = defineModel<Region | null>({ required: true })
const drag = useRegionDrag(toRef(props, 'place'), (region) => (part.value = region))
const style = regionStyle(part, toRef(props, 'place'))

function press(event: PointerEvent) {
  if (event.button !== 0) return
  part.value = null
  drag.press(event)
}
</script>

<template>
  <div class="absolute inset-0 cursor-crosshair" @pointerdown="press" @pointermove="drag.move" @pointerup="drag.release">
    <i v-if="style" class="pointer-events-none absolute border border-dashed border-ink outline outline-black/50" :style="style" />
  </div>
</template>
