<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { matches, shownKey, topics, useKeys, type Shortcut } from './useKeys'

/** Everything that can be done here, by its name: what keys do, what has no key, and what stands on the screen. */
const MOST = 14 // lines
const LONGEST = 60 // characters of a name
const CLOSED = 80 // ms until the palette has given the focus back
const ON_SCREEN = 'main button, main a[href], main [role=spinbutton], header button, header a[href]'
const open = ref(false)
const typed = ref('')
const all = ref<{ topic: string; act: Shortcut }[]>([])

/** Buttons, links and numbers that are seen, each name once. */
function onScreen(known: string[]): { topic: string; act: Shortcut }[] {
  const names = new Set(known)
  return [...document.querySelectorAll<HTMLElement>(ON_SCREEN)].flatMap((element) => {
    const words = (element.ariaLabel ?? element.textContent ?? '').replace(/\s+/g, ' ').trim()
    if (element.offsetParent === null || element.matches(':disabled') || words.length < 2 || words.length > LONGEST || names.has(words)) return []
    names.add(words)
    const number = element.role === 'spinbutton'
    return [{ topic: number ? 'type a number' : 'on this screen', act: { key: '', words, press: () => (number ? typeIn(element) : element.click()) } }]
  })
}

/** A number is typed after Enter on it. */
function typeIn(element: HTMLElement) {
  element.focus()
  element.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }))
}

function show() {
  const acts = topics()
    .flatMap(({ topic, acts }) => acts.map((act) => ({ topic, act })))
    .filter(({ act }) => act.press !== show)
  all.value = [...acts, ...onScreen(acts.map(({ act }) => act.words))]
  typed.value = ''
  open.value = true
}
useKeys('everywhere', [{ key: 'mod+k', words: 'do anything by its name', press: show }])

const rank = (words: string) => (words.toLowerCase().startsWith(typed.value.trim().toLowerCase()) ? 0 : 1)
const found = computed(() =>
  all.value
    .filter(({ topic, act }) => matches(`${act.words} ${topic}`, typed.value.trim()))
    .sort((a, b) => rank(a.act.words) - rank(b.act.words))
    .slice(0, MOST),
)

/** What acts while a key is held goes on until the next key or press. */
function choose(line: { act: Shortcut } | null) {
  open.value = false
  if (!line) return
  const { act } = line
  setTimeout(() => {
    act.press(new KeyboardEvent('keydown', { key: act.key }))
    if (!act.release) return
    const end = () => {
      act.release?.()
      window.removeEventListener('keydown', end, true)
      window.removeEventListener('pointerdown', end, true)
    }
    window.addEventListener('keydown', end, true)
    window.addEventListener('pointerdown', end, true)
  }, CLOSED)
}
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="open = false">
    <div class="fixed inset-0 bg-black/40" aria-hidden="true" />
    <div class="fixed inset-x-0 top-[12vh] flex justify-center">
      <DialogPanel class="w-[520px] border border-line bg-pane shadow-lg shadow-black/50">
        <Combobox :model-value="null" @update:model-value="choose">
          <ComboboxInput
            class="w-full border-b border-line bg-transparent px-4 py-2.5 text-base outline-none placeholder:text-faint"
            placeholder="what to do"
            aria-label="what to do"
            autocomplete="off"
            @change="typed = $event.target.value"
          />
          <ComboboxOptions static class="max-h-[60vh] overflow-y-auto py-1 outline-none">
            <ComboboxOption v-for="line in found" :key="`${line.topic} ${line.act.key} ${line.act.words}`" v-slot="{ active }" :value="line" as="template">
              <li class="flex cursor-pointer items-baseline gap-3 px-4 py-1 text-sm" :class="active ? 'bg-line text-ink' : 'text-dim'">
                <span class="min-w-0 flex-1 truncate">{{ line.act.words }}</span>
                <span class="text-2xs text-faint">{{ line.topic }}</span>
                <kbd v-if="line.act.key" class="w-16 text-right font-sans text-xs text-dim">{{ shownKey(line.act.key) }}</kbd><i v-else class="w-16" />
              </li>
            </ComboboxOption>
            <li v-if="found.length === 0" class="px-4 py-1 text-sm text-dim">Nothing here is called that.</li>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
