<script setup lang="ts">
import { computed } from 'vue'
import { useCut } from '../cut/useCut'
import ChoiceList, { type ChoiceGroup } from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'
import { counted } from '../shell/counted'
import { kindsOf, ORDERS, POSTERS, type Filters } from './arrange'
import { LARGEST, SMALLEST, useBoard } from './useBoard'

/** How the board is laid out and what of the cut it shows. */
const board = useBoard()
const cut = useCut()
const catalogue = useCatalogue()

const one = (name: string, options: { id: string; label: string }[]): ChoiceGroup => ({ name, options })
const unique = (values: (string | null)[]) => [...new Set(values.filter((value): value is string => Boolean(value)))].sort()
const filters = computed<{ key: keyof Filters; label: string; groups: ChoiceGroup[] }[]>(() => [
  {
    key: 'grade',
    label: 'any grade',
    groups: [
      one('', [
        { id: '', label: 'any grade' },
        { id: 'ungraded', label: 'ungraded' },
        { id: 'graded', label: 'graded' },
      ]),
    ],
  },
  {
    key: 'step',
    label: 'any steps',
    groups: [
      one('', [{ id: '', label: 'any steps' }]),
      one(
        'has a step',
        unique(cut.shots.flatMap(kindsOf)).map((id) => ({ id, label: catalogue.step(id)?.label ?? id })),
      ),
    ],
  },
  {
    key: 'flag',
    label: 'any flag',
    groups: [
      one('', [
        { id: '', label: 'flagged or not' },
        { id: 'any', label: 'flagged' },
        { id: 'none', label: 'not flagged' },
      ]),
      one(
        'colour',
        (catalogue.catalogue?.flags ?? []).map((id) => ({ id, label: id })),
      ),
    ],
  },
  {
    key: 'family',
    label: 'any family',
    groups: [
      one('', [
        { id: '', label: 'any family' },
        { id: 'none', label: 'in none' },
      ]),
      one(
        'in',
        cut.families.map(({ id, name }) => ({ id: String(id), label: name })),
      ),
    ],
  },
  { key: 'camera', label: 'any camera', groups: [one('', [{ id: '', label: 'any camera' }, ...unique(cut.shots.map((shot) => shot.clip.camera)).map((id) => ({ id, label: id }))])] },
  { key: 'encoding', label: 'any encoding', groups: [one('', [{ id: '', label: 'any encoding' }, ...unique(cut.shots.map((shot) => shot.clip.encoding)).map((id) => ({ id, label: catalogue.encodingLabel(id) }))])] },
])
const labelOf = (key: keyof Filters, groups: ChoiceGroup[], otherwise: string) => groups.flatMap((group) => group.options).find((option) => option.id !== '' && option.id === board.filters[key])?.label ?? otherwise
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1.5 text-xs text-dim">
    <ChoiceList label="order" look="flat" :groups="[{ name: 'order, without changing the cut', options: ORDERS }]" :model-value="board.look.order" @update:model-value="$event && (board.look.order = $event)"
      >by <span class="text-ink">{{ ORDERS.find((order) => order.id === board.look.order)?.label }}</span></ChoiceList
    >
    <ChoiceList label="representative frame" look="flat" :groups="[{ name: 'frame that stands for a shot', options: POSTERS }]" :model-value="board.look.poster" @update:model-value="$event && (board.look.poster = $event)"
      ><span class="text-ink">{{ POSTERS.find((poster) => poster.id === board.look.poster)?.label }}</span></ChoiceList
    >
    <input v-model="board.filters.words" class="field w-36 py-0.5 text-xs select-text" placeholder="name, scene, note, file" aria-label="search shots" @keydown.stop />
    <ChoiceList v-for="filter in filters" :key="filter.key" :label="filter.label" look="flat" :groups="filter.groups" :model-value="board.filters[filter.key]" @update:model-value="board.filters[filter.key] = ($event ?? '') as never">
      <span :class="board.filters[filter.key] ? 'text-weld' : ''">{{ labelOf(filter.key, filter.groups, filter.label) }}</span>
    </ChoiceList>
    <button v-if="board.filtered" class="text-weld hover:text-ink" @click="board.allOf()">{{ board.shown.length }} of {{ cut.shots.length }} · show all</button>
    <span v-else data-test="count">{{ counted(cut.shots.length, 'shot') }}</span>
    <span class="flex-1" />
    <label class="flex items-center gap-1.5"><input v-model="board.look.details" type="checkbox" class="accent-weld" />details</label>
    <label class="flex items-center gap-1.5" title="the board scrolls to the current shot"><input v-model="board.look.follows" type="checkbox" class="accent-weld" />scrolls along</label>
    <label class="flex items-center gap-1.5">size <input v-model.number="board.look.size" type="range" :min="SMALLEST" :max="LARGEST" step="4" class="w-24 accent-weld" aria-label="size of pictures" /></label>
  </div>
</template>
