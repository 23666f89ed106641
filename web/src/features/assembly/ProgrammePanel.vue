<script setup lang="ts">
import { getJson, sendJson } from '@/api/client'
import type { Cut } from '@/api/cut'
import type { Disagreement } from '@/api/list'
import type { Clip } from '@/api/media'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useCut } from '../cut/useCut'
import ChoiceList from '../shell/ChoiceList.vue'
import ProgressBar from '../shell/ProgressBar.vue'
import { useErrands } from '../shell/useErrands'
import { useNotices } from '../shell/useNotices'
import { counted } from '../shell/counted'
import FrameField from './FrameField.vue'
import { useAssembly } from './useAssembly'

/** A flat programme: cut up at its shot changes, or laid under the cut to compare with. */
const route = useRoute()
const cut = useCut()
const notices = useNotices()
const assembly = useAssembly()
const errands = useErrands(computed(() => route.params.project as string | undefined))
const id = computed(() => cut.cut?.id ?? 0)
const [cutting, comparing] = [errands.latest('changes', id), errands.latest('compare', id)]
const live = (one: { status: string } | null) => one !== null && ['waiting', 'running'].includes(one.status)
const clips = ref<Clip[]>([])
const found = ref<{ disagreements: Disagreement[]; longer: number } | null>(null)
onMounted(async () => {
  clips.value = (await getJson<Clip[]>(`/projects/${cut.project?.id}/clips`).catch(() => [])).filter((clip) => clip.status === 'ready')
})
const groups = computed(() => [{ name: '', options: [...(cut.cut?.reference ? [{ id: '', label: 'none' }] : []), ...clips.value.map(({ id: clip, path }) => ({ id: String(clip), label: path }))] }])

async function attempt(work: () => Promise<unknown>) {
  try {
    await work()
  } catch (error) {
    notices.trouble(error)
  }
}
const lay = (reference: { clip: number; offset?: number } | null) =>
  attempt(async () => {
    const answer = await sendJson<Partial<Cut>>('PATCH', `/cuts/${id.value}`, { reference })
    found.value = null
    if (cut.cut) Object.assign(cut.cut, answer)
    if (answer.project) cut.project = answer.project
  })
const compare = () =>
  attempt(async () => {
    await assembly.settled()
    found.value = await errands.run(`/cuts/${id.value}/comparisons`, {})
  })
const cutUp = () =>
  attempt(async () => {
    await assembly.settled()
    const { shots } = await errands.run<{ shots: number }>(`/cuts/${id.value}/changes`, { shot: cut.shot?.id })
    await cut.reload()
    notices.news(shots > 1 ? `${shots} shots; one undo takes it back` : 'no shot change was found')
  })
</script>

<template>
  <div class="min-h-0 flex-1 space-y-4 overflow-y-auto p-3 text-xs" aria-label="programme">
    <section class="space-y-2">
      <h3 class="caption">under the cut</h3>
      <ChoiceList label="programme under the cut" look="field" :groups="groups" :model-value="cut.cut?.reference ? String(cut.cut.reference.clip) : null" @update:model-value="lay($event ? { clip: Number($event) } : null)"
        ><span class="block truncate">{{ cut.cut?.reference?.name ?? 'a movie of the edit…' }}</span></ChoiceList
      >
      <template v-if="cut.cut?.reference">
        <FrameField label="the cut begins" :value="cut.cut.reference.offset" suffix="frames into it" about="by timecode, if both have one" @set="lay({ clip: cut.cut.reference.clip, offset: $event })" />
        <button class="control-main w-full" :disabled="live(comparing)" @click="compare">Find where they differ</button>
        <ProgressBar v-if="live(comparing) && comparing" :done="comparing.done" :of="comparing.count" label="comparing" />
        <p class="text-faint">On the Bench it is a reference: compare, <i>programme</i>.</p>
      </template>
      <template v-if="found && !live(comparing)">
        <p v-if="found.disagreements.length === 0" class="text-leaf" data-test="agrees">No shot differs<template v-if="found.longer === 0">, and both are as long</template>.</p>
        <p v-if="found.longer !== 0" class="text-weld">The programme is {{ counted(Math.abs(found.longer), 'frame') }} {{ found.longer > 0 ? 'longer' : 'shorter' }}.</p>
        <ul class="divide-y divide-line">
          <li v-for="one in found.disagreements" :key="`${one.shot}.${one.record}`" class="cursor-default py-1 hover:bg-raise" data-test="disagreement" @click="cut.go(one.record)">
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
      <button class="control w-full" :disabled="live(cutting) || cut.shot?.clip.status !== 'ready'" @click="cutUp">Cut {{ cut.shot?.name }} up at its shot changes</button>
      <div v-if="live(cutting) && cutting" class="flex items-center gap-2">
        <ProgressBar class="flex-1" :done="cutting.done" :of="cutting.count" label="looking for shot changes" /><button class="text-dim hover:text-ink" @click="errands.cancel(cutting)">stop</button>
      </div>
    </section>
  </div>
</template>
