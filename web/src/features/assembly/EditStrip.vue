<script setup lang="ts">
import type { Shot } from '@/api/cut'
import type { Project } from '@/api/project'
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { smallPictureOf } from '../cut/smallPicture'
import { useCut } from '../cut/useCut'
import { dropBefore, held, pulled, shown, type Block, type Pull } from './strip'
import { useAssembly } from './useAssembly'

/** Shots in proportion. Only what can be seen is there. */
defineProps<{ project: Project }>()
const cut = useCut()
const assembly = useAssembly()
const box = ref<HTMLElement>()
const { width } = useElementSize(box)

const CLOSEST = 12 // pixels of a frame
const PICTURED = 60 // pixels of a shot that has room for its picture
const GRIP = 6 // pixels of an end
const THRESHOLD = 4 // pixels before a press is a pull

const MOST_SEEN = 150 // shots; of a longer cut the strip shows a part

const zoom = ref(1) // 1: the whole cut, or as much of it as can be told apart
const left = ref(0) // pixels
const whole = computed(() => width.value / Math.max(1, cut.length * Math.min(1, MOST_SEEN / Math.max(1, cut.shots.length))))
const scale = computed(() => Math.min(CLOSEST, whole.value * zoom.value))
const blocks = computed(() => pulled(cut.shots, assembly.pull))
const seen = computed(() => shown(blocks.value, left.value / scale.value, (left.value + width.value) / scale.value))
const x = (frames: number) => frames * scale.value - left.value
const end = computed(() => (blocks.value.at(-1)?.first ?? 0) + (blocks.value.at(-1)?.length ?? 0))

function scrollTo(to: number) {
  left.value = Math.max(0, Math.min(to, Math.max(0, cut.length * scale.value - width.value)))
}
/** Closer or further, with what is under the pointer, or the playhead, where it is. */
function magnify(times: number, at = x(cut.frame)) {
  const frame = (left.value + at) / scale.value
  zoom.value = Math.max(1, Math.min(CLOSEST / whole.value, zoom.value * times))
  scrollTo(frame * scale.value - at)
}
function wheel(event: WheelEvent) {
  if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) return scrollTo(left.value + (event.deltaX || event.deltaY))
  magnify(event.deltaY < 0 ? 1.25 : 0.8, event.clientX - (box.value?.getBoundingClientRect().left ?? 0))
}
defineExpose({ magnify, fit: () => ((zoom.value = 1), scrollTo(0)) })

watch([() => cut.frame, width], () => {
  const at = x(cut.frame)
  if (at < 0 || at > width.value) scrollTo(cut.frame * scale.value - width.value / 3)
})

/** What a press on a shot takes hold of. */
function grip(block: Block, event: PointerEvent): Pull {
  const within = (box.value ? event.clientX - box.value.getBoundingClientRect().left : 0) - x(block.first)
  const size = block.length * scale.value
  const edge = Math.min(GRIP, size / 4)
  const id = block.shot.id
  if (event.altKey) return { kind: 'slip', shot: id, by: 0 }
  if (within < edge) return { kind: event.shiftKey ? 'roll' : 'head', shot: id, by: 0 }
  const next = cut.shots[cut.indexOf(block.shot) + 1]
  if (within > size - edge) return event.shiftKey && next ? { kind: 'roll', shot: next.id, by: 0 } : { kind: 'tail', shot: id, by: 0 }
  return { kind: 'move', shot: id, before: null }
}

function press(block: Block, event: PointerEvent) {
  if (event.button !== 0) return
  if (event.ctrlKey || event.metaKey) return void assembly.pick(block.shot.id)
  const from = event.clientX
  const taken = grip(block, event)
  let pulling = false
  open(block.shot, taken)
  const target = event.currentTarget as HTMLElement
  target.setPointerCapture(event.pointerId)
  const drag = (now: PointerEvent) => {
    if (!pulling && Math.abs(now.clientX - from) < THRESHOLD) return
    pulling = true
    assembly.pull = moved(taken, now.clientX - from, now.clientX)
  }
  const drop = () => {
    target.removeEventListener('pointermove', drag)
    if (pulling) void assembly.release()
    else assembly.pull = null
  }
  target.addEventListener('pointermove', drag)
  target.addEventListener('pointerup', drop, { once: true })
  target.addEventListener('pointercancel', () => ((assembly.pull = null), target.removeEventListener('pointermove', drag)), { once: true })
}

function open(shot: Shot, taken: Pull) {
  assembly.picked = []
  if (taken.kind === 'head' || taken.kind === 'tail') assembly.end = taken.kind
  else if (taken.kind === 'roll') assembly.end = taken.shot === shot.id ? 'head' : 'tail'
  cut.go(assembly.end === 'tail' && taken.kind !== 'move' ? shot.record_in + shot.length - 1 : shot.record_in)
}

function moved(taken: Pull, pixels: number, clientX: number): Pull {
  const frames = Math.round(pixels / scale.value)
  if (taken.kind !== 'move') return held(cut.shots, { ...taken, by: taken.kind === 'slip' ? -frames : frames })
  const at = (clientX - (box.value?.getBoundingClientRect().left ?? 0) + left.value) / scale.value
  return { ...taken, before: dropBefore(blocks.value, at) }
}

const dropAt = computed(() => {
  const pull = assembly.pull
  if (pull?.kind !== 'move') return null
  return pull.before === null ? end.value : (blocks.value.find((block) => block.shot.id === pull.before)?.first ?? null)
})
const open_ = computed(() => blocks.value.find((block) => block.shot.id === cut.shot?.id))
const look = (shot: Shot) => {
  if (shot.clip.status === 'black') return 'bg-black text-faint'
  if (shot.clip.status === 'missing') return 'strip-slate text-weld'
  return shot.id === cut.shot?.id ? 'bg-[#4a4a4a] text-ink' : 'bg-[#333] text-dim'
}
function scrub(event: PointerEvent) {
  if (event.buttons === 1) cut.go((event.clientX - (box.value?.getBoundingClientRect().left ?? 0) + left.value) / scale.value - 0.5)
}
</script>

<template>
  <div ref="box" class="relative h-[106px] overflow-hidden border-y border-line bg-ground" role="group" aria-label="strip of shots" @wheel.prevent="wheel">
    <div class="absolute inset-x-0 top-0 h-4 cursor-pointer touch-none border-b border-line" data-test="strip-scrub" @pointerdown="scrub" @pointermove="scrub" />
    <div
      v-for="block in seen"
      :key="block.shot.id"
      class="absolute top-5 h-[70px] touch-none overflow-hidden border-r border-ground"
      :class="[
        look(block.shot),
        assembly.picked.includes(block.shot.id) ? 'outline-1 -outline-offset-1 outline-dashed outline-ink' : block.shot.id === cut.shot?.id ? 'outline-1 -outline-offset-1 outline-weld' : '',
        assembly.pull?.kind === 'move' && assembly.pull.shot === block.shot.id ? 'opacity-50' : '',
      ]"
      :style="{ left: `${x(block.first)}px`, width: `${block.length * scale}px` }"
      :data-strip="block.shot.id"
      @pointerdown="press(block, $event)"
    >
      <img
        v-if="block.length * scale > PICTURED && block.shot.clip.status !== 'black'"
        :src="smallPictureOf(project, block.shot)"
        alt=""
        class="pointer-events-none absolute bottom-0 left-0 h-[50px] w-[89px] object-cover"
        loading="lazy"
        draggable="false"
      />
      <svg
        v-if="block.shot.dissolve"
        class="pointer-events-none absolute inset-y-0 left-0 h-full"
        :style="{ width: `${block.shot.dissolve * scale}px` }"
        viewBox="0 0 10 10"
        preserveAspectRatio="none"
        :aria-label="`${block.shot.wipe ? 'wipe' : 'dissolve'} of ${block.shot.dissolve} frames`"
      >
        <path :d="block.shot.wipe ? 'M0 0H5V10H0Z' : 'M0 0H10L0 10Z'" fill="#161616b0" />
        <path :d="block.shot.wipe ? 'M5 0V10' : 'M0 10L10 0'" stroke="#b8b8b8" vector-effect="non-scaling-stroke" />
      </svg>
      <span class="pointer-events-none absolute top-0.5 left-1 text-2xs whitespace-nowrap"
        >{{ block.shot.name }}<template v-if="block.shot.speed !== 1"> · {{ Math.round(block.shot.speed * 100) }} %</template></span
      >
      <i
        class="absolute inset-y-0 left-0 cursor-col-resize"
        :style="{ width: `${Math.min(GRIP, (block.length * scale) / 4)}px` }"
        :class="block.shot.id === cut.shot?.id && assembly.end === 'head' ? 'bg-weld/60' : 'hover:bg-weld/30'"
        data-end="head"
      />
      <i
        class="absolute inset-y-0 right-0 cursor-col-resize"
        :style="{ width: `${Math.min(GRIP, (block.length * scale) / 4)}px` }"
        :class="block.shot.id === cut.shot?.id && assembly.end === 'tail' ? 'bg-weld/60' : 'hover:bg-weld/30'"
        data-end="tail"
      />
    </div>
    <template v-if="open_ && open_.shot.clip.status === 'ready' && open_.shot.speed !== 0">
      <i class="absolute top-[94px] h-1 bg-walnut" :style="{ left: `${x(open_.first - open_.shot.head)}px`, width: `${open_.shot.head * scale}px` }" :title="`${open_.shot.head} frames of handle before`" data-test="handle-head" />
      <i class="absolute top-[94px] h-1 bg-ink/60" :style="{ left: `${x(open_.first)}px`, width: `${open_.length * scale}px` }" />
      <i class="absolute top-[94px] h-1 bg-walnut" :style="{ left: `${x(open_.first + open_.length)}px`, width: `${open_.shot.tail * scale}px` }" :title="`${open_.shot.tail} frames of handle after`" data-test="handle-tail" />
    </template>
    <i v-if="dropAt !== null" class="pointer-events-none absolute top-5 h-[70px] w-0.5 bg-ink" :style="{ left: `${x(dropAt)}px` }" />
    <i class="pointer-events-none absolute inset-y-0 w-px bg-weld" :style="{ left: `${x(cut.frame + 0.5)}px` }" />
    <div v-if="cut.length * scale > width + 1" class="absolute inset-x-0 bottom-0 h-2 bg-pane" @pointerdown="scrollTo(($event.offsetX / width) * cut.length * scale - width / 2)">
      <i class="pointer-events-none absolute inset-y-0 bg-line" :style="{ left: `${(left / (cut.length * scale)) * 100}%`, width: `${(width / (cut.length * scale)) * 100}%` }" />
    </div>
  </div>
</template>

<style scoped>
.strip-slate {
  background: repeating-linear-gradient(-45deg, #2c2a24 0 6px, #38342a 6px 12px);
}
</style>
