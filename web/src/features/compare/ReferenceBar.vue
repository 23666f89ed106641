<script setup lang="ts">
import { computed } from 'vue'
import { clock } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import { useSwatches } from '../swatches/useSwatches'
import { useReference } from './useReference'
import type { SecondPicture } from './useReferencePicture'

/** The reference's own line: what it is, its time, and what is taken from it. */
const props = defineProps<{ second: SecondPicture }>()
const reference = useReference()
const cut = useCut()
const swatches = useSwatches()
const free = computed(() => reference.freeFrame !== null)
const shot = computed(() => reference.shot)
const from = computed(() => (reference.shot && reference.second?.source !== true && (reference.second?.trial || reference.shot.id !== cut.shot?.id) ? reference.shot : null))

function recall() {
  if (!from.value) return
  const document = reference.second?.trial?.find((one) => one.recipe === from.value?.recipe.id)?.document ?? from.value.recipe.document
  swatches.recallShot(from.value, document, reference.words)
}
</script>

<template>
  <div class="flex h-7 items-center gap-3 border-t border-line bg-pane px-3 text-xs whitespace-nowrap text-dim" role="group" aria-label="reference's time">
    <span class="border-l-2 border-woad pl-1.5 text-[#7fb0e0]">{{ reference.words }}</span>
    <template v-if="!reference.timeless && reference.frame !== null">
      <button class="w-12 border border-line bg-raise py-px text-center text-ink hover:border-faint" title="Shift Space" data-test="second-play" @mousedown.prevent @click="second.toggle()">
        {{ second.playing.value ? 'stop' : 'play' }}
      </button>
      <span class="text-ink" data-test="second-clock">{{ clock(cut.start.frames + reference.frame, cut.rate, cut.start.drop) }}</span>
      <input
        v-if="free && shot"
        class="min-w-0 flex-1 accent-woad"
        type="range"
        aria-label="frame of the reference"
        :min="shot.record_in"
        :max="shot.record_in + shot.length - 1"
        :value="reference.frame"
        @input="props.second.go(Number(($event.target as HTMLInputElement).value))"
      />
      <span v-else class="flex-1" />
      <span
        >time <button :class="free ? 'hover:text-ink' : 'text-ink'" :aria-pressed="!free" data-test="second-linked" @click="second.link()">linked</button> ·
        <button :class="free ? 'text-ink' : 'hover:text-ink'" :aria-pressed="free" data-test="second-free" @click="second.free()">free</button></span
      >
    </template>
    <span v-else class="flex-1" />
    <span v-if="reference.way === 'side'"
      >zoom <button :class="reference.zoomFree ? 'hover:text-ink' : 'text-ink'" :aria-pressed="!reference.zoomFree" @click="reference.zoomFree = false">linked</button> ·
      <button :class="reference.zoomFree ? 'text-ink' : 'hover:text-ink'" :aria-pressed="reference.zoomFree" @click="reference.zoomFree = true">free</button></span
    >
    <button v-if="from" class="hover:text-ink" title="its steps, to be ticked and taken" @click="recall">recall from it…</button>
  </div>
</template>
