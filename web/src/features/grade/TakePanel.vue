<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import TakeChoices from './TakeChoices.vue'

defineProps<{ shot: Shot }>()
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="text-2xs text-dim hover:text-ink" title="the grade as a LUT or a CDL">take…</PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 z-20 mt-1 w-80 border border-line bg-raise p-3 whitespace-normal shadow-lg shadow-black/50 outline-none">
      <TakeChoices :shot="shot" />
    </PopoverPanel>
  </Popover>
</template>
