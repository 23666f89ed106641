<script setup lang="ts">
import type { NoteMark } from '@/api/review'
import { computed, ref } from 'vue'

/** Marks over a picture that fills this layer; with a kind chosen one is drawn by pressing and dragging. */
const props = defineProps<{ marks: { mark: NoteMark; strong?: boolean }[]; draws?: NoteMark['kind'] | null }>()
const drawn = defineModel<NoteMark | null>('drawn', { default: null })
const layer = ref<SVGSVGElement>()
const all = computed(() => [...props.marks, ...(drawn.value ? [{ mark: drawn.value, strong: true }] : [])])

function place(event: PointerEvent): [number, number] {
  const box = (layer.value as SVGSVGElement).getBoundingClientRect()
  const within = (share: number) => Math.min(1, Math.max(0, share))
  return [within((event.clientX - box.left) / box.width), within((event.clientY - box.top) / box.height)]
}
function press(event: PointerEvent) {
  if (!props.draws) return
  event.stopPropagation() // else the picture would be moved
  layer.value?.setPointerCapture(event.pointerId)
  drawn.value = { kind: props.draws, from: place(event), to: place(event) }
}
function move(event: PointerEvent) {
  if (drawn.value && props.draws && layer.value?.hasPointerCapture(event.pointerId)) drawn.value = { ...drawn.value, ...(props.draws === 'point' ? { from: place(event) } : {}), to: place(event) }
}
const per = (share: number) => `${share * 100}%`
const box = ({ from, to }: NoteMark) => ({ x: per(Math.min(from[0], to[0])), y: per(Math.min(from[1], to[1])), width: per(Math.abs(to[0] - from[0])), height: per(Math.abs(to[1] - from[1])) })
</script>

<template>
  <svg ref="layer" class="absolute inset-0 h-full w-full" :class="draws ? 'cursor-crosshair touch-none' : 'pointer-events-none'" aria-label="marks" @pointerdown="press" @pointermove="move">
    <g v-for="({ mark, strong }, index) in all" :key="index" fill="none" :class="strong ? 'stroke-weld' : 'stroke-ink/60'" stroke-width="1.5" :data-mark="mark.kind">
      <template v-if="mark.kind === 'point'">
        <circle :cx="per(mark.to[0])" :cy="per(mark.to[1])" r="9" class="stroke-ground/70" stroke-width="3.5" />
        <circle :cx="per(mark.to[0])" :cy="per(mark.to[1])" r="9" />
        <circle :cx="per(mark.to[0])" :cy="per(mark.to[1])" r="1.5" />
      </template>
      <rect v-else-if="mark.kind === 'box'" v-bind="box(mark)" />
      <template v-else>
        <line :x1="per(mark.from[0])" :y1="per(mark.from[1])" :x2="per(mark.to[0])" :y2="per(mark.to[1])" />
        <circle :cx="per(mark.to[0])" :cy="per(mark.to[1])" r="3.5" class="fill-weld" />
      </template>
    </g>
  </svg>
</template>
