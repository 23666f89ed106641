<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { clock, sourceClock } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import MiddleCut from '../shell/MiddleCut.vue'
import { useAssembly } from './useAssembly'

/** Every shot as a row. Only the rows that can be seen are there. */
const cut = useCut()
const assembly = useAssembly()
const ROW = 22 // pixels
const COLUMNS = 'grid-cols-[28px_minmax(50px,1fr)_minmax(80px,1.4fr)_minmax(98px,1fr)_154px_74px_42px_44px_76px_52px]'
const list = ref<HTMLElement>()
const { height } = useElementSize(list)
const scroll = ref(0)
let anchor = 0

const first = computed(() => Math.max(0, Math.floor(scroll.value / ROW) - 2))
const rows = computed(() => cut.shots.slice(first.value, first.value + Math.ceil(height.value / ROW) + 4))

watch([() => cut.shotIndex, height], async ([index]) => {
  await nextTick()
  const box = list.value
  if (!box || index < 0) return
  if (index * ROW < box.scrollTop) box.scrollTop = index * ROW
  else if ((index + 1) * ROW > box.scrollTop + box.clientHeight) box.scrollTop = (index + 1) * ROW - box.clientHeight
})

function click(shot: Shot, event: MouseEvent) {
  const at = cut.indexOf(shot)
  if (event.shiftKey) assembly.picked = cut.shots.slice(Math.min(anchor, at), Math.max(anchor, at) + 1).map(({ id }) => id)
  else if (event.ctrlKey || event.metaKey) assembly.pick(shot.id)
  else {
    assembly.picked = []
    assembly.end = 'head'
    cut.go(shot.record_in)
  }
  if (!event.shiftKey) anchor = at
}

const source = (shot: Shot) => (shot.clip.status === 'black' ? '' : `${sourceClock(shot, shot.record_in, cut.rate)} – ${sourceClock(shot, shot.record_in + shot.length - 1, cut.rate)}`)
const begins = (shot: Shot) => (shot.dissolve ? (shot.crossover ? `crossover ${shot.dissolve} f` : shot.wipe ? `wipe ${shot.wipe}, ${shot.dissolve} f` : `dissolve ${shot.dissolve} f`) : 'cut')
/** What stands still has no end of them. */
const handles = (shot: Shot) => (shot.clip.status !== 'ready' || shot.speed === 0 ? '' : `${shot.head} · ${shot.tail}`)
const link = (shot: Shot) => (shot.clip.status === 'missing' ? 'missing' : shot.clip.status === 'black' ? '' : (shot.link ?? 'put in'))
</script>

<template>
  <div class="flex min-h-0 min-w-0 flex-col text-xs" role="table" aria-label="shots of the cut">
    <div class="grid gap-x-2 border-b border-line px-3 py-1 text-2xs text-faint" :class="COLUMNS" role="row">
      <span class="text-right">no.</span><span>shot</span><span>clip</span><span title="the rule by which it was linked">linked by</span><span>source</span><span>record in</span><span class="text-right">length</span
      ><span class="text-right">speed</span><span>begins with</span><span class="text-right" title="frames of the clip before and after">handles</span>
    </div>
    <div ref="list" class="min-h-0 flex-1 overflow-y-auto" @scroll.passive="scroll = ($event.target as HTMLElement).scrollTop">
      <div class="relative" :style="{ height: `${cut.shots.length * ROW}px` }">
        <div
          v-for="(shot, index) in rows"
          :key="shot.id"
          class="absolute inset-x-0 grid cursor-default items-center gap-x-2 px-3"
          :class="[COLUMNS, shot.id === cut.shot?.id ? 'bg-raise text-ink' : 'text-dim hover:bg-raise/60', assembly.picked.includes(shot.id) ? 'outline-1 -outline-offset-1 outline-dashed outline-dim' : '']"
          :style="{ top: `${(first + index) * ROW}px`, height: `${ROW}px` }"
          role="row"
          :aria-selected="shot.id === cut.shot?.id"
          :data-row="shot.id"
          @mousedown.prevent
          @click="click(shot, $event)"
        >
          <span class="text-right text-faint">{{ first + index + 1 }}</span>
          <span class="truncate text-ink">{{ shot.name }}</span>
          <MiddleCut :text="shot.clip.name" :class="shot.clip.status === 'missing' ? 'text-weld' : ''" />
          <span class="truncate" :class="shot.clip.status === 'missing' ? 'text-weld' : ''">{{ link(shot) }}</span>
          <span class="truncate">{{ source(shot) }}</span>
          <span>{{ clock(cut.start.frames + shot.record_in, cut.rate, cut.start.drop) }}</span>
          <span class="text-right">{{ shot.length }}</span>
          <span class="text-right" :class="shot.speed === 1 ? 'text-faint' : ''">{{ Math.round(shot.speed * 100) }} %</span>
          <span class="truncate" :class="shot.dissolve ? '' : 'text-faint'">{{ begins(shot) }}</span>
          <span class="text-right">{{ handles(shot) }}</span>
        </div>
      </div>
    </div>
  </div>
</template>
