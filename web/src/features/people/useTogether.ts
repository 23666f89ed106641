import { send } from '@/api/client'
import type { PresentWindow } from '@/api/people'
import { useDebounceFn, useEventListener, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useCut } from '../cut/useCut'
import { useMoves } from '../grade/useMoves'
import { useRecipes } from '../grade/useRecipes'
import { useEvents } from '../shell/useEvents'
import { useHere } from './useHere'
import { useNews } from './useNews'

const WINDOW = Math.random().toString(36).slice(2, 14)
const SIGN_EVERY = 10_000 // ms between signs that the window is open
const TELL_AFTER = 250 // ms of rest

/** Who else is here: where they are, and what their hands are on. */
export const useTogether = defineStore('together', () => {
  const here = useHere()
  const windows = shallowRef<PresentWindow[]>([])
  const others = computed(() => windows.value.filter((one) => one.window !== WINDOW))
  const colleagues = computed(() => others.value.filter((one) => one.person !== null && one.person !== here.person?.id))

  /** A mark for each cut's notes; it changes with them. */
  const notes = ref<Record<number, string>>({})

  return {
    windows,
    notes,
    noted: (told: { id: number; mark: string }) => void (notes.value = { ...notes.value, [told.id]: told.mark }),
    /** Colleagues at a shot, each once. */
    at: (shot: number) => colleagues.value.filter((one, index, all) => one.shot === shot && all.findIndex((other) => other.person === one.person && other.shot === shot) === index),
    /** Windows besides this one that have a step of some recipe open; one's own too. */
    on: (recipes: number[]) => others.value.filter((one) => one.recipe !== null && recipes.includes(one.recipe)),
  }
})

/** Says where this window is, and brings in what others change, for as long as the calling component lives. */
export function useCompany() {
  const [cut, recipes, moves, together, route] = [useCut(), useRecipes(), useMoves(), useTogether(), useRoute()]
  const project = computed(() => route.params.project as string | undefined)
  const room = computed(() => (route.name === 'first-assembly' ? 'assembly' : String(route.name ?? '')))
  const place = computed(() => ({
    window: WINDOW,
    room: room.value,
    project: project.value ? Number(project.value) : null,
    cut: route.params.cut ? Number(route.params.cut) : null,
    shot: route.params.cut ? (cut.shot?.id ?? null) : null,
    recipe: room.value === 'bench' ? (moves.open?.recipe.id ?? null) : null,
    touching: recipes.unsaved,
  }))

  const tell = (leaving = false) => void send('PUT', '/presence', leaving ? { window: WINDOW, leaving } : place.value).catch(() => undefined) // it is told again soon
  watch(
    () => JSON.stringify(place.value),
    useDebounceFn(() => project.value && tell(), TELL_AFTER),
    { immediate: true },
  )
  watch(
    () => recipes.unsaved,
    (now) => now && project.value && tell(),
  )
  watch(project, (now) => now || tell(true))
  useIntervalFn(() => project.value && tell(), SIGN_EVERY)
  useEventListener(window, 'pagehide', () => tell(true))

  const news = useNews()
  useEvents(project, {
    recipe: (told: { id: number; revision: number }) => void news.recipe(told),
    standing: (told: { id: number; turn: number; head: number | null }) => void news.standing(told),
    presence: (told: { id: number; people: PresentWindow[] }) => String(told.id) === project.value && (together.windows = told.people),
    notes: (told: { id: number; mark: string }) => together.noted(told),
  })
}
