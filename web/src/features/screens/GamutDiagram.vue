<script setup lang="ts">
import type { FullSession, ScreenTarget } from '@/api/screen'
import { computed } from 'vue'
import { colourOf } from './words'

/** The u'v' diagram: the target's corners, the screen's, and every patch as a thread from what was wanted to what was read. */
const props = defineProps<{ spectrum: [number, number][]; target: ScreenTarget | null; session: FullSession | null; side: 'before' | 'after' }>()
const SIZE = 300
const SPAN = 0.64 // of u' and v', from corner to corner
const [LEFT, BOTTOM] = [-0.005, 0.0]
const x = (u: number) => ((u - LEFT) / SPAN) * SIZE
const y = (v: number) => SIZE - ((v - BOTTOM) / SPAN) * SIZE
const path = (points: readonly (readonly number[])[]) => points.map(([u, v], at) => `${at ? 'L' : 'M'}${x(u ?? 0).toFixed(1)} ${y(v ?? 0).toFixed(1)}`).join('') + 'Z'
const judged = computed(() => props.session?.report[props.side]?.patches.filter((one) => one.kind !== 'grey' || one.l > 20) ?? [])
const points = computed(() => (judged.value.length ? [] : (props.session?.points ?? []).filter((one) => one.phase !== 'drift')))
const TICKS = [0.1, 0.2, 0.3, 0.4, 0.5, 0.6]
</script>

<template>
  <figure class="flex min-h-0 min-w-0 flex-col px-2 pt-1.5 pb-1" aria-label="chromaticity">
    <figcaption class="mb-0.5 flex items-baseline gap-2 text-2xs whitespace-nowrap"><span class="font-medium text-dim">Chromaticity</span><span class="text-faint">u′ v′</span><span class="flex-1" /><slot /></figcaption>
    <svg class="min-h-0 flex-1 bg-[#131313]" :viewBox="`0 0 ${SIZE} ${SIZE}`" preserveAspectRatio="xMidYMid meet" role="img" :aria-label="`u′v′ diagram, ${side}`">
      <g stroke="#232323">
        <line v-for="tick in TICKS" :key="`u${tick}`" :x1="x(tick)" :x2="x(tick)" y1="0" :y2="SIZE" />
        <line v-for="tick in TICKS" :key="`v${tick}`" :y1="y(tick)" :y2="y(tick)" x1="0" :x2="SIZE" />
      </g>
      <g fill="#767676" font-size="8">
        <text v-for="tick in TICKS" :key="tick" :x="x(tick) + 2" :y="SIZE - 3">{{ tick }}</text>
      </g>
      <path :d="path(spectrum)" fill="none" stroke="#5c5c5c" />
      <path v-if="target" :d="path(target.corners.slice(0, 3))" fill="none" stroke="#d8b55b" stroke-dasharray="4 3" />
      <path v-if="session?.report.corners" :d="path(session.report.corners)" fill="none" stroke="#9a9a9a" data-test="screen-gamut" />
      <circle v-if="target?.corners[3]" :cx="x(target.corners[3][0])" :cy="y(target.corners[3][1])" r="5" fill="none" stroke="#d8b55b" />
      <g v-for="(one, at) in judged" :key="at" data-test="thread">
        <line :x1="x(one.wanted_uv[0])" :y1="y(one.wanted_uv[1])" :x2="x(one.uv[0])" :y2="y(one.uv[1])" stroke="#d4d4d4" stroke-width="1.2" />
        <circle :cx="x(one.uv[0])" :cy="y(one.uv[1])" r="2.2" :fill="colourOf(one.codes)" stroke="#161616" stroke-width=".5" />
      </g>
      <circle v-for="(one, at) in points" :key="`p${at}`" :cx="x(one.uv[0])" :cy="y(one.uv[1])" r="1.6" :fill="colourOf(one.codes)" />
    </svg>
  </figure>
</template>
