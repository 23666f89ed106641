<script setup lang="ts">
import type { Region } from '@/api/readings'
import { toRef } from 'vue'
import { regionStyle, type Place } from './useRegionDrag'

/** The patch of skin that is measured, marked in the picture. */
const props = defineProps<{ region: Region; place: Place }>()
const style = regionStyle(toRef(props, 'region'), toRef(props, 'place'))
</script>

<template>
  <i class="pointer-events-none absolute border border-ink outline outline-black/60" :style="style" title="skin" data-test="skin-patch" />
</template>
