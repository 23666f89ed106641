<script setup lang="ts">
import type { ScreenSession } from '@/api/screen'
import ProgressBar from '../shell/ProgressBar.vue'
import { useNotices } from '../shell/useNotices'
import { useScreens } from './useScreens'
import { colourOf, leftWords, PHASES } from './words'

/** What is being measured just now. */
defineProps<{ session: ScreenSession }>()
const emit = defineEmits<{ window: [] }>()
const screens = useScreens()
const notices = useNotices()
const tried = (act: Promise<unknown>) => void act.catch((error: unknown) => notices.trouble(error))
const percent = (codes: readonly number[]) => codes.map((code) => Math.round(code * 100)).join(' ')
</script>

<template>
  <section class="border-b border-line bg-pane" aria-label="session">
    <div class="flex h-10 items-center gap-3 px-3 text-xs whitespace-nowrap">
      <i class="block size-6 border border-line" :style="{ background: session.showing ? colourOf(session.showing.codes) : 'transparent' }" data-test="patch" />
      <span class="w-24 text-dim">{{ session.showing ? `${percent(session.showing.codes)} %` : 'no patch' }}</span>
      <span class="min-w-0 flex-1 truncate text-ink">{{ session.status === 'waiting' ? 'waiting for a worker' : session.status === 'paused' ? 'paused' : (PHASES[session.phase ?? ''] ?? '') }}</span>
      <span class="text-dim" data-test="counted">{{ session.done }} of {{ session.count }}</span
      ><span class="w-20 text-right text-dim">{{ leftWords(session.left) }}</span>
      <button class="hover:text-weld" title="only the patch, for the screen that is measured" @click="emit('window')">patch window</button>
      <button v-if="session.status === 'paused'" class="text-ink hover:text-weld" title="P" @click="tried(screens.act(session, 'go-on'))">go on</button>
      <button v-else class="hover:text-weld" title="P" @click="tried(screens.act(session, 'pause'))">pause</button>
      <button class="text-dim hover:text-madder" @click="tried(screens.act(session, 'cancel'))">cancel</button>
    </div>
    <ProgressBar :done="session.done" :of="Math.max(1, session.count)" label="session" />
  </section>
</template>
