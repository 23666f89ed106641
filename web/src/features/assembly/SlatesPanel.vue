<script setup lang="ts">
import { getJson, sendJson } from '@/api/client'
import type { Clip } from '@/api/media'
import { computed, onMounted, ref } from 'vue'
import { useCut } from '../cut/useCut'
import ChoiceList from '../shell/ChoiceList.vue'
import { useNotices } from '../shell/useNotices'
import { useAssembly } from './useAssembly'

/** What is missing, and what the open shot is linked to. */
const cut = useCut()
const assembly = useAssembly()
const notices = useNotices()
const clips = ref<Clip[]>([])
onMounted(async () => {
  clips.value = (await getJson<Clip[]>(`/projects/${cut.project?.id}/clips`).catch(() => [])).filter((clip) => clip.status === 'ready')
})
const groups = computed(() => [{ name: '', options: clips.value.map(({ id, path }) => ({ id: String(id), label: path })) }])
const slates = computed(() => {
  const found = new Map<number, { clip: Clip; shots: string[] }>()
  for (const { clip, name } of cut.shots) {
    if (clip.status !== 'missing') continue
    found.set(clip.id, { clip, shots: [...(found.get(clip.id)?.shots ?? []), name] })
  }
  return [...found.values()]
})

async function fill(slate: Clip, clip: string | null, from?: number) {
  if (!clip) return
  try {
    await sendJson('PUT', `/projects/${cut.project?.id}/slates/${slate.id}`, { clip: Number(clip), ...(from === undefined ? {} : { source_in: from }) })
    await cut.reload()
  } catch (error) {
    if (from === undefined) return fill(slate, clip, 0) // without its timecode: from the clip's first frame
    notices.trouble(error)
  }
}
</script>

<template>
  <div class="min-h-0 flex-1 space-y-4 overflow-y-auto p-3 text-xs" aria-label="links">
    <section v-if="cut.shot && cut.shot.clip.status !== 'black'" class="space-y-1">
      <h3 class="caption">{{ cut.shot.name }} shows</h3>
      <p class="truncate text-ink">{{ cut.shot.clip.path }}</p>
      <p class="text-dim">
        {{
          cut.shot.clip.status === 'missing'
            ? cut.shot.clip.reason
            : `${cut.shot.link ? `linked by ${cut.shot.link.replace(/^by /, '')}` : 'put in here'} · ${cut.shot.clip.width}×${cut.shot.clip.height}, ${cut.shot.clip.rate.replace('/1', '')} f/s`
        }}
      </p>
      <p v-if="cut.shot.clip.other_rate" class="text-weld">its rate is not the project's; it is taken {{ cut.shot.clip.pace === 'time' ? 'by time' : 'frame for frame' }} (Intake)</p>
      <p v-if="cut.shot.clip.other_shape" class="text-weld">another shape than the project's; it is {{ { inside: 'shown whole, with bars', fill: 'filled, edges cut off', stretch: 'stretched' }[cut.shot.clip.fit] }} (Intake)</p>
      <ChoiceList
        v-if="cut.shot.clip.status === 'ready'"
        label="link this shot to another clip"
        look="flat"
        :groups="groups"
        :model-value="null"
        @update:model-value="$event && assembly.hand('link', { shot: cut.shot.id, clip: Number($event) })"
        ><span class="text-dim hover:text-ink">link it to another clip, same timecode ▾</span></ChoiceList
      >
    </section>
    <ChoiceList label="put a clip in" look="field" :groups="groups" :model-value="null" @update:model-value="$event && assembly.insert(Number($event))">put a clip in before {{ cut.shot?.name }}…</ChoiceList>
    <section class="space-y-3 border-t border-line pt-3">
      <h3 class="caption">missing</h3>
      <p v-if="slates.length === 0" class="text-dim">Nothing is missing in this cut.</p>
      <div v-for="{ clip, shots } in slates" :key="clip.id" class="border-l-2 border-weld pl-2" :data-slate="clip.id">
        <p class="truncate text-ink">
          {{ clip.name }}<span v-if="clip.reel" class="text-faint"> reel {{ clip.reel }}</span>
        </p>
        <p class="text-dim">
          {{ clip.reason }}<template v-if="shots.length > 1">, {{ shots.length }} shots</template>
        </p>
        <ChoiceList :label="`what ${clip.name} is`" look="flat" :groups="groups" :model-value="null" @update:model-value="fill(clip, $event)"><span class="text-dim hover:text-ink">it is… ▾</span></ChoiceList>
      </div>
      <p v-if="slates.length" class="text-faint">Slates fill in by themselves when their footage is taken in.</p>
    </section>
  </div>
</template>
