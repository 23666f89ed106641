<script setup lang="ts">
import type { Region } from '@/api/readings'
import { toRef } from 'vue'
import { regionStyle, type Place } from './useRegionDrag'

/** A patch that is measured, marked in the picture. */
const props = defineProps<{ region: Region; place: Place; words: string }>()
const style = regionStyle(toRef(props, 'region'), toRef(props, 'place'))
</script>

<template>
  <i class="pointer-events-none absolute border border-ink outline outline-black/60" :style="style" :title="words" :data-test="`${words}-patch`" />
</template>
