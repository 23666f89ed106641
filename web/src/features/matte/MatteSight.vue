<script setup lang="ts">
import { computed } from 'vue'
import { useReference } from '../compare/useReference'
import { useMatte, type MatteExtent, type MatteLook } from './useMatte'

/** What of the matte is shown in the picture, and how. */
const matte = useMatte()
const reference = useReference()
const LOOKS: { id: MatteLook; words: string }[] = [
  { id: 'grey', words: 'grey' },
  { id: 'veil', words: 'over grey' },
  { id: 'outline', words: 'outline' },
  { id: 'tint', words: 'tinted' },
]
const EXTENTS: { id: MatteExtent; words: string; about: string }[] = [
  { id: 'step', words: 'all', about: "the step's whole matte, refined" },
  { id: 'upto', words: 'up to', about: 'the open contributor with those before it' },
  { id: 'part', words: 'alone', about: 'the open contributor by itself' },
]
const besides = computed({
  get: () => reference.on && reference.kind === 'matte' && reference.way === 'side',
  set: (on) => {
    if (on) Object.assign(reference, { kind: 'matte', way: 'side' })
    reference.on = on
  },
})
</script>

<template>
  <p class="mt-1 flex flex-wrap items-center gap-x-2 gap-y-0.5">
    <button class="border px-1" :class="matte.on ? 'border-weld text-weld' : 'border-line hover:text-ink'" :aria-pressed="matte.on" title="Shift Z; Z while it is held: the step's whole matte" @click="matte.on = !matte.on">show</button>
    <span role="radiogroup" aria-label="how the matte is shown"
      ><button v-for="one in LOOKS" :key="one.id" role="radio" class="mr-1.5" :class="matte.look === one.id ? 'text-ink' : 'text-faint hover:text-ink'" :aria-checked="matte.look === one.id" @click="matte.look = one.id">
        {{ one.words }}
      </button></span
    >
    <span v-if="matte.part" role="radiogroup" aria-label="what of the matte is shown"
      ><button
        v-for="one in EXTENTS"
        :key="one.id"
        role="radio"
        class="mr-1.5"
        :class="matte.extent === one.id ? 'text-ink' : 'text-faint hover:text-ink'"
        :aria-checked="matte.extent === one.id"
        :title="one.about"
        @click="matte.extent = one.id"
      >
        {{ one.words }}
      </button></span
    >
    <button class="ml-auto" :class="besides ? 'text-[#7fb0e0]' : 'text-faint hover:text-ink'" :aria-pressed="besides" title="matte and picture side by side" @click="besides = !besides">beside</button>
  </p>
</template>
