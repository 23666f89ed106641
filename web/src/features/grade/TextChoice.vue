<script setup lang="ts">
import type { TextSpec } from '@/api/declared'
import { computed, onMounted } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'
import { useLuts } from './useLuts'
import ChoiceList, { type ChoiceGroup } from '../shell/ChoiceList.vue'
import LutUpload from './LutUpload.vue'

const props = defineProps<{ spec: TextSpec }>()
const value = defineModel<string>({ required: true })
const catalogue = useCatalogue()
const luts = useLuts()

onMounted(() => {
  if (props.spec.from === 'lut') void luts.load()
})

const film = computed(() => props.spec.from === 'negative' || props.spec.from === 'print')
const materials = computed(() => (catalogue.catalogue?.materials ?? []).filter(({ kind }) => kind === props.spec.from))
const groups = computed<ChoiceGroup[]>(() => {
  if (Array.isArray(props.spec.from)) return [{ name: '', options: props.spec.from.map((id) => ({ id, label: id })) }]
  if (props.spec.from === 'lut') return luts.folders
  if (film.value) return [{ name: '', options: [{ id: '', label: 'none' }, ...materials.value.map(({ id, name, about, balance, speed }) => ({ id, about, label: [name, balance, speed].filter(Boolean).join(' · ') }))] }]
  return [{ name: '', options: [{ id: '', label: 'the working space' }] }, ...catalogue.encodingGroups]
})
const shown = computed(() => {
  if (film.value) return value.value ? (materials.value.find(({ id }) => id === value.value)?.name ?? value.value) : 'none'
  if (props.spec.from === 'encoding') return value.value ? catalogue.encodingLabel(value.value) : 'the working space'
  return value.value || 'none chosen'
})
const gone = computed(() => (film.value && value.value !== '' && !materials.value.some(({ id }) => id === value.value)) || (props.spec.from === 'lut' && value.value !== '' && luts.loaded && !luts.paths.includes(value.value)))
</script>

<template>
  <div>
    <span class="mb-0.5 flex justify-between text-2xs text-dim"
      ><span :title="spec.about">{{ spec.label }}</span
      ><LutUpload v-if="spec.from === 'lut'" @put="value = $event"
    /></span>
    <ChoiceList :groups="groups" :model-value="value" :label="spec.label" :empty="spec.from === 'lut' ? 'The library has no LUT yet; bring one in.' : ''" @update:model-value="value = $event ?? spec.neutral">{{ shown }}</ChoiceList>
    <p v-if="gone" class="mt-1 text-2xs text-madder">This file is not in the library any more.</p>
  </div>
</template>
