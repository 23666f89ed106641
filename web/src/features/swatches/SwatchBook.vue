<script setup lang="ts">
import type { Swatch } from '@/api/recipe'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref } from 'vue'
import { useKeys } from '../shell/useKeys'
import SwatchFolder from './SwatchFolder.vue'
import { useSwatches } from './useSwatches'

/** The kept grades, in their folders; a click puts one on trial, a drag moves it. */
const swatches = useSwatches()
const name = ref('')
const folder = ref('')
const editing = ref<number | null>(null)
const over = ref(false)

async function keep() {
  if (await swatches.keep({ ...(name.value.trim() ? { name: name.value } : {}), folder: folder.value })) name.value = ''
}
function recall(swatch: Swatch, close: () => void) {
  swatches.recall(swatch)
  close()
}
/** Outside of folders: swatches leave theirs, files are brought in. */
function drop(event: DragEvent) {
  over.value = false
  if (event.dataTransfer?.files.length) return void swatches.bringIn(event.dataTransfer.files, '')
  const swatch = swatches.all.find((one) => String(one.id) === event.dataTransfer?.getData('text/swatch'))
  if (swatch?.folder) void swatches.change(swatch, { folder: '' })
}
const chosen = (event: Event) => void swatches.bringIn((event.target as HTMLInputElement).files ?? [], '')
const DIGITS = Array.from({ length: 10 }, (_, digit) => digit)
useKeys('swatches', [
  ...DIGITS.map((digit) => ({ key: `${digit}`, words: digit === 1 ? 'any digit: the grade on that peg, on trial' : '', press: () => void swatches.recallPeg(digit) })),
  ...DIGITS.map((digit) => ({ key: `shift+${digit}`, words: digit === 1 ? "any digit: hang this shot's grade on that peg" : '', press: () => void swatches.keep({ peg: digit }) })),
])
</script>

<template>
  <Popover v-slot="{ close }" class="relative">
    <PopoverButton class="text-2xs text-dim hover:text-ink" title="saved grades; digits recall pegs" @click="swatches.load">swatches</PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 z-30 mt-1 max-h-[75vh] w-80 overflow-y-auto border border-line bg-raise p-3 text-ink shadow-lg shadow-black/50 outline-none">
      <form class="grid grid-cols-[minmax(0,1fr)_84px_auto] gap-1" @submit.prevent="keep">
        <input v-model="name" class="field py-0.5 text-xs select-text" placeholder="save this grade as…" maxlength="80" aria-label="name of the swatch" @keydown.stop />
        <input v-model="folder" class="field py-0.5 text-xs select-text" placeholder="folder" title="folders in folders are parted by /" maxlength="200" aria-label="folder of the swatch" @keydown.stop />
        <button class="control py-0">save</button>
      </form>
      <input v-model="swatches.search" class="field mt-2 w-full py-0.5 text-xs select-text" placeholder="search names, folders, shots" aria-label="search swatches" @keydown.stop />
      <SwatchFolder class="mt-1" :folder="swatches.tree" :editing="editing" @edit="editing = editing === $event.id ? null : $event.id" @recall="recall($event, close)" />
      <p v-if="swatches.all.length === 0" class="mt-2 text-xs text-dim">Nothing is saved yet. Shift and a digit put a grade on that peg; the digit recalls it.</p>
      <label
        class="mt-3 block cursor-pointer border border-dashed px-2 py-1.5 text-center text-2xs text-dim hover:text-ink"
        :class="over ? 'border-weld' : 'border-line'"
        @dragover.prevent="over = true"
        @dragleave="over = false"
        @drop.prevent="drop"
      >
        bring in swatch files, or drop them here<input type="file" accept=".png" multiple class="sr-only" aria-label="swatch files" @change="chosen" />
      </label>
    </PopoverPanel>
  </Popover>
</template>
