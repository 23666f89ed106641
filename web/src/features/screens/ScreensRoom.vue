<script setup lang="ts">
import type { ScreenSession } from '@/api/screen'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useCut } from '../cut/useCut'
import { useCatalogue } from '../shell/useCatalogue'
import { useEvents } from '../shell/useEvents'
import { useKeys } from '../shell/useKeys'
import { useNotices } from '../shell/useNotices'
import ErrorBars from './ErrorBars.vue'
import GamutDiagram from './GamutDiagram.vue'
import ScreenPanel from './ScreenPanel.vue'
import SessionBar from './SessionBar.vue'
import ToneChart from './ToneChart.vue'
import { useScreens } from './useScreens'

const route = useRoute()
const cut = useCut()
const catalogue = useCatalogue()
const notices = useNotices()
const screens = useScreens()
const project = computed(() => route.params.project as string | undefined)
const ready = ref(false)
const side = ref<'before' | 'after'>('after')
const tried = (act: Promise<unknown>) => void act.catch((error: unknown) => notices.trouble(error))

onMounted(async () => {
  try {
    if (project.value) await Promise.all([catalogue.load(), cut.openProject(project.value)])
    await screens.load()
    if (screens.chosen) await screens.choose(screens.chosen.id)
    ready.value = true
  } catch (error) {
    notices.trouble(error)
  }
})
useEvents(project, { calibration: (session: ScreenSession) => tried(screens.take(session)) })

const shown = computed(() => screens.shown)
const has = (name: 'before' | 'after') => Boolean(shown.value?.report[name])
watch(
  () => [shown.value?.id, has('before'), has('after')],
  () => (side.value = has('after') ? 'after' : 'before'),
)
const LINES = [
  ['mean dE', 'de2000_mean', 2],
  ['greatest dE', 'de2000_max', 2],
  ['mean dL', 'dl_mean', 2],
  ['greatest dL', 'dl_max', 2],
  ['white off', 'white_duv', 4],
  ['gamut covered', 'gamut', 3],
  ['white, cd/m²', 'peak', 1],
] as const
const openWindow = () => screens.chosen && window.open(`/projects/${project.value}/screens/${screens.chosen.id}/patch`, `patch-${screens.chosen.id}`, 'popup,width=960,height=540')
const step = (by: number) => {
  const next = screens.screens[screens.screens.findIndex((one) => one.id === screens.chosen?.id) + by]
  if (next) tried(screens.choose(next.id))
}
const fresh = () => {
  const names = screens.screens.map((one) => one.name)
  let number = names.length + 1
  while (names.includes(`Screen ${number}`)) number++
  tried(screens.add({ name: `Screen ${number}`, kind: 'control' }))
}

useKeys('screens', [
  { key: 'q', words: 'previous screen', press: () => step(-1) },
  { key: 'e', words: 'next screen', press: () => step(1) },
  { key: 'y', words: 'before or after', press: () => (side.value = side.value === 'before' ? 'after' : 'before') },
  { key: 'p', words: 'pause the session, or go on', press: () => screens.live && tried(screens.act(screens.live, screens.live.status === 'paused' ? 'go-on' : 'pause')) },
])
</script>

<template>
  <div v-if="ready && screens.list" class="grid h-full grid-cols-[196px_minmax(0,1fr)_268px] grid-rows-1">
    <div class="flex min-h-0 flex-col border-r border-line" role="listbox" aria-label="screens">
      <div class="min-h-0 flex-1 overflow-y-auto py-1">
        <button
          v-for="one in screens.screens"
          :key="one.id"
          role="option"
          :aria-selected="one.id === screens.chosen?.id"
          class="block w-full border-l-2 px-3 py-2 text-left"
          :class="one.id === screens.chosen?.id ? 'border-weld bg-raise' : 'border-transparent hover:bg-pane'"
          @click="tried(screens.choose(one.id))"
        >
          <span class="block text-sm">{{ one.name }}</span>
          <span class="block text-2xs text-dim">{{ one.kind }} screen</span>
          <span class="block text-2xs" :class="one.overdue ? 'text-madder' : 'text-dim'" data-test="age">{{ one.words }}</span>
        </button>
      </div>
      <button class="border-t border-line px-3 py-2 text-left text-xs text-dim hover:text-ink" @click="fresh">another screen</button>
    </div>
    <section v-if="screens.chosen" class="flex min-h-0 min-w-0 flex-col" aria-label="measurement">
      <SessionBar v-if="screens.live" :session="screens.live" @window="openWindow" />
      <div class="grid min-h-0 flex-[1.35] grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
        <GamutDiagram :spectrum="screens.list.spectrum" :target="screens.target" :session="shown" :side="side" class="border-r border-line">
          <span role="radiogroup" aria-label="before or after" class="flex gap-2">
            <button
              v-for="one in ['before', 'after'] as const"
              :key="one"
              role="radio"
              :aria-checked="side === one"
              :disabled="!has(one)"
              class="disabled:text-faint"
              :class="side === one ? 'text-weld' : 'text-dim hover:text-ink'"
              @click="side = one"
            >
              {{ one }}
            </button>
          </span>
        </GamutDiagram>
        <div class="flex min-h-0 flex-col">
          <ToneChart :session="shown" class="flex-1" />
          <table v-if="has('before') || has('after')" class="mx-3 my-2 text-xs" aria-label="figures">
            <thead>
              <tr class="text-2xs text-faint">
                <th />
                <th v-for="one in ['before', 'after']" :key="one" class="py-0.5 text-right font-normal">{{ one }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="[label, key, places] in LINES" :key="key">
                <th class="py-0.5 text-left font-normal text-dim">{{ label }}</th>
                <td v-for="one in ['before', 'after'] as const" :key="one" class="text-right" :data-test="`${key}-${one}`">{{ shown?.report[one]?.[key]?.toFixed(places) ?? '' }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </div>
      <div class="flex min-h-0 flex-1 border-t border-line"><ErrorBars :session="shown" /></div>
      <div v-if="shown" class="flex flex-wrap gap-x-4 border-t border-line px-3 py-1.5 text-2xs text-dim select-text" aria-label="notes">
        <span v-if="shown.report.settling">settles in {{ shown.report.settling.seconds.toFixed(2) }} s</span>
        <span v-if="shown.report.reach">{{ (shown.report.reach.gamut * 100).toFixed(1) }} % of the target’s gamut</span>
        <span v-if="shown.report.reach?.contrast">black 1 to {{ shown.report.reach.contrast.toFixed(0) }}</span>
        <span v-if="shown.report.readings">corrected by {{ shown.report.readings }} readings</span>
        <span v-for="note in shown.report.notes" :key="note" class="text-weld" data-test="note">{{ note }}</span>
      </div>
    </section>
    <p v-else class="flex items-center justify-center text-dim">Bring a screen in on the left, and measure it.</p>
    <ScreenPanel />
  </div>
  <div v-else class="flex h-full items-center justify-center text-dim">looking for the screens…</div>
</template>
