<script setup lang="ts">
import { computed } from 'vue'
import { useNotices } from './useNotices'

/** The last thing that was done or refused, in a place of its own, so that no picture moves when it comes and goes. */
const notices = useNotices()
const last = computed(() => notices.notices.filter((notice) => notice.kind === 'news').at(-1))
</script>

<template>
  <div class="flex min-w-0 flex-1 justify-center gap-2" role="status" aria-live="polite">
    <template v-if="last">
      <p class="min-w-0 truncate text-ink select-text" :title="last.words" data-test="news">{{ last.words }}</p>
      <button class="hover:text-ink" aria-label="dismiss" @click="notices.dismiss(last.id)">×</button>
    </template>
  </div>
</template>
