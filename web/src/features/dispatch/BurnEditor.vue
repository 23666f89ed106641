<script setup lang="ts">
import { send } from '@/api/client'
import type { BurnItem, OutputSheet } from '@/api/delivery'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { watchDebounced } from '@vueuse/core'
import { computed, onUnmounted, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { followDrag } from '../grade/useDrag'
import { useCatalogue } from '../shell/useCatalogue'

/** Texts drawn into the picture of an output: dragged where they belong, in the picture as it will be. */
const props = defineProps<{ sheet: OutputSheet; cut: string; aspect: number }>()
const emit = defineEmits<{ change: [burns: BurnItem[]]; close: [] }>()
const catalogue = useCatalogue()
const position = useCut()
const chosen = ref(0)
const picture = ref<string | null>(null)
const refusal = ref<string | null>(null)
const box = ref<HTMLElement>()
const items = computed(() => props.sheet.burns ?? [])
const tokens = computed(() => (catalogue.catalogue?.burn_tokens ?? []).map((token) => `{${token}}`))
const item = computed(() => items.value[chosen.value])
const WAIT = 80 // ms

function change(index: number, values: Partial<BurnItem>) {
  emit(
    'change',
    items.value.map((one, at) => (at === index ? { ...one, ...values } : one)),
  )
}
function add() {
  emit('change', [...items.value, { text: '{timecode}', x: 0.5, y: 0.9, size: 0.05 }])
  chosen.value = items.value.length
}
function remove() {
  emit(
    'change',
    items.value.filter((_, at) => at !== chosen.value),
  )
  chosen.value = 0
}
const held = (value: number) => Math.min(1, Math.max(0, Math.round(value * 1000) / 1000))
function drag(event: PointerEvent, index: number) {
  chosen.value = index
  const bounds = box.value?.getBoundingClientRect()
  const start = items.value[index]
  if (!bounds || !start) return
  const own = (event.currentTarget as HTMLElement).getBoundingClientRect()
  let [x, y] = [start.x, start.y]
  followDrag(event, {
    move: (dx, dy) => {
      x += dx / Math.max(1, bounds.width - own.width)
      y += dy / Math.max(1, bounds.height - own.height)
      change(index, { x: held(x), y: held(y) })
    },
  })
}
function nudge(event: KeyboardEvent, index: number) {
  const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key]
  const start = items.value[index]
  if (!way || !start) return
  event.preventDefault()
  const by = event.shiftKey ? 0.05 : 0.005
  change(index, { x: held(start.x + (way[0] ?? 0) * by), y: held(start.y + (way[1] ?? 0) * by) })
}

async function show() {
  try {
    const output = { ...props.sheet, name: undefined }
    const blob = await (await send('POST', `/cuts/${props.cut}/orders/preview`, { output, frame: position.frame })).blob()
    if (picture.value) URL.revokeObjectURL(picture.value)
    picture.value = URL.createObjectURL(blob)
    refusal.value = null
  } catch (error) {
    refusal.value = error instanceof Error ? error.message : String(error)
  }
}
watchDebounced(
  () => props.sheet,
  () => void show(),
  { debounce: WAIT, deep: true, immediate: true },
)
onUnmounted(() => picture.value && URL.revokeObjectURL(picture.value))
</script>

<template>
  <Dialog open class="relative z-40" @close="emit('close')">
    <div class="fixed inset-0 bg-black/60" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-6">
      <DialogPanel class="w-[720px] border border-line bg-pane p-4">
        <div class="mb-2 flex items-baseline gap-3">
          <DialogTitle class="text-base font-semibold">Drawn into the picture</DialogTitle>
          <span class="flex-1" />
          <button v-for="(preset, name) in catalogue.catalogue?.burns" :key="name" type="button" class="text-xs text-dim hover:text-ink" @click="emit('change', [...items, ...preset])">+ {{ name }}</button>
        </div>
        <div ref="box" class="relative w-full overflow-hidden bg-ground" :style="{ aspectRatio: aspect }">
          <img v-if="picture" :src="picture" alt="the picture as it will be" class="size-full" draggable="false" />
          <button
            v-for="(one, index) in items"
            :key="index"
            type="button"
            class="absolute cursor-move touch-none border whitespace-pre text-transparent"
            :class="index === chosen ? 'border-weld' : 'border-ink/30 hover:border-ink'"
            :style="{ left: `${one.x * 100}%`, top: `${one.y * 100}%`, transform: `translate(${-one.x * 100}%, ${-one.y * 100}%)`, fontSize: `${one.size * 360}px`, fontFamily: 'monospace' }"
            :aria-label="`text ${one.text}`"
            @pointerdown="drag($event, index)"
            @keydown="nudge($event, index)"
            @focus="chosen = index"
          >
            {{ one.text }}
          </button>
        </div>
        <p v-if="refusal" class="mt-2 text-xs text-madder">{{ refusal }}</p>
        <div v-if="item" class="mt-3 space-y-2 text-xs text-dim">
          <input class="field w-full py-0.5 text-sm select-text" :value="item.text" aria-label="text" maxlength="200" @input="change(chosen, { text: ($event.target as HTMLInputElement).value })" />
          <p class="flex flex-wrap gap-x-2 text-2xs">
            <button v-for="token in tokens" :key="token" type="button" class="hover:text-ink" @click="change(chosen, { text: item.text + token })">{{ token }}</button>
          </p>
          <p class="flex items-center gap-4">
            <label class="flex items-center gap-1.5"
              >size <input type="range" min="0.015" max="0.3" step="0.005" class="accent-weld" :value="item.size" aria-label="size of the text" @input="change(chosen, { size: Number(($event.target as HTMLInputElement).value) })"
            /></label>
            <label class="flex items-center gap-1.5"
              >opacity <input type="range" min="0" max="1" step="0.05" class="accent-weld" :value="item.opacity ?? 1" aria-label="opacity of the text" @input="change(chosen, { opacity: Number(($event.target as HTMLInputElement).value) })"
            /></label>
            <label class="flex items-center gap-1.5"
              >field
              <input type="range" min="0" max="1" step="0.05" class="accent-weld" :value="item.back ?? 0.6" aria-label="darkness of the field behind it" @input="change(chosen, { back: Number(($event.target as HTMLInputElement).value) })"
            /></label>
            <button type="button" class="hover:text-madder" @click="remove">remove</button>
          </p>
        </div>
        <div class="mt-3 flex justify-between"><button type="button" class="control" @click="add">+ text</button><button type="button" class="control-main" @click="emit('close')">done</button></div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
