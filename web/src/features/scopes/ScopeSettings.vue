<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref } from 'vue'
import OptionRow from '../shell/OptionRow.vue'
import { useNotices } from '../shell/useNotices'
import { KINDS, TAPS, useScopes, type Tap, type Unit } from './useScopes'

const scopes = useScopes()
const notices = useNotices()
const typed = ref('')
const UNITS = [
  { id: 'percent', label: '%' },
  { id: 'code', label: '10-bit' },
  { id: 'luminance', label: 'cd/m²' },
]
const BESIDE = [
  { id: 'none', label: 'nothing' },
  { id: 'source', label: 'source' },
  { id: 'before', label: 'no washes', about: "the shot's own steps alone" },
]
const READS = [
  { id: 'whole', label: 'all of it', about: 'the whole frame, reduced' },
  { id: 'seen', label: 'what is seen', about: 'of a zoomed picture the part that is shown' },
]
const RANGES = [
  { id: 'full', label: 'full' },
  { id: 'legal', label: 'legal' },
]

function addGuide() {
  const place = scopes.placeOf(typed.value)
  if (place === null || place < 0 || place > 1) return notices.news('A guide stands at a value of the scale.')
  scopes.set({ guides: [...scopes.kept.guides, place] })
  typed.value = ''
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="text-2xs text-dim hover:text-ink">instruments…</PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 bottom-full mb-1 w-72 space-y-2.5 border border-line bg-raise p-3 shadow-lg shadow-black/50 outline-none">
      <div>
        <h3 class="caption mb-1">They measure</h3>
        <OptionRow label="where instruments measure" :options="TAPS" :model-value="scopes.kept.tap" @update:model-value="scopes.set({ tap: $event as Tap })" />
      </div>
      <div>
        <h3 class="caption mb-1">Together with</h3>
        <OptionRow label="reference" :options="BESIDE" :model-value="scopes.kept.beside" @update:model-value="scopes.set({ beside: $event as 'none' | 'source' | 'before' })" />
      </div>
      <div>
        <h3 class="caption mb-1">Of the picture</h3>
        <OptionRow label="what of the picture is read" :options="READS" :model-value="scopes.kept.seenOnly ? 'seen' : 'whole'" @update:model-value="scopes.set({ seenOnly: $event === 'seen' })" />
      </div>
      <div>
        <h3 class="caption mb-1">Scale</h3>
        <OptionRow label="unit" :options="UNITS" :model-value="scopes.kept.unit" @update:model-value="scopes.set({ unit: $event as Unit })" />
      </div>
      <div v-if="scopes.kept.unit === 'code'">
        <h3 class="caption mb-1">Codes read as</h3>
        <OptionRow label="range" :options="RANGES" :model-value="scopes.kept.range" @update:model-value="scopes.set({ range: $event as 'full' | 'legal' })" />
      </div>
      <label class="block">
        <span class="caption flex justify-between"
          >Trace <span>{{ scopes.kept.intensity.toFixed(1) }}×</span></span
        >
        <input type="range" min="0.3" max="4" step="0.1" class="w-full accent-weld" aria-label="brightness of traces" :value="scopes.kept.intensity" @input="scopes.set({ intensity: Number(($event.target as HTMLInputElement).value) })" />
      </label>
      <div>
        <h3 class="caption mb-1">Guides</h3>
        <p class="flex flex-wrap gap-1">
          <button v-for="guide in scopes.kept.guides" :key="guide" class="control px-1.5 py-0 text-xs" title="remove it" @click="scopes.set({ guides: scopes.kept.guides.filter((one) => one !== guide) })">{{ scopes.words(guide) }} −</button>
        </p>
        <form class="mt-1 flex gap-1" @submit.prevent="addGuide">
          <input v-model="typed" class="field min-w-0 flex-1 py-0.5 text-xs select-text" :placeholder="`a value, ${scopes.unitLabel}`" aria-label="value of a guide" @keydown.stop /><button class="control py-0">add</button>
        </form>
      </div>
      <div class="flex flex-wrap items-center gap-1 border-t border-line pt-2.5">
        <template v-if="scopes.slots.length < scopes.most"
          ><button v-for="one in KINDS" :key="one.id" class="control px-1.5 py-0 text-xs" @click="scopes.add(one.id)">+ {{ one.label }}</button></template
        >
        <p v-else class="text-2xs text-dim">Four at most; click a title to change one.</p>
        <button class="control ml-auto px-1.5 py-0 text-xs" @click="scopes.reset()">reset all</button>
      </div>
    </PopoverPanel>
  </Popover>
</template>
