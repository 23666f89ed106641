<script setup lang="ts">
import { computed } from 'vue'
import { useCut } from '../cut/useCut'
import { useCleaned } from './useCleaned'

/** How much of the shot has had its noise taken away already, and workers to do the rest. */
const cut = useCut()
const cleaned = useCleaned()
const here = computed(() => (cut.shot ? cleaned.within(cut.shot.record_in, cut.shot.length) : 0))
const prepare = (first: number, count: number) => void cleaned.start(first, count)
</script>

<template>
  <p v-if="cut.shot" class="flex flex-wrap items-center gap-x-3 px-3 pb-1 text-2xs text-dim" data-test="cleaned">
    <template v-if="cleaned.running">
      <span>{{ cleaned.running.done }} of {{ cleaned.running.count }} frames ready</span>
      <button class="hover:text-ink" @click="cleaned.cancel()">stop</button>
    </template>
    <template v-else>
      <span :title="`of the cut: ${cleaned.within(0, cut.length)} of ${cleaned.wanted}`">{{ here >= cut.shot.length ? 'all frames ready' : `${here} of ${cut.shot.length} frames ready` }}</span>
      <button v-if="here < cut.shot.length" class="hover:text-ink" title="workers do it ahead: what follows then plays and drags as without it" @click="prepare(cut.shot.record_in, cut.shot.length)">make the shot ready</button>
      <button v-if="cleaned.within(0, cut.length) < cleaned.wanted" class="hover:text-ink" @click="prepare(0, cut.length)">the whole cut</button>
    </template>
  </p>
</template>
