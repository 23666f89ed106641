<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { labelOf } from '../grade/edit'
import { fineness } from '../grade/useDrag'
import { useMatte } from '../matte/useMatte'
import ChoiceList from '../shell/ChoiceList.vue'
import CourseGraph from './CourseGraph.vue'
import KeyLane from './KeyLane.vue'
import PathLane from './PathLane.vue'
import SpanLane from './SpanLane.vue'
import StripNumbers from './StripNumbers.vue'
import { usePicks } from './usePicks'
import { useSpans } from './useSpans'
import { useStrip } from './useStrip'
import { useTimeView } from './useTimeView'

/** What changes over time in the open step: keys, paths and spans, in the frames of the cut bar above. */
defineProps<{ marked: { first: number; count: number } | null; gutter: number }>()
const emit = defineEmits<{ go: [frame: number]; cross: [] }>()
const cut = useCut()
const strip = useStrip()
const matte = useMatte()
const spans = useSpans()
const picks = usePicks()
const view = useTimeView()
const root = ref<HTMLElement>()
const lanes = ref<HTMLElement>()

onMounted(() => view.mode === 'cut' && view.flip())
onUnmounted(() => (view.mode = 'cut'))

const shot = computed(() => cut.shot)
/** The part of the lanes that is the shot's own, as shares. */
const own = computed(() => (shot.value ? { left: view.at(shot.value.record_in), width: view.at(shot.value.record_in + shot.value.length) - view.at(shot.value.record_in) } : null))
/** Frames of the shot that are numbered, about ten of them. */
const ticks = computed(() => {
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((one) => view.view.count / one <= 12) ?? 5000
  const first = shot.value?.record_in ?? 0
  const from = Math.max(0, Math.ceil((view.view.from - first) / step) * step)
  const to = Math.min(shot.value?.length ?? 0, view.view.from + view.view.count - first)
  return Array.from({ length: Math.max(0, Math.ceil((to - from) / step)) }, (_, index) => from + index * step).map((frame) => ({ frame: frame + 1, left: view.at(first + frame) }))
})
const parameters = computed(() => {
  const spec = strip.spec
  if (!spec || !strip.open) return []
  const moving = strip.open.step.keys ?? {}
  return [{ name: 'keyed at this frame', options: spec.order.map((name) => ({ id: name, label: `${labelOf(spec, name).toLowerCase()}${moving[name] ? ' · moves' : ''}` })) }]
})

function scrub(event: PointerEvent) {
  const bounds = lanes.value?.getBoundingClientRect()
  if (bounds && event.buttons === 1) emit('go', view.frameAt((event.clientX - bounds.left) / bounds.width) - 0.5)
}
function press(event: PointerEvent) {
  lanes.value?.setPointerCapture(event.pointerId)
  root.value?.focus()
  picks.clear()
  scrub(event)
}
const turn = (event: WheelEvent) => {
  const box = event.currentTarget as HTMLElement
  if (lanes.value && (event.ctrlKey || box.scrollHeight <= box.clientHeight)) view.wheel(event, lanes.value)
}

let nudging = { id: '', at: 0 }
function nudge(by: number) {
  const now = performance.now()
  if (now - nudging.at > 500) nudging.id = crypto.randomUUID()
  nudging.at = now
  strip.nudge(by, nudging.id)
}
function keydown(event: KeyboardEvent) {
  if ((event.target as HTMLElement).closest('input, [role=spinbutton], [role=listbox]')) return
  const mod = event.ctrlKey || event.metaKey
  const some = picks.keys.length > 0 || spans.chosen !== null
  const way = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
  if (way && some && !mod) nudge(way * (event.altKey ? 1 : fineness(event)))
  else if ((event.key === 'Delete' || event.key === 'Backspace') && some) strip.remove()
  else if (mod && event.key === 'c' && some) strip.copy()
  else if (mod && event.key === 'v') strip.paste()
  else if (mod && event.key === 'a')
    picks.pick(
      strip.rows.flatMap((row) => row.picks),
      false,
    )
  else if (event.key === 'Escape' && some) picks.clear()
  else return
  event.preventDefault()
  event.stopPropagation()
}
function openShape(id?: string) {
  if (!id) return
  matte.side = 'acts'
  matte.part = id
}
const follows = (parts: { id: string; name?: string }[]) => parts.map((part) => part.name ?? 'shape').join(', ')
</script>

<template>
  <section ref="root" class="border-t border-line bg-pane px-3 pt-1 pb-1.5 outline-none" tabindex="-1" aria-label="strip" @keydown="keydown">
    <header class="mb-1 flex items-center gap-3 text-2xs text-dim">
      <span class="shrink-0 truncate" :style="{ width: `${gutter - 12}px` }"
        ><b class="font-medium text-ink">{{ strip.open?.step.name ?? 'no step' }}</b></span
      >
      <ChoiceList v-if="strip.open" label="parameter to key" look="flat" opens="up" :groups="parameters" :model-value="null" @update:model-value="$event && strip.key([$event])"><span class="hover:text-ink">+ key ▾</span></ChoiceList>
      <button v-if="strip.open" class="hover:text-ink" title="[ : a span of this step begins at this frame" @click="spans.begin()">+ span from here</button>
      <button v-if="marked" class="hover:text-ink" title="Shift X: the grades on either side cross over the marked frames, by the picture's own mix" @click="emit('cross')">cross over {{ marked.count }} marked frames</button>
      <span class="flex-1" />
      <button v-if="strip.rows.length > 1 || strip.folded" :class="strip.folded ? 'text-ink' : 'hover:text-ink'" :aria-pressed="strip.folded" title="all that moves in one line" @click="strip.folded = !strip.folded">folded</button>
      <button :class="strip.graph ? 'text-ink' : 'hover:text-ink'" :aria-pressed="strip.graph" title="the value of the picked key's parameter over time" @click="strip.graph = !strip.graph">graph</button>
      <span class="flex items-center gap-1.5"
        ><button class="px-0.5 hover:text-ink" aria-label="zoom out" title="zoom out; or turn the wheel over the lanes" @click="view.wider()">−</button
        ><button class="px-0.5 hover:text-ink" aria-label="zoom in" @click="view.closer()">+</button
        ><button class="hover:text-ink" title="Shift L: this shot, or the whole cut" @click="view.flip()">{{ view.mode === 'shot' ? 'this shot' : view.mode === 'cut' ? 'the cut' : 'zoomed' }}</button></span
      >
    </header>
    <div class="relative max-h-40 overflow-x-clip overflow-y-auto" @wheel="turn">
      <div class="relative" :style="{ marginLeft: `${gutter}px` }">
        <div ref="lanes" data-lane class="absolute inset-0 cursor-pointer touch-none overflow-x-clip bg-ground/40" data-test="lanes" @pointerdown="press" @pointermove="scrub">
          <i v-if="own" class="absolute inset-y-0 bg-ground" :style="{ left: `${own.left}%`, width: `${own.width}%` }" />
          <i v-for="tick in ticks" :key="tick.frame" class="absolute inset-y-0 w-px bg-line" :style="{ left: `${tick.left}%` }" />
          <i v-if="marked" class="absolute inset-y-0 bg-ink/5" :style="{ left: `${view.at(marked.first)}%`, width: `${view.at(marked.first + marked.count) - view.at(marked.first)}%` }" />
        </div>
      </div>
      <div class="pointer-events-none relative">
        <div class="relative h-3.5 overflow-x-clip" :style="{ marginLeft: `${gutter}px` }">
          <span v-for="tick in ticks" :key="tick.frame" class="absolute pl-1 text-2xs text-faint" :style="{ left: `${tick.left}%` }">{{ tick.frame }}</span>
        </div>
        <div v-for="row in strip.rows" :key="row.id" class="flex">
          <span class="shrink-0 truncate pr-2 text-2xs leading-5 text-dim" :style="{ width: `${gutter}px` }" :title="row.label">{{ row.label }}</span>
          <KeyLane class="min-w-0 flex-1 overflow-x-clip" data-lane :row="row" :marked="marked" @go="emit('go', $event)" />
        </div>
        <div v-for="{ path, parts } in strip.paths" :key="path.id" class="flex">
          <button
            class="pointer-events-auto shrink-0 truncate pr-2 text-left text-2xs leading-4 text-dim hover:text-ink"
            :style="{ width: `${gutter}px` }"
            :title="`${follows(parts)} on ${path.name}; opens the shape, to follow another path or none`"
            @click="openShape(parts[0]?.id)"
          >
            path · {{ follows(parts) }}
          </button>
          <PathLane class="min-w-0 flex-1 overflow-x-clip" :path="path" />
        </div>
        <div v-for="span in spans.all" :key="span.id" class="flex">
          <label
            class="pointer-events-auto flex shrink-0 items-center gap-1.5 truncate pr-2 text-2xs leading-[22px]"
            :class="strip.open?.step.spans?.includes(span.id) ? 'text-ink' : 'text-dim'"
            :style="{ width: `${gutter}px` }"
            :title="`${strip.open?.step.name} takes part in ${span.name}`"
          >
            <input type="checkbox" class="size-2.5 accent-weld" :checked="strip.open?.step.spans?.includes(span.id)" :aria-label="`takes part in ${span.name}`" @change="spans.part(span, ($event.target as HTMLInputElement).checked)" /><span
              class="truncate"
              >{{ span.name }}</span
            >
          </label>
          <SpanLane class="min-w-0 flex-1 overflow-x-clip" data-lane :span="span" :marked="marked" />
        </div>
        <p v-if="strip.rows.length + strip.paths.length + spans.all.length === 0" class="py-1 text-2xs text-faint" :style="{ marginLeft: `${gutter + 8}px` }">{{ strip.open ? 'Nothing of this step changes over the shot.' : '' }}</p>
        <CourseGraph v-if="strip.graph" :gutter="gutter" class="pointer-events-auto" />
        <div class="absolute inset-y-0 right-0 overflow-x-clip" :style="{ left: `${gutter}px` }"><i class="absolute inset-y-0 w-px bg-weld" :style="{ left: `${view.at(cut.frame + 0.5)}%` }" /></div>
      </div>
    </div>
    <StripNumbers class="mt-0.5" />
  </section>
</template>
