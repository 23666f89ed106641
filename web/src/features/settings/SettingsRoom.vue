<script setup lang="ts">
import type { InputRule, Target } from '@/api/project'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import OptionRow from '../shell/OptionRow.vue'
import ClipReadings from './ClipReadings.vue'
import FindingList from './FindingList.vue'
import InputRules from './InputRules.vue'
import TargetCard from './TargetCard.vue'
import { useSettings } from './useSettings'

const route = useRoute()
const cut = useCut()
const recipes = useRecipes()
const catalogue = useCatalogue()
const notices = useNotices()
const project = computed(() => route.params.project as string | undefined)
const { settings, question, load, change, answer, assign } = useSettings(project, notices.trouble)
const RANGES = [
  { id: 'legal', label: 'legal range' },
  { id: 'full', label: 'full range' },
]
const refusal = ref<string | null>(null)
const ready = ref(false)

onMounted(async () => {
  try {
    if (project.value) await Promise.all([catalogue.load(), cut.openProject(project.value)])
    await load()
    ready.value = true
  } catch (error) {
    notices.trouble(error)
  }
})

watch(() => recipes.beyond, load)

const keep = async (values: Parameters<typeof change>[0]) => (refusal.value = await change(values))
const setTarget = (index: number, target: Target) => keep({ targets: (settings.value?.targets ?? []).map((one, at) => (at === index ? target : one)) })
const moveFirst = (index: number) => {
  const targets = [...(settings.value?.targets ?? [])]
  targets.unshift(...targets.splice(index, 1))
  return keep({ targets })
}
const dropTarget = (index: number) => keep({ targets: (settings.value?.targets ?? []).filter((_, at) => at !== index) })

function addTarget() {
  const targets = settings.value?.targets ?? []
  const names = targets.map((one) => one.name)
  let number = targets.length + 1
  while (names.includes(`Target ${number}`)) number++
  const fresh = { id: crypto.randomUUID(), name: `Target ${number}`, encoding: 'rec709-bt1886', rendering: 'sdr-video-1.0', limit: null, lut: null, expects: null, strength: null, rendition: null, leads: false, label: '' }
  return keep({ targets: [...targets, fresh] })
}
const setRules = (rules: InputRule[]) => keep({ input_rules: rules })
</script>

<template>
  <div v-if="ready && settings" class="flex h-full min-h-0 flex-col">
    <FindingList :findings="settings.findings" />
    <p v-if="refusal" class="border-b border-line px-4 py-2 text-sm text-madder select-text" role="alert">{{ refusal }}</p>
    <div class="grid min-h-0 flex-1 grid-cols-[minmax(0,1.25fr)_minmax(0,0.8fr)_minmax(0,1.1fr)]">
      <section class="min-h-0 overflow-y-auto px-4 py-4" aria-label="what comes in">
        <h2 class="text-base font-semibold">What comes in</h2>
        <p class="mt-0.5 text-xs text-dim">How each clip's codes are read. The first rule that fits decides, then what the file declares; what is assigned by hand stays.</p>
        <InputRules :rules="settings.input_rules" @change="setRules" />
        <label class="mt-4 flex items-start gap-2 text-sm">
          <input type="checkbox" class="mt-0.5 accent-weld" :checked="settings.compress_gamut" @change="keep({ compress_gamut: !settings.compress_gamut })" />
          <span>Bring colours beyond AP1 within it<span class="block text-2xs text-dim">Reference gamut compression 1.3, before all steps: for lamps and reflections whose colours break.</span></span>
        </label>
        <ClipReadings :clips="settings.clips" @assign="assign" />
      </section>
      <section class="min-h-0 overflow-y-auto border-x border-line bg-pane px-4 py-4" aria-label="where it is graded">
        <h2 class="text-base font-semibold">Where it is graded</h2>
        <div role="radiogroup" aria-label="working space" class="mt-3 space-y-1.5">
          <button
            v-for="space in settings.spaces"
            :key="space.id"
            role="radio"
            :aria-checked="space.id === settings.working_space"
            class="block w-full border px-3 py-2 text-left"
            :class="space.id === settings.working_space ? 'border-weld/70 bg-weld/10' : 'border-line'"
            @click="space.id !== settings.working_space && keep({ working_space: space.id })"
          >
            <span class="block text-sm">{{ space.label }}</span><span class="block text-2xs text-dim">{{ space.about }}</span>
          </button>
        </div>
        <p class="mt-2 text-2xs text-dim">{{ settings.graded ? `${settings.graded} ${settings.graded === 1 ? 'shot is' : 'shots are'} graded in it.` : 'Nothing is graded in it yet.' }}</p>
        <h3 class="mt-6 text-sm font-semibold">Transitions are mixed in</h3>
        <div role="radiogroup" aria-label="where transitions are mixed" class="mt-2">
          <button
            v-for="domain in catalogue.catalogue?.mixing ?? []"
            :key="domain.id"
            role="radio"
            class="block w-full border-l-2 py-1 pl-2.5 text-left"
            :class="domain.id === settings.mixing ? 'border-weld' : 'border-line hover:border-faint'"
            :aria-checked="domain.id === settings.mixing"
            @click="domain.id !== settings.mixing && keep({ mixing: domain.id })"
          >
            <span class="block text-sm" :class="domain.id === settings.mixing ? '' : 'text-dim'">{{ domain.label }}</span><span class="block text-2xs text-dim">{{ domain.about }}</span>
          </button>
        </div>
        <h3 class="mt-6 text-sm font-semibold">Your library</h3>
        <p class="mt-1 text-xs break-words text-dim select-text">{{ settings.library.folder }}</p>
        <p class="mt-1 text-2xs text-dim">Encodings you describe lie in its folder encodings, LUTs in luts and its folders. docs/encodings.md says how to write one.</p>
        <ul v-if="settings.library.faults.length" class="mt-2 space-y-1 text-xs text-madder select-text">
          <li v-for="fault in settings.library.faults" :key="fault" class="break-words">{{ fault }}</li>
        </ul>
      </section>
      <section class="min-h-0 overflow-y-auto px-4 py-4" aria-label="what it is made for">
        <div class="flex items-baseline justify-between">
          <h2 class="text-base font-semibold">What it is made for</h2>
          <button class="text-xs text-dim hover:text-ink" @click="addTarget">+ target</button>
        </div>
        <p class="mt-0.5 text-xs text-dim">The first target leads: small pictures and new screens show it. Each screen chooses its own in the bar above the picture.</p>
        <TargetCard
          v-for="(target, index) in settings.targets"
          :key="target.id"
          :target="target"
          :leading="index === 0"
          :alone="settings.targets.length === 1"
          @change="setTarget(index, $event)"
          @lead="moveFirst(index)"
          @drop="dropTarget(index)"
        />
        <h3 class="mt-6 mb-1.5 text-sm font-semibold">Browser pictures are made for a screen of</h3>
        <OptionRow label="canvas" :options="catalogue.canvases" :model-value="settings.canvas" @update:model-value="keep({ canvas: $event })" />
        <p class="mt-1 text-2xs text-dim">A screen can have a canvas of its own. Where canvas and target agree the picture has the very codes of the file.</p>
        <h3 class="mt-5 mb-1.5 text-sm font-semibold">Video files hold codes of</h3>
        <OptionRow label="range of outputs" :options="RANGES" :model-value="settings.output_range" @update:model-value="keep({ output_range: $event === 'full' ? 'full' : 'legal' })" />
      </section>
    </div>
    <Dialog :open="question !== null" class="relative z-40" @close="answer(false)">
      <div class="fixed inset-0 bg-black/60" aria-hidden="true" />
      <div class="fixed inset-0 flex items-center justify-center p-6">
        <DialogPanel class="w-[460px] rounded-sm border border-line bg-pane p-5">
          <DialogTitle class="text-base font-semibold">Every graded picture changes</DialogTitle>
          <p class="mt-2 text-dim">{{ question?.words }}</p>
          <div class="mt-4 flex gap-2">
            <button class="control-main" @click="answer(true)">Change it</button>
            <button class="control" @click="answer(false)">Leave it as it is</button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  </div>
  <div v-else class="flex h-full items-center justify-center text-dim">reading the settings…</div>
</template>
