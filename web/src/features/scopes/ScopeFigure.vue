<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { computed } from 'vue'
import type { Reading } from '../bench/usePicture'
import HistogramScope from './HistogramScope.vue'
import SolidScope from './SolidScope.vue'
import TraceScope from './TraceScope.vue'
import VectorScope from './VectorScope.vue'
import { KINDS, useScopes, type Slot } from './useScopes'

const props = defineProps<{ slotAt: number; scope: Slot; shown: Reading | null; second: [string, string] | null }>()

const scopes = useScopes()
const FEW = 0.00005 // of the pixels, which two decimals would not show
const label = computed(() => KINDS.find((one) => one.id === props.scope.kind)?.label ?? '')
const note = computed(() => [scopes.region ? 'region' : scopes.read ? 'what is seen' : null, scopes.tapLabel, ['vectorscope', 'solid'].includes(props.scope.kind) ? null : scopes.unitLabel].filter(Boolean).join(' · '))
</script>

<template>
  <figure class="flex min-h-0 min-w-0 flex-1 flex-col px-2 pt-1.5 pb-1" :aria-label="label">
    <figcaption class="mb-0.5 flex items-baseline gap-1.5 text-2xs" :class="slotAt === scopes.slots.length - 1 ? 'pr-18' : ''">
      <Menu as="span" class="relative">
        <MenuButton class="font-medium whitespace-nowrap text-dim hover:text-ink" :aria-label="`instrument ${slotAt + 1}: ${label}`">{{ label }}</MenuButton>
        <MenuItems v-inside class="absolute bottom-full left-0 z-30 mb-1 w-44 border border-line bg-raise py-1 text-ink shadow-lg shadow-black/50 outline-none">
          <MenuItem v-for="one in KINDS" :key="one.id" v-slot="{ active }">
            <button class="block w-full px-3 py-1 text-left text-sm" :class="[{ 'bg-line': active }, one.id === scope.kind ? 'text-weld' : '']" @click="scopes.change(slotAt, one.id)">{{ one.label }}</button>
          </MenuItem>
          <MenuItem v-if="slotAt > 0" v-slot="{ active }"><button class="mt-1 block w-full border-t border-line px-3 py-1 text-left text-sm" :class="{ 'bg-line': active }" @click="scopes.move(slotAt, -1)">further left</button></MenuItem>
          <MenuItem v-if="scopes.slots.length > 1" v-slot="{ active }"><button class="block w-full px-3 py-1 text-left text-sm" :class="{ 'bg-line': active }" @click="scopes.remove(slotAt)">remove</button></MenuItem>
        </MenuItems>
      </Menu>
      <span class="truncate text-faint">{{ note }}</span>
      <span
        v-if="slotAt === 0 && shown?.header.beyond !== undefined"
        class="whitespace-nowrap"
        :class="shown.header.beyond >= FEW ? 'text-leaf' : 'text-dim'"
        title="M: colours that P3 screens do not show, marked in the picture"
        data-test="beyond"
        >{{ shown.header.beyond >= FEW ? `${(shown.header.beyond * 100).toFixed(2)} % beyond P3` : shown.header.beyond > 0 ? 'hardly any beyond P3' : 'all within P3' }}</span
      >
      <span
        v-if="slotAt === 0 && shown?.header.breaks !== undefined"
        class="whitespace-nowrap"
        :class="shown.header.breaks >= FEW ? 'text-[#d459b8]' : 'text-dim'"
        title="Shift M: where tones break, marked in the picture"
        data-test="breaks"
        >{{ shown.header.breaks >= FEW ? `tones break at ${(shown.header.breaks * 100).toFixed(2)} %` : shown.header.breaks > 0 ? 'hardly a break' : 'no breaks' }}</span
      >
      <span v-if="second && scope.kind !== 'solid'" class="whitespace-nowrap"
        ><span class="text-[#e09a48]">{{ second[0] }}</span> <span class="text-[#5a98dc]">{{ second[1] }}</span></span
      >
    </figcaption>
    <VectorScope v-if="scope.kind === 'vectorscope'" :shown="shown" />
    <HistogramScope v-else-if="scope.kind === 'histogram'" :shown="shown" />
    <SolidScope v-else-if="scope.kind === 'solid'" :shown="shown" />
    <TraceScope v-else :kind="scope.kind" :shown="shown" />
  </figure>
</template>
