<script setup lang="ts">
import { useNotices } from './useNotices'

const notices = useNotices()
</script>

<template>
  <div class="pointer-events-none fixed right-3 bottom-3 z-50 flex w-96 flex-col gap-2" role="status" aria-live="polite">
    <div
      v-for="notice in notices.notices"
      :key="notice.id"
      class="pointer-events-auto flex items-start gap-3 rounded-sm border bg-raise px-3 py-2 text-sm shadow-lg shadow-black/50"
      :class="notice.kind === 'trouble' ? 'border-madder' : 'border-line'"
    >
      <p class="flex-1 break-words select-text">{{ notice.words }}</p>
      <button class="text-dim hover:text-ink" aria-label="dismiss" @click="notices.dismiss(notice.id)">×</button>
    </div>
  </div>
</template>
