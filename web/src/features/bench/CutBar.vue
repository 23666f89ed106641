<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { computed, ref } from 'vue'
import CutStart from './CutStart.vue'
import TimecodeField from '../cut/TimecodeField.vue'
import { clock, sourceClock } from '../cut/timecode'
import { useTimeView } from '../strip/useTimeView'

const props = defineProps<{
  shots: Shot[]
  frame: number
  length: number
  rate: number
  /** Timecode of the cut's first frame. */
  start: { text: string; frames: number; drop: boolean }
  playing: boolean
  looping: boolean
  shownRate: number
  dropped: number
  /** Pictures are being made as it plays. */
  making: boolean
  /** Frames the open step is keyed at. */
  keyed?: number[]
  /** A range that is played round. */
  marked: { first: number; count: number } | null
  /** Frames whose finished pictures are there, as first and count. */
  kept: [number, number][]
  rendering: { done: number; count: number } | null
  /** What playing waits for, in words. */
  waits?: string
  /** Pixels left free beside the bar, and whether the strip is there. */
  gutter?: number
  strip?: boolean
}>()
const emit = defineEmits<{ go: [frame: number]; play: []; loop: []; render: []; record: [text: string]; source: [text: string]; start: [text: string]; strip: [] }>()

const bar = ref<HTMLElement>()
const shot = computed(() => props.shots.find((one) => props.frame >= one.record_in && props.frame < one.record_in + one.length))
const record = computed(() => clock(props.start.frames + props.frame, props.rate, props.start.drop))
const source = computed(() => (shot.value ? sourceClock(shot.value, props.frame, props.rate) : ''))
/** Where in its shot it is, and while it plays without what is in the way of its rate. */
const place = computed(() => {
  if (!shot.value) return ''
  const at = `frame ${props.frame - shot.value.record_in + 1}`
  return props.playing ? at : `${shot.value.clip.reel ? `${shot.value.clip.reel} · ` : ''}${at} of ${shot.value.length}`
})
const shortRate = computed(() => Number(props.rate.toFixed(3)))
const view = useTimeView()
const share = (frames: number) => `${(frames / view.view.count) * 100}%`
const at = (frame: number) => `${view.at(frame)}%`
/** Shots that are seen of the cut. */
const seen = computed(() => props.shots.filter((one) => one.record_in < view.view.from + view.view.count && one.record_in + one.length > view.view.from))

function scrub(event: PointerEvent) {
  const bounds = bar.value?.getBoundingClientRect()
  if (!bounds || event.buttons !== 1) return
  emit('go', view.frameAt((event.clientX - bounds.left) / bounds.width) - 0.5)
}

function press(event: PointerEvent) {
  bar.value?.setPointerCapture(event.pointerId)
  scrub(event)
}
</script>

<template>
  <div class="@container border-t border-line bg-pane px-3 pt-1.5 pb-2.5">
    <div class="mb-1.5 flex items-center gap-3 overflow-hidden text-xs text-dim">
      <button class="w-12 shrink-0 border border-line bg-raise py-px text-center text-ink hover:border-faint" data-test="first-play" @mousedown.prevent @click="emit('play')">{{ playing ? 'stop' : 'play' }}</button>
      <TimecodeField :text="record" label="rec" about="timecode of the cut" @typed="emit('record', $event)"><CutStart :start="start" @set="emit('start', $event)" /></TimecodeField>
      <TimecodeField v-if="shot" class="@max-[520px]:hidden" label="src" :text="source" :about="`timecode of ${shot.clip.name}`" @typed="emit('source', $event)" />
      <span v-if="shot" class="min-w-0 truncate @max-[700px]:hidden" :title="`reel ${shot.clip.reel ?? 'none'}, shot ${shot.name}`">{{ place }}</span>
      <span v-if="playing" data-test="rate" :title="making ? 'pictures are shown as they are made; the next round keeps the rate' : ''" class="whitespace-nowrap" :class="dropped ? 'text-weld' : ''"
        >{{ shownRate }} of {{ shortRate }} f/s · {{ making ? 'first round' : `${dropped} dropped` }}</span
      >
      <span v-else class="whitespace-nowrap @max-[520px]:hidden">{{ shortRate }} f/s</span>
      <span v-if="waits" class="min-w-0 truncate text-weld" :title="waits" data-test="waits">{{ waits }}</span>
      <span class="flex-1" />
      <button class="whitespace-nowrap hover:text-ink" title="H: workers finish the looped stretch ahead of playing" data-test="render" @mousedown.prevent @click="emit('render')">
        {{ rendering ? `rendering ${rendering.done} of ${rendering.count} · stop` : 'render ahead' }}
      </button>
      <button v-if="view.mode === 'free'" class="whitespace-nowrap text-weld hover:text-ink" title="Shift L" @mousedown.prevent @click="view.mode = 'cut'">whole cut</button>
      <button class="whitespace-nowrap hover:text-ink" :class="strip ? 'text-ink' : ''" :aria-pressed="strip" title="Shift S: what changes over time" data-test="strip" @mousedown.prevent @click="emit('strip')">strip</button>
      <button class="whitespace-nowrap hover:text-ink" :class="looping ? 'text-ink' : ''" :aria-pressed="looping" @mousedown.prevent @click="emit('loop')">
        {{ marked ? `loop ${marked.count} ${marked.count === 1 ? 'frame' : 'frames'}` : looping ? 'loop shot' : 'loop cut' }}
      </button>
    </div>
    <div
      ref="bar"
      class="relative h-5 cursor-pointer touch-none overflow-x-clip"
      :style="{ marginLeft: `${gutter ?? 0}px` }"
      role="slider"
      aria-label="cut bar"
      tabindex="0"
      :aria-valuenow="frame"
      aria-valuemin="0"
      :aria-valuemax="length - 1"
      :aria-valuetext="`${record}, shot ${shot?.name ?? ''}`"
      @pointerdown="press"
      @pointermove="scrub"
      @wheel="view.wheel($event)"
      @keydown.left.prevent="emit('go', frame - 1)"
      @keydown.right.prevent="emit('go', frame + 1)"
    >
      <span
        v-for="one in seen"
        :key="one.id"
        class="absolute inset-y-0 overflow-hidden border-r border-ground px-1 pt-0.5 text-2xs whitespace-nowrap"
        :class="one.id === shot?.id ? 'bg-[#4c4c4c] text-ink' : 'bg-[#343434] text-dim'"
        :style="{ left: at(one.record_in), width: share(one.length) }"
      >
        <svg v-if="one.dissolve" class="absolute inset-y-0 left-0 h-full" :style="{ width: `${(one.dissolve / one.length) * 100}%` }" viewBox="0 0 10 10" preserveAspectRatio="none" :aria-label="`dissolve of ${one.dissolve} frames`">
          <path d="M0 0H10L0 10Z" fill="#232323" />
          <path d="M0 10L10 0" stroke="#9a9a9a" stroke-width="1" vector-effect="non-scaling-stroke" />
        </svg>
        <span class="relative" :style="{ marginLeft: one.dissolve ? `${(one.dissolve / one.length) * 100}%` : undefined, left: view.view.from > one.record_in ? share(view.view.from - one.record_in) : undefined }">{{ one.name }}</span>
        <i v-if="!one.clip.encoding" class="absolute inset-x-0 bottom-0 h-0.5 bg-madder" title="no encoding is assigned to its clip" />
      </span>
      <i v-for="[first, count] in kept" :key="first" class="pointer-events-none absolute -bottom-1 h-0.5 bg-woad" :style="{ left: at(first), width: share(count) }" title="plays from finished pictures" data-test="kept-span" />
      <i v-if="marked" class="pointer-events-none absolute -top-1 h-0.5 bg-ink" :style="{ left: at(marked.first), width: share(marked.count) }" title="marked range" data-test="marked" />
      <i v-for="keyAt in keyed" :key="keyAt" class="pointer-events-none absolute bottom-0 h-2 w-0.5 -translate-x-1/2 bg-weld" :style="{ left: at(keyAt + 0.5) }" title="a key of the open step" data-test="key" />
      <i class="pointer-events-none absolute -top-1 -bottom-1 w-px bg-weld" :style="{ left: at(frame + 0.5) }" />
    </div>
  </div>
</template>
