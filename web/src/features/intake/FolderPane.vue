<script setup lang="ts">
import type { Intake, MediaEntry, MediaRoot } from '@/api/media'
import { computed } from 'vue'
import ProgressBar from '../shell/ProgressBar.vue'

const props = defineProps<{ roots: MediaRoot[]; root: MediaRoot | null; path: string; entries: MediaEntry[]; latest: Intake | null }>()
const emit = defineEmits<{ browse: [root: MediaRoot | null, path: string]; take: [] }>()

const crumbs = computed(() => {
  const parts = props.path.split('/').filter(Boolean)
  return parts.map((name, index) => ({ name, path: parts.slice(0, index + 1).join('/') }))
})
const size = (bytes: number) => (bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(bytes / 1e3)} kB`)
const busy = computed(() => props.latest?.status === 'waiting' || props.latest?.status === 'running')
const word = computed(() => {
  const intake = props.latest
  if (!intake) return ''
  if (intake.status === 'waiting') return 'waiting for a worker…'
  if (intake.status === 'failed') return intake.message ?? 'failed'
  const taken = `${intake.done - intake.refused} taken in${intake.refused ? `, ${intake.refused} refused` : ''}`
  return intake.message ?? (intake.status === 'running' ? `${intake.done} of ${intake.found} looked at · ${taken}` : taken)
})
</script>

<template>
  <section class="flex min-h-0 flex-col border-r border-line" aria-label="folders">
    <header class="border-b border-line px-3 py-2.5">
      <h2 class="text-base font-semibold">Folders</h2>
      <nav class="mt-1 flex flex-wrap gap-x-1 text-xs text-dim" aria-label="open folder">
        <button class="hover:text-ink" @click="emit('browse', null, '')">all</button>
        <template v-if="root">
          <span>/</span><button class="hover:text-ink" :class="path ? '' : 'text-ink'" @click="emit('browse', root, '')">{{ root.label }}</button>
          <template v-for="crumb in crumbs" :key="crumb.path"
            ><span>/</span><button class="hover:text-ink" :class="crumb.path === path ? 'text-ink' : ''" @click="emit('browse', root, crumb.path)">{{ crumb.name }}</button></template
          >
        </template>
      </nav>
    </header>
    <ul class="min-h-0 flex-1 overflow-y-auto py-1">
      <template v-if="!root">
        <li v-for="one in roots" :key="one.id">
          <button class="flex w-full gap-2 px-3 py-1 text-left hover:bg-raise" @click="emit('browse', one, '')"><span class="text-weld">▸</span>{{ one.label }}</button>
        </li>
        <li v-if="roots.length === 0" class="px-3 py-2 text-dim">No media folder is configured. Start with <code class="text-ink">bin/start --media DIR</code>.</li>
      </template>
      <li v-for="entry in root ? entries : []" :key="entry.path">
        <button v-if="entry.folder" class="flex w-full gap-2 px-3 py-1 text-left hover:bg-raise" @click="emit('browse', root, entry.path)"><span class="text-weld">▸</span>{{ entry.name }}</button>
        <span v-else class="flex gap-2 px-3 py-1 text-dim"
          ><span class="w-[7px]" /><span class="min-w-0 flex-1 truncate">{{ entry.name }}</span
          ><span class="text-faint">{{ size(entry.size ?? 0) }}</span></span
        >
      </li>
      <li v-if="root && entries.length === 0" class="px-3 py-2 text-dim">This folder is empty.</li>
    </ul>
    <footer class="border-t border-line p-3">
      <button class="control-main w-full" :disabled="!root || busy" @click="emit('take')">Take in all beneath {{ path.split('/').at(-1) || root?.label || '…' }}</button>
      <div v-if="latest" class="mt-2.5 space-y-1.5" data-test="intake">
        <ProgressBar v-if="busy" :done="latest.done" :of="latest.found" label="taking in" />
        <p class="text-xs" :class="latest.status === 'failed' ? 'text-madder' : 'text-dim'">{{ word }}</p>
      </div>
    </footer>
  </section>
</template>
