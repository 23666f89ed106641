<script setup lang="ts">
import type { ShotNote } from '@/api/review'
import { shortTime } from '../people/words'

/** Notes one under another, with what was answered. */
defineProps<{ notes: ShotNote[]; chosen: number | null; nameOf: (note: ShotNote) => string }>()
defineEmits<{ choose: [note: ShotNote] }>()
</script>

<template>
  <ul class="min-h-0 flex-1 overflow-y-auto" aria-label="notes">
    <li v-for="note in notes" :key="note.id" class="border-b border-line" :class="note.id === chosen ? 'bg-raise' : ''" :data-note="note.id">
      <button class="block w-full px-3 py-2 text-left" @click="$emit('choose', note)">
        <span class="flex justify-between gap-2 text-2xs text-dim"
          ><span class="truncate">{{ note.timecode }} · {{ nameOf(note) }}</span
          ><span>{{ shortTime(note.at) }}</span></span
        >
        <span class="mt-0.5 block text-sm break-words whitespace-pre-line" :class="note.closed ? 'text-faint' : 'text-ink'">{{ note.words }}</span>
        <span class="mt-0.5 flex justify-between text-2xs text-dim"
          ><span>{{ note.by }}{{ note.via ? `, by the link ${note.via}` : '' }}{{ note.mark ? ', marked in the picture' : '' }}</span
          ><span v-if="note.closed">closed</span></span
        >
        <span v-for="answer in note.answers" :key="answer.id" class="mt-1 block border-l border-faint pl-2 text-xs break-words text-dim"
          >{{ answer.words }} <span class="text-faint">{{ answer.by }}</span></span
        >
      </button>
      <div v-if="note.id === chosen" class="px-3 pb-2"><slot :note="note" /></div>
    </li>
  </ul>
</template>
