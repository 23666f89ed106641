<script setup lang="ts">
import { ref, watch } from 'vue'

/** A number that is typed, or stepped by the arrow keys; it is sent when it is entered. With `by` it says by how much, and is 0 again. */
const props = defineProps<{ label: string; value: number; about?: string; suffix?: string; step?: number; by?: boolean; narrow?: boolean; name?: string }>()
const emit = defineEmits<{ set: [value: number] }>()
const BIG = 10 // steps, with Shift
const text = ref('')
let sent: number | null = null // and not answered yet
function follow() {
  sent = null
  text.value = String(props.value)
}
watch(() => props.value, follow, { immediate: true })

function enter() {
  const value = Number(text.value.replace(',', '.'))
  if (text.value.trim() === '' || !Number.isFinite(value)) text.value = String(props.value)
  else if (value !== props.value && value !== sent) emit('set', (sent = value))
  if (props.by) follow()
}
function leave(event: KeyboardEvent) {
  text.value = String(props.value)
  ;(event.target as HTMLElement).blur()
}
function key(event: KeyboardEvent) {
  const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0
  if (event.key === 'Enter')
    (event.target as HTMLElement).blur() // which enters it
  else if (event.key === 'Escape') leave(event)
  else if (way) emit('set', props.value + way * (props.step ?? 1) * (event.shiftKey ? BIG : 1))
  else return
  event.preventDefault()
}
</script>

<template>
  <label class="flex items-center gap-1 whitespace-nowrap text-dim" :title="about">
    {{ label }}<input v-model="text" class="field px-1 py-0 text-right text-xs select-text" :class="by || narrow ? 'w-9' : 'w-14'" inputmode="numeric" :aria-label="name ?? label" @focus="follow" @keydown.stop="key" @blur="enter" /><span
      v-if="suffix"
      class="text-faint"
      >{{ suffix }}</span
    >
  </label>
</template>
