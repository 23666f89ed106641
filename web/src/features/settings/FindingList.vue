<script setup lang="ts">
import type { Finding } from '@/api/project'
import { computed, ref } from 'vue'

const props = defineProps<{ findings: Finding[] }>()
const SHOWN = 3
const open = ref(false)
const faults = computed(() => props.findings.filter((one) => one.level === 'fault').length)
const shown = computed(() => (open.value ? props.findings : props.findings.slice(0, SHOWN)))
</script>

<template>
  <section class="max-h-[40%] shrink-0 overflow-y-auto border-b border-line bg-pane px-4 py-2.5" aria-label="hand-overs">
    <p v-if="findings.length === 0" class="text-sm text-dim">From file to screen everything agrees.</p>
    <template v-else>
      <ul class="space-y-1">
        <li v-for="one in shown" :key="one.about + one.words" class="grid grid-cols-[170px_minmax(0,1fr)] gap-3 text-sm select-text">
          <span class="truncate" :class="one.level === 'fault' ? 'text-madder' : 'text-weld'" :title="one.about">{{ one.about }}</span><span class="text-dim">{{ one.words }}</span>
        </li>
      </ul>
      <button v-if="findings.length > SHOWN" class="mt-1 text-xs text-dim hover:text-ink" :aria-expanded="open" @click="open = !open">{{ open ? 'fewer' : `all ${findings.length}, ${faults} of them wrong in the picture` }}</button>
    </template>
  </section>
</template>
