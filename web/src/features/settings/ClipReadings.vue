<script setup lang="ts">
import type { Clip } from '@/api/media'
import ChoiceList from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'

defineProps<{ clips: Clip[] }>()
const emit = defineEmits<{ assign: [clips: number[], values: { encoding?: string | null; range?: string }] }>()
const catalogue = useCatalogue()
const RANGES = [
  {
    name: '',
    options: [
      { id: 'legal', label: 'legal' },
      { id: 'full', label: 'full' },
    ],
  },
]
const BACK = { name: '', options: [{ id: '', label: 'as the rules and the file say' }] }
</script>

<template>
  <table class="mt-5 w-full table-fixed border-collapse text-xs" aria-label="how clips are read">
    <thead class="text-left text-2xs text-dim">
      <tr>
        <th class="pb-1 font-medium">clip</th>
        <th class="w-[46%] pb-1 font-medium">read as, and why</th>
        <th class="w-16 pb-1 font-medium">range</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="clip in clips" :key="clip.id" class="border-t border-line/60 align-top">
        <td class="py-1.5 pr-2">
          <span class="block truncate text-ink" :title="clip.path">{{ clip.name }}</span><span class="block truncate text-2xs text-faint">{{
            [clip.camera && `camera ${clip.camera}`, clip.codec, clip.tags].filter(Boolean).join(' · ')
          }}</span>
        </td>
        <td class="py-1 pr-2">
          <ChoiceList
            look="flat"
            :groups="[BACK, ...catalogue.encodingGroups]"
            :model-value="clip.encoding"
            :label="`encoding of ${clip.name}`"
            :class="clip.encoding ? '' : 'text-madder'"
            @update:model-value="emit('assign', [clip.id], { encoding: $event || null })"
          >
            {{ clip.encoding ? catalogue.encodingLabel(clip.encoding) : 'not assigned' }}
          </ChoiceList>
          <span class="block truncate px-2 text-2xs" :class="clip.encoding ? 'text-faint' : 'text-madder'">{{ clip.encoding_reason ?? 'no rule fits and the file declares nothing' }}</span>
        </td>
        <td class="py-1">
          <ChoiceList look="flat" :groups="RANGES" :model-value="clip.range" :label="`range of ${clip.name}`" @update:model-value="emit('assign', [clip.id], { range: $event ?? 'legal' })">{{ clip.range ?? 'not said' }}</ChoiceList>
        </td>
      </tr>
    </tbody>
  </table>
</template>
