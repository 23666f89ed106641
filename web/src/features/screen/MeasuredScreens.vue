<script setup lang="ts">
import { onMounted } from 'vue'
import { useScreens } from '../screens/useScreens'
import { useNotices } from '../shell/useNotices'
import { useScreen } from './useScreen'

/** Which of the measured screens this window is on; one that was not verified for long is marked. */
const screens = useScreens()
const screen = useScreen()
const notices = useNotices()
onMounted(() => screens.load().catch((error: unknown) => notices.trouble(error)))
</script>

<template>
  <div v-if="screens.screens.length" role="radiogroup" aria-label="measured screen">
    <button
      role="radio"
      :aria-checked="screen.screen === null"
      class="block w-full border-l-2 px-2 py-1 text-left text-sm hover:bg-line"
      :class="screen.screen === null ? 'border-weld text-ink' : 'border-transparent text-dim'"
      @click="screen.choose({ screen: undefined })"
    >
      none that was measured
    </button>
    <button
      v-for="one in screens.screens"
      :key="one.id"
      role="radio"
      :aria-checked="one.id === screen.screen?.id"
      class="block w-full border-l-2 px-2 py-1 text-left hover:bg-line"
      :class="one.id === screen.screen?.id ? 'border-weld text-ink' : 'border-transparent text-dim'"
      @click="screen.choose({ screen: one.id })"
    >
      <span class="block text-sm">{{ one.name }}</span><span class="block text-2xs" :class="one.overdue ? 'text-madder' : 'text-dim'">{{ one.kind }} screen, {{ one.words }}</span>
    </button>
  </div>
</template>
