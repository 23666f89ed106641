<script setup lang="ts">
import { getJson } from '@/api/client'
import type { Clip } from '@/api/media'
import { computed, onMounted, ref } from 'vue'
import { useCut } from '../cut/useCut'
import ChoiceList from '../shell/ChoiceList.vue'
import { counted } from '../shell/counted'
import ProgressBar from '../shell/ProgressBar.vue'
import FrameField from './FrameField.vue'
import { useProgramme } from './useProgramme'

/** A flat programme: cut up at its shot changes, or laid under the cut to compare with. */
const cut = useCut()
const programme = useProgramme()
const live = (one: { status: string } | null) => one !== null && ['waiting', 'running'].includes(one.status)
const clips = ref<Clip[]>([])
onMounted(() =>
  programme.attempt(async () => {
    clips.value = (await getJson<Clip[]>(`/projects/${cut.project?.id}/clips`)).filter((clip) => clip.status === 'ready')
  }),
)
const groups = computed(() => [{ name: '', options: [...(cut.cut?.reference ? [{ id: '', label: 'none' }] : []), ...clips.value.map(({ id: clip, path }) => ({ id: String(clip), label: path }))] }])
</script>

<template>
  <div class="min-h-0 flex-1 space-y-4 overflow-y-auto p-3 text-xs" aria-label="programme">
    <section class="space-y-2">
      <h3 class="caption">under the cut</h3>
      <ChoiceList label="programme under the cut" look="field" :groups="groups" :model-value="cut.cut?.reference ? String(cut.cut.reference.clip) : null" @update:model-value="programme.lay($event ? { clip: Number($event) } : null)"
        ><span class="block truncate">{{ cut.cut?.reference?.name ?? 'a movie of the edit…' }}</span></ChoiceList
      >
      <template v-if="cut.cut?.reference">
        <FrameField label="the cut begins" :value="cut.cut.reference.offset" suffix="frames into it" about="by timecode, if both have one" @set="programme.lay({ clip: cut.cut.reference.clip, offset: $event })" />
        <button class="control-main w-full" :disabled="live(programme.comparing)" @click="programme.compare">Find where they differ</button>
        <ProgressBar v-if="live(programme.comparing) && programme.comparing" :done="programme.comparing.done" :of="programme.comparing.count" label="comparing" />
        <p class="text-faint">On the Bench it is a reference: compare, <i>programme</i>.</p>
      </template>
      <template v-if="programme.found && !live(programme.comparing)">
        <p v-if="programme.found.disagreements.length === 0" class="text-leaf" data-test="agrees">No shot differs<template v-if="programme.found.longer === 0">, and both are as long</template>.</p>
        <p v-if="programme.found.longer !== 0" class="text-weld">The programme is {{ counted(Math.abs(programme.found.longer), 'frame') }} {{ programme.found.longer > 0 ? 'longer' : 'shorter' }}.</p>
        <ul class="divide-y divide-line">
          <li v-for="one in programme.found.disagreements" :key="`${one.shot}.${one.record}`" class="cursor-default py-1 hover:bg-raise" data-test="disagreement" @click="cut.go(one.record)">
            <p class="flex gap-2">
              <b class="font-medium text-ink">{{ one.name }}</b><span class="flex-1" /><span class="text-2xs text-faint">{{ one.timecode }}</span>
            </p>
            <p class="text-weld">{{ one.words }}</p>
          </li>
        </ul>
      </template>
    </section>
    <section class="space-y-2 border-t border-line pt-3">
      <h3 class="caption">flat programme</h3>
      <p class="text-dim">{{ cut.shot?.name }} is cut up where its shots change; a dissolve or fade that is baked in becomes a stretch of its own.</p>
      <button class="control w-full" :disabled="live(programme.cutting) || cut.shot?.clip.status !== 'ready'" @click="programme.cutUp">Cut {{ cut.shot?.name }} up at its shot changes</button>
      <div v-if="live(programme.cutting) && programme.cutting" class="flex items-center gap-2">
        <ProgressBar class="flex-1" :done="programme.cutting.done" :of="programme.cutting.count" label="looking for shot changes" /><button class="text-dim hover:text-ink" @click="programme.cancel(programme.cutting)">stop</button>
      </div>
    </section>
  </div>
</template>
