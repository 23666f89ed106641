<script setup lang="ts">
import type { Clip } from '@/api/media'
import { computed } from 'vue'

/** Whether a clip has a working copy for playing, and how fast it decodes without one. */
const props = defineProps<{ clip: Clip }>()
const WORDS = { none: 'plays as it is', waiting: 'copy waits', making: 'copying', ready: 'copy ready', failed: 'copy failed' }
const word = computed(() => {
  const { status, done } = props.clip.copy
  return status === 'making' ? `copying ${Math.round((done / props.clip.file_frames) * 100)} %` : WORDS[status]
})
const about = computed(() => (props.clip.copy.speed === null ? '' : `its original decodes at ${props.clip.copy.speed} times its rate; a copy is only for playing`))
</script>

<template>
  <span class="block truncate text-2xs" :class="clip.copy.status === 'failed' ? 'text-madder' : clip.copy.status === 'ready' ? 'text-ink' : 'text-dim'" :title="about" data-test="copy">{{ word }}</span>
  <i v-if="clip.copy.status === 'making'" class="mt-1 block h-0.5 bg-line"><i class="block h-0.5 bg-dim" :style="{ width: `${(clip.copy.done / clip.file_frames) * 100}%` }" /></i>
</template>
