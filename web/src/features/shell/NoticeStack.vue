<script setup lang="ts">
import { useNotices } from './useNotices'

const notices = useNotices()
</script>

<template>
  <!-- a row of its own under the rooms, so that it lies over no control -->
  <div role="status" aria-live="polite">
    <div
      v-for="notice in notices.notices"
      :key="notice.id"
      class="flex items-start gap-3 border-t bg-raise px-4 py-1 text-xs"
      :class="notice.kind === 'trouble' ? 'border-madder' : 'border-line'"
    >
      <p class="flex-1 break-words select-text">{{ notice.words }}</p>
      <button class="text-dim hover:text-ink" aria-label="dismiss" @click="notices.dismiss(notice.id)">×</button>
    </div>
  </div>
</template>
