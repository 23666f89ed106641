<script setup lang="ts">
import { onMounted } from 'vue'
import { RouterView, useRoute } from 'vue-router'
import CompanyWatch from './features/people/CompanyWatch.vue'
import SignInPage from './features/people/SignInPage.vue'
import { useHere } from './features/people/useHere'
import ActPalette from './features/shell/ActPalette.vue'
import NoticeStack from './features/shell/NoticeStack.vue'
import RoomRail from './features/shell/RoomRail.vue'
import TopBar from './features/shell/TopBar.vue'
import TroubleLine from './features/shell/TroubleLine.vue'
import ShortcutSheet from './features/shell/ShortcutSheet.vue'

const route = useRoute()
const here = useHere()
onMounted(here.look)
</script>

<template>
  <RouterView v-if="route.meta.open" />
  <template v-else>
    <SignInPage v-if="here.shut" class="fixed inset-0 z-50" />
    <p v-if="here.failed && !here.opened" class="p-10 text-dim" role="alert">{{ here.failed }} <button class="control ml-2" @click="here.look()">Try again</button></p>
  </template>
  <template v-if="here.opened && route.meta.bare && !route.meta.open">
    <RouterView />
    <TroubleLine class="fixed inset-x-0 bottom-0" />
  </template>
  <div v-else-if="here.opened && !route.meta.open" class="grid h-full grid-cols-[56px_minmax(0,1fr)] grid-rows-[34px_minmax(0,1fr)_auto]">
    <TopBar class="col-span-2" />
    <RoomRail />
    <main class="min-h-0 min-w-0"><RouterView /></main>
    <div class="col-span-2">
      <TroubleLine />
      <NoticeStack />
    </div>
    <ShortcutSheet />
    <ActPalette />
    <CompanyWatch />
  </div>
</template>
