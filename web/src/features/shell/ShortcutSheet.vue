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
      <DialogPanel class="flex max-h-full w-[920px] flex-col rounded-sm border border-line bg-pane">
        <div class="flex items-center justify-between border-b border-line px-5 py-2.5">
          <DialogTitle class="text-base font-semibold">Keys in this room</DialogTitle>
          <button class="control" @click="open = false">Close</button>
        </div>
        <div class="min-h-0 overflow-y-auto p-5">
          <dl class="columns-3 gap-x-8">
            <div v-for="item in listed" :key="item.key" class="mb-1.5 flex break-inside-avoid justify-between gap-3">
              <dt class="text-dim">{{ item.words }}</dt>
              <dd><kbd class="whitespace-nowrap rounded-sm border border-line bg-raise px-1.5 font-sans text-xs">{{ shown(item.key) }}</kbd></dd>
            </div>
          </dl>
          <h3 class="caption mt-4 mb-2">With the pointer</h3>
          <dl class="columns-2 gap-x-8">
            <div v-for="[what, does] in POINTER" :key="what" class="mb-1 flex break-inside-avoid justify-between gap-3">
              <dt>{{ what }}</dt>
              <dd class="text-dim">{{ does }}</dd>
            </div>
          </dl>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
