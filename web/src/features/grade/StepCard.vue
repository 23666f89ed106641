<script setup lang="ts">
import type { StepSpec } from '@/api/declared'
import type { StepDocument } from '@/api/recipe'
import { computed, ref } from 'vue'
import StepMenu, { type StepAct } from './StepMenu.vue'
import NumberField from './NumberField.vue'
import { STRENGTH, labelOf, summary } from './edit'
import { useMoves } from './useMoves'
import { useNaming } from './useNaming'
import { useGesture } from './useStepEditor'

const props = defineProps<{ step: StepDocument; spec: StepSpec; open: boolean; first: boolean; last: boolean; beside: boolean; fault?: string | null; slim?: boolean }>()
const emit = defineEmits<{ toggle: []; switch: []; strength: [value: number, gesture?: string]; name: [name: string]; act: [what: StepAct] }>()

const gesture = useGesture()

const field = ref<HTMLInputElement>()
const { naming, rename, named } = useNaming(
  field,
  () => props.step.name,
  (name) => emit('name', name),
)
const act = (what: StepAct) => (what === 'rename' ? void rename() : emit('act', what))

const moves = useMoves()
/** Where spans bind it: how much of it there is at this frame. */
const spanned = computed(() => (props.step.spans?.length ? moves.spanned[props.step.id] : undefined))
const moving = computed(() => Object.keys(props.step.keys ?? {}).map((name) => labelOf(props.spec, name).toLowerCase()))
const line = computed(() => [moving.value.length ? `moves: ${moving.value.join(', ')}` : '', summary(props.step, props.spec)].filter(Boolean).join(' · ') || 'neutral')
</script>

<template>
  <section class="border-b border-line" :class="{ 'bg-raise': open }" :aria-label="step.name">
    <div class="group flex items-center gap-2.5 px-3" :class="slim ? 'py-1' : 'py-2'">
      <button class="relative size-3 shrink-0 border" :class="step.enabled ? 'border-dim' : 'border-faint'" role="switch" :aria-checked="step.enabled" :aria-label="`${step.name} on`" @click="$emit('switch')">
        <i v-if="step.enabled" class="absolute inset-0.5 bg-ink" />
      </button>
      <button class="min-w-0 flex-1 text-left" :class="{ 'flex items-baseline gap-2': slim && !open }" :aria-expanded="open" @click="$emit('toggle')">
        <input
          v-if="naming"
          ref="field"
          class="field w-full py-0 text-sm select-text"
          :value="step.name"
          :aria-label="`name of ${step.name}`"
          maxlength="80"
          @click.stop
          @keydown.stop
          @keydown.enter="($event.target as HTMLInputElement).blur()"
          @keydown.esc="naming = false"
          @blur="named(($event.target as HTMLInputElement).value)"
        />
        <span v-else class="block shrink-0 truncate text-sm" :class="step.enabled ? 'text-ink' : 'text-faint'" @dblclick.stop="rename">{{ step.name }}</span>
        <span class="block truncate text-2xs text-dim"
          ><span v-if="fault" class="text-madder">{{ fault }} · </span
          ><span v-if="spanned !== undefined" :class="spanned === 0 ? 'text-faint' : 'text-weld'" data-test="spanned">{{ spanned === 0 ? 'not here' : spanned === 1 ? 'here' : `here ${Math.round(spanned * 100)} %` }} · </span
          ><span v-if="beside" class="text-weld">beside the one above · </span>{{ line }}</span
        >
      </button>
      <span class="flex items-center gap-2 text-2xs text-dim">
        <template v-if="open">
          <span class="w-14"
            ><NumberField compact :spec="STRENGTH" :label="`strength of ${step.name}`" :model-value="step.strength" @update:model-value="emit('strength', $event, gesture.id())" @begin="gesture.begin" @end="gesture.end"
          /></span>
          <StepMenu :name="step.name" :first="first" :last="last" :beside="beside" @act="act" />
        </template>
        <span v-else>{{ Math.round(step.strength * 100) }} %</span>
      </span>
    </div>
    <slot v-if="open" />
  </section>
</template>
