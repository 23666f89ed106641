<script setup lang="ts">
import type { SpanDocument } from '@/api/recipe'
import { computed } from 'vue'
import { outlineOf, placeOf, pulled, type Grip } from './spans'
import { usePicks } from './usePicks'
import { useSpans } from './useSpans'
import { useStrip } from './useStrip'
import { useStripDrag } from './useStripDrag'
import { useTimeView } from './useTimeView'

/** A span with its marks and fades, all of them to be pulled. */
const props = defineProps<{ span: SpanDocument; marked: { first: number; count: number } | null }>()
const strip = useStrip()
const spans = useSpans()
const picks = usePicks()
const view = useTimeView()
const { drag } = useStripDrag(() => props.marked)

const takesPart = computed(() => strip.open?.step.spans?.includes(props.span.id) ?? false)
const picked = computed(() => picks.span === props.span.id)
const across = (frame: number) => view.at(frame + (strip.open?.start ?? 0))
const path = computed(() => outlineOf(props.span, across, (share) => 19 - share * 16))
/** The last frame is in it to its end. */
const edge = (grip: Grip) => across(placeOf(props.span, grip) + (grip === 'finish' || grip.startsWith('out') ? 1 : 0))
const GRIPS: { grip: Grip; words: string; place: string }[] = [
  { grip: 'in-before', words: 'fade in before it', place: 'bottom-0 h-1.5 -translate-x-full' },
  { grip: 'in-after', words: 'fade in after it', place: 'top-0 h-1.5' },
  { grip: 'out-before', words: 'fade out before its end', place: 'top-0 h-1.5 -translate-x-full' },
  { grip: 'out-after', words: 'fade out after its end', place: 'bottom-0 h-1.5' },
]
const lengths = computed(() =>
  [props.span.fade_in, props.span.fade_out]
    .map((fade, out) => ({ text: fade.filter((frames) => frames > 0).join(' + '), at: out ? (edge('out-before') + edge('out-after')) / 2 : (edge('in-before') + edge('in-after')) / 2 }))
    .filter(({ text }) => text),
)

function press(event: PointerEvent, grip: Grip) {
  const open = strip.open
  if (!open) return
  picks.pickSpan(props.span.id)
  ;(event.currentTarget as HTMLElement).focus()
  const [span, document] = [{ ...props.span }, open.recipe.document]
  drag(event, placeOf(span, grip), (by, gesture) => spans.alter(span.id, pulled(span, grip, by), grip === 'whole' ? 'moved' : 'pulled', gesture, document))
}
</script>

<template>
  <div class="relative h-[22px]" role="group" :aria-label="`span ${span.name}`">
    <svg class="pointer-events-none absolute inset-0 size-full overflow-visible" viewBox="0 0 100 22" preserveAspectRatio="none">
      <path :d="path" :class="takesPart ? 'fill-weld/20 stroke-weld' : 'fill-faint/15 stroke-faint'" stroke-width="1" vector-effect="non-scaling-stroke" />
    </svg>
    <button
      class="pointer-events-auto absolute inset-y-0.5 cursor-grab touch-none focus-visible:outline focus-visible:outline-weld"
      :class="picked ? 'bg-weld/15' : ''"
      :style="{ left: `${edge('start')}%`, width: `${edge('finish') - edge('start')}%` }"
      :aria-label="`span ${span.name}, frames ${span.start + 1} to ${span.finish + 1}`"
      :aria-pressed="picked"
      title="drag it whole, its marks, or the ends of its fades; arrows nudge it, Delete removes it"
      @pointerdown.stop="press($event, 'whole')"
    />
    <i
      v-for="grip in ['start', 'finish'] as const"
      :key="grip"
      class="pointer-events-auto absolute inset-y-0 w-1.5 -translate-x-1/2 cursor-col-resize touch-none before:absolute before:inset-y-0 before:left-1/2 before:w-px"
      :class="takesPart ? 'before:bg-weld' : 'before:bg-dim'"
      :style="{ left: `${edge(grip)}%` }"
      :aria-label="`${grip} of ${span.name}`"
      @pointerdown.stop="press($event, grip)"
    />
    <i
      v-for="{ grip, words, place } in GRIPS"
      :key="grip"
      class="pointer-events-auto absolute w-2 cursor-ew-resize touch-none bg-dim opacity-0 hover:opacity-100"
      :class="[place, picked ? 'opacity-70' : '']"
      :style="{ left: `${edge(grip)}%` }"
      :title="words"
      :aria-label="`${words}: ${span.name}`"
      @pointerdown.stop="press($event, grip)"
    />
    <span v-for="fade in lengths" :key="fade.at" class="pointer-events-none absolute top-1 -translate-x-1/2 text-2xs" :class="takesPart ? 'text-weld' : 'text-dim'" :style="{ left: `${fade.at}%` }">{{ fade.text }}</span>
  </div>
</template>
