<script setup lang="ts">
import { computed } from 'vue'
import { useTogether } from './useTogether'

/** Initials of colleagues who are at a shot. */
const props = defineProps<{ shot: number }>()
const together = useTogether()
const there = computed(() => together.at(props.shot))
</script>

<template>
  <span v-if="there.length" class="flex gap-0.5" :aria-label="`${there.map((one) => one.name).join(', ')} at this shot`" data-test="who-is-at">
    <i v-for="one in there.slice(0, 3)" :key="one.window" class="border border-ground bg-dim px-1 text-2xs font-medium text-ground not-italic" :title="`${one.name}, ${one.room}`">{{ one.initials }}</i>
    <i v-if="there.length > 3" class="text-2xs text-dim not-italic">+{{ there.length - 3 }}</i>
  </span>
</template>
