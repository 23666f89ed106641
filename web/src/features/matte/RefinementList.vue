<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { CurvePoint, DeclaredSpec, ParameterSpec } from '@/api/declared'
import type { RefinementDocument } from '@/api/recipe'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { computed, ref } from 'vue'
import CurveGraph from '../grade/CurveGraph.vue'
import { neutralOf, shownValue } from '../grade/edit'
import NumberField from '../grade/NumberField.vue'
import TextChoice from '../grade/TextChoice.vue'
import { useCatalogue } from '../shell/useCatalogue'
import type { MatteEditor } from './useMatteEditor'

/** What is done to a matte once its contributors are combined, in order. */
const props = defineProps<{ editor: MatteEditor; header: AnswerHeader | null }>()
const catalogue = useCatalogue()
const opened = ref<string | null>(null)
const dragged = ref<number | null>(null)
const kinds = computed(() => catalogue.catalogue?.refinements ?? [])
const open = computed(() => props.editor.refinements.value.find((one) => one.id === opened.value))
const spec = computed(() => open.value && props.editor.refinementSpec(open.value))

function chip(one: RefinementDocument) {
  const kind = props.editor.refinementSpec(one)
  const number = kind?.parameters[0]
  const label = kind?.label.toLowerCase().replace('grow or shrink', 'grow').replace('clean specks', 'specks').replace('follow edges', 'edges') ?? one.kind
  return number ? `${label} ${shownValue((one.parameters[number.name] as number | undefined) ?? number.neutral, { ...number, decimals: 1 })}` : label
}
function add(kind: DeclaredSpec) {
  opened.value = props.editor.addRefinement(kind).id
}
const set = (name: string, value: number | string | CurvePoint[]) =>
  open.value && props.editor.refine(open.value, { parameters: { ...open.value.parameters, [name]: value } }, `${spec.value?.label.toLowerCase()} of its matte`, props.editor.gesture.id())
const number = (parameter: ParameterSpec) => (open.value?.parameters[parameter.name] as number | undefined) ?? parameter.neutral
function drop(index: number) {
  if (dragged.value !== null) props.editor.moveRefinement(dragged.value, index)
  dragged.value = null
}
</script>

<template>
  <div class="mt-2" role="group" aria-label="what is done to the matte">
    <p class="flex flex-wrap items-center gap-1">
      <span class="mr-1">then</span>
      <button
        v-for="(one, index) in editor.refinements.value"
        :key="one.id"
        draggable="true"
        class="border px-1.5"
        :class="[opened === one.id ? 'border-weld' : 'border-line', one.enabled ? 'text-ink' : 'text-faint line-through']"
        :aria-expanded="opened === one.id"
        @click="opened = opened === one.id ? null : one.id"
        @dragstart.stop="dragged = index"
        @dragover.prevent.stop
        @drop.prevent.stop="drop(index)"
      >
        {{ chip(one) }}
      </button>
      <Menu as="span" class="relative">
        <MenuButton class="px-1 hover:text-ink" aria-label="refine the matte">+ refine</MenuButton>
        <MenuItems v-inside class="absolute left-0 z-30 w-36 border border-line bg-raise py-1 text-sm text-ink shadow-lg shadow-black/50 outline-none">
          <MenuItem v-for="kind in kinds" :key="kind.id" v-slot="{ active }"
            ><button class="block w-full px-3 py-1 text-left" :class="{ 'bg-line': active }" @click="add(kind)">{{ kind.label.toLowerCase() }}</button></MenuItem
          >
        </MenuItems>
      </Menu>
    </p>
    <div v-if="open && spec" class="mt-1 border-l-2 border-line pl-2">
      <div class="grid grid-cols-3 gap-x-2">
        <NumberField
          v-for="parameter in spec.parameters"
          :key="parameter.name"
          :spec="{ ...parameter, nudge: parameter.nudge / 10, decimals: parameter.decimals + 1 }"
          :model-value="number(parameter)"
          @update:model-value="set(parameter.name, $event)"
          @begin="editor.gesture.begin"
          @end="editor.gesture.end"
        />
        <TextChoice v-for="text in spec.texts" :key="text.name" :spec="text" :model-value="String(open.parameters[text.name] ?? text.neutral)" @update:model-value="set(text.name, $event)" />
      </div>
      <CurveGraph
        v-for="curve in spec.curves"
        :key="curve.name"
        :spec="curve"
        :points="(open.parameters[curve.name] as CurvePoint[] | undefined) ?? (neutralOf(curve) as CurvePoint[])"
        :samples="header?.shapes?.[open.id]?.[curve.name] ?? null"
        :histogram="null"
        @change="set(curve.name, $event)"
        @begin="editor.gesture.begin"
        @end="editor.gesture.end"
      />
      <p class="mt-1 flex gap-3">
        <button class="hover:text-ink" @click="editor.refine(open, { enabled: !open.enabled }, `${spec.label.toLowerCase()} ${open.enabled ? 'off' : 'on'}`)">{{ open.enabled ? 'switch off' : 'switch on' }}</button><button
          class="hover:text-madder"
          @click="editor.unrefine(open)"
        >
          remove
        </button>
      </p>
    </div>
  </div>
</template>
