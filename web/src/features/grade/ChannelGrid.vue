<script setup lang="ts">
import type { ParameterSpec } from '@/api/declared'
import NumberRows from './NumberRows.vue'
import type { StepEditor } from './useStepEditor'

/** Rows of numbers for all, red, green and blue. */
defineProps<{ parameters: ParameterSpec[]; editor: StepEditor }>()

const TINTS = ['text-dim', 'text-madder', 'text-leaf', 'text-woad']
const NAMES = ['all', 'red', 'green', 'blue']
</script>

<template>
  <div class="grid grid-cols-[44px_repeat(4,minmax(0,1fr))] items-center gap-x-1.5 gap-y-1">
    <span />
    <span v-for="(channel, index) in NAMES" :key="channel" class="text-2xs" :class="TINTS[index]">{{ channel }}</span>
    <NumberRows :parameters="parameters" :editor="editor" :names="NAMES" />
  </div>
</template>
