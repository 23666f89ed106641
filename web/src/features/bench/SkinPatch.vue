<script setup lang="ts">
import type { Region } from '@/api/types'
import { computed } from 'vue'

/** The patch of skin that is measured, marked in the picture. */
const props = defineProps<{ region: Region; place: { x: number; y: number; width: number; height: number } }>()
const style = computed(() => {
  const [left, top, width, height] = props.region
  const { x, y, width: w, height: h } = props.place
  return { left: `${x + left * w}px`, top: `${y + top * h}px`, width: `${Math.max(6, width * w)}px`, height: `${Math.max(6, height * h)}px` }
})
</script>

<template>
  <i class="pointer-events-none absolute border border-ink outline outline-black/60" :style="style" title="skin" data-test="skin-patch" />
</template>
