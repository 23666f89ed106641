<script setup lang="ts">
import type { ParameterSpec } from '@/api/declared'
import { computed, nextTick, onBeforeUnmount, ref } from 'vue'
import { held, shownValue, typedValue } from './edit'
import { followDrag, isReset, nudges, useNudging } from './useDrag'

const props = defineProps<{
  spec: ParameterSpec
  modelValue: number
  label?: string
  compact?: boolean
  /** What a control of a surface is bound to; see addressOf. */
  bind?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number]; begin: []; end: [] }>()

const PIXELS_PER_NUDGE = 4
const SECOND_CLICK_WITHIN = 220 // ms
const typing = ref(false)
const text = ref('')
const input = ref<HTMLInputElement>()

const name = computed(() => props.label ?? props.spec.label)
const shown = computed(() => shownValue(props.modelValue, props.spec))
const neutral = computed(() => props.modelValue === props.spec.neutral)

function set(value: number) {
  const next = held(value, props.spec)
  if (next !== props.modelValue) emit('update:modelValue', next)
}

function press(event: PointerEvent) {
  if (typing.value) return
  followDrag(event, {
    start: () => emit('begin'),
    move: (dx) => set(props.modelValue + (dx / PIXELS_PER_NUDGE) * props.spec.nudge),
    end: () => emit('end'),
    click: () => {
      clearTimeout(waiting)
      waiting = window.setTimeout(type, SECOND_CLICK_WITHIN)
    },
  })
}

let waiting = 0
onBeforeUnmount(() => clearTimeout(waiting))

function reset() {
  clearTimeout(waiting)
  typing.value = false
  set(props.spec.neutral)
}

const nudging = useNudging(
  () => emit('begin'),
  () => emit('end'),
)

async function type() {
  text.value = shown.value.replace('+', '')
  typing.value = true
  await nextTick()
  input.value?.select()
}

function accept() {
  if (!typing.value) return
  typing.value = false
  const value = typedValue(text.value, props.spec)
  if (value !== null) set(value)
}

function key(event: KeyboardEvent) {
  const count = nudges(event)
  if (count) {
    nudging()
    set(props.modelValue + count * props.spec.nudge)
  } else if (event.key === 'Enter') type()
  else if (isReset(event)) reset()
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div class="min-w-0">
    <span v-if="!compact" class="mb-0.5 block truncate text-2xs text-dim" :title="spec.about">{{ name }}</span>
    <div
      class="flex h-[22px] items-center border-b bg-ground px-1.5 text-xs"
      :class="[neutral ? 'border-line text-dim' : 'border-faint text-ink', typing ? '' : 'cursor-ew-resize']"
      role="spinbutton"
      tabindex="0"
      :data-bind="bind"
      :aria-label="name"
      :aria-valuenow="Number((modelValue * (spec.shown_times ?? 1)).toFixed(4))"
      :aria-valuemin="spec.min * (spec.shown_times ?? 1)"
      :aria-valuemax="spec.max * (spec.shown_times ?? 1)"
      :aria-valuetext="`${shown} ${spec.suffix}`.trim()"
      :title="spec.about"
      @pointerdown="press"
      @dblclick="reset"
      @keydown="key"
    >
      <input
        v-if="typing"
        ref="input"
        v-model="text"
        class="w-full min-w-0 bg-transparent text-xs outline-none select-text"
        :aria-label="`${name}, typed`"
        @pointerdown.stop
        @dblclick.stop
        @keydown.enter.stop="accept"
        @keydown.esc.stop="typing = false"
        @keydown.stop
        @blur="accept"
      />
      <span v-else class="truncate"
        >{{ shown }}<span v-if="spec.suffix" class="ml-0.5 text-faint">{{ spec.suffix }}</span></span
      >
    </div>
  </div>
</template>
