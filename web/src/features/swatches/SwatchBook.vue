<script setup lang="ts">
import type { Swatch } from '@/api/types'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref } from 'vue'
import { useKeys } from '../shell/useKeys'
import { useSwatches } from './useSwatches'

/** The kept grades, by folder; a click puts one on trial. */
const swatches = useSwatches()
const name = ref('')
const folder = ref('')
const editing = ref<Swatch | null>(null)

async function keep() {
  if (await swatches.keep({ ...(name.value.trim() ? { name: name.value } : {}), folder: folder.value })) name.value = ''
}
function change(key: 'name' | 'description' | 'folder', event: Event) {
  const value = (event.target as HTMLInputElement).value
  if (editing.value && editing.value[key] !== value) void swatches.change(editing.value, { [key]: value })
}
const DIGITS = Array.from({ length: 10 }, (_, digit) => digit)
useKeys([
  ...DIGITS.map((digit) => ({ key: `${digit}`, words: digit === 1 ? 'any digit: the grade on that peg, on trial' : '', press: () => void swatches.recallPeg(digit) })),
  ...DIGITS.map((digit) => ({ key: `shift+${digit}`, words: digit === 1 ? "any digit: hang this shot's grade on that peg" : '', press: () => void swatches.keep({ peg: digit }) })),
])
</script>

<template>
  <Popover v-slot="{ close }" class="relative">
    <PopoverButton class="text-2xs text-dim hover:text-ink" title="kept grades; digits recall pegs" @click="swatches.load">swatches</PopoverButton>
    <PopoverPanel class="absolute right-0 z-30 mt-1 max-h-[75vh] w-80 overflow-y-auto border border-line bg-raise p-3 text-ink shadow-lg shadow-black/50 outline-none">
      <form class="grid grid-cols-[minmax(0,1fr)_84px_auto] gap-1" @submit.prevent="keep">
        <input v-model="name" class="field py-0.5 text-xs select-text" placeholder="keep this grade as…" maxlength="80" aria-label="name of the swatch" @keydown.stop />
        <input v-model="folder" class="field py-0.5 text-xs select-text" placeholder="folder" maxlength="200" aria-label="folder of the swatch" @keydown.stop />
        <button class="control py-0">keep</button>
      </form>
      <input v-model="swatches.search" class="field mt-2 w-full py-0.5 text-xs select-text" placeholder="search names, folders, shots" aria-label="search swatches" @keydown.stop />
      <div v-for="group in swatches.folders" :key="group.name" class="mt-2">
        <h3 v-if="group.name" class="caption mb-1">{{ group.name }}</h3>
        <div class="grid grid-cols-2 gap-2">
          <figure v-for="swatch in group.swatches" :key="swatch.id" class="min-w-0">
            <button class="block w-full" :title="swatch.description" @click="(swatches.recall(swatch), close())"><img :src="swatches.picture(swatch)" :alt="swatch.name" class="aspect-video w-full bg-ground object-cover" loading="lazy" /></button>
            <figcaption class="flex items-baseline justify-between gap-1 text-2xs"><span class="truncate text-ink">{{ swatch.name }}</span><span class="flex gap-1.5 whitespace-nowrap text-dim"><b v-if="swatch.peg !== null" class="text-weld">{{ swatch.peg }}</b><button :aria-label="`change ${swatch.name}`" class="hover:text-ink" @click="editing = editing?.id === swatch.id ? null : swatch">···</button></span></figcaption>
            <div v-if="editing?.id === swatch.id" class="mt-1 space-y-1">
              <input v-for="key in ['name', 'folder', 'description'] as const" :key="key" class="field w-full py-0 text-2xs select-text" :value="swatch[key]" :placeholder="key" :aria-label="`${key} of ${swatch.name}`" @keydown.stop @blur="change(key, $event)" />
              <button class="text-2xs text-dim hover:text-ink" @click="swatches.forget(swatch)">forget it</button>
            </div>
          </figure>
        </div>
      </div>
      <p v-if="swatches.all.length === 0" class="mt-2 text-xs text-dim">Nothing is kept yet. Shift and a digit hang a grade on that peg; the digit recalls it.</p>
    </PopoverPanel>
  </Popover>
</template>
