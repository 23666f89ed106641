<script setup lang="ts">
import type { FullSession, JudgedPatch } from '@/api/screen'
import { computed } from 'vue'

/** How far greys are from their target in lightness, over the code: before and after. */
const props = defineProps<{ session: FullSession | null }>()
const [WIDTH, HEIGHT] = [300, 150]
const greys = (side: 'before' | 'after') => (props.session?.report[side]?.patches ?? []).filter((one) => one.kind === 'grey')
const sides = computed(() => ({ before: greys('before'), after: greys('after') }))
const most = computed(() => Math.max(2, Math.ceil(Math.max(...[...sides.value.before, ...sides.value.after].map((one) => Math.abs(one.dl)), 0))))
const x = (code: number) => 24 + code * (WIDTH - 32)
const y = (dl: number) => HEIGHT / 2 - (dl / most.value) * (HEIGHT / 2 - 10)
const path = (rows: JudgedPatch[]) => rows.map((one, at) => `${at ? 'L' : 'M'}${x(one.codes[0]).toFixed(1)} ${y(one.dl).toFixed(1)}`).join('')
</script>

<template>
  <figure class="flex min-h-0 min-w-0 flex-col px-2 pt-1.5 pb-1" aria-label="tone curve">
    <figcaption class="mb-0.5 flex items-baseline gap-2 text-2xs whitespace-nowrap"><span class="font-medium text-dim">Tone curve</span><span class="text-faint">dL of greys over their code; 0 is the target</span></figcaption>
    <div class="relative min-h-0 flex-1 bg-[#131313]">
      <svg class="absolute inset-0 size-full" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" preserveAspectRatio="none" role="img" aria-label="tone curve deviation">
        <g stroke="#2c2c2c"><line v-for="code in [0, 0.25, 0.5, 0.75, 1]" :key="code" :x1="x(code)" :x2="x(code)" y1="4" :y2="HEIGHT - 4" vector-effect="non-scaling-stroke" /></g>
        <line :x1="x(0)" :x2="x(1)" :y1="y(0)" :y2="y(0)" stroke="#d8b55b" stroke-dasharray="5 4" vector-effect="non-scaling-stroke" />
        <path :d="path(sides.before)" fill="none" stroke="#767676" stroke-width="1.2" vector-effect="non-scaling-stroke" />
        <path :d="path(sides.after)" fill="none" stroke="#d4d4d4" stroke-width="1.4" vector-effect="non-scaling-stroke" />
      </svg>
      <span v-for="dl in [most, 0, -most]" :key="dl" class="pointer-events-none absolute left-1 -translate-y-1/2 text-2xs text-faint" :style="{ top: `${(y(dl) / HEIGHT) * 100}%` }"
        >{{ dl > 0 ? '+' : dl < 0 ? '−' : '' }}{{ Math.abs(dl) }}</span
      >
    </div>
  </figure>
</template>
