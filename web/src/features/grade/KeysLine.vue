<script setup lang="ts">
import type { StepDocument } from '@/api/recipe'
import { computed } from 'vue'
import { keyFrames } from '../strip/courses'
import { usePicks } from '../strip/usePicks'
import { useSpans } from '../strip/useSpans'
import { useStrip } from '../strip/useStrip'
import { useKeys } from '../shell/useKeys'
import { useMoves } from './useMoves'

/** What of the open step changes over time: keys of its parameters, and the spans it takes part in. */
const props = defineProps<{ step: StepDocument }>()
const moves = useMoves()
const strip = useStrip()
const spans = useSpans()
const picks = usePicks()
const frames = computed(() => keyFrames(props.step.keys))
const here = computed(() => frames.value.includes(moves.frameOf(props.step)))

useKeys('change over time', [
  { key: 'shift+k', words: 'key of what was touched last at this frame, on and off', press: () => strip.flipKey() },
  { key: 'shift+a', words: 'to the key before', press: () => moves.go(-1) },
  { key: 'shift+d', words: 'to the key after', press: () => moves.go(1) },
  { key: '[', words: 'a span of the open step begins at this frame', press: () => spans.begin() },
  { key: ']', words: 'the span ends at this frame', press: () => spans.finish() },
])
</script>

<template>
  <p class="flex items-center gap-2 px-3 pb-2 text-2xs text-dim" role="group" :aria-label="`over time: ${step.name}`">
    <button v-if="frames.length" class="px-1 hover:text-ink" aria-label="key before" title="Shift A" @click="moves.go(-1)">‹</button>
    <button class="hover:text-ink" :class="here ? 'text-weld' : ''" :aria-pressed="here" title="Shift K: what was touched last, or what moves" @click="strip.flipKey()">
      {{ here ? 'keyed at this frame' : frames.length ? 'key this frame' : 'change over time: key this frame' }}
    </button>
    <button v-if="frames.length" class="px-1 hover:text-ink" aria-label="key after" title="Shift D" @click="moves.go(1)">›</button>
    <span class="flex-1" />
    <button v-for="span in spans.own" :key="span.id" class="max-w-24 truncate text-ink hover:text-weld" :title="`in ${span.name}, frames ${span.start + 1} to ${span.finish + 1}`" @click="picks.pickSpan(span.id)">{{ span.name }}</button>
    <button class="hover:text-ink" title="[ : a span of this step begins at this frame" @click="spans.begin()">{{ spans.own.length ? '+ span' : 'all through · + span' }}</button>
  </p>
</template>
