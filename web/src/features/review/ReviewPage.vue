<script setup lang="ts">
import type { NoteMark, ShotNote } from '@/api/review'
import { useStorage } from '@vueuse/core'
import { computed, ref, watch, watchEffect } from 'vue'
import { useRoute } from 'vue-router'
import { clock, rateOf } from '../cut/timecode'
import { useKeys } from '../shell/useKeys'
import MarkLayer from './MarkLayer.vue'
import NoteLines from './NoteLines.vue'
import { useReview } from './useReview'

/** For somebody who only looks: the picture, its time, and what is said about it. */
const review = useReview(String(useRoute().params.secret))
const canvas = ref<HTMLCanvasElement>()
const by = useStorage('mordant.by', '')
const words = ref('')
const answer = ref('')
const said = ref<string | null>(null)
const chosen = ref<number | null>(null)
const draws = ref<NoteMark['kind'] | null>(null)
const drawn = ref<NoteMark | null>(null)
const KINDS: { id: NoteMark['kind']; label: string }[] = [
  { id: 'point', label: 'mark a place' },
  { id: 'box', label: 'an area' },
  { id: 'line', label: 'a pointer' },
]

const sheet = computed(() => review.sheet.value)
const time = computed(() => (sheet.value ? clock(sheet.value.start_frames + review.frame.value, rateOf(sheet.value.rate), sheet.value.drop) : ''))
const shotAt = (frame: number) => sheet.value?.shots.filter((shot) => shot.first <= frame).at(-1)?.name ?? ''
const marks = computed(() => (sheet.value?.notes ?? []).filter((note) => note.mark && note.frame === review.frame.value).map((note) => ({ mark: note.mark as NoteMark, strong: note.id === chosen.value })))
const share = (frame: number) => (sheet.value ? `${((frame - sheet.value.first) / Math.max(1, sheet.value.count - 1)) * 100}%` : '0')

watchEffect(() => {
  const [on, bitmap] = [canvas.value, review.bitmap.value]
  if (!on || !bitmap) return
  if (on.width !== bitmap.width || on.height !== bitmap.height) Object.assign(on, { width: bitmap.width, height: bitmap.height })
  on.getContext('2d')?.drawImage(bitmap, 0, 0)
})
watch(review.frame, () => (drawn.value = null))

function choose(note: ShotNote) {
  chosen.value = chosen.value === note.id ? null : note.id
  review.go(note.frame)
}
async function attempt(work: () => Promise<unknown>) {
  said.value = null
  try {
    await work()
  } catch (error) {
    said.value = error instanceof Error ? error.message : String(error)
  }
}
const leave = () =>
  attempt(async () => {
    await review.leave({ words: words.value, by: by.value, mark: drawn.value })
    words.value = ''
    drawn.value = draws.value = null
  })
const say = (note: ShotNote) => attempt(async () => (await review.leave({ words: answer.value, by: by.value, answers: note.id }), (answer.value = '')))
const scrub = (event: PointerEvent) => {
  const bar = event.currentTarget as HTMLElement
  if (event.type === 'pointerdown') bar.setPointerCapture(event.pointerId)
  if (!sheet.value || !bar.hasPointerCapture(event.pointerId)) return
  const box = bar.getBoundingClientRect()
  review.go(sheet.value.first + Math.round(((event.clientX - box.left) / box.width) * (sheet.value.count - 1)))
}

useKeys('playing', [
  { key: 'space', words: 'play, stop', press: review.toggle },
  { key: 'arrowleft', words: 'one frame back', press: () => review.go(review.frame.value - 1) },
  { key: 'arrowright', words: 'one frame on', press: () => review.go(review.frame.value + 1) },
])
</script>

<template>
  <div v-if="sheet" class="grid h-full grid-cols-[minmax(0,1fr)_320px] grid-rows-[34px_minmax(0,1fr)]">
    <header class="col-span-2 flex items-center gap-3 border-b border-line px-3 text-xs text-dim">
      <img src="/mark.svg" alt="" class="size-4" /><b class="text-sm font-semibold text-ink">{{ sheet.cut }}</b
      ><span>{{ sheet.name }}</span>
      <span class="flex-1" />
      <span v-if="review.ready.value < sheet.count" data-test="rendering">{{ review.ready.value }} of {{ sheet.count }} frames are ready</span>
    </header>
    <section class="flex min-h-0 min-w-0 flex-col" aria-label="picture">
      <div class="flex min-h-0 flex-1 items-center justify-center p-3">
        <div class="relative max-h-full" :style="{ aspectRatio: `${sheet.width} / ${sheet.height}`, width: `min(100%, (100vh - 150px) * ${sheet.width / sheet.height})` }">
          <canvas ref="canvas" class="h-full w-full bg-black" :data-frame="review.frame.value" />
          <MarkLayer v-model:drawn="drawn" :marks="marks" :draws="review.playing.value ? null : draws" />
        </div>
      </div>
      <div class="px-3 pb-2">
        <div
          class="relative h-5 cursor-pointer touch-none"
          role="slider"
          aria-label="time"
          tabindex="0"
          :aria-valuemin="sheet.first"
          :aria-valuemax="sheet.first + sheet.count - 1"
          :aria-valuenow="review.frame.value"
          :aria-valuetext="time"
          @pointerdown="scrub"
          @pointermove="scrub"
        >
          <i class="absolute inset-x-0 top-2 h-1 bg-line" />
          <i v-for="shot in sheet.shots" :key="shot.first" class="absolute top-1 h-3 w-px bg-faint" :style="{ left: share(Math.max(shot.first, sheet.first)) }" />
          <i v-for="note in sheet.notes" :key="note.id" class="absolute top-0 size-1.5 -translate-x-1/2 rotate-45" :class="note.closed ? 'bg-faint' : 'bg-weld'" :style="{ left: share(note.frame) }" :title="note.words" />
          <i class="absolute top-0 h-5 w-0.5 -translate-x-1/2 bg-ink" :style="{ left: share(review.frame.value) }" />
        </div>
        <div class="mt-1 flex items-center gap-3 text-sm">
          <button class="control w-16" @click="review.toggle">{{ review.playing.value ? 'stop' : 'play' }}</button>
          <span class="tabular-nums" data-test="time">{{ time }}</span><span class="text-dim">{{ shotAt(review.frame.value) }}</span>
          <span v-if="review.failed.value" role="alert" class="truncate text-madder">{{ review.failed.value }}</span>
        </div>
      </div>
    </section>
    <aside class="flex min-h-0 flex-col border-l border-line bg-pane" aria-label="notes">
      <NoteLines v-slot="{ note }" :notes="sheet.notes" :chosen="chosen" :name-of="(note) => shotAt(note.frame)" @choose="choose">
        <form class="flex gap-1" @submit.prevent="say(note)">
          <input v-model="answer" class="field min-w-0 flex-1" placeholder="answer" :aria-label="`answer to ${note.by}`" maxlength="2000" />
          <button class="control" :disabled="!answer.trim() || !by.trim()">answer</button>
        </form>
      </NoteLines>
      <form class="border-t border-line px-3 py-3" aria-label="note at this frame" @submit.prevent="leave">
        <p class="text-xs text-dim">At {{ time }}, {{ shotAt(review.frame.value) }}</p>
        <textarea v-model="words" rows="3" class="field mt-1 w-full resize-none" placeholder="what you see" aria-label="the note" maxlength="2000" @focus="review.playing.value && review.toggle()" />
        <div class="mt-1 flex gap-2 text-xs text-dim">
          <button v-for="kind in KINDS" :key="kind.id" type="button" class="border px-1" :class="draws === kind.id ? 'border-weld text-ink' : 'border-line hover:text-ink'" @click="draws = draws === kind.id ? null : kind.id">
            {{ kind.label }}
          </button>
          <button v-if="drawn" type="button" class="hover:text-ink" @click="drawn = null">no mark</button>
        </div>
        <div class="mt-2 flex gap-2">
          <input v-model="by" class="field min-w-0 flex-1" placeholder="your name" aria-label="your name" maxlength="60" />
          <button class="control-main" :disabled="!words.trim() || !by.trim()">Leave note</button>
        </div>
        <p v-if="said" role="alert" class="mt-2 text-xs text-madder">{{ said }}</p>
      </form>
    </aside>
  </div>
  <div v-else class="flex h-full items-center justify-center text-dim">{{ review.failed.value ?? 'opening…' }}</div>
</template>
