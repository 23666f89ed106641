<script lang="ts">
/** The kind of step whose controls these are; see panels. */
export const kind = 'dyes'
</script>

<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { computed, onBeforeUnmount, toRef } from 'vue'
import { useSight } from '../bench/useSight'
import { useCut } from '../cut/useCut'
import NumberGrid from './NumberGrid.vue'
import NumberRows from './NumberRows.vue'
import ZoneGraph from './ZoneGraph.vue'
import { useStepEditor } from './useStepEditor'

/** Dye over all and by zone of density, the zones over the tone axis, and what is done to colours. */
const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()

const cut = useCut()
const sight = useSight()
const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const PAIRS = [
  { channel: 'cyan', about: 'above 0 cyan, below red' },
  { channel: 'magenta', about: 'above 0 magenta, below green' },
  { channel: 'yellow', about: 'above 0 yellow, below blue' },
]
const rows = computed(() => props.spec.parameters.filter(({ channels }) => channels?.[0] === PAIRS[0]?.channel))
const toned = computed(() => editor.parameter('toned'))
const singles = computed(() => props.spec.parameters.filter(({ channels }) => !channels))
const row = (name: string) => editor.value(name) as number[]
const shapes = computed(() => props.header?.shapes?.[props.step.id])
const histogram = computed(() => (props.header?.input?.step === props.step.id ? props.header.input.tone : null))
onBeforeUnmount(() => (sight.region = null))
</script>

<template>
  <div class="space-y-2 px-3 pt-1 pb-3">
    <div class="grid grid-cols-[58px_repeat(3,minmax(0,1fr))] items-center gap-x-1.5 gap-y-1">
      <span class="text-2xs text-faint">points</span>
      <span v-for="pair in PAIRS" :key="pair.channel" class="truncate text-2xs text-dim" :title="pair.about">{{ pair.channel }}</span>
      <NumberRows :parameters="rows" :editor="editor" bare />
    </div>
    <ZoneGraph
      v-if="shapes && cut.project"
      :names="spec.regions"
      :shapes="shapes"
      :limits="row('limits')"
      :histogram="histogram"
      :shown="sight.region"
      :space="cut.project.space"
      @change="editor.set('limits', $event)"
      @begin="editor.begin"
      @end="editor.end"
      @show="sight.showRegion"
    />
    <div class="grid grid-cols-[58px_repeat(3,minmax(0,1fr))] items-center gap-x-1.5 gap-y-1">
      <NumberRows :parameters="[toned]" :editor="editor" />
    </div>
    <NumberGrid :parameters="singles" :editor="editor" />
  </div>
</template>
