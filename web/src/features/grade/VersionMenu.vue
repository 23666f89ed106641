<script setup lang="ts">
import type { Shot } from '@/api/types'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useKeys } from '../shell/useKeys'
import { useVersions } from './useVersions'

defineProps<{ shot: Shot }>()
const versions = useVersions()
useKeys([{ key: 'c', words: 'next version of the shot', press: versions.next }])
</script>

<template>
  <Menu as="span" class="relative">
    <MenuButton class="text-dim hover:text-ink" title="versions of this shot's grade; C goes to the next">{{ shot.recipe.name }}<span v-if="shot.versions.length > 1" class="ml-1 text-xs">of {{ shot.versions.length }}</span></MenuButton>
    <MenuItems class="absolute left-0 z-20 mt-1 min-w-44 border border-line bg-raise py-1 text-ink shadow-lg shadow-black/50 outline-none">
      <MenuItem v-for="one in shot.versions" :key="one.id" v-slot="{ active }">
        <button class="block w-full px-3 py-1 text-left text-sm" :class="[{ 'bg-line': active }, one.id === shot.recipe.id ? 'text-weld' : '']" @click="versions.use(shot, one.id)">{{ one.name }}</button>
      </MenuItem>
      <MenuItem v-slot="{ active }">
        <button class="mt-1 block w-full border-t border-line px-3 pt-1.5 pb-1 text-left text-sm whitespace-nowrap" :class="{ 'bg-line': active }" @click="versions.branch(shot)">+ version from this one</button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
