<script setup lang="ts">
import { computed } from 'vue'
import TimecodeField from '../cut/TimecodeField.vue'
import { clock } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import FrameField from './FrameField.vue'
import TransitionHands from './TransitionHands.vue'
import { useAssembly } from './useAssembly'

/** What hands do, by number and by button, with the shot somebody is at or those that are picked. */
const cut = useCut()
const assembly = useAssembly()
const shot = computed(() => cut.shot)
const first = computed(() => cut.shotIndex === 0)
const who = computed(() => (assembly.picked.length > 1 ? `${assembly.chosen.length} shots` : (shot.value?.name ?? '')))
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
    <TransitionHands :shot="shot" />
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
