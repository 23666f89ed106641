<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { useElementSize, useStorage } from '@vueuse/core'
import { computed, onUnmounted, ref, watch } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { makeLooking } from '../bench/useZoom'
import type { Measuring } from '../bench/usePicture'
import { useCut } from '../cut/useCut'
import { useOpenCut } from '../cut/useOpenCut'
import { useFamilyShots } from './useFamilyShots'
import { useMoves } from '../grade/useMoves'
import { useRecipes } from '../grade/useRecipes'
import ScopeDock from '../scopes/ScopeDock.vue'
import { useBands } from '../scopes/useBands'
import { useScopes } from '../scopes/useScopes'
import { useScreen } from '../screen/useScreen'
import { useCatalogue } from '../shell/useCatalogue'
import { useErrands } from '../shell/useErrands'
import { useKeys } from '../shell/useKeys'
import { useNotices } from '../shell/useNotices'
import CorrectionPanel from './CorrectionPanel.vue'
import DataMenu from './DataMenu.vue'
import LevelCourse from './LevelCourse.vue'
import RenditionPicture from './RenditionPicture.vue'
import RenditionShots from './RenditionShots.vue'
import TargetList from './TargetList.vue'
import { ALL, useRenditions } from './useRenditions'

const route = useRoute()
const cut = useCut()
const screen = useScreen()
const scopes = useScopes()
const bands = useBands()
const catalogue = useCatalogue()
const recipes = useRecipes()
const notices = useNotices()
const renditions = useRenditions()
const families = useFamilyShots()
const moves = useMoves()
const ready = useOpenCut()
const errands = useErrands(computed(() => route.params.project as string | undefined))
const measuring = errands.latest(
  'measure',
  computed(() => cut.cut?.id ?? 0),
)
const busy = computed(() => measuring.value !== null && ['waiting', 'running'].includes(measuring.value.status))

const looking = makeLooking()
const marks = ref(false)
const split = ref(0.5)
const way = useStorage<'side' | 'split'>('mordant.renditions.way', 'side')
const WINDOWS = ['rolled', '0', '1', '2', '3'] as const
const bright = useStorage<string>('mordant.renditions.bright', 'rolled')
const shownBy = computed<'rolled' | number>(() => (bright.value === 'rolled' ? 'rolled' : Number(bright.value)))
const brightWords = computed(() => (shownBy.value === 'rolled' ? "highlights roll off to this screen's white" : `a window: this screen's white is ${100 * 2 ** shownBy.value} cd/m²`))

const middle = ref<HTMLElement>()
const { width } = useElementSize(middle)
const AROUND = 70 // pixels above and below a picture
/** Two pictures side by side are as high as they are; instruments have the rest. */
const sideHeight = computed(() => Math.round(((width.value / 2 - 24) * (cut.project?.height ?? 9)) / (cut.project?.width ?? 16)) + AROUND)
const right = ref<InstanceType<typeof RenditionPicture>>()
const shot = computed(() => cut.shot)
const line = computed(() => renditions.lineOf(shot.value))
const target = computed(() => renditions.target)
const hdr = computed(() => renditions.list?.hdr ?? null)
const recipe = computed(() => renditions.recipeOf(shot.value))
const stepOf = (id: string) => recipe.value?.document.steps.find((one) => one.id === id) ?? null
const all = computed(() => stepOf(ALL))
const one = computed(() => (target.value ? stepOf(target.value.id) : null))
const specs = computed(() => ({ all: catalogue.step('rendition_all'), one: catalogue.step('rendition') }))
const lifted = computed(() => {
  const tone = one.value?.parameters['tone'] as number[] | undefined
  return Boolean(line.value?.active && tone && (tone[0] ?? 0) > (renditions.list?.lift ?? 1))
})
const measured = computed<Measuring>(() => ({ scopes: scopes.wanted, measure: 'final', region: null, light: null, bands: bands.wish, marks: marks.value, beside: null }))

const tried = <T,>(act: Promise<T>) => act.catch((error: unknown) => notices.trouble(error))

watch(ready, (now) => now && void tried(renditions.load().then(() => shot.value && renditions.begin(shot.value))), { immediate: true })
watch([() => shot.value?.id, target], () => shot.value && renditions.list && void tried(renditions.begin(shot.value)))
watch(() => recipe.value?.document, renditions.prepare)
watch(
  () => recipes.beyond,
  () => void tried(renditions.load()),
)
watch(
  () => measuring.value?.status,
  (now, before) => {
    if (before && now && ['done', 'cancelled', 'failed'].includes(now)) void tried(renditions.load())
    if (now === 'failed' && before) notices.trouble(new Error(measuring.value?.message ?? 'the shots could not be measured'))
  },
)
/** Where what is keyed is at this frame. */
watch(
  () => right.value?.shown?.header,
  (now) => {
    moves.told = now?.moved ?? {}
    moves.spanned = now?.spanned ?? {}
  },
)
watch(target, (now) => (screen.shown = now?.id ?? null), { immediate: true })
onUnmounted(() => (screen.shown = null))

const measure = (shots?: Shot[]) => tried(errands.place(`/cuts/${cut.cut?.id}/measurements`, shots ? { shots: shots.map(({ id }) => id) } : {}))
const later = (by: number) => cut.goShot(cut.shotIndex + by)
function nextTarget() {
  const at = renditions.targets.findIndex(({ id }) => id === target.value?.id)
  const next = renditions.targets[(at + 1) % renditions.targets.length]
  if (next) renditions.choose(next.id)
}

useKeys('renditions', [
  { key: 'q', words: 'previous shot', press: () => later(-1) },
  { key: 'e', words: 'next shot', press: () => later(1) },
  { key: 'a', words: 'frame back', press: () => cut.go(cut.frame - 1) },
  { key: 'd', words: 'frame on', press: () => cut.go(cut.frame + 1) },
  { key: 'r', words: 'next target, a larger one', press: nextTarget },
  { key: 'y', words: 'side by side or split', press: () => (way.value = way.value === 'side' ? 'split' : 'side') },
  { key: 'm', words: 'marks clipped pixels, and colours beyond P3', press: () => (marks.value = !marks.value) },
  { key: 'j', words: 'colour bands', press: () => void bands.flip() },
  { key: 'mod+c', words: 'copy the corrections of this target', press: () => shot.value && target.value && renditions.copy(shot.value, [target.value.id]) },
  { key: 'mod+shift+c', words: 'copy all corrections', press: () => shot.value && renditions.copy(shot.value, [ALL, ...renditions.targets.map(({ id }) => id)]) },
  { key: 'mod+v', words: 'put them on this shot', press: () => shot.value && void tried(renditions.paste([shot.value])) },
])
</script>

<template>
  <div v-if="ready && renditions.list && !hdr" class="flex h-full flex-col items-center justify-center gap-2 text-dim">
    <p>This project has no HDR target yet.</p>
    <p class="text-sm">Renditions are made of an HDR picture: add a target in PQ or HLG in Settings.</p>
    <RouterLink v-if="cut.project" class="control mt-2" :to="{ name: 'settings', params: { project: cut.project.id } }">To Settings</RouterLink>
  </div>
  <div v-else-if="ready && renditions.list && shot && hdr && cut.project" class="grid h-full grid-cols-[152px_minmax(0,1fr)_300px] grid-rows-1">
    <div class="flex min-h-0 flex-col border-r border-line">
      <div class="p-2">
        <button v-if="!busy" class="control w-full" title="every shot whose levels are not known as they are now" @click="measure()">Measure</button>
        <div v-else-if="measuring" class="text-2xs text-dim" role="progressbar" :aria-valuenow="measuring.done" :aria-valuemax="measuring.count">
          <span class="flex justify-between"
            ><span>measuring {{ Math.round((100 * measuring.done) / Math.max(1, measuring.count)) }} %</span><button class="hover:text-ink" @click="errands.cancel(measuring)">stop</button></span
          >
          <i class="mt-1 block h-0.5 bg-line"><i class="block h-full bg-weld" :style="{ width: `${(100 * measuring.done) / Math.max(1, measuring.count)}%` }" /></i>
        </div>
      </div>
      <RenditionShots />
    </div>
    <section ref="middle" class="flex min-h-0 min-w-0 flex-col" aria-label="HDR and rendition">
      <div class="relative grid min-h-0 gap-px bg-line" :class="way === 'side' ? 'shrink grid-cols-2' : 'flex-1 grid-cols-1'" :style="way === 'side' ? { height: `${sideHeight}px` } : undefined">
        <RenditionPicture v-model:split="split" :shot="shot" :target="hdr.id" :bright="shownBy" :looking="looking" label="HDR picture" :over="way === 'split' ? (right?.shown?.bitmap ?? null) : undefined" :words="['HDR', target?.name ?? '']"
          ><b class="font-medium text-ink">{{ shot.name }}</b> {{ hdr.name }}</RenditionPicture
        >
        <RenditionPicture v-if="target" v-show="way === 'side'" ref="right" moves :shot="shot" :target="target.id" :bright="shownBy" :looking="looking" label="rendition" :measuring="measured"
          ><span class="text-weld">{{ target.name }}</span></RenditionPicture
        >
      </div>
      <div class="flex h-8 items-center gap-3 border-t border-line bg-pane px-3 text-2xs whitespace-nowrap text-dim">
        <span>HDR on this screen</span>
        <span role="radiogroup" aria-label="HDR on this screen" class="flex gap-2">
          <button v-for="one_ in WINDOWS" :key="one_" role="radio" class="hover:text-ink" :class="bright === one_ ? 'text-weld' : ''" :aria-checked="bright === one_" @click="bright = one_">
            {{ one_ === 'rolled' ? 'rolled off' : one_ === '0' ? 'as it is' : `−${one_} st` }}
          </button>
        </span>
        <span class="truncate text-faint" data-test="shown-by">{{ brightWords }}</span>
        <span class="flex-1" />
        <button v-for="one_ in ['side', 'split'] as const" :key="one_" :class="way === one_ ? 'text-ink' : 'hover:text-ink'" :aria-pressed="way === one_" @click="way = one_">{{ one_ === 'side' ? 'side by side' : 'split' }}</button>
      </div>
      <div class="flex border-t border-line" :class="way === 'side' ? 'min-h-32 flex-1' : 'shrink-0'" :style="way === 'side' ? undefined : { height: `${scopes.kept.height}px` }">
        <div class="flex w-2/5 min-w-0 border-r border-line"><LevelCourse :line="line" :length="shot.length" :at="cut.frame - shot.record_in" :peak="target?.rendition?.peak ?? 100" @go="cut.go(shot.record_in + $event)" /></div>
        <ScopeDock class="!h-full min-w-0 flex-1 !border-t-0" :shown="right?.shown ?? null" />
      </div>
    </section>
    <aside class="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-pane" aria-label="corrections">
      <TargetList />
      <p v-if="line?.copied" class="border-b border-line px-3 py-1.5 text-2xs text-weld">Levels of {{ line.copied }} stand for this shot's own. <button class="text-dim hover:text-ink" @click="measure([shot])">measure</button></p>
      <p v-if="line?.state === 'stale'" class="border-b border-line px-3 py-1.5 text-2xs text-madder">The picture has changed since it was measured. <button class="text-dim hover:text-ink" @click="measure([shot])">measure again</button></p>
      <div v-if="renditions.question" class="border-b border-line px-3 py-2 text-xs" role="alertdialog">
        <p>{{ renditions.question.words }}</p>
        <p class="mt-1.5 flex gap-2">
          <button class="control" @click="tried(renditions.takeLevels(renditions.question.from, renditions.question.shots, true))">take them</button><button class="control" @click="renditions.question = null">cancel</button>
        </p>
      </div>
      <CorrectionPanel v-if="recipe && all && specs.all" :key="`all ${recipe.id}`" title="All targets" :recipe="recipe" :step="all" :spec="specs.all" />
      <CorrectionPanel v-if="recipe && one && specs.one && target" :key="`${target.id} ${recipe.id}`" :title="target.name" :recipe="recipe" :step="one" :spec="specs.one" :sectors="['hue', 'amount']">
        <p v-if="lifted" class="text-2xs text-madder" data-test="guard">This shot has bars. Blacks above +2.5 % part the picture from them: the bars stay black.</p>
      </CorrectionPanel>
      <p v-else-if="target && line?.state === 'none'" class="px-3 py-3 text-xs text-dim" data-test="waits">
        Corrections for {{ target.name }} wait until this shot is measured. <button class="control mt-2 block" :disabled="busy" @click="measure([shot])">Measure {{ shot.name }}</button>
      </p>
      <div class="mt-auto flex flex-wrap gap-x-3 gap-y-1 border-t border-line px-3 py-2 text-2xs text-dim">
        <button class="hover:text-ink" :disabled="!target" title="Ctrl C" @click="target && renditions.copy(shot, [target.id])">copy {{ target?.name }}</button>
        <button class="hover:text-ink" title="Ctrl Shift C" @click="renditions.copy(shot, [ALL, ...renditions.targets.map(({ id }) => id)])">copy all</button>
        <template v-if="renditions.copied">
          <button class="text-ink hover:text-weld" title="Ctrl V" @click="tried(renditions.paste([shot]))">put here</button>
          <button v-if="families.of(shot).length > 1" class="text-ink hover:text-weld" @click="tried(renditions.paste(families.of(shot)))">on the family, {{ families.of(shot).length }}</button>
          <button v-if="renditions.copied.parts.length === 1 && target && renditions.copied.parts[0] !== target.id" class="text-ink hover:text-weld" @click="tried(renditions.paste([shot], target.id))">as {{ target.name }}</button>
          <button v-if="renditions.copied.from !== shot.id" class="hover:text-ink" title="levels are measured, not copied; this asks first" @click="tried(renditions.takeLevels(renditions.copied.from, [shot.id]))">its levels…</button>
        </template>
        <span class="flex-1" /><DataMenu />
      </div>
    </aside>
  </div>
  <div v-else class="flex h-full items-center justify-center text-dim">opening the cut…</div>
</template>
