<script setup lang="ts">
import type { StepDocument, StepSpec } from '@/api/types'
import { computed } from 'vue'
import { summary } from './edit'

const props = defineProps<{ step: StepDocument; spec: StepSpec; open: boolean }>()
defineEmits<{ toggle: []; switch: []; strength: [value: number]; reset: []; remove: [] }>()

const line = computed(() => summary(props.step, props.spec) || 'neutral')
</script>

<template>
  <section class="border-b border-line" :class="{ 'bg-raise': open }" :aria-label="step.name">
    <div class="group flex items-center gap-2.5 px-3 py-2">
      <button
        class="relative size-3 shrink-0 border"
        :class="step.enabled ? 'border-dim' : 'border-faint'"
        role="switch"
        :aria-checked="step.enabled"
        :aria-label="`${step.name} on`"
        @click="$emit('switch')"
      >
        <i v-if="step.enabled" class="absolute inset-0.5 bg-ink" />
      </button>
      <button class="min-w-0 flex-1 text-left" :aria-expanded="open" @click="$emit('toggle')">
        <span class="block text-sm" :class="step.enabled ? 'text-ink' : 'text-faint'">{{ step.name }}</span>
        <span class="block truncate text-2xs text-dim">{{ line }}</span>
      </button>
      <span class="flex gap-2 text-2xs text-dim">
        <template v-if="open">
          <button class="hover:text-ink" @click="$emit('reset')">reset</button>
          <button class="hover:text-madder" @click="$emit('remove')">remove</button>
        </template>
        <span v-else>{{ Math.round(step.strength * 100) }} %</span>
      </span>
    </div>
    <slot v-if="open" />
  </section>
</template>
