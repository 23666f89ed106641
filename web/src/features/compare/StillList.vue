<script setup lang="ts">
import { ref } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'
import { useReference } from './useReference'
import { useStills } from './useStills'

/** Stills of the project: pictures to compare with; and the present picture as one, kept or leaving. */
const stills = useStills()
const reference = useReference()
const catalogue = useCatalogue()
const over = ref(false)

function bringIn(files: FileList | null | undefined) {
  const file = files?.[0]
  if (file) void stills.bringIn(file)
}
</script>

<template>
  <div aria-label="stills">
    <div class="flex gap-1">
      <button class="control flex-1 px-1" title="the graded picture as it is now, to compare with" @click="stills.freeze(null)">freeze this picture</button>
      <label
        class="control flex-1 cursor-pointer px-1 text-center"
        :class="over ? 'border-weld' : ''"
        title="PNG, TIFF or JPEG: a photograph, a frame of an earlier job; its codes are taken for sRGB"
        @dragover.prevent="over = true"
        @dragleave="over = false"
        @drop.prevent="((over = false), bringIn($event.dataTransfer?.files))"
      >
        bring one in…<input type="file" accept=".png,.tif,.tiff,.jpg,.jpeg,.dpx,.exr" class="sr-only" aria-label="picture to bring in" @change="bringIn(($event.target as HTMLInputElement).files)" />
      </label>
    </div>
    <p v-for="still in stills.all" :key="still.id" class="mt-1 flex justify-between gap-2 text-xs">
      <button
        class="min-w-0 truncate"
        :class="reference.kind === 'still' && reference.still === still.id ? 'text-[#7fb0e0]' : 'text-dim hover:text-ink'"
        :title="[still.origin.file, still.origin.cut, still.origin.shot, still.origin.timecode].filter(Boolean).join(' · ')"
        @click="stills.show(still)"
      >
        {{ still.name }}
      </button>
      <button class="text-dim hover:text-ink" :aria-label="`delete ${still.name}`" @click="stills.forget(still)">delete</button>
    </p>
    <p class="mt-2 flex flex-wrap items-baseline gap-x-2.5 text-2xs text-dim">
      write this picture as
      <button v-for="format in catalogue.catalogue?.stills" :key="format.id" class="hover:text-ink" :data-test="`still-${format.id}`" @click="stills.leave(format.id)">{{ format.label }}</button>
    </p>
  </div>
</template>
