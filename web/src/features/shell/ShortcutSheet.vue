<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { matches, shownKey, topics, useKeys } from './useKeys'

const open = ref(false)
const typed = ref('')
const listed = ref<ReturnType<typeof topics>>([])

function show() {
  listed.value = topics().map(({ topic, acts }) => ({ topic, acts: acts.filter((one) => one.key !== '') }))
  typed.value = ''
  open.value = true
}

defineExpose({ show })
useKeys('everywhere', [{ key: '?', words: 'this sheet', press: show }])

const POINTER = [
  ['drag a number or a handle', 'change it; Shift coarse, Alt fine'],
  ['double-click a number or a handle', 'back to neutral'],
  ['click a number, or Enter on it', 'type a value'],
  ['arrow keys on a number or a handle', 'nudge; Shift coarse, Alt fine'],
  ['wheel over the picture', 'zoom about the pointer'],
] as const
const found = computed(() => listed.value.map(({ topic, acts }) => ({ topic, acts: acts.filter((one) => matches(`${topic} ${one.words} ${shownKey(one.key)}`, typed.value)) })).filter(({ acts }) => acts.length > 0))
const pointed = computed(() => POINTER.filter((line) => matches(`with the pointer ${line.join(' ')}`, typed.value)))
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="open = false">
    <div class="fixed inset-0 bg-black/60" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center p-6">
      <DialogPanel class="flex max-h-full w-[960px] flex-col rounded-sm border border-line bg-pane">
        <div class="flex items-center gap-4 border-b border-line px-5 py-2.5">
          <DialogTitle class="text-base font-semibold">Keys in this room</DialogTitle>
          <input v-model="typed" class="field w-56" placeholder="look for a key or a word" aria-label="look for a key or a word" />
          <span class="flex-1 text-xs text-dim">Ctrl K: do any of it by its name</span>
          <button class="control" @click="open = false">Close</button>
        </div>
        <div class="min-h-0 columns-3 gap-x-8 overflow-y-auto p-5">
          <section v-for="{ topic, acts } in found" :key="topic" class="mb-4 break-inside-avoid-column">
            <h3 class="caption mb-1.5">{{ topic }}</h3>
            <dl>
              <div v-for="item in acts" :key="item.key" class="mb-1 flex break-inside-avoid justify-between gap-3">
                <dt class="text-dim">{{ item.words }}</dt>
                <dd>
                  <kbd class="rounded-sm border border-line bg-raise px-1.5 font-sans text-xs whitespace-nowrap">{{ shownKey(item.key) }}</kbd>
                </dd>
              </div>
            </dl>
          </section>
          <section v-if="pointed.length" class="break-inside-avoid-column">
            <h3 class="caption mb-1.5">with the pointer</h3>
            <dl>
              <div v-for="[what, does] in pointed" :key="what" class="mb-1">
                <dt>{{ what }}</dt>
                <dd class="text-dim">{{ does }}</dd>
              </div>
            </dl>
          </section>
          <p v-if="found.length === 0 && pointed.length === 0" class="text-dim">No key has that.</p>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
