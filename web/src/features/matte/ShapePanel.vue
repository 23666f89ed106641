<script setup lang="ts">
import type { ContributorSpec } from '@/api/declared'
import type { ContributorDocument, Recipe, StepDocument } from '@/api/recipe'
import { computed, onMounted, ref } from 'vue'
import { useCut } from '../cut/useCut'
import ProgressBar from '../shell/ProgressBar.vue'
import PartNumbers from './PartNumbers.vue'
import PointNumbers from './PointNumbers.vue'
import { useMatte } from './useMatte'
import type { MatteEditor } from './useMatteEditor'
import { onPath, useTracking } from './useTracking'

/** A shape: its numbers, its keys, and the path that carries it. */
const props = defineProps<{ editor: MatteEditor; part: ContributorDocument; spec: ContributorSpec; recipe: Recipe; step: StepDocument }>()
const cut = useCut()
const matte = useMatte()
const tracking = useTracking()
const numbers = ref(false)
const KINDS = [
  { id: 'position', words: 'position' },
  { id: 'similarity', words: 'turn and scale' },
  { id: 'corners', words: 'perspective' },
]
onMounted(matte.loadPaths)
const path = computed(() => matte.pathOf(props.part.path?.id))
const own = computed(() => matte.paths.filter((one) => one.shot === cut.shot?.id && one.id !== path.value?.id).slice(-3))
const here = computed(() => path.value && { sure: path.value.confidence[props.editor.frame.value - path.value.first], frame: props.editor.frame.value })
const put = computed(() => (matte.put?.part === props.part.id ? matte.put.by : null))
const last = computed(() => (path.value ? path.value.first + path.value.maps.length - 1 : 0))

const running = computed(() => tracking.running(props.part.id))

const track = (way: 'on' | 'back' | 'both') => tracking.run({ recipe: props.recipe, step: props.step, part: props.part, way, from: props.editor.frame.value, by: put.value, named: props.editor.named(props.part) })

/** On a path that is there, or on none. */
function follow(id: number | null) {
  const named = props.editor.named(props.part)
  props.editor.change({ contributors: onPath(props.editor.parts.value, props.part.id, id, props.editor.frame.value) }, id === null ? `${named} follows no path` : `${named} follows a path`)
}
</script>

<template>
  <div class="space-y-1 pt-0.5">
    <p class="flex items-center gap-3">
      <button v-if="part.keys" class="px-1 hover:text-ink" aria-label="shape key before" @click="editor.goKey(part, -1)">‹</button>
      <button class="hover:text-ink" :class="{ 'text-weld': editor.keyHere(part) }" :aria-pressed="editor.keyHere(part)" @click="editor.flipKey(part)">
        {{ editor.keyHere(part) ? 'keyed at this frame' : part.keys ? 'key this frame' : 'change over time: key this frame' }}
      </button>
      <button v-if="part.keys" class="px-1 hover:text-ink" aria-label="shape key after" @click="editor.goKey(part, 1)">›</button>
      <span class="flex-1" />
      <button class="hover:text-ink" :aria-expanded="numbers" @click="numbers = !numbers">numbers</button>
    </p>
    <PartNumbers v-if="!numbers" :editor="editor" :part="part" :spec="spec" :only="['feather', 'softness']" />
    <PartNumbers v-else :editor="editor" :part="part" :spec="spec" />
    <PointNumbers v-if="spec.id === 'outline' && (numbers || matte.point !== null)" :editor="editor" :part="part" :spec="spec" />
    <div class="border-t border-line/60 pt-1" role="group" aria-label="path">
      <p v-if="path && here" class="flex items-baseline gap-2" data-test="path">
        <span class="border-l-2 border-woad pl-1.5 text-ink">follows {{ path.name }}</span>
        <span>frames {{ path.first + 1 }} to {{ last + 1 }}</span>
        <span v-if="here.sure === undefined">stands still here</span>
        <span v-else :class="here.sure < path.unsure ? 'text-madder' : ''">{{ here.sure < path.unsure ? 'unsure' : 'sure' }} {{ Math.round(here.sure * 100) }} %</span>
        <button class="ml-auto hover:text-madder" @click="follow(null)">unlink</button>
      </p>
      <p v-if="path?.lost" class="text-madder">
        lost at <button class="underline" @click="cut.go(cut.frame + path.lost.frame - editor.frame.value)">frame {{ path.lost.frame + 1 }}</button>: {{ path.lost.why }}
      </p>
      <p v-if="put" class="text-weld">corrected here; track on to go on from it</p>
      <div v-if="running" class="flex items-center gap-2">
        <ProgressBar class="flex-1" :done="tracking.done(part.id)" :of="tracking.count(part.id)" label="tracking" /><button class="hover:text-ink" @click="tracking.stop(part.id)">stop</button>
      </div>
      <template v-else>
        <p class="flex flex-wrap items-center gap-x-2">
          <span>track</span>
          <span role="radiogroup" aria-label="what is tracked"
            ><button v-for="one in KINDS" :key="one.id" role="radio" class="mr-2" :class="tracking.kind === one.id ? 'text-ink' : 'text-faint hover:text-ink'" :aria-checked="tracking.kind === one.id" @click="tracking.kind = one.id">
              {{ one.words }}
            </button></span
          >
        </p>
        <p class="mt-0.5 flex gap-1">
          <button class="control px-1.5 py-0 text-xs" @click="track('back')">‹ back</button><button class="control px-1.5 py-0 text-xs" @click="track('both')">‹ both ways ›</button
          ><button class="control px-1.5 py-0 text-xs" @click="track('on')">on ›</button>
        </p>
      </template>
      <p v-if="own.length && !running" class="mt-0.5 truncate">
        or follow <button v-for="one in own" :key="one.id" class="mr-2 text-ink hover:text-weld" @click="follow(one.id)">{{ one.name }}</button>
      </p>
    </div>
  </div>
</template>
