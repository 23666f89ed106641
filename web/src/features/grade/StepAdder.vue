<script setup lang="ts">
import type { Look } from '@/api/catalogue'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useCatalogue } from '../shell/useCatalogue'

/** What a recipe can be given: any step, a look to start from, and what the owner adds below. */
defineProps<{ label?: string }>()
const emit = defineEmits<{ add: [kind: string]; look: [look: Look] }>()
const catalogue = useCatalogue()
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="text-2xs text-dim hover:text-ink" :aria-label="label">+ step</MenuButton>
    <MenuItems v-inside class="absolute right-0 z-10 mt-1 max-h-[calc(100vh-5rem)] w-72 overflow-y-auto border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none">
      <div class="grid grid-cols-2">
        <MenuItem v-for="spec in catalogue.catalogue?.steps" :key="spec.id" v-slot="{ active }">
          <button class="block w-full px-3 py-1 text-left text-sm" :class="{ 'bg-line': active }" @click="emit('add', spec.id)">{{ spec.label }}</button>
        </MenuItem>
      </div>
      <p class="caption mt-1 border-t border-line px-3 pt-2 pb-1" role="presentation">bundles</p>
      <MenuItem v-for="bundle in catalogue.catalogue?.bundles" :key="bundle.id" v-slot="{ active }">
        <button class="block w-full px-3 py-1 text-left text-sm whitespace-nowrap" :class="{ 'bg-line': active }" :title="bundle.about" @click="emit('look', bundle)">
          {{ bundle.label }} <span class="text-2xs text-dim">{{ bundle.steps.length }} parts, all off</span>
        </button>
      </MenuItem>
      <p class="caption mt-1 border-t border-line px-3 pt-2 pb-1" role="presentation">looks to start from</p>
      <div class="grid grid-cols-2">
        <MenuItem v-for="look in catalogue.catalogue?.looks" :key="look.id" v-slot="{ active }">
          <button class="block w-full px-3 py-1 text-left text-sm whitespace-nowrap" :class="{ 'bg-line': active }" :title="look.about" @click="emit('look', look)">{{ look.label }}</button>
        </MenuItem>
      </div>
      <slot />
    </MenuItems>
  </Menu>
</template>
