<script setup lang="ts">
import type { ScreenSession } from '@/api/screen'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useEvents } from '../shell/useEvents'
import { useNotices } from '../shell/useNotices'
import { LIVE, useScreens } from './useScreens'
import { colourOf } from './words'

/** Nothing but the patch that is measured, for the screen it is measured on. */
const route = useRoute()
const screens = useScreens()
const notices = useNotices()
const project = computed(() => route.params.project as string | undefined)
const id = computed(() => Number(route.params.screen))
const session = ref<ScreenSession | null>(null)
const name = computed(() => screens.screens.find((one) => one.id === id.value)?.name ?? '')
const patch = computed(() => (session.value && LIVE.includes(session.value.status) ? (session.value.showing?.shown ?? null) : null))

onMounted(() => screens.load().catch((error: unknown) => notices.trouble(error)))
useEvents(project, { calibration: (told: ScreenSession) => void (told.screen === id.value && (!session.value || told.id >= session.value.id) && (session.value = told)) })
const full = () => void document.documentElement.requestFullscreen()
</script>

<template>
  <div class="flex h-full items-center justify-center" :style="{ background: patch ? colourOf(patch) : '#000' }" data-test="patch-window" @dblclick="full">
    <p v-if="!patch" class="text-faint">{{ name }}: patches come here while it is measured. Double click for the whole screen.</p>
  </div>
</template>
