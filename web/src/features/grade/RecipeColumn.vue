<script setup lang="ts">
import type { Catalogue, RecipeDocument, Shot, StepDocument, ToneTrace } from '@/api/types'
import { computed, ref, watch } from 'vue'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useCut } from '../bench/useCut'
import { useCatalogue } from '../shell/useCatalogue'
import BalancePanel from './BalancePanel.vue'
import { useScreen } from '../screen/useScreen'
import CurvesPanel from './CurvesPanel.vue'
import ConflictDialog from './ConflictDialog.vue'
import StepCard from './StepCard.vue'
import StepPanel from './StepPanel.vue'
import VersionMenu from './VersionMenu.vue'
import TakePanel from './TakePanel.vue'
import type { StepAct } from './StepMenu.vue'
import { besideAbove, neutralParameters, newStep, withBeside, withCopy, withMoved, withStep, withoutStep } from './edit'
import { useCopies } from './useCopies'
import { useKeys } from '../shell/useKeys'
import { useCorrections } from './useCorrections'
import { useRecipes } from './useRecipes'

const props = defineProps<{ shot: Shot; trace: ToneTrace | null; curves: Record<string, number[]>; shapes: Record<string, Record<string, number[]>> }>()

const cut = useCut()
const catalogue = useCatalogue()
const recipes = useRecipes()
const screen = useScreen()
const corrections = useCorrections()
const copies = useCopies()
const openId = ref<string | null>(null)

const steps = computed(() => props.shot.recipe.document.steps)
const specOf = (step: StepDocument) => catalogue.step(step.kind)

watch(
  () => props.shot.recipe.id,
  () => (openId.value = steps.value[0]?.id ?? null),
  { immediate: true },
)

/** A recipe that has come from elsewhere opens at its first step. */
watch(
  () => steps.value.length,
  (now, before) => {
    if (before === 0 && now > 0) openId.value ??= steps.value[0]?.id ?? null
  },
)

function add(kind: string) {
  const spec = catalogue.step(kind)
  if (!spec) return
  const step = newStep(spec, crypto.randomUUID())
  recipes.change(props.shot.recipe, { steps: [...steps.value, step] }, `${spec.label} added`)
  openId.value = step.id
}

function addLook(look: Catalogue['looks'][number]) {
  const fresh = look.steps.map((step) => ({ ...step, id: crypto.randomUUID() }))
  recipes.change(props.shot.recipe, { steps: [...steps.value, ...fresh] }, `look ${look.label} added`)
  openId.value = fresh[0]?.id ?? null
}

function flip(step: StepDocument) {
  recipes.change(props.shot.recipe, withStep(props.shot.recipe.document, step.id, { enabled: !step.enabled }), `${step.name} ${step.enabled ? 'off' : 'on'}`)
}

function act(step: StepDocument, what: StepAct) {
  const document = props.shot.recipe.document
  const index = steps.value.findIndex((one) => one.id === step.id)
  const keep = (next: RecipeDocument, words: string) => recipes.change(props.shot.recipe, next, words)
  if (what === 'copy') copies.copy([step], false)
  else if (what === 'duplicate') keep(withCopy(document, step.id, crypto.randomUUID()), `${step.name} duplicated`)
  else if (what === 'up' || what === 'down') keep(withMoved(document, step.id, index + (what === 'up' ? -1 : 1)), `${step.name} moved ${what}`)
  else if (what === 'beside') keep(withBeside(document, step.id, crypto.randomUUID()), `${step.name} ${besideAbove(steps.value, index) ? 'after' : 'beside'} the one above`)
  else if (what === 'remove') keep(withoutStep(document, step.id), `${step.name} removed`)
  else if (what === 'reset') {
    const spec = specOf(step)
    if (spec) keep(withStep(document, step.id, { parameters: neutralParameters(spec), strength: 1 }), `${step.name} reset`)
  }
}

const rename = (step: StepDocument, name: string) => recipes.change(props.shot.recipe, withStep(props.shot.recipe.document, step.id, { name }), `${step.name} named ${name}`.slice(0, 120))

/** A card that is dragged, and the place it would be dropped at. */
const dragged = ref<string | null>(null)
const place = ref<number | null>(null)

function over(event: DragEvent, index: number) {
  if (!dragged.value) return
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  place.value = index + (event.clientY > bounds.top + bounds.height / 2 ? 1 : 0)
}
function drop() {
  const from = steps.value.findIndex((one) => one.id === dragged.value)
  const step = steps.value[from]
  if (step && place.value !== null) {
    const to = place.value > from ? place.value - 1 : place.value
    if (to !== from) recipes.change(props.shot.recipe, withMoved(props.shot.recipe.document, step.id, to), `${step.name} moved`)
  }
  dragged.value = place.value = null
}

useKeys([
  { key: 'mod+c', words: 'copy the open step', press: () => copies.copy(steps.value.filter((step) => step.id === openId.value), false) },
  { key: 'mod+shift+c', words: 'copy the recipe', press: () => copies.copy(steps.value, true) },
  { key: 'mod+v', words: 'put the copy on picked shots', press: () => void copies.put() },
])

function strengthen(step: StepDocument, strength: number, gesture?: string) {
  recipes.change(props.shot.recipe, withStep(props.shot.recipe.document, step.id, { strength }), `${step.name}: strength`, gesture)
}

const correctionFile = ref<HTMLInputElement>()
async function bringCorrection() {
  const file = correctionFile.value?.files?.[0]
  if (file && cut.cut) await corrections.bring(cut.cut.id, file, [props.shot.id])
  openId.value = steps.value.at(-1)?.id ?? null
  if (correctionFile.value) correctionFile.value.value = ''
}
</script>

<template>
  <aside class="flex min-h-0 flex-col border-l border-line bg-pane" aria-label="recipe">
    <header class="border-b border-line px-3 py-2.5">
      <div class="flex items-baseline justify-between">
        <h2 class="text-base"><b class="font-semibold">{{ shot.name }}</b> <span class="text-dim">·</span> <VersionMenu :shot="shot" /></h2>
        <TakePanel v-if="shot.clip.encoding" :shot="shot" />
      </div>
      <p class="mt-0.5 truncate text-2xs" :class="shot.clip.encoding ? 'text-dim' : 'text-madder'" :title="shot.clip.encoding_reason ?? ''">
        {{ shot.clip.encoding ? catalogue.encodingLabel(shot.clip.encoding) : 'no encoding assigned' }} → {{ cut.project?.space.label }} →
        {{ screen.viewOn ? screen.target?.name : 'view off' }}
      </p>
    </header>
    <div class="min-h-0 flex-1 overflow-y-auto">
      <div class="flex items-center justify-between px-3 pt-2 pb-1">
        <span class="caption">shot</span>
        <Menu as="div" class="relative">
          <MenuButton class="text-2xs text-dim hover:text-ink">+ step</MenuButton>
          <MenuItems class="absolute right-0 z-10 mt-1 min-w-36 border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none">
            <MenuItem v-for="spec in catalogue.catalogue?.steps" :key="spec.id" v-slot="{ active }">
              <button class="block w-full px-3 py-1 text-left text-sm" :class="{ 'bg-line': active }" @click="add(spec.id)">{{ spec.label }}</button>
            </MenuItem>
            <p class="caption mt-1 border-t border-line px-3 pt-2 pb-1" role="presentation">looks to start from</p>
            <MenuItem v-for="look in catalogue.catalogue?.looks" :key="look.id" v-slot="{ active }">
              <button class="block w-full px-3 py-1 text-left text-sm whitespace-nowrap" :class="{ 'bg-line': active }" :title="look.about" @click="addLook(look)">{{ look.label }}</button>
            </MenuItem>
            <MenuItem v-slot="{ active }">
              <button class="mt-1 block w-full border-t border-line px-3 pt-1.5 pb-1 text-left text-sm whitespace-nowrap" :class="{ 'bg-line': active }" @click="correctionFile?.click()">CDL from a file…</button>
            </MenuItem>
          </MenuItems>
        </Menu>
        <input ref="correctionFile" type="file" accept=".cc,.ccc,.cdl,.edl" class="hidden" aria-label="CDL file" @change="bringCorrection" />
      </div>
      <div
        v-for="(step, index) in steps"
        :key="step.id"
        class="border-t-2"
        :style="{ marginLeft: besideAbove(steps, index) || besideAbove(steps, index + 1) ? '10px' : undefined }"
        :class="place === index ? 'border-weld' : 'border-transparent'"
        :draggable="openId !== step.id"
        @dragstart="dragged = step.id"
        @dragover.prevent="over($event, index)"
        @drop.prevent="drop"
        @dragend="dragged = place = null"
      >
        <StepCard
          v-if="specOf(step)"
          :first="index === 0"
          :last="index === steps.length - 1"
          :beside="besideAbove(steps, index)"
          :step="step"
          :spec="specOf(step)!"
          :open="openId === step.id"
          @toggle="openId = openId === step.id ? null : step.id"
          @strength="(value, gesture) => strengthen(step, value, gesture)"
          @switch="flip(step)"
          @name="rename(step, $event)"
          @act="act(step, $event)"
        >
          <BalancePanel
            v-if="step.kind === 'balance' && cut.project"
            :recipe="shot.recipe"
            :step="step"
            :spec="specOf(step)!"
            :trace="trace"
            :curve="curves[step.id] ?? null"
            :space="cut.project.space"
          />
          <CurvesPanel v-else-if="step.kind === 'curves'" :recipe="shot.recipe" :step="step" :spec="specOf(step)!" :trace="trace" :curves="shapes[step.id] ?? null" />
          <StepPanel v-else :recipe="shot.recipe" :step="step" :spec="specOf(step)!" />
        </StepCard>
      </div>
      <p v-if="copies.steps.length" class="flex items-center justify-between gap-2 px-3 pt-3 text-2xs text-dim">
        <span class="min-w-0 truncate">copied: {{ copies.words }}</span>
        <button class="control px-2 py-0 text-xs" @click="copies.put()">{{ copies.whole ? 'replace' : 'put' }} on {{ copies.shots.length === 1 ? 'this shot' : `${copies.shots.length} shots` }}</button>
      </p>
      <div v-if="steps.length === 0" class="px-3 py-4">
        <p class="text-dim">Nothing is done to this shot yet.</p>
        <button class="control-main mt-3" @click="add('balance')">Begin with Balance</button>
      </div>
    </div>
    <ConflictDialog />
  </aside>
</template>
