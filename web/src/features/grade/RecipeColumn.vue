<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { Shot } from '@/api/cut'
import { MenuItem } from '@headlessui/vue'
import { computed, nextTick, ref, watch } from 'vue'
import { rateOf } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import HandsHere from '../people/HandsHere.vue'
import MiddleCut from '../shell/MiddleCut.vue'
import { useCatalogue } from '../shell/useCatalogue'
import { useKeys } from '../shell/useKeys'
import { useScreen } from '../screen/useScreen'
import RecallPanel from '../swatches/RecallPanel.vue'
import SwatchBook from '../swatches/SwatchBook.vue'
import { useSwatches } from '../swatches/useSwatches'
import ConflictDialog from './ConflictDialog.vue'
import FamilyMenu from './FamilyMenu.vue'
import StepAdder from './StepAdder.vue'
import PasteQuestion from './PasteQuestion.vue'
import SharedSteps from './SharedSteps.vue'
import StepList from './StepList.vue'
import TakePanel from './TakePanel.vue'
import VersionMenu from './VersionMenu.vue'
import WashSection from './WashSection.vue'
import { useCopies } from './useCopies'
import { useCorrections } from './useCorrections'
import { useOpenStep } from './useOpenStep'
import { useSteps } from './useSteps'
import { useWashes } from './useWashes'

const props = defineProps<{ shot: Shot; header: AnswerHeader | null }>()

const cut = useCut()
const catalogue = useCatalogue()
const screen = useScreen()
const corrections = useCorrections()
const copies = useCopies()
const opened = useOpenStep()
const washes = useWashes()
const swatches = useSwatches()
const { steps, add, addLook } = useSteps(computed(() => props.shot.recipe))
const family = computed(() => cut.familyOf(props.shot))
const over = computed(() => cut.washesOver(props.shot))

watch(
  () => props.shot.recipe.id,
  () => {
    // a step of a wash or a family that lies over this shot too stays open
    const shared = cut.recipesOf(props.shot).filter((recipe) => recipe.wash !== null || recipe.family !== null)
    if (!shared.some((recipe) => recipe.document.steps.some((step) => step.id === opened.id))) opened.arrive(props.shot.recipe)
  },
  { immediate: true },
)

/** A recipe that has come from elsewhere opens as one somebody comes to. */
watch(
  () => steps.value.length,
  (now, before) => {
    if (before === 0 && now > 0 && opened.id === null) opened.arrive(props.shot.recipe)
  },
)

/** Opens the shot's Balance, begins one where there is none, and goes down its quick order. */
async function quickOrder() {
  if (opened.advance === null) {
    const balance = steps.value.find((step) => step.kind === 'balance')
    if (balance) opened.open(balance)
    else add('balance')
    await nextTick()
  }
  opened.advance?.()
}

useKeys('copies', [
  {
    key: 'mod+c',
    words: 'copy the open step',
    press: () =>
      copies.copy(
        steps.value.filter((step) => step.id === opened.id),
        false,
      ),
  },
  { key: 'mod+shift+c', words: 'copy the recipe', press: () => copies.copy(steps.value, true) },
  { key: 'mod+v', words: 'put the copy on picked shots', press: () => void copies.put() },
])
useKeys('the open step', [{ key: 'g', words: 'next line of the quick order; begins a Balance', press: () => void quickOrder() }])

const named = catalogue.catalogue
useKeys('steps and looks', [
  ...(named?.steps ?? []).map((spec) => ({ key: '', words: `add ${spec.label}`, press: () => add(spec.id) })),
  ...(named?.bundles ?? []).map((bundle) => ({ key: '', words: `add the bundle ${bundle.label}`, press: () => addLook(bundle) })),
  ...(named?.looks ?? []).map((look) => ({ key: '', words: `begin with the look ${look.label}`, press: () => addLook(look) })),
  { key: '', words: 'lay a wash over the cut', press: () => void washes.lay() },
])

const rate = (text: string) => Number(rateOf(text).toFixed(3))
const correctionFile = ref<HTMLInputElement>()
async function bringCorrection() {
  const file = correctionFile.value?.files?.[0]
  if (file && cut.cut) await corrections.bring(cut.cut.id, file, [props.shot.id])
  opened.open(steps.value.at(-1) ?? null)
  if (correctionFile.value) correctionFile.value.value = ''
}
</script>

<template>
  <aside class="flex min-h-0 flex-col border-l border-line bg-pane" aria-label="recipe">
    <header class="border-b border-line px-3 py-2.5">
      <div class="flex items-baseline justify-between gap-2">
        <h2 class="flex min-w-0 flex-1 items-baseline gap-1 text-base whitespace-nowrap"><MiddleCut class="min-w-0 font-semibold" :text="shot.name" /> <span class="text-dim">·</span> <VersionMenu :shot="shot" /></h2>
        <span class="flex shrink-0 items-baseline gap-3 whitespace-nowrap"><FamilyMenu :shot="shot" /><SwatchBook /><TakePanel v-if="shot.clip.encoding" :shot="shot" /></span>
      </div>
      <p class="mt-0.5 truncate text-2xs" :class="shot.clip.encoding ? 'text-dim' : 'text-madder'" :title="shot.clip.encoding_reason ?? ''">
        {{ shot.clip.encoding ? catalogue.encodingLabel(shot.clip.encoding) : 'no encoding assigned' }} → {{ cut.project?.space.label }} → {{ screen.viewOn ? screen.target?.name : 'view off'
        }}<span v-if="shot.clip.other_rate" class="text-weld" data-test="other-rate"> · {{ rate(shot.clip.rate) }} f/s {{ shot.clip.pace === 'time' ? 'by time' : 'frame for frame' }}</span>
      </p>
    </header>
    <HandsHere />
    <RecallPanel v-if="swatches.trial" />
    <PasteQuestion v-if="copies.asking" />
    <div class="min-h-0 flex-1 overflow-y-auto">
      <SharedSteps v-if="family" :family="family" place="ground" :header="header" />
      <div class="flex items-center justify-between px-3 pt-2 pb-1">
        <span class="caption">shot</span>
        <StepAdder :label="`add a step to shot ${shot.name}`" @add="add" @look="addLook">
          <MenuItem v-slot="{ active }">
            <button class="mt-1 block w-full border-t border-line px-3 pt-1.5 pb-1 text-left text-sm whitespace-nowrap" :class="{ 'bg-line': active }" @click="correctionFile?.click()">CDL from a file…</button>
          </MenuItem>
        </StepAdder>
        <input ref="correctionFile" type="file" accept=".cc,.ccc,.cdl,.edl" class="hidden" aria-label="CDL file" @change="bringCorrection" />
      </div>
      <StepList :recipe="shot.recipe" :header="header" />
      <p v-if="copies.steps.length && copies.shots.length && !copies.asking" class="flex items-center justify-between gap-2 px-3 pt-3 text-2xs text-dim">
        <span class="min-w-0 truncate">copied: {{ copies.words }}</span>
        <button class="control px-2 py-0 text-xs" @click="copies.put()">put on {{ copies.named(copies.shots) }}{{ copies.whole ? '…' : '' }}</button>
      </p>
      <div v-if="steps.length === 0" class="px-3 py-4">
        <p class="text-dim">Nothing is done to this shot yet.</p>
        <button class="control-main mt-3" @click="add('balance')">Begin with Balance</button>
      </div>
      <SharedSteps v-if="family" :family="family" place="finish" :header="header" />
      <WashSection v-for="wash in over" :key="wash.id" :wash="wash" :header="header" />
      <button class="mt-2 mb-3 px-3 text-2xs text-dim hover:text-ink" title="steps over the whole cut or a stretch of it, after the shots' own" @click="washes.lay()">+ wash over the cut</button>
    </div>
    <ConflictDialog />
  </aside>
</template>
