<script setup lang="ts">
import { computed } from 'vue'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'

const props = defineProps<{ name: string; first: boolean; last: boolean; beside: boolean }>()
const emit = defineEmits<{ act: [what: StepAct] }>()

export type StepAct = 'rename' | 'duplicate' | 'copy' | 'beside' | 'bundle' | 'up' | 'down' | 'reset' | 'remove'
const acts = computed<{ what: StepAct; words: string }[]>(() => [
  { what: 'rename', words: 'rename' },
  { what: 'duplicate', words: 'duplicate' },
  { what: 'copy', words: 'copy for other shots' },
  { what: 'beside', words: props.beside ? 'after the one above' : 'beside the one above' },
  { what: 'bundle', words: 'bundle with the one above' },
  { what: 'up', words: 'move up' },
  { what: 'down', words: 'move down' },
  { what: 'reset', words: 'reset' },
  { what: 'remove', words: 'remove' },
])
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="px-1 text-sm leading-none text-dim hover:text-ink" :aria-label="`more for ${name}`">···</MenuButton>
    <MenuItems v-inside class="absolute right-0 z-20 mt-1 min-w-40 border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none">
      <MenuItem v-for="{ what, words } in acts" :key="what" v-slot="{ active }" :disabled="(['up', 'beside', 'bundle'].includes(what) && first) || (what === 'down' && last)">
        <button class="block w-full px-3 py-1 text-left text-sm disabled:text-faint" :class="{ 'bg-line': active, 'text-faint': (['up', 'beside', 'bundle'].includes(what) && first) || (what === 'down' && last) }" @click="emit('act', what)">
          {{ words }}
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
