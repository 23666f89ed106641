<script setup lang="ts">
import { getJson } from '@/api/client'
import type { Project } from '@/api/project'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref, watch } from 'vue'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from './useNotices'

const props = defineProps<{ project: Project }>()
const recipes = useRecipes()
const notices = useNotices()
const line = ref<{ id: number; words: string; at: string; who: string | null; shot: string | null }[]>([])
const here = ref<number | null>(null)

async function load() {
  try {
    await recipes.settled()
    const found = await getJson<{ at: number | null; changes: typeof line.value }>(`/projects/${props.project.id}/history`)
    line.value = found.changes.reverse()
    here.value = found.at
  } catch (error) {
    notices.trouble(error)
  }
}

async function travel(change: number | null) {
  await recipes.travel(change)
  await load()
}
/** What others do while it is looked at comes in too. */
const shown = ref(false)
watch(
  () => props.project.head,
  () => shown.value && void load(),
)
type Line = (typeof line.value)[number]
/** Who, and on which shot where the words do not name it. */
const named = ({ words, shot }: Line) => [':', ' '].some((end) => `${words} `.startsWith(`${shot}${end}`))
const under = (change: Line) => [named(change) ? null : change.shot, change.who].filter(Boolean).join(' · ')
const clock = (at: string) => new Date(at).toLocaleTimeString('en-GB')
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="px-1.5 text-ink" title="what was done; click a line to go there" @click="load">history</PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 z-30 mt-1 max-h-[70vh] w-80 overflow-y-auto border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none" @vue:mounted="shown = true" @vue:unmounted="shown = false">
      <button
        v-for="(change, index) in line"
        :key="change.id"
        class="grid w-full grid-cols-[minmax(0,1fr)_56px] gap-2 border-l-2 px-3 py-1 text-left text-sm hover:bg-line"
        :class="[change.id === here ? 'border-weld' : 'border-transparent', line.findIndex((one) => one.id === here) > index || here === null ? 'text-faint' : 'text-ink']"
        @click="travel(change.id)"
      >
        <span class="min-w-0"
          ><span class="block truncate">{{ change.words }}</span
          ><span v-if="under(change)" class="block truncate text-2xs text-dim">{{ under(change) }}</span></span
        ><span class="text-right text-2xs text-dim">{{ clock(change.at) }}</span>
      </button>
      <button class="w-full border-l-2 px-3 py-1 text-left text-sm text-dim hover:bg-line" :class="here === null ? 'border-weld' : 'border-transparent'" @click="travel(null)">as it began</button>
    </PopoverPanel>
  </Popover>
</template>
