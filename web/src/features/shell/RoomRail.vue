<script setup lang="ts">
import { computed } from 'vue'
import type { Role } from '@/api/people'
import { RouterLink, useRoute, useRouter, type RouteLocationRaw } from 'vue-router'
import { useCut } from '../cut/useCut'
import { useKeys } from './useKeys'
import { useHere } from '../people/useHere'

const route = useRoute()
const cut = useCut()
const here = useHere()
const NEEDED: Record<string, Role> = { intake: 'grade', dispatch: 'deliver' }

const ICONS = {
  intake: 'M4 6h6l2 2h8v10H4zM12 11v4M10 13.5l2 2 2-2',
  assembly: 'M3 8h6v8H3zM11 8h10v8H11zM10 5v14',
  bench: 'M4 7h16M4 12h16M4 17h16M8 5v4M15 10v4M11 15v4',
  board: 'M4 5h4v4H4zM10 5h4v4h-4zM16 5h4v4h-4zM4 11h4v4H4zM10 11h4v4h-4zM16 11h4v4h-4zM4 17h4v2H4zM10 17h4v2h-4z',
  pairing: 'M4 6h7v12H4zM13 6h7v12h-7M6.5 14l1.5-3 1.5 3M15.5 14l1.5-3 1.5 3',
  renditions: 'M3 5h18v10H3zM7 19h10M12 15v4M15 8h4v4h-4z',
  dispatch: 'M4 12h13M12 6l6 6-6 6M20 5v14',
  screens: 'M3 5h18v11H3zM8 20h8M12 16v4M12 8v5M9.5 10.5h5',
  settings: 'M3 12h5M16 12h5M8 8h8v8H8zM10.5 12h3',
}

const router = useRouter()
const LABELS = ['Intake', 'Assembly', 'Bench', 'Board', 'Pairing', 'Renditions', 'Dispatch', 'Screens', 'Settings'] as const
useKeys('rooms', [...LABELS.map((label) => ({ key: '', words: `go to ${label}`, press: () => void goTo(label) })), { key: '', words: 'go to all projects', press: () => void router.push({ name: 'start' }) }])
function goTo(label: string) {
  const room = rooms.value.find((one) => one.label === label)
  if (room?.to) void router.push(room.to)
}

const isOpen = (name: string) => route.name === name || (name === 'assembly' && route.name === 'first-assembly')
const project = computed(() => route.params.project as string | undefined)
const cutId = computed(() => (route.params.cut as string | undefined) ?? cut.lastOf(project.value))

const rooms = computed(() => {
  if (!project.value) return []
  const params = { project: project.value }
  const within = cutId.value ? { ...params, cut: cutId.value } : null
  return [
    { name: 'intake', label: 'Intake', to: { name: 'intake', params } },
    { name: 'assembly', label: 'Assembly', to: within ? { name: 'assembly', params: within } : { name: 'first-assembly', params } },
    { name: 'bench', label: 'Bench', to: within && { name: 'bench', params: within } },
    { name: 'board', label: 'Board', to: within && { name: 'board', params: within } },
    { name: 'pairing', label: 'Pairing', to: within && { name: 'pairing', params: within } },
    { name: 'renditions', label: 'Renditions', to: within && { name: 'renditions', params: within } },
    { name: 'dispatch', label: 'Dispatch', to: within && { name: 'dispatch', params: within } },
    { name: 'screens', label: 'Screens', to: { name: 'screens', params } },
    { name: 'settings', label: 'Settings', to: { name: 'settings', params } },
  ].filter(({ name }) => here.may(NEEDED[name] ?? 'look')) as { name: keyof typeof ICONS; label: string; to: RouteLocationRaw | null }[]
})
</script>

<template>
  <nav class="flex flex-col items-center gap-1 border-r border-line pt-2" aria-label="rooms">
    <template v-for="room in rooms" :key="room.name">
      <RouterLink
        v-if="room.to"
        :to="room.to"
        class="w-full border-l-2 py-1.5 pr-0.5 text-center text-2xs"
        :class="isOpen(room.name) ? 'border-weld bg-raise text-ink' : 'border-transparent text-dim hover:text-ink'"
        :aria-current="isOpen(room.name) ? 'page' : undefined"
      >
        <svg class="mx-auto mb-0.5 size-5" viewBox="0 0 24 24" fill="none" stroke="currentColor" stroke-width="1.3">
          <path :d="ICONS[room.name]" />
        </svg>
        {{ room.label }}
      </RouterLink>
    </template>
  </nav>
</template>
