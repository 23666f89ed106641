<script setup lang="ts">
import { ref } from 'vue'
import type { Reading } from '../bench/usePicture'
import { followDrag } from '../grade/useDrag'
import ScopeFigure from './ScopeFigure.vue'
import ScopeSettings from './ScopeSettings.vue'
import { useScopes } from './useScopes'

defineProps<{
  shown: Reading | null
  /** Over the large picture. */
  floating?: boolean
  /** Names of the graded and the reference, where a room shows two by itself. */
  second?: [string, string] | null
}>()

const scopes = useScopes()
const SMALLEST = 120
const LARGEST = 460
const row = ref<HTMLElement>()

function pressTop(event: PointerEvent) {
  followDrag(event, { move: (_, dy) => scopes.set({ height: Math.min(LARGEST, Math.max(SMALLEST, scopes.kept.height - dy)) }) })
}
function pressBorder(event: PointerEvent, index: number) {
  followDrag(event, { move: (dx) => scopes.resize(index, dx / (row.value?.clientWidth ?? 1)) })
}
</script>

<template>
  <div
    class="shrink-0"
    :class="floating ? 'absolute bottom-20 left-3 z-10 w-[560px] border border-line bg-ground/85' : 'relative border-t border-line'"
    :style="{ height: `${floating ? Math.min(scopes.kept.height, 220) : scopes.kept.height}px` }"
  >
    <div class="absolute inset-x-0 -top-1 z-10 h-2 cursor-ns-resize touch-none" title="drag to size the scopes" @pointerdown="pressTop" />
    <div ref="row" class="flex h-full">
      <div v-for="(scope, index) in scopes.slots" :key="index" class="relative flex min-w-0" :class="index > 0 ? 'border-l border-line' : ''" :style="{ flex: `${scope.share} 1 0` }">
        <ScopeFigure :slot-at="index" :scope="scope" :shown="shown" :second="second ?? (scopes.kept.beside === 'none' ? null : ['graded', scopes.kept.beside === 'source' ? 'source' : 'no washes'])" />
        <div v-if="index < scopes.slots.length - 1" class="absolute inset-y-0 -right-1 z-10 w-2 cursor-ew-resize touch-none" title="drag to size" @pointerdown="pressBorder($event, index)" />
      </div>
    </div>
    <div class="absolute top-1 right-2 z-20"><ScopeSettings /></div>
  </div>
</template>
