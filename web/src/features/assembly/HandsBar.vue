<script setup lang="ts">
import { computed } from 'vue'
import TimecodeField from '../cut/TimecodeField.vue'
import { clock } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import ChoiceList from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'
import FrameField from './FrameField.vue'
import { useAssembly } from './useAssembly'

/** What hands do, by number and by button, with the shot somebody is at or those that are picked. */
const cut = useCut()
const assembly = useAssembly()
const shot = computed(() => cut.shot)
const first = computed(() => cut.shotIndex === 0)
const who = computed(() => (assembly.picked.length > 1 ? `${assembly.chosen.length} shots` : (shot.value?.name ?? '')))
const kind = computed(() => (shot.value?.dissolve ? (shot.value.wipe ? String(shot.value.wipe) : 'dissolve') : 'cut'))
const catalogue = useCatalogue()
const kinds = computed(() => [{ name: '', options: [{ id: 'cut', label: 'cut' }, { id: 'dissolve', label: 'dissolve' }] }, { name: 'wipe', options: (catalogue.catalogue?.wipes ?? []).map(({ number, label }) => ({ id: String(number), label: `${number} ${label}` })) }])
const USUAL = 12 // frames of a transition that is new

function change(to: string | null) {
  if (!shot.value || to === null) return
  assembly.transition(shot.value, to === 'cut' ? 0 : shot.value.dissolve || USUAL, Number(to) || null)
}
const button = 'hover:text-ink disabled:text-faint'
</script>

<template>
  <div v-if="shot" class="flex flex-wrap items-center gap-x-3 gap-y-1 bg-pane px-3 py-1.5 text-xs text-dim" role="group" aria-label="hands">
    <TimecodeField :text="clock(cut.start.frames + cut.frame, cut.rate, cut.start.drop)" label="rec" about="timecode of the cut" @typed="cut.goTo({ record: $event })" />
    <b class="max-w-40 truncate font-medium text-ink" data-test="who">{{ who }}</b>
    <FrameField label="no." :value="cut.shotIndex + 1" about="its place in the cut; another one moves it there" @set="assembly.moveTo($event)" />
    <FrameField label="front" :value="0" by about="frames off its front, below 0 on to it" @set="assembly.trim(shot, 'head', $event)" />
    <FrameField label="end" :value="0" by about="frames on to its end, below 0 off it" @set="assembly.trim(shot, 'tail', -$event)" />
    <FrameField v-if="!first" label="edit" :value="0" by about="the edit before it by so many frames; the shots beside it give and take" @set="assembly.roll(shot, $event)" />
    <FrameField label="source in" :value="shot.source_in" about="frame of the clip that its first one shows; another one slips it" @set="assembly.slip(shot, $event - shot.source_in)" />
    <FrameField label="length" :value="shot.length" suffix="f" about="frames; taken or given at its end" @set="assembly.length(shot, $event)" />
    <FrameField label="speed" :value="Number((shot.speed * 100).toFixed(2))" suffix="%" :step="5" about="100: as shot, below 0 backwards, 0 stands still" @set="assembly.speed(shot, $event / 100)" />
    <span class="flex items-center gap-1.5">
      <ChoiceList label="how the shot begins" look="flat" opens="up" :groups="kinds" :model-value="kind" :disabled="first" @update:model-value="change">{{ shot.wipe ? `wipe ${shot.wipe}` : kind }} ▾</ChoiceList>
      <FrameField v-if="shot.dissolve" label="over" :value="shot.dissolve" suffix="f" about="frames of the transition, all after the edit" @set="assembly.transition(shot, $event, shot.wipe)" />
    </span>
    <span class="flex items-center gap-3">
      <button :class="button" title="S: two shots of the same grade, at this frame" @click="assembly.split()">split</button>
      <button :class="button" title="U: with the next shot, where it goes on with the next frame" @click="assembly.join()">join</button>
      <button :class="button" title="Shift Q" @click="assembly.step(-1)">‹ move</button>
      <button :class="button" title="Shift E" @click="assembly.step(1)">move ›</button>
      <button :class="button" title="Delete: what follows moves up; its grade stays in the attic" @click="assembly.remove()">take out</button>
      <button :class="button" title="Shift Delete: black in its place, so that all else stays where it is" @click="assembly.remove(true)">leave black</button>
    </span>
  </div>
</template>
