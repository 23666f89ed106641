<script setup lang="ts">
import type { Output } from '@/api/delivery'
import { computed } from 'vue'
import ProgressBar from '../shell/ProgressBar.vue'
import { leftOf, speedOf } from './speed'

const props = defineProps<{ output: Output; paused: boolean }>()
defineEmits<{ cancel: []; retry: [] }>()

const WORDS = { waiting: 'waiting', running: 'writing', done: 'done', cancelled: 'cancelled', failed: 'failed' }
const going = computed(() => props.output.status === 'waiting' || props.output.status === 'running')
const tone = computed(() => ({ done: 'text-ink', failed: 'text-madder', cancelled: 'text-faint' })[props.output.status as 'done'] ?? 'text-dim')
const state = computed(() => {
  if (props.output.cancelling && going.value) return 'stopping'
  if (props.paused && going.value) return 'paused'
  return props.output.status === 'running' && props.output.stage === 'ending' ? 'encoding, checking' : WORDS[props.output.status]
})
const pace = computed(() => {
  const speed = speedOf(props.output)
  return speed && props.output.stage === 'frames' ? `${speed.toFixed(1)} f/s · ${leftOf(props.output)}` : null
})
</script>

<template>
  <li class="px-4 py-2" :data-output="output.id" :data-status="output.status">
    <div class="flex items-baseline gap-3">
      <span class="min-w-0 flex-1 truncate text-sm" :title="output.path">{{ output.path }}</span>
      <span v-if="pace" class="text-2xs text-dim">{{ pace }}</span>
      <span class="text-xs" :class="tone">{{ state }}</span>
      <span class="w-20 text-right text-xs text-dim">{{ output.done }} of {{ output.frames }}</span>
      <span class="flex w-28 justify-end gap-3 text-right text-xs">
        <button v-if="going" class="text-dim hover:text-madder" :disabled="output.cancelling" @click="$emit('cancel')">cancel</button>
        <template v-else-if="output.status === 'done'">
          <a class="text-dim hover:text-ink" :href="`/api/outputs/${output.id}/report`" target="_blank" :title="output.passed ? 'nothing is wrong with it' : 'something is wrong with it'" :class="output.passed ? '' : 'text-madder'">{{
            output.passed ? 'checked' : 'faults'
          }}</a>
          <a class="text-weld hover:underline" :href="`/api/outputs/${output.id}/file`" download>download</a>
        </template>
        <button v-else class="text-weld hover:underline" title="what is there already stays" @click="$emit('retry')">try again</button>
      </span>
    </div>
    <p class="mt-0.5 text-2xs text-faint">
      {{ output.label }} · {{ output.statement }}<span v-if="output.notices" class="text-weld"> · {{ output.notices }} to be looked at</span>
    </p>
    <p v-if="output.message" class="mt-1 text-xs text-madder select-text">{{ output.message }}</p>
    <ProgressBar v-if="output.status === 'running'" class="mt-1.5" :done="output.done" :of="output.frames" :label="output.path" />
  </li>
</template>
