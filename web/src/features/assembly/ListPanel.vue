<script setup lang="ts">
import type { Clip } from '@/api/media'
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useCut } from '../cut/useCut'
import FolderPane from '../intake/FolderPane.vue'
import { useIntake } from '../intake/useIntake'
import ChoiceList from '../shell/ChoiceList.vue'
import { useNotices } from '../shell/useNotices'
import { counted } from '../shell/counted'
import DifferenceList from './DifferenceList.vue'
import { useLists } from './useLists'

/** A cut list: read, linked, and made a cut of, compared with the open one, or laid over a programme. */
const route = useRoute()
const router = useRouter()
const cut = useCut()
const notices = useNotices()
const project = computed(() => route.params.project as string | undefined)
const lists = useLists(project)
const { read, compared, unlinked, busy, rate, prefer, handles, name } = lists
const HANDLES = [
  { id: 'shorten', words: 'as long as the handles are' },
  { id: 'hold', words: 'with the last frame held' },
  { id: 'leave', words: 'as cuts' },
] as const
const title = ref('')
const over = ref<string | null>(null)
const looking = ref(false)
const clips = ref<Clip[]>([])
const input = ref<HTMLInputElement>()
const intake = useIntake(project, notices.trouble)
const { roots, root, path, entries, latest } = intake

onMounted(async () => {
  clips.value = (await lists.clips().catch(() => [])).filter((clip) => clip.status === 'ready')
  await intake.load()
})

const linked = computed(() => read.value?.events.filter((event) => event.link?.clip).length ?? 0)
const wanted = computed(() => read.value?.events.filter((event) => event.link).length ?? 0)
const rules = computed(() => {
  const counts = new Map<string, number>()
  for (const event of read.value?.events ?? []) if (event.link?.rule) counts.set(event.link.rule, (counts.get(event.link.rule) ?? 0) + 1)
  return [...counts].map(([rule, count]) => `${count} by ${rule.replace(/^by /, '')}`).join(', ')
})
const choices = (event: { link: { candidates: { id: number; path: string }[] } | null }) => {
  const near = event.link?.candidates ?? []
  return [
    { name: near.length ? 'that may be meant' : '', options: near.map(({ id, path: label }) => ({ id: String(id), label })) },
    { name: 'all clips', options: clips.value.filter((clip) => !near.some(({ id }) => id === clip.id)).map(({ id, path: label }) => ({ id: String(id), label })) },
  ]
}
const programmes = computed(() => [{ name: '', options: clips.value.filter((clip) => !clip.run).map(({ id, path: label }) => ({ id: String(id), label })) }])

async function bring(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) await lists.take(file)
  title.value = read.value?.title ?? ''
  if (input.value) input.value.value = ''
}
async function make() {
  const made = await lists.make(title.value.trim(), over.value ? Number(over.value) : undefined)
  if (!made) return
  lists.close()
  await router.push({ name: 'assembly', params: { project: project.value, cut: String(made.id) } })
}
async function lookAgain() {
  looking.value = false
  clips.value = (await lists.clips()).filter((clip) => clip.status === 'ready')
  await lists.again()
}
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto p-3 text-xs" aria-label="list">
    <input ref="input" type="file" accept=".edl,.otio,.txt,.json" class="sr-only" aria-label="cut list" data-test="list-file" @change="bring" />
    <div v-if="!read" class="space-y-2">
      <button class="control-main w-full" :disabled="busy" @click="input?.click()">Bring in a cut list…</button>
      <p class="text-dim">An edit decision list or an OpenTimelineIO file. What it names is looked for among all that was taken in; nothing is changed before you say so.</p>
      <p v-if="cut.cut" class="flex gap-3 border-t border-line pt-2 text-dim">
        <span class="flex-1">This cut as a list of its sources</span><a class="hover:text-ink" :href="`/api/cuts/${cut.cut.id}/list.edl`" download>EDL</a
        ><a class="hover:text-ink" :href="`/api/cuts/${cut.cut.id}/list.otio`" download>OTIO</a>
      </p>
    </div>
    <template v-else>
      <header class="flex items-baseline gap-2">
        <b class="min-w-0 flex-1 truncate text-sm font-medium">{{ name }}</b><button class="text-dim hover:text-ink" @click="lists.close()">close</button>
      </header>
      <p class="text-dim">
        <span class="text-ink">{{ read.events.length }} events</span> at {{ read.rate.replace('/1', '') }} f/s<label class="ml-2"
          >· read as <input v-model="rate" class="field w-16 px-1 py-0 text-xs select-text" placeholder="as told" aria-label="frames a second that it counts" @keydown.stop @change="lists.again()" /> f/s</label
        >
      </p>
      <template v-if="!compared">
        <p :class="unlinked.length ? 'text-weld' : 'text-dim'" data-test="linked">
          {{ linked }} of {{ wanted }} linked<template v-if="rules">: {{ rules }}</template>
        </p>
        <section v-if="unlinked.length" class="space-y-2" aria-label="what is not linked">
          <div v-for="event in unlinked" :key="event.number" class="border-l-2 border-weld pl-2">
            <p class="truncate text-ink">
              {{ event.number }} · {{ event.clip ?? event.reel }}<span class="text-faint"> {{ event.source_in }}</span>
            </p>
            <p class="text-dim">{{ event.link?.reason }}</p>
            <ChoiceList :label="`clip of event ${event.number}`" look="flat" :groups="choices(event)" :model-value="null" @update:model-value="lists.choose(event.number, $event ? Number($event) : null)"
              ><span class="text-dim">choose its clip ▾</span></ChoiceList
            >
          </div>
          <label class="block text-dim"
            >where several fit, those whose path begins with <input v-model="prefer" class="field mt-1 w-full py-0 text-xs select-text" placeholder="folder/" aria-label="folder that is preferred" @keydown.stop @change="lists.again()"
          /></label>
          <button class="text-dim hover:text-ink" @click="looking = !looking">look in another folder…</button>
          <div v-if="looking" class="h-72 border border-line"><FolderPane class="h-full" :roots="roots" :root="root" :path="path" :entries="entries" :latest="latest" @browse="intake.browse" @take="intake.takeIn" /></div>
          <button v-if="latest?.status === 'done' && looking" class="control" @click="lookAgain">look again with what was taken in</button>
          <p class="text-faint">What stays missing stands in the cut as a slate until it is taken in.</p>
        </section>
        <div v-if="read.short" class="border-l-2 border-weld pl-2 text-dim" role="radiogroup" aria-label="transitions without handles">
          <p class="text-ink">{{ read.short }} {{ read.short === 1 ? 'transition wants' : 'transitions want' }} more handle than there is; the notes say which. Take {{ read.short === 1 ? 'it' : 'them' }}</p>
          <button v-for="one in HANDLES" :key="one.id" role="radio" class="mr-3" :class="handles === one.id ? 'text-ink' : 'text-faint hover:text-ink'" :aria-checked="handles === one.id" @click="((handles = one.id), lists.again())">
            {{ one.words }}
          </button>
        </div>
        <details v-if="read.notes.length" class="text-dim">
          <summary class="cursor-pointer hover:text-ink">{{ counted(read.notes.length, 'note') }}</summary>
          <ul class="mt-1 space-y-1">
            <li v-for="note in read.notes" :key="note">{{ note }}</li>
          </ul>
        </details>
        <button v-if="cut.cut" class="control-main" :disabled="busy" @click="lists.compare()">Compare with {{ cut.cut.name }}</button>
        <form class="space-y-2 border-t border-line pt-3" @submit.prevent="make">
          <label class="caption block">a new cut<input v-model="title" class="field mt-1 w-full select-text" placeholder="its name" maxlength="80" aria-label="name of the new cut" @keydown.stop /></label>
          <div class="flex items-center gap-1 text-dim">
            out of<ChoiceList
              v-model="over"
              label="what the cut is made of"
              look="flat"
              :groups="[
                { name: '', options: [{ id: '', label: 'the clips it names' }] },
                { ...programmes[0]!, name: 'one flat programme, cut where it says' },
              ]"
              ><span class="truncate">{{ over ? clips.find((clip) => String(clip.id) === over)?.name : 'the clips it names' }} ▾</span></ChoiceList
            >
          </div>
          <button :class="cut.cut ? 'control' : 'control-main'" :disabled="busy || !title.trim()">Make the cut</button>
        </form>
      </template>
      <template v-else>
        <DifferenceList :differences="compared.differences" />
        <div class="sticky bottom-0 flex gap-2 bg-pane pt-2">
          <button class="control-main flex-1" :disabled="busy" @click="lists.accept()">Lay it over {{ cut.cut?.name }}</button><button class="control" @click="compared = null">back</button>
        </div>
      </template>
    </template>
  </div>
</template>
