<script setup lang="ts">
import type { Catalogue } from '@/api/catalogue'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useCatalogue } from '../shell/useCatalogue'

/** What a recipe can be given: any step, a look to start from, and what the owner adds below. */
defineProps<{ label?: string }>()
const emit = defineEmits<{ add: [kind: string]; look: [look: Catalogue['looks'][number]] }>()
const catalogue = useCatalogue()
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="text-2xs text-dim hover:text-ink" :aria-label="label">+ step</MenuButton>
    <MenuItems v-inside class="absolute right-0 z-10 mt-1 min-w-36 border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none">
      <MenuItem v-for="spec in catalogue.catalogue?.steps" :key="spec.id" v-slot="{ active }">
        <button class="block w-full px-3 py-1 text-left text-sm" :class="{ 'bg-line': active }" @click="emit('add', spec.id)">{{ spec.label }}</button>
      </MenuItem>
      <p class="caption mt-1 border-t border-line px-3 pt-2 pb-1" role="presentation">looks to start from</p>
      <MenuItem v-for="look in catalogue.catalogue?.looks" :key="look.id" v-slot="{ active }">
        <button class="block w-full px-3 py-1 text-left text-sm whitespace-nowrap" :class="{ 'bg-line': active }" :title="look.about" @click="emit('look', look)">{{ look.label }}</button>
      </MenuItem>
      <slot />
    </MenuItems>
  </Menu>
</template>
