<script setup lang="ts">
import type { Swatch } from '@/api/recipe'
import { ref } from 'vue'
import { sizeOf, type Folder } from './folderTree'
import { useSwatches } from './useSwatches'

/** One folder of the book and those in it; swatches are dragged onto its name. */
const props = defineProps<{ folder: Folder; editing: number | null }>()
const emit = defineEmits<{ edit: [swatch: Swatch]; recall: [swatch: Swatch] }>()
const swatches = useSwatches()
const open = ref(true)
const over = ref(false)

function drop(event: DragEvent) {
  over.value = false
  const files = event.dataTransfer?.files
  if (files?.length) return void swatches.bringIn(files, props.folder.path)
  const swatch = swatches.all.find((one) => String(one.id) === event.dataTransfer?.getData('text/swatch'))
  if (swatch && swatch.folder !== props.folder.path) void swatches.change(swatch, { folder: props.folder.path })
}
function change(swatch: Swatch, key: 'name' | 'description' | 'folder', event: Event) {
  const value = (event.target as HTMLInputElement).value
  if (swatch[key] !== value) void swatches.change(swatch, { [key]: value })
}
</script>

<template>
  <section :aria-label="folder.path || 'all swatches'" :class="folder.path ? 'mt-1.5' : ''">
    <button
      v-if="folder.path"
      class="caption flex w-full items-center gap-1 border-l-2 py-0.5 pl-1 text-left hover:text-ink"
      :class="over ? 'border-weld bg-weld/15' : 'border-transparent'"
      :aria-expanded="open"
      :data-folder="folder.path"
      @click="open = !open"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="drop"
    >
      <span class="w-2 text-faint">{{ open ? '▾' : '▸' }}</span>{{ folder.name }}<span class="text-faint">{{ sizeOf(folder) }}</span>
    </button>
    <div v-show="open" :class="folder.path ? 'ml-2 border-l border-line pl-2' : ''">
      <div class="mt-1 grid grid-cols-2 gap-2">
        <figure v-for="swatch in folder.swatches" :key="swatch.id" class="min-w-0" draggable="true" @dragstart="$event.dataTransfer?.setData('text/swatch', String(swatch.id))">
          <button class="block w-full" :title="swatch.description" @click="emit('recall', swatch)">
            <img :src="swatches.picture(swatch)" :alt="swatch.name" class="aspect-video w-full bg-ground object-cover" loading="lazy" draggable="false" />
          </button>
          <figcaption class="flex items-baseline justify-between gap-1 text-2xs">
            <span class="truncate text-ink">{{ swatch.name }}</span>
            <span class="flex gap-1.5 whitespace-nowrap text-dim"
              ><b v-if="swatch.peg !== null" class="text-weld">{{ swatch.peg }}</b
              ><button :aria-label="`change ${swatch.name}`" class="hover:text-ink" @click="emit('edit', swatch)">···</button></span
            >
          </figcaption>
          <div v-if="editing === swatch.id" class="mt-1 space-y-1">
            <input
              v-for="key in ['name', 'folder', 'description'] as const"
              :key="key"
              class="field w-full py-0 text-2xs select-text"
              :value="swatch[key]"
              :placeholder="key"
              :aria-label="`${key} of ${swatch.name}`"
              @keydown.stop
              @blur="change(swatch, key, $event)"
            />
            <p class="flex justify-between text-2xs text-dim">
              <a class="hover:text-ink" :href="swatches.file(swatch)" title="its picture with the grade inside, one PNG file">take as a file</a><button class="hover:text-ink" @click="swatches.forget(swatch)">forget it</button>
            </p>
          </div>
        </figure>
      </div>
      <SwatchFolder v-for="one in folder.folders" :key="one.path" :folder="one" :editing="editing" @edit="emit('edit', $event)" @recall="emit('recall', $event)" />
    </div>
  </section>
</template>
