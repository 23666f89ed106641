<script setup lang="ts">
import type { ParameterSpec, ParameterValue } from '@/api/declared'
import type { CourseKey, Ease, SpanDocument } from '@/api/recipe'
import { computed } from 'vue'
import FrameField from '../assembly/FrameField.vue'
import NumberField from '../grade/NumberField.vue'
import { useGesture } from '../grade/useStepEditor'
import ChoiceList from '../shell/ChoiceList.vue'
import { withAlteredPicks, withMovedPicks } from './courses'
import { usePicks } from './usePicks'
import { useSpans } from './useSpans'
import { useStrip } from './useStrip'

/** What is picked on the strip, by number. */
const strip = useStrip()
const spans = useSpans()
const picks = usePicks()
const gesture = useGesture()
const EASES: { id: Ease; label: string }[] = [
  { id: 'straight', label: 'straight' },
  { id: 'smooth', label: 'smooth' },
  { id: 'hold', label: 'holds' },
]
const SLOPE: ParameterSpec = { name: 'slope', label: 'slope', channels: null, unit: 'ratio', min: 0, max: 3, neutral: 1, decimals: 2, nudge: 0.05, suffix: '×', about: 'How steeply it goes there: 0 rests, 1 as the straight way, 3 at most.' }

/** The one key that is picked, or the first of several. */
const first = computed(() => picks.keys[0] ?? null)
const key = computed<CourseKey | null>(() => {
  const [pick, step] = [first.value, strip.open?.step]
  return pick && step ? (strip.coursesOf(step, pick.part)[pick.name]?.find((one) => one.frame === pick.frame) ?? null) : null
})
const spec = computed<ParameterSpec | null>(() => {
  return first.value && picks.keys.length === 1 ? strip.numberSpec(first.value) : null
})
const numbers = computed(() => (spec.value && key.value ? (Array.isArray(key.value.value) ? (key.value.value as number[]) : [key.value.value as number]) : []))
const ease = computed(() => key.value?.ease ?? 'straight')
/** The way there is smooth too. */
const arrives = computed(() => {
  const [pick, step] = [first.value, strip.open?.step]
  if (!pick || !step || !key.value) return false
  const keys = strip.coursesOf(step, pick.part)[pick.name] ?? []
  return keys[keys.indexOf(key.value) - 1]?.ease === 'smooth'
})

function set(index: number, value: number) {
  const now = key.value?.value
  const next: ParameterValue = Array.isArray(now) ? (now as number[]).map((one, at) => (at === index ? value : one)) : value
  strip.alter({ value: next }, 'value of a key', gesture.id())
}
function move(frame: number) {
  if (!first.value) return
  const by = frame - 1 - first.value.frame
  strip.change((courses, on) => withMovedPicks(courses, on, by), 'keys moved')
  picks.keys = picks.keys.map((pick) => ({ ...pick, frame: pick.frame + by }))
}
const slope = (side: 'in' | 'out', value: number | undefined, drag?: string) => strip.change((courses, on) => withAlteredPicks(courses, on, { [side]: value }), 'slope of a key', picks.keys, drag)

const span = computed(() => spans.chosen)
const alter = (values: Partial<SpanDocument>, words: string) => span.value && spans.alter(span.value.id, values, words)
const least = (frames: number) => Math.max(0, Math.round(frames))
</script>

<template>
  <div class="flex h-[26px] items-center gap-x-3 overflow-hidden text-2xs whitespace-nowrap text-dim" data-test="strip-numbers">
    <template v-if="span">
      <input
        class="field w-24 px-1 py-0 text-xs select-text"
        :value="span.name"
        maxlength="80"
        aria-label="name of the span"
        @keydown.stop
        @keydown.enter="($event.target as HTMLInputElement).blur()"
        @change="alter({ name: ($event.target as HTMLInputElement).value.trim() || span.name }, 'named otherwise')"
      />
      <FrameField narrow label="frames" name="first frame" :value="span.start + 1" about="its first frame" @set="alter({ start: Math.min(Math.round($event) - 1, span.finish) }, 'begins elsewhere')" />
      <FrameField narrow label="to" name="last frame" :value="span.finish + 1" about="its last frame" @set="alter({ finish: Math.max(Math.round($event) - 1, span.start) }, 'ends elsewhere')" />
      <FrameField narrow label="fade in" name="fade in before" :value="span.fade_in[0]" about="frames before its first one, which stays at full strength" @set="alter({ fade_in: [least($event), span.fade_in[1]] }, 'fade in')" />
      <FrameField narrow class="-ml-2" label="+" name="fade in after" :value="span.fade_in[1]" about="frames after its first one" @set="alter({ fade_in: [span.fade_in[0], least($event)] }, 'fade in')" />
      <FrameField narrow label="fade out" name="fade out before" :value="span.fade_out[0]" about="frames before its last one" @set="alter({ fade_out: [least($event), span.fade_out[1]] }, 'fade out')" />
      <FrameField narrow class="-ml-2" label="+" name="fade out after" :value="span.fade_out[1]" about="frames after its last one" @set="alter({ fade_out: [span.fade_out[0], least($event)] }, 'fade out')" />
      <button class="hover:text-ink" title="how its fades go" @click="alter({ curve: span.curve === 'cosine' ? 'straight' : 'cosine' }, 'fades otherwise')">{{ span.curve === 'cosine' ? 'eased fades' : 'straight fades' }}</button>
      <button class="hover:text-madder" @click="strip.remove()">delete</button>
    </template>
    <template v-else-if="key && first">
      <span class="text-ink">{{ picks.keys.length > 1 ? `${picks.keys.length} keys` : (spec?.label.toLowerCase() ?? first.name) }}</span>
      <FrameField narrow label="at frame" :value="first.frame + 1" about="of the shot" @set="move(Math.round($event))" />
      <span v-for="(value, index) in numbers" :key="index" class="flex items-center gap-1">
        {{ spec?.channels?.[index] ?? 'value'
        }}<span class="w-14"
          ><NumberField v-if="spec" compact :spec="spec" :label="`key value ${spec.channels?.[index] ?? ''}`.trim()" :model-value="value" @update:model-value="set(index, $event)" @begin="gesture.begin" @end="gesture.end"
        /></span>
      </span>
      <ChoiceList label="easing after the key" look="flat" opens="up" :groups="[{ name: '', options: EASES }]" :model-value="ease" @update:model-value="$event && strip.alter({ ease: $event as Ease }, 'easing')"
        ><span class="text-ink">{{ EASES.find((one) => one.id === ease)?.label }} ▾</span></ChoiceList
      >
      <template v-for="side in (['in', 'out'] as const).filter((one) => (one === 'in' ? arrives : ease === 'smooth'))" :key="side">
        <span class="flex items-center gap-1"
          >{{ side === 'in' ? 'arrives' : 'leaves' }}
          <span v-if="key[side] !== undefined" class="w-14"
            ><NumberField
              compact
              :spec="SLOPE"
              :label="`slope it ${side === 'in' ? 'arrives' : 'leaves'} with`"
              :model-value="key[side] ?? 1"
              @update:model-value="slope(side, $event, gesture.id())"
              @begin="gesture.begin"
              @end="gesture.end"
          /></span>
          <button class="hover:text-ink" :title="key[side] === undefined ? 'set its slope by hand' : 'found from the keys beside it'" @click="slope(side, key[side] === undefined ? 0 : undefined)">
            {{ key[side] === undefined ? 'by itself' : '↺' }}
          </button>
        </span>
      </template>
      <button class="hover:text-madder" @click="strip.remove()">remove</button>
    </template>
    <span v-else class="text-faint">{{ strip.open ? 'Shift K keys what was touched last · [ begins a span, ] ends it · Shift A and D go from key to key' : 'Open a step to see what of it changes over time.' }}</span>
  </div>
</template>
