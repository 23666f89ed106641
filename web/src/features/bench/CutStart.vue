<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref, watch } from 'vue'

/** The timecode a cut begins at. */
const props = defineProps<{ start: { text: string } }>()
const emit = defineEmits<{ set: [text: string] }>()
const text = ref('')
watch(
  () => props.start.text,
  (now) => (text.value = now),
  { immediate: true },
)
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="text-2xs text-faint hover:text-ink" title="record timecode; the cut begins at another one from here" @mousedown.prevent>rec</PopoverButton>
    <PopoverPanel v-slot="{ close }" v-inside class="absolute left-0 z-30 mt-1 w-56 border border-line bg-raise p-3 shadow-lg shadow-black/50 outline-none">
      <form @submit.prevent="(emit('set', text), close())">
        <label class="caption block">the cut begins at<input v-model="text" class="field mt-1 w-full select-text" aria-label="timecode the cut begins at" @keydown.stop /></label>
        <button class="control mt-2">set</button>
      </form>
    </PopoverPanel>
  </Popover>
</template>
