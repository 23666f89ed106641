<script setup lang="ts">
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'
import { computed } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'

defineProps<{ disabled: boolean; label: string }>()
const emit = defineEmits<{ choose: [id: string] }>()
const catalogue = useCatalogue()

const groups = computed(() => {
  const all = catalogue.catalogue?.encodings ?? []
  return [
    { name: 'scene', encodings: all.filter((one) => one.kind === 'scene') },
    { name: 'display', encodings: all.filter((one) => one.kind === 'display') },
  ]
})
</script>

<template>
  <Listbox as="div" class="relative" :disabled="disabled" @update:model-value="emit('choose', $event)">
    <ListboxButton class="control">{{ label }}</ListboxButton>
    <ListboxOptions class="absolute left-0 z-20 mt-1 max-h-96 w-64 overflow-y-auto border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none">
      <template v-for="group in groups" :key="group.name">
        <li class="caption px-3 pt-2 pb-1" role="presentation">{{ group.name }}</li>
        <ListboxOption v-for="one in group.encodings" :key="one.id" v-slot="{ active }" :value="one.id">
          <span class="block px-3 py-1 text-sm" :class="{ 'bg-line': active }">{{ one.label }}</span>
        </ListboxOption>
      </template>
    </ListboxOptions>
  </Listbox>
</template>
