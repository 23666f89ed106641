<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { computed, ref, toRef } from 'vue'
import { useCut } from '../cut/useCut'
import { useScreen } from '../screen/useScreen'
import { useTake } from './useTake'

const props = defineProps<{ shot: Shot }>()
const cut = useCut()
const screen = useScreen()
const withView = ref(true)
const format = ref<'cube' | 'clf'>('cube')
const take = useTake(
  toRef(props, 'shot'),
  withView,
  computed(() => screen.target?.id ?? ''),
)

const { steps } = take
const CODES = 1023
const codes = (share: number) => (share * CODES).toFixed(share * CODES < 10 ? 1 : 0)
/** Differences that nobody sees: half a 10-bit code in the mean, four at worst. */
const UNSEEN = { mean: 0.5 / CODES, worst: 4 / CODES }
const advised = computed(() => take.SIZES.find((size) => (distance(size)?.mean ?? 1) < UNSEEN.mean && (distance(size)?.worst ?? 1) < UNSEEN.worst))
const advice = computed(() => {
  const largest = take.SIZES.at(-1) ?? 0
  const found = distance(largest)
  if (advised.value || !found) return ''
  return found.mean < UNSEEN.mean ? `Take ${largest}: it is near in the mean, but a few colours stay up to ${codes(found.worst)} codes off.` : `Not even ${largest} comes near: mean ${codes(found.mean)} codes off.`
})
const distance = (size: number) => take.measured.value[size]?.seen
</script>

<template>
  <div>
    <h3 class="caption mb-1">Steps</h3>
    <label v-for="step in steps" :key="step.id" class="flex items-center gap-2 py-0.5 text-sm" :class="step.enabled ? '' : 'text-faint'">
      <input type="checkbox" class="accent-weld" :checked="take.chosen.value.includes(step.id)" @change="take.flip(step.id)" />{{ step.name }}
    </label>
    <p v-if="steps.length === 0" class="text-xs text-dim">The recipe has none.</p>

    <p v-if="take.taken.value" class="mt-1 text-2xs text-weld" data-test="taken">It moves: taken {{ take.taken.value }}.</p>
    <div class="mt-3 flex items-center gap-1">
      <h3 class="caption flex-1">As a LUT</h3>
      <button v-for="one in ['cube', 'clf'] as const" :key="one" class="control px-2 py-0 text-xs" :class="{ 'border-weld/70 bg-weld/15': format === one }" :aria-pressed="format === one" @click="format = one">.{{ one }}</button>
    </div>
    <label class="flex items-center gap-2 py-1 text-sm"><input v-model="withView" type="checkbox" class="accent-weld" />with the view, {{ screen.target?.name }}</label>
    <a v-for="size in take.SIZES" :key="size" class="flex justify-between px-1 py-0.5 text-sm hover:bg-line" :href="take.address(size, format)" download>
      <span>{{ size }} nodes<span v-if="size === advised" class="ml-2 text-2xs text-weld" data-test="advised">will do</span></span>
      <span class="text-xs text-dim">{{ distance(size) ? `mean ${codes(distance(size)!.mean)}, worst ${codes(distance(size)!.worst)}` : 'measuring…' }}</span>
    </a>
    <a class="mt-1 flex justify-between border border-line px-1.5 py-0.5 text-sm hover:bg-line" :href="take.setAddress.value" download data-test="on-set"
      ><span>all three for on set</span><span class="text-xs text-dim">.tar, with what they leave out</span></a
    >
    <p v-if="advice" class="mt-0.5 text-2xs text-ink">{{ advice }}</p>
    <p class="mt-0.5 text-2xs text-dim">From the clip's encoding to {{ withView ? screen.target?.label : `${cut.project?.space.label} codes` }}. Differences from exact in 10-bit codes, on the colours of this shot.</p>
    <p v-if="take.leftOut.value.length" class="mt-1 text-2xs text-madder">Neither a LUT nor a CDL can hold {{ take.leftOut.value.join(', ') }}: left out.</p>

    <h3 class="caption mt-3 mb-1">As a CDL</h3>
    <p class="flex gap-1.5">
      <a v-for="one in ['cc', 'ccc', 'cdl']" :key="one" class="control px-2 py-0 text-xs" :href="take.correctionAddress(one)" download>.{{ one }}</a>
    </p>
    <p class="mt-1 text-2xs text-dim">
      <template v-if="!take.correction.value">measuring…</template>
      <template v-else-if="take.correction.value.exact">Exactly what the steps do, on {{ cut.project?.space.label }} codes.</template>
      <template v-else>The nearest a CDL comes: mean {{ codes(take.correction.value.error.mean) }}, worst {{ codes(take.correction.value.error.worst) }} 10-bit {{ cut.project?.space.label }} codes off.</template>
    </p>
  </div>
</template>
