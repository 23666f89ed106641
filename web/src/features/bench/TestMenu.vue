<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useSight } from './useSight'

/** Test pictures as the source, in place of the shot's own frames. */
const sight = useSight()
</script>

<template>
  <Menu as="span" class="relative">
    <MenuButton :class="sight.test ? 'border border-weld px-1.5 text-weld' : 'hover:text-ink'" title="T: test pictures in place of the shot, through its recipe">{{ sight.testLabel ?? 'shot' }}</MenuButton>
    <MenuItems v-inside class="absolute right-0 z-20 mt-1 w-40 border border-line bg-raise py-1 text-ink shadow-lg shadow-black/50 outline-none">
      <MenuItem v-for="one in [{ id: null, label: 'the shot', about: 'its own frames' }, ...sight.tests]" :key="one.label" v-slot="{ active }">
        <button class="block w-full px-3 py-1 text-left text-sm" :class="[{ 'bg-line': active }, one.id === sight.test ? 'text-weld' : '']" :title="one.about" @click="sight.test = one.id">{{ one.label }}</button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
