<script setup lang="ts">
import type { Clip } from '@/api/types'
import { computed } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'

const props = defineProps<{ clips: Clip[] }>()
const selected = defineModel<number[]>({ required: true })
const catalogue = useCatalogue()

const ready = computed(() => props.clips.filter((clip) => clip.status === 'ready'))
const refused = computed(() => props.clips.filter((clip) => clip.status === 'refused'))
const all = computed(() => ready.value.length > 0 && selected.value.length === ready.value.length)
let anchor = -1

function choose(index: number, event: MouseEvent | KeyboardEvent) {
  const clip = ready.value[index]
  if (!clip) return
  if (event.shiftKey && anchor >= 0) {
    const [low, high] = [Math.min(anchor, index), Math.max(anchor, index)]
    selected.value = ready.value.slice(low, high + 1).map((one) => one.id)
    return
  }
  anchor = index
  selected.value = selected.value.includes(clip.id) ? selected.value.filter((id) => id !== clip.id) : [...selected.value, clip.id]
}

const rate = (text: string) => {
  const [over, under] = text.split('/').map(Number)
  return Number(((over ?? 0) / (under ?? 1)).toFixed(3))
}
const HEADS = ['clip', 'start', 'reel', 'frames', 'rate', 'raster', 'codec', 'encoding']
</script>

<template>
  <div class="min-h-0 flex-1 overflow-auto">
    <table class="w-full border-collapse text-xs" aria-label="clips">
      <thead class="sticky top-0 z-10 bg-pane text-left text-2xs text-dim">
        <tr>
          <th class="w-8 py-1.5 pl-3"><input type="checkbox" class="accent-weld" :checked="all" aria-label="all clips" @change="selected = all ? [] : ready.map((clip) => clip.id)" /></th>
          <th v-for="head in HEADS" :key="head" class="px-2 py-1.5 font-medium">{{ head }}</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(clip, index) in ready"
          :key="clip.id"
          class="cursor-pointer border-t border-line/60 hover:bg-raise/60"
          :class="{ 'bg-raise': selected.includes(clip.id) }"
          @click="choose(index, $event)"
        >
          <td class="py-1.5 pl-3"><input type="checkbox" class="accent-weld" :checked="selected.includes(clip.id)" :aria-label="clip.name" @click.stop="choose(index, $event)" /></td>
          <td class="px-2 py-1.5"><span class="text-ink">{{ clip.name }}</span><span class="block text-2xs text-faint">{{ clip.path.split('/').slice(0, -1).join('/') }}</span></td>
          <td class="px-2 whitespace-nowrap">{{ clip.start ?? 'none' }}</td>
          <td class="px-2 text-dim">{{ clip.reel ?? 'none' }}</td>
          <td class="px-2 text-dim">{{ clip.frames }}</td>
          <td class="px-2 text-dim">{{ rate(clip.rate) }}</td>
          <td class="px-2 whitespace-nowrap text-dim">{{ clip.width }}×{{ clip.height }}</td>
          <td class="px-2 whitespace-nowrap text-dim">{{ clip.codec }} · {{ clip.bit_depth }} bit<span class="block text-2xs text-faint">{{ clip.range ? `${clip.range} range` : 'range not said' }}</span></td>
          <td class="px-2">
            <template v-if="clip.encoding">{{ catalogue.encodingLabel(clip.encoding) }}<span class="block text-2xs text-faint">{{ clip.encoding_reason }}</span></template>
            <span v-else class="text-madder">not assigned<span class="block text-2xs">the file does not declare one</span></span>
          </td>
        </tr>
      </tbody>
    </table>
    <section v-if="refused.length" class="border-t border-line px-3 py-3" aria-label="refused files">
      <h3 class="mb-1.5 text-xs font-medium text-madder">Refused</h3>
      <ul class="space-y-1">
        <li v-for="clip in refused" :key="clip.id" class="text-xs"><span class="text-ink">{{ clip.path }}</span> <span class="text-dim select-text">{{ clip.reason }}</span></li>
      </ul>
    </section>
  </div>
</template>
