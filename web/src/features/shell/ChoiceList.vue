<script lang="ts">
/** Options under a heading; an empty name has none. */
export interface ChoiceGroup {
  name: string
  options: { id: string; label: string; about?: string }[]
}
</script>

<script setup lang="ts">
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'

defineProps<{ groups: ChoiceGroup[]; label: string; disabled?: boolean; look?: 'field' | 'control' | 'flat'; empty?: string; opens?: 'up' }>()

const LOOKS = { field: 'field', control: 'control', flat: 'rounded-sm border border-transparent px-2 py-0.5 hover:border-line' }
const value = defineModel<string | null>({ default: null })
</script>

<template>
  <Listbox v-model="value" as="div" class="relative min-w-0" :disabled="disabled">
    <ListboxButton class="w-full truncate text-left" :class="LOOKS[look ?? 'field']" :aria-label="label"><slot /></ListboxButton>
    <ListboxOptions v-inside class="absolute left-0 z-30 max-h-80 min-w-full overflow-y-auto border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none" :class="opens === 'up' ? 'bottom-full mb-1' : 'mt-1'">
      <template v-for="group in groups" :key="group.name">
        <li v-if="group.name" class="caption px-3 pt-2 pb-1" role="presentation">{{ group.name }}</li>
        <ListboxOption v-for="one in group.options" :key="one.id" v-slot="{ active, selected }" :value="one.id">
          <span class="block px-3 py-1 text-sm whitespace-nowrap" :class="[{ 'bg-line': active }, selected ? 'text-weld' : 'text-ink']" :title="one.about">{{ one.label }}</span>
        </ListboxOption>
      </template>
      <li v-if="empty && groups.every((group) => group.options.length < 2)" class="px-3 py-1 text-xs text-dim" role="presentation">{{ empty }}</li>
    </ListboxOptions>
  </Listbox>
</template>
