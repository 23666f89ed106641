<script setup lang="ts">
import { computed } from 'vue'
import { useNotices } from './useNotices'

/** What went wrong, until it is dismissed. */
const notices = useNotices()
const trouble = computed(() => notices.notices.filter((notice) => notice.kind === 'trouble'))
</script>

<template>
  <!-- a row of its own under the rooms, so that it lies over no control -->
  <div>
    <div v-for="notice in trouble" :key="notice.id" role="alert" class="flex items-start gap-3 border-t border-madder bg-raise px-4 py-1 text-xs">
      <p class="flex-1 break-words select-text">{{ notice.words }}</p>
      <button class="text-dim hover:text-ink" aria-label="dismiss" @click="notices.dismiss(notice.id)">×</button>
    </div>
  </div>
</template>
