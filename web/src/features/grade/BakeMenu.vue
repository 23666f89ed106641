<script setup lang="ts">
import { getJson } from '@/api/client'
import type { Shot } from '@/api/types'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { ref, watch } from 'vue'
import { useNotices } from '../shell/useNotices'

const props = defineProps<{ shot: Shot }>()
const notices = useNotices()

const SIZES = [17, 33, 65]
const CODES = 1023

const measured = ref<Record<number, { seen: { worst: number; mean: number } }>>({})
watch(
  () => [props.shot.id, props.shot.recipe.revision],
  () => (measured.value = {}),
)

/** What a lattice of each size would cost, once the menu is looked at. */
async function measure() {
  for (const size of SIZES) {
    if (measured.value[size]) continue
    try {
      measured.value[size] = await getJson(`/shots/${props.shot.id}/bake?size=${size}`)
    } catch (error) {
      notices.trouble(error)
      return
    }
  }
}

const said = (size: number) => {
  const error = measured.value[size]?.seen
  return error ? `mean ${(error.mean * CODES).toFixed(1)}, worst ${(error.worst * CODES).toFixed(0)}` : 'measuring…'
}
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="text-2xs text-dim hover:text-ink" @click="measure">take as LUT</MenuButton>
    <MenuItems class="absolute right-0 z-10 mt-1 w-72 border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none">
      <MenuItem v-for="size in SIZES" :key="size" v-slot="{ active }">
        <a class="flex justify-between px-3 py-1 text-sm" :class="{ 'bg-line': active }" :href="`/api/shots/${shot.id}/look.cube?size=${size}`" download>
          <span>{{ size }} nodes, .cube</span><span class="text-xs text-dim">{{ said(size) }}</span>
        </a>
      </MenuItem>
      <p class="px-3 pt-1.5 pb-1 text-2xs text-dim">The recipe and the view, from the clip's encoding. Difference from exact in 10-bit codes, on the colours of this shot.</p>
    </MenuItems>
  </Menu>
</template>
