<script setup lang="ts">
import type { Cut } from '@/api/cut'
import { ref } from 'vue'
import { useCorrections } from './useCorrections'

const props = defineProps<{ cut: Cut }>()
const corrections = useCorrections()
const input = ref<HTMLInputElement>()

async function bring() {
  const file = input.value?.files?.[0]
  if (file) await corrections.bring(props.cut.id, file)
  if (input.value) input.value.value = ''
}
</script>

<template>
  <section>
    <h2 class="mb-2 text-base font-semibold">Corrections</h2>
    <p class="flex gap-1.5">
      <a v-for="format in ['ccc', 'cdl', 'edl']" :key="format" class="control" :href="`/api/cuts/${cut.id}/corrections.${format}`" download>.{{ format }}</a>
      <span class="flex-1" />
      <button type="button" class="control" @click="input?.click()">Bring in…</button>
      <input ref="input" type="file" accept=".cc,.ccc,.cdl,.edl" class="hidden" aria-label="corrections for the cut" @change="bring" />
    </p>
    <p class="mt-1.5 text-2xs text-dim">A CDL of every shot, on {{ cut.project.space.label }} codes, as near as a CDL comes; each shot's own “take” says how near. What is brought in goes on the shots it is named after.</p>
  </section>
</template>
