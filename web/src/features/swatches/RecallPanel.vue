<script setup lang="ts">
import { computed } from 'vue'
import { useCut } from '../cut/useCut'
import { runsOf } from '../grade/bundles'
import { useCopies } from '../grade/useCopies'
import { useKeys } from '../shell/useKeys'
import { useSwatches } from './useSwatches'

/** A swatch on trial: its steps to be ticked, beside one's own; the picture shows what would come of it. */
const swatches = useSwatches()
const cut = useCut()
const copies = useCopies()
const family = computed(() => (cut.shot ? cut.familyOf(cut.shot) : null))

useKeys('swatches', [
  { key: 'enter', words: 'recall what is on trial', press: () => void swatches.accept('shot') },
  { key: 'escape', words: 'drop what is on trial', press: swatches.drop },
])
</script>

<template>
  <section v-if="swatches.trial" class="border-b border-weld/60 bg-raise px-3 py-2.5" aria-label="recall">
    <div class="flex gap-3">
      <img :src="swatches.picture(swatches.trial)" alt="" class="aspect-video w-28 self-start bg-ground object-cover" />
      <div class="min-w-0 flex-1">
        <h3 class="truncate text-sm font-medium">{{ swatches.trial.name }} <span class="text-2xs text-dim">on trial</span></h3>
        <p class="truncate text-2xs text-dim">{{ [swatches.trial.origin.project, swatches.trial.origin.shot, swatches.trial.origin.timecode].filter(Boolean).join(' · ') }}</p>
        <p class="mt-1 flex gap-1" role="radiogroup" aria-label="where its steps go">
          <button
            v-for="way in [false, true]"
            :key="String(way)"
            role="radio"
            :aria-checked="swatches.after === way"
            class="control px-1.5 py-0 text-2xs"
            :class="{ 'border-weld/70 bg-weld/15': swatches.after === way }"
            @click="swatches.after = way"
          >
            {{ way ? 'after my steps' : 'in their place' }}
          </button>
        </p>
      </div>
    </div>
    <div class="mt-2 grid grid-cols-2 gap-3 text-xs">
      <div>
        <h4 class="caption">its steps</h4>
        <template v-for="run in runsOf(swatches.trial.document)" :key="run.steps[0]?.id">
          <label v-if="run.bundle" class="flex items-center gap-1.5 py-0.5"
            ><input type="checkbox" class="accent-weld" :checked="run.steps.every(({ id }) => !swatches.left.includes(id))" @change="swatches.tickAll(run.steps.map(({ id }) => id))" /><span class="truncate"
              >{{ run.bundle.name }} <span class="text-dim">bundle</span></span
            ></label
          >
          <label v-for="step in run.steps" :key="step.id" class="flex items-center gap-1.5 py-0.5" :class="run.bundle ? 'pl-4' : ''"
            ><input type="checkbox" class="accent-weld" :checked="!swatches.left.includes(step.id)" @change="swatches.tick(step.id)" /><span class="truncate">{{ step.name }}</span></label
          >
        </template>
      </div>
      <div>
        <h4 class="caption">mine</h4>
        <p v-for="step in cut.shot?.recipe.document.steps" :key="step.id" class="truncate py-0.5" :class="swatches.after ? '' : 'text-faint line-through'">{{ step.name }}</p>
      </div>
    </div>
    <label v-if="swatches.moves" class="mt-1 flex items-center gap-1.5 text-xs text-dim"><input v-model="swatches.withKeys" type="checkbox" class="accent-weld" />with the keys and spans of its steps</label>
    <p class="mt-2 flex flex-wrap gap-1">
      <button class="control px-2 py-0 text-xs" @click="swatches.accept('shot')">on this shot</button>
      <button v-if="copies.shots.length > 1" class="control px-2 py-0 text-xs" @click="swatches.accept('picked')">on {{ copies.shots.length }} picked</button>
      <button v-if="family" class="control px-2 py-0 text-xs" @click="swatches.accept('family')">on all of {{ family.name }}</button>
      <button class="control ml-auto px-2 py-0 text-xs" @click="swatches.drop()">drop</button>
    </p>
  </section>
</template>
