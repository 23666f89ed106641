<script setup lang="ts">
defineProps<{ done: number; of: number; label: string }>()
</script>

<template>
  <div class="h-1 w-full bg-line" role="progressbar" :aria-label="label" :aria-valuenow="done" aria-valuemin="0" :aria-valuemax="of">
    <div class="h-full bg-woad transition-[width] duration-200" :style="{ width: `${of > 0 ? (done / of) * 100 : 0}%` }" />
  </div>
</template>
