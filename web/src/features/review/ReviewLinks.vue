<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useHere } from '../people/useHere'
import { counted } from '../shell/counted'
import { useNotes } from './useNotes'

/** Links by which others look at the cut, and the notes to take away. */
const props = defineProps<{ marked: { first: number; count: number } | null }>()
const cut = useCut()
const here = useHere()
const notes = useNotes()
const sending = ref(false)
const name = ref('')
const days = ref('14')

onMounted(notes.loadLinks)
async function send() {
  await notes.send(name.value, props.marked, days.value ? Number(days.value) : null)
  if (notes.address) sending.value = false
}
const copy = () => notes.address && void navigator.clipboard?.writeText(notes.address)
</script>

<template>
  <div class="border-t border-line px-3 py-2 text-xs">
    <div class="flex items-center justify-between gap-2 whitespace-nowrap text-dim">
      <button v-if="here.may('grade')" class="hover:text-ink" @click="((sending = !sending), (notes.address = null))">send a link…</button>
      <span
        >download: <a class="hover:text-ink" :href="`/api/cuts/${cut.cut?.id}/notes.txt`" download>text</a> ·
        <a class="hover:text-ink" :href="`/api/cuts/${cut.cut?.id}/notes.otio`" title="markers of an OpenTimelineIO timeline" download>otio</a></span
      >
    </div>
    <form v-if="sending" class="mt-2 grid gap-1" aria-label="link to look" @submit.prevent="send">
      <input v-model="name" class="field" placeholder="who it is for" aria-label="who the link is for" maxlength="80" />
      <p class="text-2xs text-dim">{{ marked ? `the marked range, ${counted(marked.count, 'frame')}` : 'the whole cut; mark a range for less' }}</p>
      <label class="flex items-center gap-1 text-2xs text-dim"
        >ends after <input v-model="days" class="field w-12 py-0" inputmode="numeric" aria-label="days until it ends" /> days<span class="flex-1" /><button class="control px-2 py-0.5 text-xs" :disabled="!name.trim()">
          make link
        </button></label
      >
    </form>
    <div v-if="notes.address" class="mt-2">
      <input class="field w-full select-text" readonly :value="notes.address" aria-label="address of the link" @focus="($event.target as HTMLInputElement).select()" />
      <p class="mt-1 flex justify-between text-2xs text-dim"><span>Shown only now.</span><button class="hover:text-ink" @click="copy">copy</button></p>
    </div>
    <ul v-if="notes.links.some((link) => !link.ended)" class="mt-2 grid gap-0.5 text-2xs text-dim" aria-label="links">
      <li v-for="link in notes.links.filter((one) => !one.ended)" :key="link.id" class="flex justify-between gap-2">
        <span class="truncate">{{ link.name }}, {{ counted(link.notes, 'note') }}</span
        ><button v-if="here.may('grade')" class="hover:text-ink" @click="notes.end(link)">end</button>
      </li>
    </ul>
  </div>
</template>
