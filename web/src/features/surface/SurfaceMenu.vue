<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import { addressWords } from '../grade/address'
import ChoiceList from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'
import { activeShortcuts } from '../shell/useKeys'
import { useSurface } from './useSurface'

const surface = useSurface()
const catalogue = useCatalogue()

const specs = computed(() => catalogue.catalogue?.steps ?? [])
const words = (target: string) => (target.startsWith('key ') ? (activeShortcuts().find((one) => one.key === target.slice(4))?.words ?? target) : addressWords(target, specs.value))

const numbers = computed(() =>
  specs.value.map((spec) => ({
    name: spec.label,
    options: spec.parameters.flatMap(({ name, label, channels }) =>
      channels ? channels.map((channel, index) => ({ id: `${spec.id}.${name}.${index}`, label: `${label} ${channel === 'master' ? 'all' : channel}` })) : [{ id: `${spec.id}.${name}`, label }],
    ),
  })),
)
const keys = computed(() => [
  {
    name: '',
    options: activeShortcuts()
      .filter((one) => one.words !== '')
      .map(({ key, words: label }) => ({ id: `key ${key}`, label })),
  },
])
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="px-1.5" :class="surface.ports.length ? 'text-ink' : 'text-dim hover:text-ink'" title="a MIDI controller as a control surface">surface</PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 z-30 mt-1 w-96 border border-line bg-raise p-3 shadow-lg shadow-black/50 outline-none">
      <p v-if="!surface.supported" class="text-sm text-dim">This browser knows no MIDI controllers.</p>
      <template v-else>
        <div class="flex items-center gap-3">
          <p class="min-w-0 flex-1 truncate text-sm" :class="surface.ports.length ? 'text-ink' : 'text-dim'">
            {{ surface.ports.join(', ') || (surface.wanted ? 'no controller is connected' : 'Controls of a MIDI controller can move any number.') }}
          </p>
          <button class="control" @click="surface.connect()">{{ surface.wanted ? 'look again' : 'connect' }}</button>
        </div>
        <p v-if="surface.trouble" class="mt-1 text-xs text-madder" role="alert">{{ surface.trouble }}</p>
        <div class="mt-3 flex items-center gap-2">
          <ChoiceList class="flex-1" label="number to bind" look="control" :groups="numbers" :model-value="null" @update:model-value="surface.learn($event)">bind a number…</ChoiceList>
          <ChoiceList class="flex-1" label="key to bind" look="control" :groups="keys" :model-value="null" @update:model-value="surface.learn($event)">bind a key…</ChoiceList>
        </div>
        <button v-if="surface.focused" class="control mt-2 w-full truncate" @click="surface.learn(surface.focused)">bind {{ words(surface.focused) }}, touched last</button>
        <p v-if="surface.learning" class="mt-2 flex items-center justify-between border border-weld px-2 py-1 text-sm text-weld" role="status">
          <span>{{ surface.learning.startsWith('key ') ? 'Press a pad' : 'Move a control' }} for {{ words(surface.learning) }}.</span><button class="text-xs" @click="surface.learn(null)">leave</button>
        </p>
        <ul class="mt-3 max-h-60 space-y-1 overflow-y-auto" aria-label="bindings">
          <li v-for="one in surface.bindings" :key="one.control" class="grid grid-cols-[64px_minmax(0,1fr)_auto_auto] items-center gap-2 text-sm">
            <span class="text-xs text-dim">{{ one.control }}</span><span class="truncate">{{ words(one.target) }}</span>
            <button
              v-if="one.control.startsWith('cc')"
              class="text-2xs text-dim hover:text-ink"
              title="whether the control tells where it stands, as a fader, or how far it was turned, as an endless dial"
              @click="surface.move(one.control, one.movement === 'stands' ? 'turns' : 'stands')"
            >
              {{ one.movement === 'stands' ? 'fader' : 'endless' }}
            </button>
            <span v-else />
            <button class="text-2xs text-dim hover:text-ink" :aria-label="`unbind ${one.control}`" @click="surface.forget(one.control)">unbind</button>
          </li>
        </ul>
        <p v-if="surface.bindings.length === 0" class="text-xs text-dim">Nothing is bound yet.</p>
      </template>
    </PopoverPanel>
  </Popover>
</template>
