<script setup lang="ts">
import type { ContributorSpec, ParameterSpec } from '@/api/declared'
import type { ContributorDocument } from '@/api/recipe'
import { computed } from 'vue'
import NumberField from '../grade/NumberField.vue'
import { read, smooth, turned, written } from './outline'
import { useMatte } from './useMatte'
import type { MatteEditor } from './useMatteEditor'

/** One point of a shape in numbers: where it is, and what it adds to the feather. */
const props = defineProps<{ editor: MatteEditor; part: ContributorDocument; spec: ContributorSpec }>()
const matte = useMatte()
const rows = computed(() => (props.editor.value(props.part, 'points') as number[][] | undefined) ?? [])
const at = computed(() => Math.min(matte.point ?? 0, rows.value.length - 1))
const row = computed(() => rows.value[at.value] ?? [])
const declared = computed(() => props.spec.rows.find((one) => one.name === 'points'))
const WORDS: Record<string, string> = { x: 'across', y: 'down', feather_in: 'feather in', feather_out: 'feather out' }
const numbers = computed(() =>
  Object.entries(WORDS).map(([column, label]) => {
    const index = declared.value?.columns.indexOf(column) ?? 0
    const [min, max] = declared.value?.ranges[index] ?? [0, 1]
    const spec: ParameterSpec = { name: column, label, channels: null, unit: 'share', min, max, neutral: 0, decimals: 2, nudge: 0.001, suffix: '%', shown_times: 100, about: declared.value?.about ?? '' }
    return { index, spec }
  }),
)
const keep = (points: number[][], words: string, drag?: string) => props.editor.set(props.part, { points }, words, drag)
const set = (index: number, value: number) =>
  keep(
    rows.value.map((one, place) => (place === at.value ? one.map((number, column) => (column === index ? value : number)) : one)),
    `point ${at.value + 1}`,
    props.editor.gesture.id(),
  )
</script>

<template>
  <div v-if="rows.length">
    <p class="flex items-center gap-2 pt-1">
      <button class="px-1 hover:text-ink" aria-label="point before" @click="matte.point = (at + rows.length - 1) % rows.length">‹</button>
      <span>point {{ at + 1 }} of {{ rows.length }}</span>
      <button class="px-1 hover:text-ink" aria-label="point after" @click="matte.point = (at + 1) % rows.length">›</button>
      <button class="ml-auto hover:text-ink" @click="keep(turned(rows.map(read), at).map(written), 'smooth or corner')">{{ smooth(read(row)) ? 'make it a corner' : 'make it smooth' }}</button>
      <button
        v-if="rows.length > 3"
        class="hover:text-madder"
        @click="
          keep(
            rows.filter((_, place) => place !== at),
            'point taken off',
          )
        "
      >
        remove
      </button>
    </p>
    <div class="grid grid-cols-4 gap-x-2">
      <NumberField v-for="{ index, spec: number } in numbers" :key="index" :spec="number" :model-value="row[index] ?? 0" @update:model-value="set(index, $event)" @begin="editor.gesture.begin" @end="editor.gesture.end" />
    </div>
  </div>
</template>
