<script setup lang="ts">
import type { Shot } from '@/api/cut'
import type { Project } from '@/api/project'
import { computed } from 'vue'
import { smallPictureOf } from '../cut/smallPicture'
import { useCut } from '../cut/useCut'
import WhoIsAt from '../people/WhoIsAt.vue'
import { useCatalogue } from '../shell/useCatalogue'
import { counted } from '../shell/counted'
import { posterOf } from './arrange'
import { FLAG_FILL } from './useFlags'

/** One shot of the board. */
const props = defineProps<{ project: Project; shot: Shot; size: number; details: boolean; poster: string; current: boolean; reference: boolean; picked: boolean }>()
const cut = useCut()
const catalogue = useCatalogue()
const steps = computed(() => props.shot.recipe.document.steps)
const family = computed(() => cut.familyOf(props.shot))
const frame = computed(() => {
  const { clip, source_in } = props.shot
  return clip.start ? `${clip.start}${source_in ? ` +${source_in}` : ''}` : ''
})
</script>

<template>
  <div
    class="relative cursor-pointer outline-1"
    :class="[current ? 'outline-2 outline-weld' : reference ? 'outline-2 outline-woad' : 'outline-transparent hover:outline-line', picked ? 'bg-line' : 'bg-pane']"
    :style="{ width: `${size}px` }"
    role="option"
    :aria-selected="picked"
    :aria-current="current"
    :aria-label="`shot ${shot.name}`"
    :data-shot="shot.id"
  >
    <img :src="smallPictureOf(project, shot, posterOf(shot, poster))" alt="" class="w-full bg-ground object-cover" :style="{ height: `${Math.round((size * 9) / 16)}px` }" draggable="false" />
    <svg v-if="shot.flag" class="absolute top-0 right-2 h-5 w-3" viewBox="0 0 12 20" :class="FLAG_FILL[shot.flag]" :aria-label="`flag ${shot.flag}`">
      <title>{{ shot.note || shot.flag }}</title>
      <path d="M0 0H12V20L6 15L0 20Z" />
    </svg>
    <span class="absolute top-1 left-1 flex gap-1">
      <i v-if="picked" class="border border-ground bg-ink px-1 text-2xs text-ground not-italic">picked</i>
      <WhoIsAt :shot="shot.id" />
    </span>
    <p class="flex h-[18px] items-center justify-between gap-1 px-1 text-2xs whitespace-nowrap text-dim">
      <span class="flex min-w-0 items-center gap-1.5"
        ><b class="truncate font-medium text-ink">{{ shot.name }}</b
        ><span v-if="steps.length" :title="steps.map((step) => step.name).join(', ')">{{ counted(steps.length, 'step') }}</span></span
      >
      <span v-if="reference" class="text-[#7fb0e0]">reference</span>
    </p>
    <div v-if="details" class="h-[26px] overflow-hidden px-1 text-2xs leading-[13px] whitespace-nowrap text-dim">
      <p class="truncate">{{ [shot.clip.camera, shot.clip.reel, frame].filter(Boolean).join(' · ') }}</p>
      <p class="truncate" :class="shot.clip.encoding ? '' : 'text-madder'">{{ [shot.note, family?.name, shot.clip.encoding ? catalogue.encodingLabel(shot.clip.encoding) : 'no encoding assigned'].filter(Boolean).join(' · ') }}</p>
    </div>
  </div>
</template>
