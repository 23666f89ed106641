<script setup lang="ts">
import type { ListedScreen } from '@/api/rendition'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed, ref } from 'vue'
import type { Shot } from '@/api/cut'
import { useCut } from '../cut/useCut'
import OptionRow from '../shell/OptionRow.vue'
import { useRenditions } from './useRenditions'

/** The smaller targets, the smallest first; more from a list or by number. */
const cut = useCut()
const renditions = useRenditions()
const refusal = ref<string | null>(null)
const peak = ref('400')
const black = ref('0')
const gamut = ref('p3-d65')
const GAMUTS = [
  { id: 'bt709', label: 'BT.709' },
  { id: 'p3-d65', label: 'P3-D65' },
  { id: 'bt2020', label: 'BT.2020' },
]
const nameOf = (id: string) => GAMUTS.find((one) => one.id === id)?.label ?? id
const left = computed(() =>
  (renditions.list?.listed ?? []).filter((one) => !cut.project?.targets.some((target) => target.rendition?.peak === one.rendition.peak && target.encoding === one.encoding && (target.limit ?? undefined) === one.limit)),
)

function saidOf(id: string) {
  if (cut.shot && renditions.corrects(cut.shot as Shot, id)) return 'corrected'
  if (renditions.proposed?.id === id) return renditions.targets[0]?.id === id ? 'begin here' : 'next'
  return renditions.targets.some((one) => cut.shot && renditions.corrects(cut.shot as Shot, one.id)) ? 'from the others' : ''
}
async function add(screen: ListedScreen, close: () => void) {
  refusal.value = await renditions.add(screen)
  if (!refusal.value) close()
}
const byNumber = (): ListedScreen => ({ name: `${nameOf(gamut.value)} ${peak.value}`, rendition: { peak: Number(peak.value), black: Number(black.value), gamut: gamut.value } })
</script>

<template>
  <section aria-label="targets" class="border-b border-line pb-2">
    <div class="flex items-center justify-between px-3 pt-2.5 pb-1">
      <h2 class="caption">made for</h2>
      <Popover v-slot="{ close }" class="relative">
        <PopoverButton class="text-2xs text-dim hover:text-ink">+ target</PopoverButton>
        <PopoverPanel v-inside class="absolute right-0 z-30 mt-1 w-60 border border-line bg-raise py-1.5 shadow-lg shadow-black/50 outline-none">
          <button v-for="one in left" :key="one.name" class="flex w-full justify-between px-3 py-1 text-left text-sm hover:bg-line" @click="add(one, close)">
            <span>{{ one.name }}</span><span class="text-2xs text-dim">{{ one.rendition.peak }} cd/m²</span>
          </button>
          <div class="mt-1 border-t border-line px-3 pt-2">
            <h3 class="caption mb-1">by number</h3>
            <OptionRow v-model="gamut" label="gamut" :options="GAMUTS" />
            <div class="mt-1.5 flex items-end gap-2 text-2xs text-dim">
              <label>peak, cd/m²<input v-model="peak" class="field mt-0.5 w-full py-0.5" inputmode="decimal" aria-label="peak of the target" @keydown.stop /></label>
              <label>black, cd/m²<input v-model="black" class="field mt-0.5 w-full py-0.5" inputmode="decimal" aria-label="black of the target" @keydown.stop /></label>
              <button class="control shrink-0" @click="add(byNumber(), close)">add</button>
            </div>
            <p v-if="refusal" class="mt-1 text-2xs text-madder" role="alert">{{ refusal }}</p>
          </div>
        </PopoverPanel>
      </Popover>
    </div>
    <div role="radiogroup" aria-label="target">
      <div v-for="one in renditions.targets" :key="one.id" class="group flex items-center border-l-2 pr-2" :class="one.id === renditions.target?.id ? 'border-weld bg-raise' : 'border-transparent'">
        <button
          role="radio"
          class="flex min-w-0 flex-1 items-baseline gap-2 px-2.5 py-1 text-left"
          :class="one.id === renditions.target?.id ? 'text-ink' : 'text-dim hover:text-ink'"
          :aria-checked="one.id === renditions.target?.id"
          :title="one.label"
          @mousedown.prevent
          @click="renditions.choose(one.id)"
        >
          <span class="truncate text-sm">{{ one.name }}</span>
          <span class="flex-1" />
          <span class="text-2xs whitespace-nowrap" :class="saidOf(one.id) === 'corrected' ? 'text-weld' : 'text-faint'">{{ saidOf(one.id) }}</span>
        </button>
        <button class="invisible px-1 text-dim group-hover:visible hover:text-madder" :aria-label="`remove target ${one.name}`" title="remove it from the project; corrections for it stay with the shots" @click="renditions.remove(one)">
          ×
        </button>
      </div>
    </div>
    <p v-if="renditions.targets.length > 1 && renditions.proposed?.id === renditions.targets[0]?.id" class="px-3 pt-1 text-2xs text-faint">The smallest first: what is corrected there flows up to the others.</p>
    <p v-if="!renditions.targets.length" class="px-3 pt-1 text-xs text-dim">No smaller target yet. The smallest comes first: BT.709 at 100 cd/m², as what is corrected there flows up to the others.</p>
  </section>
</template>
