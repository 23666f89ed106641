<script setup lang="ts">
import type { KeyReading } from '@/api/answer'
import type { ContributorSpec, ParameterValue } from '@/api/declared'
import type { Region } from '@/api/readings'
import type { ContributorDocument, StepDocument } from '@/api/recipe'
import { computed, onBeforeUnmount, ref, toRef } from 'vue'
import { usePick } from '../bench/usePick'
import TextChoice from '../grade/TextChoice.vue'
import { usePatchPick } from '../grade/usePatchPick'
import { useKeys } from '../shell/useKeys'
import KeyPlane, { type PlaneHold } from './KeyPlane.vue'
import PartNumbers from './PartNumbers.vue'
import RangeGraph from './RangeGraph.vue'
import type { MatteEditor } from './useMatteEditor'

/** A key: what its picture has, what it takes of that, and handles on it. */
const props = defineProps<{ editor: MatteEditor; part: ContributorDocument; spec: ContributorSpec; step: StepDocument; reading: KeyReading | null }>()
const pick = usePick()
const asking = usePatchPick(toRef(() => props.step.id))
const numbers = ref(false)
const words = computed(() => `pick in the picture for ${props.editor.named(props.part)}: Shift takes more, Alt fewer; Escape stops`)
const picking = computed(() => pick.asked?.words === words.value)
const value = (name: string) => props.editor.value(props.part, name)
const number = (name: string) => value(name) as number
const pair = (name: string) => value(name) as [number, number]
const gesture = props.editor.gesture
const set = (to: Record<string, ParameterValue>, what: string) => props.editor.set(props.part, to, what)

/** The first pick begins the key; later ones replace it unless a key is held. */
function begin() {
  pick.ask(
    words.value,
    (region: Region, { more, fewer }) => {
      const act = more ? 'more' : fewer ? 'fewer' : 'fresh'
      void asking.ask<{ parameters: Record<string, ParameterValue> }>('key', ({ parameters }) => set(parameters, act === 'fresh' ? 'picked' : `${act} colours`), region, { contributor: props.part.id, act })
    },
    true,
  )
}
onBeforeUnmount(() => picking.value && pick.cancel())
useKeys('the open step', [{ key: 'shift+p', words: 'pick colours for the open key', press: begin }])

const hold = computed<PlaneHold | null>(() => {
  if (props.spec.id === 'key') return { kind: 'range', hue: number('hue'), width: number('hue_width'), soft: pair('hue_soft'), low: number('chroma_low'), high: number('chroma_high'), chromaSoft: pair('chroma_soft') }
  if (props.spec.id === 'samples') return { kind: 'samples', places: props.reading?.places ?? [], distance: number('distance') }
  if (props.spec.id === 'plane') return { kind: 'outline', places: value('outline') as [number, number][] }
  return null
})
function drawn(to: PlaneHold) {
  if (to.kind === 'range') return set({ hue: to.hue, hue_width: to.width, chroma_low: to.low, chroma_high: to.high }, 'hue and chroma')
  if (to.kind === 'outline') return set({ outline: to.places }, 'outline')
  const gone = hold.value?.kind === 'samples' ? hold.value.places.findIndex((place, index) => place !== to.places[index]) : -1
  set({ samples: (value('samples') as number[][]).filter((_, index) => index !== gone) }, 'sample taken off')
}
const light = computed(() =>
  props.spec.id === 'luminance'
    ? { low: 'low', high: 'high', soft: [number('low_softness'), number('high_softness')] as [number, number] }
    : props.spec.id === 'key'
      ? { low: 'lightness_low', high: 'lightness_high', soft: pair('lightness_soft') }
      : null,
)
function lit(low: number, high: number, soft: [number, number]) {
  if (!light.value) return
  set({ [light.value.low]: low, [light.value.high]: high, ...(props.spec.id === 'key' ? { lightness_soft: soft } : { low_softness: soft[0], high_softness: soft[1] }) }, 'lightness')
}
</script>

<template>
  <div>
    <p class="flex items-center gap-3 py-1">
      <button class="border px-1.5 text-xs" :class="picking ? 'border-weld text-weld' : 'border-line text-ink hover:border-faint'" :aria-pressed="picking" title="Shift P" data-test="pick-key" @click="begin">pick</button>
      <span class="min-w-0 flex-1 truncate">click or drag · Shift more · Alt fewer</span>
      <button class="hover:text-ink" :aria-expanded="numbers" @click="numbers = !numbers">numbers</button>
    </p>
    <div class="grid grid-cols-2 gap-2">
      <KeyPlane v-if="hold" :reading="reading" :hold="hold" @change="drawn" @begin="gesture.begin" @end="gesture.end" />
      <div class="space-y-1">
        <RangeGraph
          v-if="light"
          label="lightness"
          :bins="reading?.lightness ?? null"
          :from="reading?.lightness_range[0] ?? -0.1"
          :to="reading?.lightness_range[1] ?? 1.3"
          :low="number(light.low)"
          :high="number(light.high)"
          :soft="light.soft"
          :centred="spec.id === 'luminance'"
          @change="lit"
          @begin="gesture.begin"
          @end="gesture.end"
        />
        <RangeGraph
          v-if="spec.id === 'key'"
          label="chroma"
          :bins="reading?.chroma ?? null"
          :from="0"
          :to="reading?.reach ?? 0.45"
          :low="number('chroma_low')"
          :high="number('chroma_high')"
          :soft="pair('chroma_soft')"
          @change="(low, high, soft) => set({ chroma_low: low, chroma_high: high, chroma_soft: soft }, 'chroma')"
          @begin="gesture.begin"
          @end="gesture.end"
        />
        <p v-if="spec.id === 'samples'" class="pt-3">{{ (value('samples') as number[][]).length || 'no' }} samples; double-click one to drop it</p>
        <p v-if="spec.id === 'plane'" class="pt-3">drag corners; double-click makes one or drops it</p>
      </div>
    </div>
    <PartNumbers v-if="numbers || spec.id === 'samples' || spec.id === 'plane'" :editor="editor" :part="part" :spec="spec" :only="numbers ? undefined : ['distance', 'soft']" />
    <div class="mt-1 grid grid-cols-2 gap-x-2">
      <TextChoice v-for="text in spec.texts" :key="text.name" :spec="text" :model-value="String(value(text.name))" @update:model-value="set({ [text.name]: $event }, text.label)" />
      <PartNumbers :editor="editor" :part="part" :spec="spec" :only="['calm']" />
    </div>
  </div>
</template>
