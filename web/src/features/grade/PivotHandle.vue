<script setup lang="ts">
import type { WorkingSpace } from '@/api/project'
import { computed } from 'vue'
import { held, shownValue } from './edit'
import { STAVES, pivotTone, tonePivot, toneX } from './staves'
import { followDrag, isReset, nudges, useNudging } from './useDrag'
import type { StepEditor } from './useStepEditor'

const props = defineProps<{ editor: StepEditor; space: WorkingSpace }>()

const CONTRAST_PER_PIXEL = 0.01

const editorValue = (name: 'contrast' | 'pivot') => props.editor.value(name) as number
const contrast = computed(() => editorValue('contrast'))
const pivot = computed(() => editorValue('pivot'))
const tone = computed(() => pivotTone(pivot.value, props.space.pivots))
const rounded = (x: number) => Math.round(x * 1e4) / 1e4

function set(name: 'contrast' | 'pivot', value: number) {
  props.editor.set(name, rounded(held(value, props.editor.parameter(name))))
}

function press(event: PointerEvent) {
  followDrag(event, {
    start: props.editor.begin,
    move: (dx, dy) => {
      if (Math.abs(dx) > Math.abs(dy)) set('pivot', tonePivot(tone.value + dx / (STAVES.white - STAVES.black), props.space.pivots))
      else if (dy !== 0) set('contrast', contrast.value - dy * CONTRAST_PER_PIXEL)
    },
    end: props.editor.end,
  })
}

const nudging = useNudging(props.editor.begin, props.editor.end)

function key(event: KeyboardEvent) {
  const count = nudges(event)
  if (count) {
    nudging()
    const name = event.key === 'ArrowUp' || event.key === 'ArrowDown' ? 'contrast' : 'pivot'
    set(name, editorValue(name) + count * props.editor.parameter(name).nudge)
  } else if (isReset(event)) reset()
  else return
  event.preventDefault()
  event.stopPropagation()
}

function reset() {
  props.editor.reset('contrast')
}
</script>

<template>
  <g
    class="group cursor-move outline-none"
    role="slider"
    tabindex="0"
    aria-label="contrast about the pivot"
    :aria-valuenow="contrast"
    :aria-valuetext="`contrast ${shownValue(contrast, editor.parameter('contrast'))}, pivot ${shownValue(pivot, editor.parameter('pivot'))}`"
    :transform="`translate(${toneX(tone)} ${STAVES.light.bottom + 9})`"
    @pointerdown="press"
    @dblclick="reset"
    @keydown="key"
  >
    <circle r="11" fill="transparent" />
    <circle r="8" class="fill-none stroke-weld opacity-0 group-focus-visible:opacity-100" />
    <path d="M0 -8L5.5 2H-5.5Z" class="fill-ground group-hover:stroke-weld" :class="contrast === 1 ? 'stroke-dim' : 'stroke-ink'" stroke-width="1.3" />
    <text class="pointer-events-none fill-ink text-[9px] group-hover:opacity-100 group-focus-visible:opacity-100" :class="contrast === 1 ? 'opacity-0' : 'opacity-100'" x="9" y="4">
      contrast {{ shownValue(contrast, editor.parameter('contrast')) }}
    </text>
  </g>
</template>
