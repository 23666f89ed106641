<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { computed, ref } from 'vue'
import { sourceClock } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import { handMoving } from '../grade/useStepEditor'

/** The frames of a shot under its picture, to go through. */
const props = defineProps<{ shot: Shot; frame: number; label: string }>()
const emit = defineEmits<{ look: [frame: number] }>()
const cut = useCut()
const bar = ref<HTMLElement>()
const at = computed(() => props.frame - props.shot.record_in)

function scrub(event: PointerEvent) {
  const bounds = bar.value?.getBoundingClientRect()
  if (!bounds || event.buttons !== 1) return
  handMoving.value = true
  emit('look', props.shot.record_in + ((event.clientX - bounds.left) / bounds.width) * props.shot.length - 0.5)
}
function press(event: PointerEvent) {
  bar.value?.setPointerCapture(event.pointerId)
  scrub(event)
}
</script>

<template>
  <div class="absolute inset-x-3 bottom-1 flex items-center gap-2 text-2xs text-dim">
    <div
      ref="bar"
      class="relative h-3 flex-1 cursor-pointer touch-none bg-ground/70"
      role="slider"
      tabindex="0"
      :aria-label="`frame of ${label}`"
      aria-valuemin="1"
      :aria-valuemax="shot.length"
      :aria-valuenow="at + 1"
      @pointerdown.stop="press"
      @pointermove="scrub"
      @pointerup="handMoving = false"
      @keydown.left.prevent.stop="emit('look', frame - 1)"
      @keydown.right.prevent.stop="emit('look', frame + 1)"
    >
      <i class="absolute inset-x-0 top-1/2 h-px bg-line" /><i class="absolute inset-y-0 w-px bg-weld" :style="{ left: `${((at + 0.5) / shot.length) * 100}%` }" />
    </div>
    <span class="w-32 text-right whitespace-nowrap">{{ sourceClock(shot, frame, cut.rate) }}</span>
  </div>
</template>
