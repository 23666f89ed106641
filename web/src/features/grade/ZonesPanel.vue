<script lang="ts">
/** The kind of step whose controls these are; see panels. */
export const kind = 'zones'
</script>

<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { computed, onBeforeUnmount, toRef } from 'vue'
import { useCut } from '../cut/useCut'
import { useSight } from '../bench/useSight'
import NumberGrid from './NumberGrid.vue'
import NumberRows from './NumberRows.vue'
import ZoneGraph from './ZoneGraph.vue'
import { useStepEditor } from './useStepEditor'

const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()

const cut = useCut()
const sight = useSight()
const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const rows = computed(() => props.spec.parameters.filter(({ name, channels }) => channels && name !== 'limits'))
const singles = computed(() => props.spec.parameters.filter(({ channels }) => !channels))
const row = (name: string) => editor.value(name) as number[]
const shapes = computed(() => props.header?.shapes?.[props.step.id])
const histogram = computed(() => (props.header?.input?.step === props.step.id ? props.header.input.tone : null))
onBeforeUnmount(() => (sight.region = null))
</script>

<template>
  <div class="space-y-2 px-3 pt-1 pb-3">
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
    <div class="grid grid-cols-[58px_repeat(5,minmax(0,1fr))] items-center gap-x-1 gap-y-1">
      <span class="text-2xs text-faint">show</span>
      <button
        v-for="name in spec.regions"
        :key="name"
        class="truncate border-b text-2xs"
        :class="sight.region === name ? 'border-weld text-weld' : 'border-line text-dim hover:text-ink'"
        :aria-pressed="sight.region === name"
        :title="`the pixels of the ${name}`"
        @click="sight.showRegion(name)"
      >
        {{ name }}
      </button>
      <NumberRows :parameters="rows" :editor="editor" bare />
    </div>
    <NumberGrid :parameters="singles" :editor="editor" />
  </div>
</template>
