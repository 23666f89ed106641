<script setup lang="ts">
import { computed } from 'vue'
import type { TrackedPath } from '../matte/useMatte'
import { useStrip } from './useStrip'
import { useTimeView } from './useTimeView'

/** Where a path was tracked, and where somebody had better look. */
const props = defineProps<{ path: TrackedPath }>()
const strip = useStrip()
const view = useTimeView()

const across = (frame: number) => view.at(frame + (strip.open?.start ?? 0))
const last = computed(() => props.path.first + props.path.maps.length)
const unsure = computed(() => {
  const runs: { from: number; to: number }[] = []
  props.path.confidence.forEach((sure, index) => {
    if (sure >= props.path.unsure) return
    const frame = props.path.first + index
    const run = runs.at(-1)
    if (run && run.to === frame) run.to++
    else runs.push({ from: frame, to: frame + 1 })
  })
  return runs
})
const place = (from: number, to: number) => ({ left: `${across(from)}%`, width: `${across(to) - across(from)}%` })
</script>

<template>
  <div class="pointer-events-none relative h-[18px]" role="group" :aria-label="`path ${path.name}`">
    <i class="absolute top-2/3 h-0.5 bg-woad" :style="place(path.first, last)" :title="`frames ${path.first + 1} to ${last}`" />
    <template v-for="run in unsure" :key="run.from">
      <i class="absolute top-2/3 h-0.5 bg-madder" :style="place(run.from, run.to)" :aria-label="`unsure from frame ${run.from + 1} to ${run.to}`" />
      <span class="absolute -top-1 text-2xs text-madder" :style="{ left: `${across(run.from)}%` }">unsure</span>
    </template>
    <i v-if="path.lost" class="absolute inset-y-0.5 w-px bg-madder" :style="{ left: `${across(path.lost.frame)}%` }" :title="`lost: ${path.lost.why}`" />
  </div>
</template>
