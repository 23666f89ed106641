<script setup lang="ts">
import { useElementSize, useStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watchEffect } from 'vue'
import type { Reading } from '../bench/usePicture'
import { followDrag } from '../grade/useDrag'
import { useCatalogue } from '../shell/useCatalogue'
import { FILL, makeSolidView, pointAt, seen, ZOOM, type SolidPoints } from './solidView'
import { useScopes } from './useScopes'

/** The colours of the picture as a solid, turned by dragging or with the arrow keys; a click lights the pixels of a colour. */
const props = defineProps<{ shown: Reading | null }>()

const scopes = useScopes()
const catalogue = useCatalogue()
const REACH = 14 // px of a click
const SIZES = [0.6, 1, 1.8]
const AT_REST = { yaw: 0.6, pitch: 0.35, zoom: 1 }
const WHEEL = 0.0015 // of a doubling a pixel
const CELL = 0.02 // half a cell and a little, code
const box = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(box)
const turn = useStorage('mordant.solid.turn', AT_REST, undefined, { mergeDefaults: true })
const legal = useStorage('mordant.solid.legal', false)
const size = useStorage('mordant.solid.size', 1)
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
    const told = props.shown?.header.solid
    if (solid.value) view.value?.draw(solid.value, told?.bounds ?? [], legal.value ? (told?.legal ?? []) : [], turn.value, boosted.value ? 2 : 1, size.value)
  },
  { flush: 'post' },
)

function by(yaw: number, pitch: number) {
  turn.value = { ...turn.value, yaw: turn.value.yaw + yaw, pitch: Math.min(Math.PI / 2, Math.max(-Math.PI / 2, turn.value.pitch + pitch)) }
}
const zoom = (factor: number) => (turn.value = { ...turn.value, zoom: Math.min(ZOOM.most, Math.max(ZOOM.least, turn.value.zoom * factor)) })
/** Where the names of the axes stand: a little beyond their ends. */
const names = computed(() => {
  const half = (Math.min(width.value, height.value) * FILL) / 2
  return (props.shown?.header.solid?.axes ?? []).map((name, axis) => {
    const end: [number, number, number] = [0, 0, 0]
    const low = scopes.kept.solid === 'codes' ? -1 : 0
    const at = end.map((_, place) => (place === axis ? 1.12 : axis === 2 && scopes.kept.solid !== 'codes' ? 0 : low)) as [number, number, number]
    const [x, y] = seen(at, turn.value)
    const inside = (place: number, room: number, edge: number) => `${Math.min(room - edge, Math.max(edge, place))}px`
    return { name, left: inside(width.value / 2 + x * half, width.value, 4 + name.length * 3), top: inside(height.value / 2 - y * half, height.value, 7) }
  })
})
function press(event: PointerEvent) {
  followDrag(event, { move: (dx, dy) => by(dx * 0.01, dy * 0.01), click: pick })
}
function pick(event: PointerEvent) {
  const bounds = box.value?.getBoundingClientRect()
  if (!bounds || !solid.value) return
  const edge = Math.min(bounds.width, bounds.height) * FILL
  const place: [number, number] = [((event.clientX - bounds.left - bounds.width / 2) * 2) / edge, (-(event.clientY - bounds.top - bounds.height / 2) * 2) / edge]
  light(pointAt(solid.value, turn.value, place, (REACH * 2) / edge, (size.value / 42) * Math.sqrt(turn.value.zoom)))
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
  else if (event.key === '+' || event.key === '-') zoom(event.key === '+' ? 1.2 : 1 / 1.2)
  else if (event.key === 'Enter') strongest()
  else if (event.key === 'Backspace' || event.key === 'Delete') scopes.light = null
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <div class="relative min-h-0 flex-1">
      <div
        ref="box"
        class="absolute inset-0 cursor-grab touch-none overflow-hidden"
        role="application"
        tabindex="0"
        aria-label="colour solid: arrow keys turn it, plus and minus make it larger and smaller, Enter lights its strongest colour"
        @pointerdown="press"
        @dblclick="turn = { ...AT_REST }"
        @wheel.prevent="zoom(2 ** (-$event.deltaY * WHEEL))"
        @keydown="key"
      >
        <canvas ref="canvas" class="size-full" />
        <span v-for="one in solid ? names : []" :key="one.name" class="pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 text-2xs whitespace-nowrap text-dim" :style="{ left: one.left, top: one.top }">{{ one.name }}</span>
      </div>
      <p v-if="shown && !solid" class="absolute inset-0 flex items-center justify-center text-xs text-dim">measuring…</p>
    </div>
    <div class="flex flex-wrap items-baseline gap-x-2 pt-0.5 text-2xs text-faint">
      <button
        v-for="one in catalogue.catalogue?.solids"
        :key="one.id"
        :class="scopes.kept.solid === one.id ? 'text-ink' : 'hover:text-ink'"
        :title="one.label"
        :aria-pressed="scopes.kept.solid === one.id"
        @click="scopes.set({ solid: one.id })"
      >
        {{ one.id }}
      </button>
      <button class="border-l border-line pl-2" :class="boosted ? 'text-ink' : 'hover:text-ink'" :aria-pressed="boosted" @click="boosted = !boosted">stronger colours</button>
      <button :class="legal ? 'text-weld' : 'hover:text-ink'" :aria-pressed="legal" title="the codes a signal of legal range may use, 64 to 940" @click="legal = !legal">legal range</button>
      <button title="size of the points" @click="size = SIZES[(SIZES.indexOf(size) + 1) % SIZES.length] ?? 1">points {{ size < 1 ? 'small' : size > 1 ? 'large' : 'middle' }}</button>
      <span v-for="[face, count] in flattened" :key="face" class="text-dim" :aria-label="`flattened on the face ${face}`"
        >{{ face }} <span class="text-ink">{{ share(count) }}</span></span
      >
    </div>
  </div>
</template>
