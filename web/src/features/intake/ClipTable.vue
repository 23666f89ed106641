<script setup lang="ts">
import type { Clip } from '@/api/media'
import type { Project } from '@/api/project'
import { computed } from 'vue'
import { rateOf } from '../cut/timecode'
import { useCatalogue } from '../shell/useCatalogue'
import MiddleCut from '../shell/MiddleCut.vue'
import CopyState from './CopyState.vue'

const props = defineProps<{ clips: Clip[]; project: Project | null }>()
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

const rate = (text: string) => Number(rateOf(text).toFixed(3))
const picture = (clip: Clip) => `/api/projects/${props.project?.id}/clips/${clip.id}/picture?of=${clip.version}.${clip.encoding}.${clip.range}.${props.project?.stamp}`
const gaps = (clip: Clip) => clip.gaps.map(([first, last]) => (first === last ? `${first}` : `${first} to ${last}`)).join(', ')
/** How a clip of another rate than the project's is taken, in words. */
function pace(clip: Clip) {
  if (!clip.other_rate) return ''
  if (clip.variable) return 'uneven, frame for frame'
  const there = props.project ? rate(props.project.rate) : ''
  return clip.pace === 'time' ? `by time in ${there}: ${clip.frames} frames` : `frame for frame in ${there}`
}
</script>

<template>
  <div class="min-h-0 flex-1 overflow-auto">
    <table class="w-full table-fixed border-collapse text-xs" aria-label="clips">
      <colgroup>
        <col class="w-8" />
        <col class="w-[76px]" />
        <col />
        <col class="w-28" />
        <col class="w-40" />
        <col class="w-32" />
        <col class="w-44" />
        <col class="w-24" />
      </colgroup>
      <thead class="sticky top-0 z-10 bg-pane text-left text-2xs text-dim">
        <tr>
          <th class="py-1.5 pl-3"><input type="checkbox" class="accent-weld" :checked="all" aria-label="all clips" @change="selected = all ? [] : ready.map((clip) => clip.id)" /></th>
          <th />
          <th v-for="head in ['clip', 'start, reel', 'frames, rate', 'raster, codes', 'encoding', 'copy']" :key="head" class="px-2 py-1.5 font-medium">{{ head }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(clip, index) in ready" :key="clip.id" class="cursor-pointer border-t border-line/60 align-top hover:bg-raise/60" :class="{ 'bg-raise': selected.includes(clip.id) }" @click="choose(index, $event)">
          <td class="py-1.5 pl-3"><input type="checkbox" class="accent-weld" :checked="selected.includes(clip.id)" :aria-label="clip.name" @click.stop="choose(index, $event)" /></td>
          <td class="py-1.5"><img :src="picture(clip)" alt="" class="h-[38px] w-[68px] bg-ground object-contain" loading="lazy" draggable="false" /></td>
          <td class="px-2 py-1.5"><MiddleCut class="text-ink" :text="clip.name" /><MiddleCut class="text-2xs text-faint" :text="clip.path.split('/').slice(0, -1).join('/')" /></td>
          <td class="truncate px-2 py-1.5">
            {{ clip.start ?? 'no timecode' }}<span class="block truncate text-2xs" :class="clip.reel ? 'text-dim' : 'text-faint'" :title="clip.reel ?? ''">{{ clip.reel ?? 'no reel' }}</span>
          </td>
          <td class="px-2 py-1.5 text-dim">
            {{ clip.file_frames }} at <span :class="clip.other_rate ? 'text-weld' : ''">{{ rate(clip.rate) }}</span>
            <span v-if="pace(clip)" class="block text-2xs text-weld" data-test="pace">{{ pace(clip) }}</span>
            <span v-if="clip.gaps.length" class="block truncate text-2xs text-madder" :title="`frames ${gaps(clip)} are not there`">missing {{ gaps(clip) }}</span>
          </td>
          <td class="truncate px-2 py-1.5 text-dim">
            {{ clip.width }}×{{ clip.height
            }}<span class="block truncate text-2xs text-faint" :title="`${clip.codec}, ${clip.pixel_format}`">{{ clip.codec }} · {{ clip.floats ? 'float' : `${clip.bit_depth} bit` }} {{ clip.range ?? '' }}</span>
          </td>
          <td class="px-2 py-1.5">
            <template v-if="clip.encoding"
              ><span class="block truncate" :title="catalogue.encodingLabel(clip.encoding)">{{ catalogue.encodingLabel(clip.encoding) }}</span
              ><span class="block truncate text-2xs text-faint" :title="clip.encoding_reason ?? ''">{{ clip.encoding_reason }}</span></template
            >
            <span v-else class="text-madder">not assigned<span class="block text-2xs">the file does not declare one</span></span>
          </td>
          <td class="px-2 py-1.5"><CopyState :clip="clip" /></td>
        </tr>
      </tbody>
    </table>
    <section v-if="refused.length" class="border-t border-line px-3 py-3" aria-label="refused files">
      <h3 class="mb-1.5 text-xs font-medium text-madder">Refused</h3>
      <ul class="space-y-1">
        <li v-for="clip in refused" :key="clip.id" class="text-xs">
          <span class="break-all text-ink select-text">{{ clip.path }}</span> <span class="text-dim select-text">{{ clip.reason }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>
