<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { ContributorSpec, ParameterValue } from '@/api/declared'
import type { ContributorDocument, MatteMode, Recipe, StepDocument } from '@/api/recipe'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { computed, ref, toRef } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'
import NumberField from '../grade/NumberField.vue'
import { keyFrames } from '../strip/courses'
import ElsewherePanel from './ElsewherePanel.vue'
import KeyPanel from './KeyPanel.vue'
import MatteSight from './MatteSight.vue'
import RefinementList from './RefinementList.vue'
import ShapePanel from './ShapePanel.vue'
import { rounded, written } from './outline'
import { OWN } from './ownNumbers'
import { useMatte } from './useMatte'
import { useMatteEditor } from './useMatteEditor'

/** What of the picture the open step acts on: contributors as a sum, and what is done to that. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; header: AnswerHeader | null }>()
const MODES: { mode: MatteMode; sign: string; words: string }[] = [
  { mode: 'add', sign: '+', words: 'add' },
  { mode: 'subtract', sign: '−', words: 'subtract' },
  { mode: 'intersect', sign: '×', words: 'intersect' },
  { mode: 'out', sign: '○', words: 'left out' },
]
const catalogue = useCatalogue()
const matte = useMatte()
const editor = useMatteEditor(toRef(props, 'recipe'), toRef(props, 'step'))
const kinds = computed(() => catalogue.catalogue?.contributors ?? [])
const of = (family: ContributorSpec['family']) => kinds.value.filter((kind) => kind.family === family)
const naming = ref<string | null>(null)
const dragged = ref<number | null>(null)
const over = ref<number | null>(null)

function add(kind: ContributorSpec) {
  const start: Record<string, ParameterValue> = kind.id === 'outline' ? { points: rounded([0, 0], [0.2, 0.25]).map(written), feather: [0.02, 0.05] } : {}
  matte.part = editor.add(kind, start).id
}
/** A closed shape of straight edges. */
function addPolygon(kind: ContributorSpec) {
  const corners = [
    [-0.2, -0.2],
    [0.2, -0.2],
    [0.2, 0.2],
    [-0.2, 0.2],
  ]
  matte.part = editor.add(kind, { points: corners.map((at) => [...at, 0, 0, 0, 0, 0, 0]), feather: [0.02, 0.05] }).id
}
function paste() {
  const fresh = matte.copies()
  editor.change({ contributors: [...editor.parts.value, ...fresh] }, `acts on ${fresh.map(editor.named).join(', ')} too`)
}
function name(part: ContributorDocument, text: string) {
  if (naming.value !== part.id) return
  naming.value = null
  if (text.trim()) editor.alter(part, { name: text.trim().slice(0, 80) }, `${editor.named(part)} named ${text.trim()}`)
}
function drop() {
  if (dragged.value !== null && over.value !== null) editor.move(dragged.value, over.value > dragged.value ? over.value - 1 : over.value)
  dragged.value = over.value = null
}
function place(event: DragEvent, index: number) {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  over.value = index + (event.clientY > bounds.top + bounds.height / 2 ? 1 : 0)
}
const detail = (part: ContributorDocument) =>
  [part.name && editor.specOf(part)?.label.toLowerCase(), part.path ? 'follows a path' : '', part.keys ? `${keyFrames(part.keys).length} keys` : '', part.invert ? 'inverted' : ''].filter(Boolean).join(', ')
</script>

<template>
  <div class="px-3 pb-2 text-2xs text-dim" role="group" :aria-label="`what ${step.name} acts on`">
    <p class="flex items-center gap-2">
      <span class="flex-1 truncate">{{ editor.parts.value.length ? 'the sum of' : 'acts on the whole picture, until something is chosen' }}</span>
      <span v-if="header?.acting?.step === step.id && editor.parts.value.length" data-test="acting">{{ (header.acting.between * 100).toFixed(1) }} % in between</span>
      <span v-if="editor.parts.value.length" class="w-12" title="strength of the whole matte"
        ><NumberField
          compact
          :spec="OWN.strength"
          label="strength of the matte"
          :model-value="editor.matte.value.strength"
          @update:model-value="editor.change({ strength: $event }, 'strength of its matte', editor.gesture.id())"
          @begin="editor.gesture.begin"
          @end="editor.gesture.end"
      /></span>
    </p>
    <MatteSight v-if="editor.parts.value.length" />
    <ol class="mt-1 border-l-2 border-woad/70">
      <li
        v-for="(part, index) in editor.parts.value"
        :key="part.id"
        class="border-t pl-2"
        :class="over === index ? 'border-weld' : 'border-transparent'"
        :aria-label="editor.named(part)"
        :draggable="matte.part !== part.id && naming !== part.id"
        @dragstart.stop="dragged = index"
        @dragover.prevent.stop="place($event, index)"
        @drop.prevent.stop="drop"
        @dragend="dragged = over = null"
      >
        <div class="flex items-center gap-2 py-0.5">
          <span class="flex gap-px">
            <button
              v-for="one in MODES"
              :key="one.mode"
              type="button"
              class="size-4 border leading-none"
              :class="part.mode === one.mode ? 'border-weld text-weld' : 'border-transparent hover:text-ink'"
              :aria-label="one.words"
              :title="one.words"
              :aria-pressed="part.mode === one.mode"
              @click="editor.alter(part, { mode: one.mode }, `${editor.named(part)} ${one.words}`)"
            >
              {{ one.sign }}
            </button>
          </span>
          <input
            v-if="naming === part.id"
            :ref="(field) => (field as HTMLInputElement | null)?.focus()"
            class="field min-w-0 flex-1 py-0 text-xs select-text"
            :value="editor.named(part)"
            :aria-label="`name of ${editor.named(part)}`"
            maxlength="80"
            @keydown.stop
            @keydown.enter="($event.target as HTMLInputElement).blur()"
            @keydown.esc="naming = null"
            @blur="name(part, ($event.target as HTMLInputElement).value)"
          />
          <button
            v-else
            type="button"
            class="min-w-0 flex-1 truncate text-left text-xs"
            :class="part.mode === 'out' ? 'text-faint' : 'text-ink'"
            :aria-expanded="matte.part === part.id"
            @click="matte.open(part.id)"
            @dblclick.stop="naming = part.id"
          >
            {{ editor.named(part) }}<span v-if="part.name || part.path || part.keys || part.invert" class="ml-1.5 text-2xs text-faint">{{ detail(part) }}</span>
          </button>
          <Menu as="div" class="relative">
            <MenuButton class="px-1 hover:text-ink" :aria-label="`more for ${editor.named(part)}`">⋯</MenuButton>
            <MenuItems v-inside class="absolute right-0 z-30 w-36 border border-line bg-raise py-1 text-sm text-ink shadow-lg shadow-black/50 outline-none">
              <MenuItem v-slot="{ active }"><button class="block w-full px-3 py-1 text-left" :class="{ 'bg-line': active }" @click="naming = part.id">name it</button></MenuItem>
              <MenuItem v-slot="{ active }"><button class="block w-full px-3 py-1 text-left" :class="{ 'bg-line': active }" @click="editor.alter(part, { invert: !part.invert }, `${editor.named(part)} inverted`)">invert</button></MenuItem>
              <MenuItem v-slot="{ active }"><button class="block w-full px-3 py-1 text-left" :class="{ 'bg-line': active }" @click="matte.copy([part])">copy</button></MenuItem>
              <MenuItem v-slot="{ active }"><button class="block w-full px-3 py-1 text-left" :class="{ 'bg-line': active }" @click="matte.copy(editor.parts.value)">copy all of them</button></MenuItem>
              <MenuItem v-slot="{ active }"><button class="block w-full px-3 py-1 text-left text-madder" :class="{ 'bg-line': active }" @click="editor.remove(part)">remove</button></MenuItem>
            </MenuItems>
          </Menu>
        </div>
        <div v-if="matte.part === part.id && editor.specOf(part)" class="pb-2">
          <KeyPanel v-if="editor.specOf(part)!.family === 'key'" :editor="editor" :part="part" :spec="editor.specOf(part)!" :step="step" :reading="header?.key?.contributor === part.id ? header.key : null" />
          <ShapePanel v-else-if="editor.specOf(part)!.family === 'shape'" :editor="editor" :part="part" :spec="editor.specOf(part)!" :recipe="recipe" :step="step" />
          <ElsewherePanel v-else :editor="editor" :part="part" :spec="editor.specOf(part)!" :step="step" />
          <div class="mt-1.5 grid grid-cols-3 gap-x-2">
            <NumberField
              :spec="OWN.softness"
              :model-value="part.softness"
              @update:model-value="editor.alter(part, { softness: $event }, `softness of ${editor.named(part)}`, editor.gesture.id())"
              @begin="editor.gesture.begin"
              @end="editor.gesture.end"
            />
            <NumberField
              :spec="OWN.strength"
              :model-value="part.strength"
              @update:model-value="editor.alter(part, { strength: $event }, `strength of ${editor.named(part)}`, editor.gesture.id())"
              @begin="editor.gesture.begin"
              @end="editor.gesture.end"
            />
            <button class="self-end pb-1 text-left hover:text-ink" :class="{ 'text-weld': part.invert }" :aria-pressed="part.invert" @click="editor.alter(part, { invert: !part.invert }, `${editor.named(part)} inverted`)">
              {{ part.invert ? 'inverted' : 'invert' }}
            </button>
          </div>
        </div>
      </li>
    </ol>
    <p class="mt-1 flex flex-wrap gap-x-2.5 gap-y-0.5 pl-2.5">
      <button v-for="kind in of('key')" :key="kind.id" type="button" class="hover:text-ink" @click="add(kind)">+ {{ kind.label.toLowerCase() }}</button>
      <template v-for="kind in of('shape')" :key="kind.id">
        <button v-if="kind.id === 'outline'" type="button" class="hover:text-ink" title="a closed shape of straight edges" @click="addPolygon(kind)">+ polygon</button>
        <button type="button" class="hover:text-ink" :title="kind.id === 'outline' ? 'a closed shape of curves' : undefined" @click="add(kind)">+ {{ kind.id === 'outline' ? 'curve' : kind.label.toLowerCase() }}</button>
      </template>
      <button v-for="kind in of('elsewhere')" :key="kind.id" type="button" class="hover:text-ink" @click="add(kind)">+ {{ kind.id === 'linked' ? 'from elsewhere' : 'clip' }}</button>
      <button v-if="matte.copied.length" type="button" class="text-weld hover:text-ink" data-test="paste-contributors" @click="paste">+ copied {{ matte.copied.length > 1 ? `${matte.copied.length}` : '' }}</button>
    </p>
    <RefinementList v-if="editor.parts.value.length" :editor="editor" :header="header" />
  </div>
</template>
