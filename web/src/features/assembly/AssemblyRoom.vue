<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useCatalogue } from '../shell/useCatalogue'
import { useEvents } from '../shell/useEvents'
import { useKeys } from '../shell/useKeys'
import { useNotices } from '../shell/useNotices'
import PasteQuestion from '../grade/PasteQuestion.vue'
import { useCopies } from '../grade/useCopies'
import AtticPanel from './AtticPanel.vue'
import EditPictures from './EditPictures.vue'
import EditStrip from './EditStrip.vue'
import HandsBar from './HandsBar.vue'
import ListPanel from './ListPanel.vue'
import ProgrammePanel from './ProgrammePanel.vue'
import ShotTable from './ShotTable.vue'
import SlatesPanel from './SlatesPanel.vue'
import { useAssembly } from './useAssembly'

/** Where a cut is made and mended. */
const route = useRoute()
const router = useRouter()
const cut = useCut()
const catalogue = useCatalogue()
const recipes = useRecipes()
const assembly = useAssembly()
const notices = useNotices()
const copies = useCopies()
const strip = ref<InstanceType<typeof EditStrip>>()
const panel = useStorage<'list' | 'links' | 'attic' | 'programme'>('mordant.assembly.panel', 'list')
const opened = ref(false)
let filled = false
const inCut = computed(() => Boolean(route.params.cut))

async function open() {
  opened.value = false
  try {
    await catalogue.load()
    if (inCut.value) await cut.open(String(route.params.cut))
    else await cut.openProject(String(route.params.project))
    opened.value = true
    if (filled) await fillIn()
  } catch (error) {
    notices.trouble(error)
  }
}
onMounted(open)
watch(() => route.params.cut, open)
watch(
  () => cut.cut?.id,
  () => (assembly.picked = []),
)

/** What was taken in may have filled slates in. */
useEvents(
  computed(() => route.params.project as string | undefined),
  {
    intake: ({ status }: { status: string }) => {
      if (status !== 'done') return
      if (opened.value) void fillIn()
      else filled = true // while the cut is being read
    },
  },
)
async function fillIn() {
  filled = false
  if (inCut.value && cut.shots.some((shot) => shot.clip.status === 'missing')) await cut.reload()
}
watch([() => cut.cut?.id, () => cut.cut?.edition, () => recipes.beyond], () => inCut.value && void assembly.loadAttic(), { immediate: true })

const missing = computed(() => new Set(cut.shots.filter((shot) => shot.clip.status === 'missing').map((shot) => shot.clip.id)).size)
const panels = computed(() => [
  { id: 'list' as const, label: 'List' },
  { id: 'links' as const, label: missing.value ? `Links · ${missing.value} missing` : 'Links' },
  { id: 'attic' as const, label: assembly.attic.length ? `Attic · ${assembly.attic.length}` : 'Attic' },
  { id: 'programme' as const, label: 'Programme' },
])
const inShot = (frame: number) => cut.go(Math.max(0, frame))

useKeys('the cut', [
  { key: 'q', words: 'shot before', press: () => cut.goShot(cut.shotIndex - 1) },
  { key: 'e', words: 'shot after', press: () => cut.goShot(cut.shotIndex + 1) },
  { key: 'a', words: 'one frame back', press: () => inShot(cut.frame - 1) },
  { key: 'd', words: 'one frame on', press: () => inShot(cut.frame + 1) },
  { key: 'w', words: 'hand on the other end of the shot', press: () => (assembly.end = assembly.end === 'head' ? 'tail' : 'head') },
  { key: 'arrowleft', words: 'that end one frame earlier', press: () => assembly.nudge(-1) },
  { key: 'arrowright', words: 'that end one frame later', press: () => assembly.nudge(1) },
  { key: 'shift+arrowleft', words: 'ten frames earlier', press: () => assembly.nudge(-10) },
  { key: 'shift+arrowright', words: 'ten frames later', press: () => assembly.nudge(10) },
  { key: 'mod+arrowleft', words: 'the edit one frame earlier; the shots beside it give and take', press: () => assembly.nudge(-1, true) },
  { key: 'mod+arrowright', words: 'the edit one frame later', press: () => assembly.nudge(1, true) },
  { key: 'shift+a', words: 'slip: one frame of the clip earlier', press: () => cut.shot && void assembly.slip(cut.shot, -1) },
  { key: 'shift+d', words: 'slip: one frame of the clip later', press: () => cut.shot && void assembly.slip(cut.shot, 1) },
  { key: 's', words: 'split the shot at this frame', press: () => void assembly.split() },
  { key: 'u', words: 'join with the next shot', press: () => void assembly.join() },
  { key: '[', words: 'the shot begins at this frame', press: () => assembly.trimHere('head') },
  { key: ']', words: 'the shot ends at this frame', press: () => assembly.trimHere('tail') },
  { key: 'shift+q', words: 'one place earlier', press: () => assembly.step(-1) },
  { key: 'shift+e', words: 'one place later', press: () => assembly.step(1) },
  { key: 'delete', words: 'take out; what follows moves up', press: () => void assembly.remove() },
  { key: 'shift+delete', words: 'leave black in its place', press: () => void assembly.remove(true) },
  { key: '+', words: 'zoom into the strip', press: () => strip.value?.magnify(1.5) },
  { key: '-', words: 'zoom out of the strip', press: () => strip.value?.magnify(1 / 1.5) },
  { key: 'f', words: 'the whole cut in the strip', press: () => strip.value?.fit() },
  { key: 'escape', words: 'clear the picks', press: () => (assembly.picked = []) },
  { key: 'enter', words: 'to the Bench', press: () => void router.push({ name: 'bench', params: route.params }) },
])
</script>

<template>
  <div v-if="opened" class="grid h-full min-h-0" :class="inCut ? 'grid-cols-[minmax(0,1fr)_320px]' : 'grid-cols-[minmax(0,1fr)_380px]'">
    <section v-if="inCut && cut.project" class="grid min-h-0 min-w-0 grid-rows-[minmax(0,5fr)_auto_auto_minmax(0,4fr)]" aria-label="assembly">
      <EditPictures :project="cut.project" />
      <EditStrip ref="strip" :project="cut.project" />
      <HandsBar />
      <ShotTable class="border-t border-line bg-pane" />
    </section>
    <p v-else class="flex items-center justify-center px-16 text-center text-dim">This project has no cut yet. Bring in a list at the right, or make a cut of clips in Intake.</p>
    <aside class="flex min-h-0 flex-col border-l border-line bg-pane">
      <div v-if="inCut" class="flex gap-4 border-b border-line px-3" role="tablist" aria-label="panels">
        <button
          v-for="one in panels"
          :key="one.id"
          class="-mb-px border-b py-2 text-xs whitespace-nowrap"
          :class="panel === one.id ? 'border-weld text-ink' : 'border-transparent text-dim hover:text-ink'"
          role="tab"
          :aria-selected="panel === one.id"
          @mousedown.prevent
          @click="panel = one.id"
        >
          {{ one.label }}
        </button>
      </div>
      <ListPanel v-if="!inCut || panel === 'list'" />
      <SlatesPanel v-else-if="panel === 'links'" />
      <AtticPanel v-else-if="panel === 'attic'" />
      <ProgrammePanel v-else />
    </aside>
    <PasteQuestion v-if="copies.asking" />
  </div>
  <div v-else class="flex h-full items-center justify-center text-dim">opening…</div>
</template>
