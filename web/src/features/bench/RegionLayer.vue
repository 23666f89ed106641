<script setup lang="ts">
import { computed, toRef } from 'vue'
import { handMoving } from '../grade/useStepEditor'
import { useScopes } from '../scopes/useScopes'
import { regionStyle, useRegionDrag, type Place } from './useRegionDrag'

/**
 * A part of the picture that all instruments are restricted to while it is dragged; with Shift it is kept
 * until the next click. Where the picture can be panned, dragging without Shift is left to that.
 */
const props = defineProps<{ place: Place; pans: boolean }>()
const scopes = useScopes()
const drag = useRegionDrag(toRef(props, 'place'), (region) => (scopes.region = region))
const style = regionStyle(
  computed(() => scopes.region),
  toRef(props, 'place'),
)

function press(event: PointerEvent) {
  if (event.button !== 0) return
  scopes.region = null
  if (!props.pans || event.shiftKey) drag.press(event)
}
function move(event: PointerEvent) {
  if (drag.move(event)) handMoving.value = true
}
function release(event: PointerEvent) {
  if (!drag.release()) return
  handMoving.value = false
  if (!event.shiftKey) scopes.region = null
}
</script>

<template>
  <div class="absolute inset-0" @pointerdown="press" @pointermove="move" @pointerup="release">
    <i v-if="style" class="pointer-events-none absolute border border-dashed border-ink outline outline-black/50" :style="style" data-test="region" />
  </div>
</template>
