<script setup lang="ts">
import type { Manner, Shot } from '@/api/cut'
import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import ChoiceList from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'
import { counted } from '../shell/counted'
import FrameField from './FrameField.vue'
import { useAssembly } from './useAssembly'
import { useCrossing } from './useCrossing'

/** How a shot begins: a cut, a dissolve, a wipe, or two grades of the same frames that cross over. */
const props = defineProps<{ shot: Shot }>()
const cut = useCut()
const assembly = useAssembly()
const crossing = useCrossing()
const catalogue = useCatalogue()
const USUAL = 12 // frames of a transition that is new

const before = computed(() => cut.shots[cut.indexOf(props.shot) - 1])
const after = computed(() => cut.shots[cut.indexOf(props.shot) + 1])
const kind = computed(() => (props.shot.dissolve ? (props.shot.wipe ? String(props.shot.wipe) : 'dissolve') : 'cut'))
const kinds = computed(() => [
  {
    name: '',
    options: [
      { id: 'cut', label: 'cut' },
      { id: 'dissolve', label: 'dissolve' },
    ],
  },
  { name: 'wipe', options: (catalogue.catalogue?.wipes ?? []).map(({ number, label }) => ({ id: String(number), label: `${number} ${label}` })) },
])
const curves = computed(() => [{ name: '', options: [{ id: 'straight', label: 'evenly' }, { id: 'eased', label: 'eased' }, ...(props.shot.crossover ? [{ id: 'measured', label: "by the picture's own mix" }] : [])] }])
const curve = computed(() => curves.value[0]?.options.find(({ id }) => id === (props.shot.manner.curve ?? 'straight'))?.label ?? 'evenly')

/** A transition that wants more frames than the shot before has. */
const wanted = ref<{ length: number; wipe: number | null; handle: number } | null>(null)
watch(
  () => props.shot.id,
  () => (wanted.value = null),
)

function put(length: number, wipe: number | null, manner: Manner = props.shot.manner) {
  const handle = before.value?.tail ?? 0
  wanted.value = length > handle && !manner.hold ? { length, wipe, handle } : null
  if (!wanted.value) void assembly.transition(props.shot, length, wipe, manner)
}
const choose = (to: string | null) => to !== null && put(to === 'cut' ? 0 : props.shot.dissolve || USUAL, Number(to) || null)
const alter = (change: Partial<Manner>) => assembly.transition(props.shot, props.shot.dissolve, props.shot.wipe, { ...props.shot.manner, ...change })
function bend(to: string | null) {
  if (to) void alter({ curve: to as Manner['curve'], shares: undefined })
}
function settle(how: 'shorten' | 'hold') {
  const asked = wanted.value
  wanted.value = null
  if (!asked) return
  if (how === 'hold') void assembly.transition(props.shot, asked.length, asked.wipe, { ...props.shot.manner, hold: true })
  else void assembly.transition(props.shot, asked.handle, asked.handle ? asked.wipe : null)
}
/** The shot stands between two of the same clip, as a dissolve that was found in a programme does. */
const between = computed(() => props.shot.dissolve === 0 && before.value?.clip.id === props.shot.clip.id && after.value?.clip.id === props.shot.clip.id)
</script>

<template>
  <span class="flex flex-wrap items-center gap-x-2 gap-y-1" role="group" aria-label="transition">
    <ChoiceList label="how the shot begins" look="flat" opens="up" :groups="kinds" :model-value="kind" :disabled="!before" @update:model-value="choose"
      >{{ shot.wipe ? `wipe ${shot.wipe}` : shot.crossover ? 'crossover' : kind }} ▾</ChoiceList
    >
    <template v-if="shot.dissolve">
      <FrameField label="over" :value="shot.dissolve" suffix="f" about="frames of the transition, all after the edit" @set="put(Math.round($event), shot.wipe)" />
      <ChoiceList label="how it goes" look="flat" opens="up" :groups="curves" :model-value="shot.manner.curve ?? 'straight'" @update:model-value="bend">{{ curve }} ▾</ChoiceList>
      <template v-if="shot.wipe">
        <FrameField
          narrow
          label="soft"
          :value="Math.round((shot.manner.softness ?? 0) * 100)"
          suffix="%"
          about="of the way, over which its edge uncovers a place"
          :step="5"
          @set="alter({ softness: Math.min(100, Math.max(0, $event)) / 100 })"
        />
        <button class="hover:text-ink" :class="shot.manner.backward ? 'text-ink' : ''" :aria-pressed="shot.manner.backward ?? false" @click="alter({ backward: !shot.manner.backward })">
          {{ shot.manner.backward ? 'runs backwards' : 'runs forwards' }}
        </button>
      </template>
      <button
        v-if="shot.manner.hold"
        class="text-weld hover:text-ink"
        :title="`${before?.name} stands still where its clip ends; again: as far as its frames go`"
        @click="put(Math.min(shot.dissolve, before?.tail ?? 0), shot.wipe, { ...shot.manner, hold: false })"
      >
        {{ before?.name }} held
      </button>
    </template>
    <button v-if="between" class="hover:text-ink" title="the grades of the shots beside it cross over these frames, by the picture's own mix" @click="crossing.make({ first: shot.record_in, count: shot.length })">cross over</button>
    <span v-if="wanted" class="flex items-center gap-2 border-l-2 border-weld pl-2 text-ink" role="alert" data-test="handles">
      {{ counted(wanted.length, 'frame') }} {{ wanted.length === 1 ? 'is' : 'are' }} wanted after {{ before?.name }}; it has {{ wanted.handle }}:
      <button class="control px-1.5 py-0 text-xs" @click="settle('shorten')">{{ wanted.handle ? `shorten to ${wanted.handle}` : 'make it a cut' }}</button>
      <button class="control px-1.5 py-0 text-xs" @click="settle('hold')">hold its last frame</button>
      <button class="control px-1.5 py-0 text-xs" @click="wanted = null">cancel</button>
    </span>
  </span>
</template>
