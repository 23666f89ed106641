<script setup lang="ts">
import type { GuideReading } from '@/api/readings'
import { computed } from 'vue'
import { touchWords } from '../scopes/touch'
import { useScopes } from '../scopes/useScopes'
import NumberField from './NumberField.vue'

/** Codes that black and white are to touch: drawn on the waveform, and told here when they are met. */
const props = defineProps<{ guides?: Record<string, GuideReading> }>()
const scopes = useScopes()
const CODES = 1023
const spec = (name: string) => ({
  name,
  label: name,
  channels: null,
  unit: 'code',
  min: 0,
  max: CODES,
  neutral: name === 'black' ? 0 : 940,
  decimals: 0,
  nudge: 1,
  suffix: '',
  about: `10-bit code of the full range that ${name} just touches`,
})
const touch = computed(() => scopes.kept.touch)
const STATES = { under: 'text-dim', met: 'text-leaf', past: 'text-madder' }
const said = computed(() => Object.fromEntries(Object.entries(props.guides ?? {}).map(([side, guide]) => [side, { words: touchWords(guide), tint: STATES[guide.state] }])))
</script>

<template>
  <div class="space-y-1 text-2xs text-dim" role="group" aria-label="guides on the waveform">
    <p class="flex justify-between gap-2">
      <button
        class="hover:text-ink"
        :class="{ 'text-weld': touch.on }"
        role="switch"
        :aria-checked="touch.on"
        title="codes that black and white are to touch, drawn on the waveform"
        @click="scopes.set({ touch: { ...touch, on: !touch.on } })"
      >
        guides {{ touch.on ? 'on' : 'off' }}</button
      ><span class="truncate text-faint">{{ touch.on ? 'on the waveform too' : 'where black and white are to land' }}</span>
    </p>
    <div v-if="touch.on" class="grid grid-cols-2 gap-x-3">
      <div v-for="side in ['black', 'white'] as const" :key="side" class="flex min-w-0 items-center gap-1.5">
        <span>{{ side }}</span>
        <span class="w-11 shrink-0"
          ><NumberField compact :spec="spec(side)" :label="`${side} touches`" :model-value="Math.round(touch[side] * CODES)" @update:model-value="scopes.set({ touch: { ...touch, [side]: $event / CODES } })"
        /></span>
        <span class="truncate" :class="said[side]?.tint" :title="said[side]?.words" :data-test="`touch-${side}`">{{ said[side]?.words ?? '…' }}</span>
      </div>
    </div>
  </div>
</template>
