<script setup lang="ts">
import type { NoteMark, ShotNote } from '@/api/review'
import { ref } from 'vue'
import { useCut } from '../cut/useCut'
import ReviewLinks from './ReviewLinks.vue'
import NoteLines from './NoteLines.vue'
import { useNotes } from './useNotes'

/** What others say about the shots, beside them. */
defineProps<{ marked: { first: number; count: number } | null }>()
const cut = useCut()
const notes = useNotes()
const words = ref('')
const answer = ref('')
const closed = ref(false)
const KINDS: { id: NoteMark['kind']; label: string }[] = [
  { id: 'point', label: 'place' },
  { id: 'box', label: 'area' },
  { id: 'line', label: 'pointer' },
]
const nameOf = (note: ShotNote) => cut.shots.find((shot) => shot.id === note.shot)?.name ?? 'shot that has gone'

async function leave() {
  await notes.leave(words.value)
  words.value = ''
}
async function say(note: ShotNote) {
  if (answer.value.trim()) await notes.answer(note, answer.value)
  answer.value = ''
}
</script>

<template>
  <aside class="flex min-h-0 flex-col border-r border-line bg-pane" aria-label="notes of this cut">
    <header class="flex items-center justify-between px-3 pt-2 pb-1.5">
      <h2 class="text-sm font-semibold">
        Notes <span class="font-normal text-dim">{{ notes.open.length }} open</span>
      </h2>
      <label class="flex items-center gap-1 text-2xs text-dim"><input v-model="closed" type="checkbox" class="accent-weld" />closed too</label>
    </header>
    <NoteLines v-slot="{ note }" :notes="closed ? notes.notes : notes.open" :chosen="notes.chosen" :name-of="nameOf" @choose="notes.choose">
      <form class="flex gap-1" @submit.prevent="say(note)">
        <input v-model="answer" class="field min-w-0 flex-1" placeholder="answer" :aria-label="`answer to ${note.by}`" maxlength="2000" />
        <button class="control" type="button" @click="notes.close(note)">{{ note.closed ? 'open' : 'close' }}</button>
      </form>
    </NoteLines>
    <p v-if="notes.notes.length === 0" class="px-3 py-2 text-xs text-dim">No notes yet. Leave a note at this frame, or send somebody a link to look.</p>
    <form class="border-t border-line px-3 py-2" aria-label="note at this frame" @submit.prevent="leave">
      <textarea v-model="words" rows="2" class="field w-full resize-none" placeholder="a note at this frame" aria-label="the note" maxlength="2000" />
      <div class="mt-1 flex items-center gap-2 text-2xs text-dim">
        <button
          v-for="kind in KINDS"
          :key="kind.id"
          type="button"
          class="border px-1"
          :class="notes.draws === kind.id ? 'border-weld text-ink' : 'border-transparent'"
          :title="`mark a ${kind.label} in the picture`"
          @click="notes.draws = notes.draws === kind.id ? null : kind.id"
        >
          {{ kind.label }}
        </button>
        <button v-if="notes.drawn" type="button" @click="notes.drawn = null">no mark</button>
        <span class="flex-1" />
        <button class="control px-2 py-0.5 text-xs" :disabled="!words.trim()">add</button>
      </div>
    </form>
    <ReviewLinks :marked="marked" />
  </aside>
</template>
