<script setup lang="ts">
import type { Shot } from '@/api/cut'
import type { Project } from '@/api/project'
import { computed, ref, watch } from 'vue'
import WhoIsAt from '../people/WhoIsAt.vue'
import MiddleCut from '../shell/MiddleCut.vue'
import { smallPictureOf } from '../cut/smallPicture'
import { useNotes } from '../review/useNotes'

const props = defineProps<{ project: Project; shots: Shot[]; current: number | null; picked: number[] }>()
const emit = defineEmits<{ go: [index: number]; pick: [id: number]; compare: [id: number] }>()

function press(event: MouseEvent, shot: Shot, index: number) {
  if (event.altKey) emit('compare', shot.id)
  else if (event.ctrlKey || event.metaKey) emit('pick', shot.id)
  else emit('go', index)
}

const notes = useNotes()
const list = ref<HTMLElement>()

const scenes = computed(() => {
  const groups: { name: string; shots: { shot: Shot; index: number }[] }[] = []
  props.shots.forEach((shot, index) => {
    const group = groups.at(-1)
    if (group && group.name === shot.scene) group.shots.push({ shot, index })
    else groups.push({ name: shot.scene, shots: [{ shot, index }] })
  })
  return groups
})

const graded = (shot: Shot) => shot.recipe.document.steps.length > 0

watch(
  () => props.current,
  (id) => list.value?.querySelector(`[data-shot="${id}"]`)?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)
</script>

<template>
  <div ref="list" class="min-h-0 overflow-y-auto border-r border-line px-2 py-1.5" role="listbox" aria-label="shots">
    <template v-for="scene in scenes" :key="scene.shots[0]?.shot.id">
      <h3 class="flex justify-between px-0.5 pt-2 pb-1.5 text-2xs font-medium text-dim">
        <span class="truncate">{{ scene.name }}</span><span class="text-faint">{{ scene.shots.length }}</span>
      </h3>
      <button
        v-for="{ shot, index } in scene.shots"
        :key="shot.id"
        class="relative mb-1.5 block w-full p-[3px] text-left outline-1 [contain-intrinsic-size:auto_100px] [content-visibility:auto]"
        :class="shot.id === current ? 'bg-raise outline-weld' : picked.includes(shot.id) ? 'bg-raise outline-dim outline-dashed' : 'outline-transparent hover:outline-line'"
        title="Ctrl and a click pick it besides, to put copies on; Alt and a click compare with it"
        role="option"
        :aria-selected="shot.id === current"
        :data-shot="shot.id"
        @mousedown.prevent
        @click="press($event, shot, index)"
      >
        <img :src="smallPictureOf(project, shot)" :alt="`shot ${shot.name}`" class="aspect-video w-full bg-ground object-cover" loading="lazy" draggable="false" />
        <i
          v-if="notes.counts.get(shot.id)"
          class="absolute top-1 right-1 border border-ground bg-weld px-1 text-2xs font-medium text-ground not-italic"
          :title="`${notes.counts.get(shot.id)} open notes; N shows them`"
          data-test="note-count"
          >{{ notes.counts.get(shot.id) }}</i
        >
        <WhoIsAt :shot="shot.id" class="absolute top-1 left-1" />
        <span class="mt-0.5 flex items-center justify-between text-2xs text-dim">
          <span class="flex min-w-0 items-center gap-1.5"><MiddleCut class="font-medium text-ink" :text="shot.name" /><i v-if="graded(shot)" class="size-1 rounded-full bg-ink" title="has steps" /></span>
          <span class="ml-1 shrink-0" :class="shot.clip.encoding ? '' : 'text-madder'">{{ shot.clip.encoding ? (shot.clip.camera ?? shot.clip.reel ?? '') : 'no encoding' }}</span>
        </span>
      </button>
    </template>
  </div>
</template>
