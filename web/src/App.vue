<script setup lang="ts">
import { RouterView, useRoute } from 'vue-router'
import NoticeStack from './features/shell/NoticeStack.vue'
import RoomRail from './features/shell/RoomRail.vue'
import TopBar from './features/shell/TopBar.vue'
import TroubleLine from './features/shell/TroubleLine.vue'
import ShortcutSheet from './features/shell/ShortcutSheet.vue'

const route = useRoute()
</script>

<template>
  <template v-if="route.meta.bare">
    <RouterView />
    <TroubleLine class="fixed inset-x-0 bottom-0" />
  </template>
  <div v-else class="grid h-full grid-cols-[56px_minmax(0,1fr)] grid-rows-[34px_minmax(0,1fr)_auto]">
    <TopBar class="col-span-2" />
    <RoomRail />
    <main class="min-h-0 min-w-0"><RouterView /></main>
    <div class="col-span-2">
      <TroubleLine />
      <NoticeStack />
    </div>
    <ShortcutSheet />
  </div>
</template>
