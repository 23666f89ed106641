<script setup lang="ts">
/** A few options side by side, one of them chosen. */
defineProps<{ label: string; options: { id: string; label: string; about?: string }[] }>()
const value = defineModel<string>({ required: true })
</script>

<template>
  <div role="radiogroup" :aria-label="label" class="flex gap-1">
    <button v-for="one in options" :key="one.id" type="button" role="radio" :aria-checked="one.id === value" class="control flex-1 px-1" :class="{ 'border-weld/70 bg-weld/15': one.id === value }" :title="one.about" @click="value = one.id">
      {{ one.label }}
    </button>
  </div>
</template>
