<script setup lang="ts">
import { ref } from 'vue'
import { useEvents } from './useEvents'

/** What is wrong with the server, on every screen, until it is not any more. */
const words = ref<string | null>(null)
useEvents(ref(undefined), { trouble: (told: { words: string | null }) => (words.value = told.words) })
</script>

<template>
  <p v-if="words" role="alert" data-test="trouble" class="border-t border-madder bg-madder/15 px-4 py-1 text-xs break-words text-ink select-text">{{ words }}</p>
</template>
