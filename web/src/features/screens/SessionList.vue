<script setup lang="ts">
import { useNotices } from '../shell/useNotices'
import { useScreens } from './useScreens'
import { dateOf, sessionWords } from './words'

const screens = useScreens()
const notices = useNotices()
const tried = (act: Promise<unknown>) => void act.catch((error: unknown) => notices.trouble(error))
const figure = (value: number | undefined) => (value === undefined ? '–' : value.toFixed(2))
</script>

<template>
  <section aria-label="sessions" class="min-h-0 flex-1 overflow-y-auto border-t border-line">
    <h3 class="caption px-3 pt-2 pb-1">Sessions</h3>
    <p v-if="!screens.sessions.length" class="px-3 pb-2 text-2xs text-faint">none yet</p>
    <div v-for="one in screens.sessions" :key="one.id" class="border-l-2 px-3 py-1.5" :class="one.id === screens.shown?.id ? 'border-weld bg-raise' : 'border-transparent'">
      <button class="block w-full text-left hover:text-ink" :aria-pressed="one.id === screens.shown?.id" @click="tried(screens.look(one.id))">
        <span class="flex justify-between text-xs"
          ><span>{{ dateOf(one) }}</span
          ><span :class="one.id === screens.chosen?.loaded ? 'text-weld' : 'text-dim'">{{ one.id === screens.chosen?.loaded ? 'loaded' : sessionWords(one) }}</span></span
        >
        <span v-if="one.figures" class="mt-0.5 flex justify-between text-2xs text-dim">
          <span>dE mean {{ one.figures.before ? `${figure(one.figures.before.de2000_mean)} → ` : '' }}{{ figure(one.figures.after?.de2000_mean) }}</span
          ><span>greatest {{ figure(one.figures.after?.de2000_max) }}</span>
        </span>
        <span v-if="one.figures && one.figures.reachable === false" class="block text-2xs text-madder">cannot show all of its target</span>
        <span v-if="one.message" class="mt-0.5 block text-2xs text-madder select-text" role="alert">{{ one.message }}</span>
      </button>
      <p v-if="one.id === screens.shown?.id" class="mt-1 flex flex-wrap gap-x-3 text-2xs text-dim">
        <button v-if="one.status === 'failed'" class="text-ink hover:text-weld" @click="tried(screens.act(one, 'go-on'))">go on</button>
        <button v-if="one.status === 'failed'" class="hover:text-ink" @click="tried(screens.act(one, 'cancel'))">cancel</button>
        <button v-if="one.corrects && one.id !== screens.chosen?.loaded" class="hover:text-ink" @click="tried(screens.act(one, 'load'))">load</button>
        <button v-if="one.id === screens.chosen?.loaded" class="hover:text-ink" title="pictures for this screen pass through nothing" @click="tried(screens.unload())">unload</button>
        <template v-if="one.status === 'done'">
          <a class="hover:text-ink" :href="`/api/calibrations/${one.id}/report.html`" download>report</a><a class="hover:text-ink" :href="`/api/calibrations/${one.id}/report.json`" download>JSON</a>
          <a v-if="one.corrects" class="hover:text-ink" :href="`/api/calibrations/${one.id}/correction.cube`" download>cube</a>
        </template>
      </p>
    </div>
  </section>
</template>
