<script setup lang="ts">
import { ref, watch } from 'vue'

/** A picture whose address changes faster than it can be loaded: the newest is asked for when the one before is there. */
const props = defineProps<{ src: string; alt: string }>()
const shown = ref('')
const missing = ref(false)
let loading = ''

function load() {
  if (loading || props.src === shown.value) return
  loading = props.src
  const image = new Image()
  const over = (there: boolean) => () => {
    missing.value = !there
    shown.value = loading
    loading = ''
    load()
  }
  image.onload = over(true)
  image.onerror = over(false)
  image.src = loading
}
watch(() => props.src, load, { immediate: true })
</script>

<template>
  <img v-if="shown && !missing" :src="shown" :alt="alt" class="absolute inset-0 h-full w-full object-contain" draggable="false" />
  <p v-else-if="missing" class="flex h-full items-center justify-center text-dim">no frame there</p>
</template>
