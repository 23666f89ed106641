<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { clock } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import OptionRow from '../shell/OptionRow.vue'
import { useSwatches } from '../swatches/useSwatches'
import StillList from './StillList.vue'
import { KINDS, useReference, type Kind, type Way } from './useReference'
import { useStills } from './useStills'

/** What the picture is compared with, and how. */
const reference = useReference()
const cut = useCut()
const stills = useStills()
const swatches = useSwatches()
const WAYS = [
  { id: 'split', label: 'split' },
  { id: 'side', label: 'side by side' },
  { id: 'difference', label: 'difference' },
]

function load() {
  void stills.load()
  void swatches.load()
}
function choose(kind: Kind) {
  if (kind === 'still') reference.still ??= stills.all.at(-1)?.id ?? null
  if (kind === 'swatch') reference.swatch ??= swatches.trial?.id ?? swatches.all[0]?.id ?? null
  reference.kind = kind
  reference.on = true
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton :class="reference.on ? 'border border-woad px-1.5 text-[#7fb0e0]' : 'hover:text-ink'" title="Y: compare with a reference" @click="load">{{ reference.on ? `with ${reference.words}` : 'compare' }}</PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 z-30 mt-1 max-h-[70vh] w-80 overflow-y-auto border border-line bg-raise p-3 text-ink shadow-lg shadow-black/50 outline-none">
      <label class="mb-2 flex items-center justify-between text-sm"
        ><span>compare <span class="text-xs text-dim">Y</span></span
        ><input v-model="reference.on" type="checkbox" class="accent-woad" aria-label="compare"
      /></label>
      <OptionRow label="how it is compared" :options="WAYS" :model-value="reference.way" @update:model-value="reference.way = $event as Way" />
      <label v-if="reference.way === 'difference'" class="mt-2 block text-2xs text-dim"
        >times {{ reference.gain }}<input v-model.number="reference.gain" type="range" min="1" max="32" class="w-full accent-woad" aria-label="gain of the difference"
      /></label>
      <div class="mt-2 grid grid-cols-2" role="radiogroup" aria-label="compared with">
        <button
          v-for="one in KINDS"
          :key="one.id"
          role="radio"
          :aria-checked="reference.kind === one.id"
          class="block border-l-2 px-2 py-0.5 text-left text-sm hover:bg-line"
          :class="reference.kind === one.id ? 'border-woad' : 'border-transparent text-dim'"
          :title="one.about"
          @click="choose(one.id)"
        >
          {{ one.label }}
        </button>
      </div>
      <p v-if="reference.kind === 'distance'" class="mt-2 flex items-center gap-2 text-xs text-dim">
        <button class="control px-2 py-0" @click="reference.distance--">−</button>{{ Math.abs(reference.distance) }} {{ reference.distance < 0 ? 'before' : 'after' }}<button class="control px-2 py-0" @click="reference.distance++">+</button>
      </p>
      <div v-if="reference.kind === 'swatch'" class="mt-2 grid grid-cols-3 gap-1.5" role="radiogroup" aria-label="swatch compared with">
        <button
          v-for="swatch in swatches.all"
          :key="swatch.id"
          role="radio"
          :aria-checked="reference.swatch === swatch.id"
          class="min-w-0 border p-0.5 text-left"
          :class="reference.swatch === swatch.id ? 'border-woad' : 'border-transparent'"
          @click="((reference.swatch = swatch.id), (reference.on = true))"
        >
          <img :src="swatches.picture(swatch)" alt="" class="aspect-video w-full bg-ground object-cover" /><span class="block truncate text-2xs text-dim">{{ swatch.name }}</span>
        </button>
        <p v-if="swatches.all.length === 0" class="col-span-3 text-xs text-dim">no swatches are saved yet</p>
      </div>
      <div v-if="!reference.timeless" class="mt-2 flex gap-1 border-t border-line pt-2" role="radiogroup" aria-label="how it is held">
        <button role="radio" class="control flex-1 px-1" :class="{ 'border-woad': !reference.locked }" :aria-checked="!reference.locked" @click="reference.locked && reference.lock()">follows</button>
        <button
          role="radio"
          class="control flex-1 px-1"
          :class="{ 'border-woad': reference.locked }"
          :aria-checked="Boolean(reference.locked)"
          title="Shift Y: its place stays, what is graded there shows"
          @click="reference.locked || reference.lock()"
        >
          locked
        </button>
        <button class="control flex-1 px-1" title="as it is now; what is graded afterwards does not reach it" :disabled="!reference.second" @click="stills.freeze(reference.second)">freeze</button>
      </div>
      <StillList class="mt-2 border-t border-line pt-2" />
      <div class="mt-2 border-t border-line pt-2">
        <button class="control w-full" @click="reference.keep()">save this frame as a reference</button>
        <p v-for="(frame, index) in reference.kept" :key="frame" class="mt-1 flex justify-between text-xs">
          <button :class="reference.kind === 'kept' && index === reference.keptAt ? 'text-[#7fb0e0]' : 'text-dim hover:text-ink'" @click="((reference.keptAt = index), (reference.kind = 'kept'), (reference.on = true))">
            {{ clock(cut.start.frames + frame, cut.rate, cut.start.drop) }}</button><button class="text-dim hover:text-ink" @click="reference.dropKept(frame)">drop</button>
        </p>
      </div>
    </PopoverPanel>
  </Popover>
</template>
