<script setup lang="ts">
import type { Output } from '@/api/types'
import { computed } from 'vue'
import ProgressBar from '../shell/ProgressBar.vue'

const props = defineProps<{ output: Output }>()
defineEmits<{ cancel: [] }>()

const WORDS = { waiting: 'waiting', running: 'writing', done: 'done', cancelled: 'cancelled', failed: 'failed' }
const going = computed(() => props.output.status === 'waiting' || props.output.status === 'running')
const tone = computed(() => ({ done: 'text-ink', failed: 'text-madder', cancelled: 'text-faint' })[props.output.status as 'done'] ?? 'text-dim')
</script>

<template>
  <li class="border-t border-line/60 px-4 py-2.5" :data-output="output.id" :data-status="output.status">
    <div class="flex items-baseline gap-3">
      <span class="min-w-0 flex-1 truncate text-sm" :title="output.path">{{ output.path }}</span>
      <span class="text-xs" :class="tone">{{ output.cancelling && going ? 'stopping' : WORDS[output.status] }}</span>
      <span class="w-24 text-right text-xs text-dim">{{ output.done }} of {{ output.frames }}</span>
      <span class="w-16 text-right text-xs">
        <button v-if="going" class="text-dim hover:text-madder" :disabled="output.cancelling" @click="$emit('cancel')">cancel</button>
        <a v-else-if="output.status === 'done'" class="text-weld hover:underline" :href="`/api/outputs/${output.id}/file`" download>download</a>
      </span>
    </div>
    <p class="mt-0.5 text-2xs text-faint">{{ output.label }} · {{ output.about }}</p>
    <p v-if="output.message" class="mt-1 text-xs text-madder select-text">{{ output.message }}</p>
    <ProgressBar v-if="output.status === 'running'" class="mt-2" :done="output.done" :of="output.frames" :label="output.path" />
  </li>
</template>
