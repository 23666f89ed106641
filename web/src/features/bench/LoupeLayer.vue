<script setup lang="ts">
import { send } from '@/api/client'
import { ref, watch } from 'vue'
import { useNotices } from '../shell/useNotices'

/** Pixels about the pointer, enlarged, with the one under it in numbers. */
const props = defineProps<{
  bitmap: ImageBitmap | null
  place: { x: number; y: number; width: number; height: number }
  /** Asks what the point is in numbers: its request without x and y. */
  cut: number
  wish: Record<string, unknown>
}>()
const notices = useNotices()
const EDGE = 120 // px
const PIXELS = 15
const EVERY = 60 // ms
const pointer = ref<{ x: number; y: number } | null>(null)
const numbers = ref<{ source: number[] | null; working: number[]; display: number[]; matte: number | null } | null>(null)
const canvas = ref<HTMLCanvasElement>()
const screen = crypto.randomUUID()
let sequence = 0
let timer = 0

function move(event: PointerEvent) {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect()
  pointer.value = { x: event.clientX - bounds.left, y: event.clientY - bounds.top }
}
const share = () => {
  if (!pointer.value) return null
  const { x, y, width, height } = props.place
  const at = { x: (pointer.value.x - x) / width, y: (pointer.value.y - y) / height }
  return at.x >= 0 && at.x < 1 && at.y >= 0 && at.y < 1 ? at : null
}

async function read() {
  const at = share()
  if (!at) return
  try {
    const response = await send('POST', `/cuts/${props.cut}/point`, { ...props.wish, ...at, screen, sequence: ++sequence })
    // a newer point has overtaken this one
    if (response.status !== 204) numbers.value = (await response.json()) as typeof numbers.value
  } catch (error) {
    notices.trouble(error)
  }
}

watch([pointer, () => props.bitmap], () => {
  const context = canvas.value?.getContext('2d')
  const at = share()
  if (context && props.bitmap && at) {
    context.imageSmoothingEnabled = false
    context.fillStyle = '#111'
    context.fillRect(0, 0, EDGE, EDGE)
    const [x, y] = [Math.floor(at.x * props.bitmap.width), Math.floor(at.y * props.bitmap.height)]
    context.drawImage(props.bitmap, x - (PIXELS - 1) / 2, y - (PIXELS - 1) / 2, PIXELS, PIXELS, 0, 0, EDGE, EDGE)
    const cell = EDGE / PIXELS
    context.strokeStyle = '#d8b55b'
    context.strokeRect(((PIXELS - 1) / 2) * cell, ((PIXELS - 1) / 2) * cell, cell, cell)
  }
  if (timer) return
  timer = window.setTimeout(() => {
    timer = 0
    void read()
  }, EVERY)
})
const code = (values: number[] | null) => (values ? values.map((value) => Math.round(value * 1023)).join('  ') : 'mixed')
</script>

<template>
  <div class="absolute inset-0 cursor-crosshair" @pointermove="move">
    <div v-if="pointer" class="pointer-events-none absolute flex gap-2 border border-line bg-ground/90 p-1" :style="{ left: `${pointer.x + (pointer.x > 320 ? -300 : 24)}px`, top: `${Math.max(0, pointer.y - 60)}px` }">
      <canvas ref="canvas" :width="EDGE" :height="EDGE" />
      <dl class="w-36 self-center text-2xs text-dim" data-test="loupe">
        <dt>source, 10-bit</dt>
        <dd class="mb-1 whitespace-pre text-ink">{{ numbers ? code(numbers.source) : '' }}</dd>
        <dt>working</dt>
        <dd class="mb-1 whitespace-pre text-ink">{{ numbers?.working.map((value) => value.toFixed(3)).join('  ') }}</dd>
        <dt>display, 10-bit</dt>
        <dd class="whitespace-pre text-ink">{{ numbers ? code(numbers.display) : '' }}</dd>
        <template v-if="typeof numbers?.matte === 'number'"
          ><dt class="mt-1">matte</dt>
          <dd class="text-ink" data-test="loupe-matte">{{ (numbers.matte * 100).toFixed(1) }} %</dd></template
        >
      </dl>
    </div>
  </div>
</template>
