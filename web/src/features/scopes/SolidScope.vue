<script setup lang="ts">
import { useElementSize, useStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watchEffect } from 'vue'
import type { Reading } from '../bench/usePicture'
import { followDrag } from '../grade/useDrag'
import { useCatalogue } from '../shell/useCatalogue'
import { FILL, makeSolidView, pointAt, type SolidPoints } from './solidView'
import { useScopes } from './useScopes'

/** The colours of the picture as a solid, turned by dragging or with the arrow keys; a click lights the pixels of a colour. */
const props = defineProps<{ shown: Reading | null }>()

const scopes = useScopes()
const catalogue = useCatalogue()
const REACH = 0.05 // of a click, in shares of the solid's half edge
const CELL = 0.02 // half a cell and a little, code
const box = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(box)
const turn = useStorage('mordant.solid.turn', { yaw: 0.6, pitch: 0.35 })
const boosted = useStorage('mordant.solid.boosted', false)
const view = shallowRef<ReturnType<typeof makeSolidView>>(null)

const solid = computed<SolidPoints | null>(() => {
  const { points, colours } = props.shown?.parts ?? {}
  return points && colours ? { points: new Float32Array(points.buffer.slice(points.byteOffset, points.byteOffset + points.byteLength)), colours } : null
})
const flattened = computed(() => Object.entries(props.shown?.header.solid?.flattened ?? {}).filter(([, count]) => count > 0))
const share = (count: number) => {
  const part = (count / (props.shown?.header.pixels ?? 1)) * 100
  return part < 0.01 ? `${count} px` : `${part.toFixed(2)} %`
}

watchEffect(
  () => {
    if (!canvas.value || width.value === 0) return
    const pixels = window.devicePixelRatio || 1
    canvas.value.width = Math.round(width.value * pixels)
    canvas.value.height = Math.round(height.value * pixels)
    view.value ??= makeSolidView(canvas.value)
    if (solid.value) view.value?.draw(solid.value, props.shown?.header.solid?.bounds ?? [], turn.value, boosted.value ? 2 : 1)
  },
  { flush: 'post' },
)

function by(yaw: number, pitch: number) {
  turn.value = { yaw: turn.value.yaw + yaw, pitch: Math.min(Math.PI / 2, Math.max(-Math.PI / 2, turn.value.pitch + pitch)) }
}
function press(event: PointerEvent) {
  followDrag(event, { move: (dx, dy) => by(dx * 0.01, dy * 0.01), click: pick })
}
function pick(event: PointerEvent) {
  const bounds = box.value?.getBoundingClientRect()
  if (!bounds || !solid.value) return
  const edge = Math.min(bounds.width, bounds.height) * FILL
  const place: [number, number] = [((event.clientX - bounds.left - bounds.width / 2) * 2) / edge, (-(event.clientY - bounds.top - bounds.height / 2) * 2) / edge]
  light(pointAt(solid.value, turn.value, place, REACH))
}
function light(index: number) {
  const colours = solid.value?.colours
  if (index < 0 || !colours) return void (scopes.light = null)
  const cell = [0, 1, 2].map((channel) => (colours[index * 4 + channel] ?? 0) / 255) as [number, number, number]
  scopes.light = { instrument: 'solid', cell, reach: CELL }
}

/** The most saturated colour there is, for the keyboard. */
function strongest() {
  const colours = solid.value?.colours
  if (!colours) return
  let best = -1
  let most = -1
  for (let index = 0; index < colours.length / 4; index++) {
    const [r = 0, g = 0, b = 0] = colours.subarray(index * 4, index * 4 + 3)
    const chroma = Math.max(r, g, b) - Math.min(r, g, b)
    if (chroma > most) [most, best] = [chroma, index]
  }
  light(best)
}

const WAYS: Record<string, [number, number]> = { ArrowLeft: [-0.1, 0], ArrowRight: [0.1, 0], ArrowUp: [0, -0.1], ArrowDown: [0, 0.1] }
function key(event: KeyboardEvent) {
  const way = WAYS[event.key]
  if (way) by(...way)
  else if (event.key === 'Enter') strongest()
  else if (event.key === 'Backspace' || event.key === 'Delete') scopes.light = null
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div class="relative min-h-0 flex-1">
    <div ref="box" class="absolute inset-0 cursor-grab touch-none" role="application" tabindex="0" aria-label="colour solid: arrow keys turn it, Enter lights its strongest colour" @pointerdown="press" @dblclick="turn = { yaw: 0.6, pitch: 0.35 }" @keydown="key">
      <canvas ref="canvas" class="size-full" />
    </div>
    <p v-if="shown && !solid" class="absolute inset-0 flex items-center justify-center text-xs text-dim">measuring…</p>
    <ul v-if="flattened.length && width > 220" class="pointer-events-none absolute bottom-0 left-0 text-2xs text-dim" aria-label="values flattened on the faces">
      <li v-for="[face, count] in flattened" :key="face">{{ face }} <span class="text-ink">{{ share(count) }}</span></li>
    </ul>
    <div class="absolute right-0 bottom-0 flex flex-col items-end text-2xs">
      <button class="px-0.5" :class="boosted ? 'text-ink' : 'text-faint hover:text-ink'" :aria-pressed="boosted" @click="boosted = !boosted">stronger colours</button>
      <button v-for="one in catalogue.catalogue?.solids" :key="one.id" class="px-0.5" :class="scopes.kept.solid === one.id ? 'text-ink' : 'text-faint hover:text-ink'" :title="one.label" :aria-pressed="scopes.kept.solid === one.id" @click="scopes.set({ solid: one.id })">{{ one.id }}</button>
    </div>
  </div>
</template>
