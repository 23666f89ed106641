<script setup lang="ts">
import type { Shot } from '@/api/cut'
import type { Project } from '@/api/project'
import { computed } from 'vue'
import { edgePicture } from '../cut/smallPicture'
import { clock, sourceClock } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import LatestPicture from './LatestPicture.vue'
import type { Pull } from './strip'
import { useAssembly } from './useAssembly'

/** The last frame before the edit and the first after it, as they will be when a hand lets go. */
defineProps<{ project: Project }>()
const cut = useCut()
const assembly = useAssembly()

interface Side {
  shot: Shot
  /** Frames from the shot's first one. */
  offset: number
  slip: number
}

const pulling = computed<Exclude<Pull, { kind: 'move' }> | null>(() => (assembly.pull && assembly.pull.kind !== 'move' ? assembly.pull : null))
/** The two shots of the edit that is looked at. */
const pair = computed<[Shot | undefined, Shot | undefined]>(() => {
  const at = cut.shotIndex
  return assembly.end === 'head' ? [cut.shots[at - 1], cut.shots[at]] : [cut.shots[at], cut.shots[at + 1]]
})

function by(shot: Shot, kind: 'head' | 'tail'): number {
  const pull = pulling.value
  if (!pull) return 0
  if (pull.kind === 'roll') return (kind === 'head' && pull.shot === shot.id) || (kind === 'tail' && pair.value[1]?.id === pull.shot) ? pull.by : 0
  return pull.kind === kind && pull.shot === shot.id ? pull.by : 0
}
const slip = (shot: Shot) => (pulling.value?.kind === 'slip' && pulling.value.shot === shot.id ? pulling.value.by : 0)

const before = computed<Side | null>(() => {
  const shot = pair.value[0]
  return shot ? { shot, offset: shot.length - 1 + by(shot, 'tail'), slip: slip(shot) } : null
})
const after = computed<Side | null>(() => {
  const shot = pair.value[1]
  return shot ? { shot, offset: by(shot, 'head'), slip: slip(shot) } : null
})
const sides = computed(() => [
  { name: 'before the edit', side: before.value },
  { name: 'after the edit', side: after.value },
])
/** Slates, black and what stands still have handles without end. */
const counted = (shot: Shot) => shot.clip.status === 'ready' && shot.speed !== 0
const source = (side: Side) => sourceClock(side.shot, side.shot.record_in + side.offset, cut.rate)
const edit = computed(() => (after.value ? clock(cut.start.frames + after.value.shot.record_in, cut.rate, cut.start.drop) : ''))
const words = computed(() => {
  const pull = pulling.value
  if (!pull) return ''
  const frames = `${pull.by > 0 ? '+' : ''}${pull.by}`
  return { head: `front ${frames}`, tail: `end ${frames}`, roll: `edit ${frames}`, slip: `slipped ${frames}` }[pull.kind]
})
const handles = computed(() => {
  const shot = after.value?.shot
  if (!shot) return ''
  return shot.dissolve ? `${shot.wipe ? `wipe ${shot.wipe}` : shot.crossover ? 'crossover' : 'dissolve'}, ${shot.dissolve} frames` : 'cut'
})
</script>

<template>
  <div class="grid min-h-0 grid-cols-[minmax(0,1fr)_96px_minmax(0,1fr)] items-stretch gap-0 bg-ground" role="group" aria-label="both sides of the edit">
    <template v-for="(one, index) in sides" :key="one.name">
      <figure class="flex min-h-0 min-w-0 flex-col" :class="index === 0 ? 'order-1' : 'order-3'" :data-test="index === 0 ? 'side-before' : 'side-after'">
        <div class="relative min-h-0 flex-1">
          <LatestPicture v-if="one.side" :src="edgePicture(project, one.side.shot, one.side.offset, one.side.slip)" :alt="`shot ${one.side.shot.name}, ${one.name}`" />
          <p v-else class="flex h-full items-center justify-center text-dim">{{ index === 0 ? 'the cut begins here' : 'the cut ends here' }}</p>
        </div>
        <figcaption class="flex gap-2 px-2 py-1 text-xs text-dim" :class="index === 0 ? 'justify-end' : ''">
          <template v-if="one.side"
            ><b class="truncate font-medium text-ink">{{ one.side.shot.name }}</b
            ><span class="whitespace-nowrap">{{ source(one.side) }}</span
            ><span class="truncate">{{ one.side.shot.clip.name }}</span></template
          >
        </figcaption>
      </figure>
    </template>
    <div class="order-2 flex flex-col items-center justify-center gap-1 border-x border-line text-center text-xs text-dim">
      <span class="text-2xs text-faint">edit</span><span class="text-ink">{{ edit }}</span
      ><span>{{ handles }}</span>
      <span v-if="before" title="frames of handle after the shot before">{{ counted(before.shot) ? `${before.shot.tail} ⟩` : '' }}</span>
      <span v-if="after" title="frames of handle before the shot after">{{ counted(after.shot) ? `⟨ ${after.shot.head}` : '' }}</span>
      <b class="h-4 font-medium text-weld" data-test="pulled">{{ words }}</b>
    </div>
  </div>
</template>
