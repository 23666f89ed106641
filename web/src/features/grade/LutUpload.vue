<script setup lang="ts">
import { ref } from 'vue'
import { useNotices } from '../shell/useNotices'
import { useLuts } from './useLuts'

const emit = defineEmits<{ put: [path: string] }>()
const luts = useLuts()
const notices = useNotices()
const input = ref<HTMLInputElement>()

async function bring() {
  const file = input.value?.files?.[0]
  if (!file) return
  try {
    emit('put', await luts.put(file.name, file))
  } catch (error) {
    notices.trouble(error)
  } finally {
    if (input.value) input.value.value = ''
  }
}
</script>

<template>
  <button class="hover:text-ink" title="a .cube or .clf file; it is copied into the library" @click="input?.click()">bring one in…</button>
  <input ref="input" type="file" accept=".cube,.clf" class="hidden" aria-label="LUT file" @change="bring" />
</template>
