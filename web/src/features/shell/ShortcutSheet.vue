<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { ref } from 'vue'
import { activeShortcuts, useKeys, type Shortcut } from './useKeys'

const open = ref(false)
const listed = ref<Shortcut[]>([])

function show() {
  listed.value = activeShortcuts().filter((one) => one.words !== '')
  open.value = true
}

defineExpose({ show })
useKeys([{ key: '?', words: 'this sheet', press: show }])

const POINTER = [
  ['drag a number or a handle', 'change it; Shift coarse, Alt fine'],
  ['double-click a number or a handle', 'back to neutral'],
  ['click a number, or Enter on it', 'type a value'],
  ['arrow keys on a number or a handle', 'nudge; Shift coarse, Alt fine'],
  ['wheel over the picture', 'zoom about the pointer'],
]

const shown = (key: string) =>
  key.replace('mod+', 'Ctrl ').replace('shift+', 'Shift ').replace('space', 'Space').replace('enter', 'Enter').replace('escape', 'Esc').replace(/\b[a-z]$/, (letter) => letter.toUpperCase())
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="open = false">
    <div class="fixed inset-0 bg-black/60" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-6">
      <DialogPanel class="w-[560px] rounded-sm border border-line bg-pane p-5">
        <DialogTitle class="mb-3 text-base font-semibold">Keys in this room</DialogTitle>
        <dl class="columns-2 gap-x-8">
          <div v-for="item in listed" :key="item.key" class="mb-1.5 flex break-inside-avoid justify-between gap-3">
            <dt class="text-dim">{{ item.words }}</dt>
            <dd><kbd class="whitespace-nowrap rounded-sm border border-line bg-raise px-1.5 font-sans text-xs">{{ shown(item.key) }}</kbd></dd>
          </div>
        </dl>
        <h3 class="caption mt-5 mb-2">With the pointer</h3>
        <dl class="space-y-1">
          <div v-for="[what, does] in POINTER" :key="what" class="flex justify-between">
            <dt>{{ what }}</dt>
            <dd class="text-dim">{{ does }}</dd>
          </div>
        </dl>
        <button class="control mt-5" @click="open = false">Close</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
