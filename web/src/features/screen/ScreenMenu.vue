<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { useCut } from '../cut/useCut'
import OptionRow from '../shell/OptionRow.vue'
import { useCatalogue } from '../shell/useCatalogue'
import MeasuredScreens from './MeasuredScreens.vue'
import { useScreen } from './useScreen'

const cut = useCut()
const screen = useScreen()
const catalogue = useCatalogue()

const canvasLabel = (id: string) => catalogue.catalogue?.canvases.find((one) => one.id === id)?.label ?? id
const shown = computed(() => (screen.viewOn ? screen.target?.name : `view off, ${cut.project?.space.label} codes`))
</script>

<template>
  <Popover v-if="cut.project" class="relative">
    <PopoverButton class="rounded-sm border px-2 py-0.5" :class="screen.viewOn ? 'border-line text-ink' : 'border-weld text-weld'" title="what this screen shows; V takes the view off and puts it on">
      {{ shown }}<span v-if="screen.screen?.overdue" class="ml-1.5 text-madder" :title="`${screen.screen.name}: ${screen.screen.words}`">unverified</span>
    </PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 z-30 mt-1 w-80 border border-line bg-raise p-3 whitespace-normal shadow-lg shadow-black/50 outline-none">
      <label class="flex items-center justify-between text-sm text-ink">
        <span>View transform <span class="text-xs text-dim">V</span></span>
        <input type="checkbox" class="accent-weld" :checked="screen.viewOn" aria-label="view transform" @change="screen.flip()" />
      </label>
      <p class="mt-0.5 text-2xs text-dim">Off, the codes of the working space are shown as they are.</p>
      <div role="radiogroup" aria-label="target of this screen" class="mt-3">
        <h3 class="caption mb-1">This screen shows</h3>
        <button
          v-for="one in cut.project.targets"
          :key="one.id"
          role="radio"
          :aria-checked="one.id === screen.target?.id"
          class="block w-full border-l-2 px-2 py-1 text-left hover:bg-line"
          :class="one.id === screen.target?.id ? 'border-weld text-ink' : 'border-transparent text-dim'"
          @click="screen.choose({ target: one.id })"
        >
          <span class="block text-sm">{{ one.name }}</span><span class="block text-2xs text-dim">{{ one.label }}</span>
        </button>
      </div>
      <div class="mt-3">
        <h3 class="caption mb-1">This window is on</h3>
        <MeasuredScreens />
      </div>
      <p v-if="screen.screen" class="mt-1 text-2xs text-dim">The picture is made for it, and passes through its correction. Instruments and files do not.</p>
      <div v-else class="mt-3">
        <h3 class="caption mb-1">It is a screen of</h3>
        <OptionRow label="canvas of this screen" :options="catalogue.canvases" :model-value="screen.canvas" @update:model-value="screen.choose({ canvas: $event })" />
        <p class="mt-1 text-2xs text-dim">
          {{
            screen.target && canvasLabel(screen.canvas) === catalogue.encodingLabel(screen.target.encoding) ? 'The picture has the very codes a file of this target has.' : 'The picture is converted from the target for it; files are not.'
          }}
        </p>
      </div>
      <RouterLink :to="{ name: 'settings', params: { project: cut.project.id } }" class="mt-3 block text-xs text-dim hover:text-ink">Targets are set in the project's settings →</RouterLink>
    </PopoverPanel>
  </Popover>
</template>
