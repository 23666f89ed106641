<script setup lang="ts">
import { nextTick, ref } from 'vue'
import { useNotices } from '../shell/useNotices'

/** A timecode that is read, copied, and typed to go there. */
const props = defineProps<{ label: string; text: string; about: string }>()
const emit = defineEmits<{ typed: [text: string] }>()
const notices = useNotices()
const typing = ref(false)
const input = ref<HTMLInputElement>()

async function open() {
  typing.value = true
  await nextTick()
  input.value?.select()
}
function enter(event: Event) {
  typing.value = false
  emit('typed', (event.target as HTMLInputElement).value)
}
async function copy() {
  try {
    await navigator.clipboard.writeText(props.text)
    notices.news(`${props.text} copied`)
  } catch {
    await open() // where the clipboard is closed to us it is selected, to be copied by hand
  }
}
</script>

<template>
  <span class="group/code flex items-baseline gap-1 whitespace-nowrap">
    <slot
      ><span class="text-2xs text-faint">{{ label }}</span></slot
    >
    <input v-if="typing" ref="input" class="field w-24 px-1 py-0 text-xs select-text" :value="text" :aria-label="`${label} timecode to go to`" @keydown.stop @keydown.enter="enter" @keydown.esc="typing = false" @blur="typing = false" />
    <button v-else class="font-medium text-ink hover:text-weld" :title="`${about}; click to type another and go there`" :data-test="`clock-${label}`" @mousedown.prevent @click="open">{{ text }}</button>
    <button v-if="!typing" class="text-2xs text-faint opacity-0 group-hover/code:opacity-100 hover:text-ink focus-visible:opacity-100" :aria-label="`copy the ${label} timecode`" @mousedown.prevent @click="copy">copy</button>
  </span>
</template>
