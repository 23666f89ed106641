<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { Wash } from '@/api/cut'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import { useCut } from '../cut/useCut'
import ChoiceList from '../shell/ChoiceList.vue'
import StepAdder from './StepAdder.vue'
import StepList from './StepList.vue'
import { useSteps } from './useSteps'
import { useWashes } from './useWashes'

const props = defineProps<{ wash: Wash; header: AnswerHeader | null }>()
const cut = useCut()
const washes = useWashes()
const { steps, add, addLook } = useSteps(computed(() => props.wash.recipe))

const nameOf = (id: number | null, end: 'first' | 'last') => cut.shots.find((shot) => shot.id === id)?.name ?? (end === 'first' ? cut.shots[0] : cut.shots.at(-1))?.name ?? ''
const stretch = computed(() => (props.wash.from === null && props.wash.to === null ? 'the cut' : `${nameOf(props.wash.from, 'first')} – ${nameOf(props.wash.to, 'last')}`))

/** "" stands for the cut's own end. */
const choices = (end: 'from' | 'to') => [{ name: '', options: [{ id: '', label: end === 'from' ? 'the beginning' : 'the end' }, ...cut.shots.map((shot) => ({ id: String(shot.id), label: shot.name }))] }]
function choose(end: 'from' | 'to', value: string | null) {
  const id = value ? Number(value) : null
  void washes.stretch(props.wash, end === 'from' ? id : props.wash.from, end === 'to' ? id : props.wash.to)
}
function rename(event: Event) {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== props.wash.name) void washes.rename(props.wash, name)
}
</script>

<template>
  <section class="mt-1 border-t border-line" :aria-label="`wash ${wash.name}`">
    <header class="flex items-center gap-2.5 px-3 pt-2 pb-1">
      <button class="relative size-3 shrink-0 border" :class="wash.enabled ? 'border-dim' : 'border-faint'" role="switch" :aria-checked="wash.enabled" :aria-label="`wash ${wash.name} on`" @click="washes.flip(wash)">
        <i v-if="wash.enabled" class="absolute inset-0.5 bg-ink" />
      </button>
      <Popover class="relative min-w-0 flex-1">
        <PopoverButton class="caption block max-w-full truncate text-left hover:text-ink" title="name and stretch of this wash"
          ><span :class="wash.enabled ? 'text-ink' : 'text-faint'">{{ wash.name }}</span> · wash over {{ stretch }}</PopoverButton
        >
        <PopoverPanel v-inside class="absolute left-0 z-20 mt-1 w-64 space-y-2.5 border border-line bg-raise p-3 shadow-lg shadow-black/50 outline-none">
          <label class="block"
            ><span class="caption mb-0.5 block">name</span
            ><input class="field w-full select-text" :value="wash.name" maxlength="60" aria-label="name of the wash" @keydown.enter="($event.target as HTMLInputElement).blur()" @keydown.stop @blur="rename"
          /></label>
          <div class="grid grid-cols-2 gap-2">
            <div v-for="end in ['from', 'to'] as const" :key="end">
              <span class="caption mb-0.5 block">{{ end === 'from' ? 'from shot' : 'to shot' }}</span>
              <ChoiceList :label="`wash ${end} shot`" :groups="choices(end)" :model-value="String(wash[end] ?? '')" @update:model-value="choose(end, $event)">{{
                wash[end] === null ? (end === 'from' ? 'the beginning' : 'the end') : nameOf(wash[end], end === 'from' ? 'first' : 'last')
              }}</ChoiceList>
            </div>
          </div>
          <button class="text-xs text-dim hover:text-ink" @click="washes.remove(wash)">remove the wash</button>
        </PopoverPanel>
      </Popover>
      <StepAdder :label="`add a step to ${wash.name}`" @add="add" @look="addLook" />
    </header>
    <p v-if="steps.length === 0" class="px-3 pb-2 text-xs text-dim">No steps yet. What is added here acts on every shot the wash lies over, after the shot's own steps.</p>
    <StepList :recipe="wash.recipe" :header="header" />
  </section>
</template>
