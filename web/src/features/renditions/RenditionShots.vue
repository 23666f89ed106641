<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { smallPictureOf } from '../cut/smallPicture'
import { useCut } from '../cut/useCut'
import MiddleCut from '../shell/MiddleCut.vue'
import { useRenditions, type ShotState } from './useRenditions'

/** The shots of the cut with what is known of each. */
const cut = useCut()
const renditions = useRenditions()
const list = ref<HTMLElement>()
const shots = computed(() => cut.shots.filter((shot) => shot.clip.status !== 'black'))
const LOOKS: Record<ShotState, string> = { 'not measured': 'text-faint', measured: 'text-dim', corrected: 'text-weld', stale: 'text-madder' }

watch(
  () => cut.shot?.id,
  (id) => list.value?.querySelector(`[data-shot="${id}"]`)?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)
</script>

<template>
  <div ref="list" class="min-h-0 flex-1 overflow-y-auto px-2" role="listbox" aria-label="shots">
    <button
      v-for="shot in shots"
      :key="shot.id"
      class="mb-1.5 block w-full p-[3px] text-left outline-1"
      :class="shot.id === cut.shot?.id ? 'bg-raise outline-weld' : 'outline-transparent hover:outline-line'"
      role="option"
      :aria-selected="shot.id === cut.shot?.id"
      :data-shot="shot.id"
      @mousedown.prevent
      @click="cut.goShot(cut.indexOf(shot))"
    >
      <img v-if="cut.project" :src="smallPictureOf(cut.project, shot)" :alt="`shot ${shot.name}`" class="aspect-video w-full bg-ground object-cover" loading="lazy" draggable="false" />
      <span class="mt-0.5 flex items-center justify-between gap-1 text-2xs"
        ><MiddleCut class="min-w-0 font-medium text-ink" :text="shot.name" /><span class="shrink-0" :class="LOOKS[renditions.stateOf(shot)]" data-test="state">{{ renditions.stateOf(shot) }}</span></span
      >
    </button>
  </div>
</template>
