<script setup lang="ts">
import { computed } from 'vue'

/** A name that is cut in its middle where it is too long, as names of clips differ at their ends. */
const props = defineProps<{ text: string }>()
const KEPT = 14 // characters at the end
const parts = computed(() => (props.text.length > 2 * KEPT ? [props.text.slice(0, -KEPT), props.text.slice(-KEPT)] : [props.text, '']))
</script>

<template>
  <span class="flex min-w-0 whitespace-nowrap" :title="text"
    ><span class="min-w-0 truncate">{{ parts[0] }}</span
    ><span class="shrink-0">{{ parts[1] }}</span></span
  >
</template>
