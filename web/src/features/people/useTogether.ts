import { getJson, send } from '@/api/client'
import type { PresentWindow } from '@/api/people'
import type { Project } from '@/api/project'
import type { Recipe } from '@/api/recipe'
import { useDebounceFn, useEventListener, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useCut } from '../cut/useCut'
import { useMoves } from '../grade/useMoves'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from '../shell/useNotices'
import { useEvents } from '../shell/useEvents'
import { useHere } from './useHere'

const WINDOW = Math.random().toString(36).slice(2, 14)
const SIGN_EVERY = 10_000 // ms between signs that the window is open
const TELL_AFTER = 250 // ms of rest
const OWN_ANSWER = 350 // ms in which the answer to one's own change arrives

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
  const [cut, recipes, moves, notices, together, route] = [useCut(), useRecipes(), useMoves(), useNotices(), useTogether(), useRoute()]
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
  watch(() => JSON.stringify(place.value), useDebounceFn(() => project.value && tell(), TELL_AFTER), { immediate: true })
  watch(() => recipes.unsaved, (now) => now && project.value && tell())
  watch(project, (now) => now || tell(true))
  useIntervalFn(() => project.value && tell(), SIGN_EVERY)
  useEventListener(window, 'pagehide', () => tell(true))

  const reading = ref(false)
  /** The cut as it is now; what a hand is on here is stored first. */
  async function readAnew() {
    if (reading.value) return
    reading.value = true
    try {
      await recipes.settled()
      if (!recipes.unsaved) await recipes.readAnew()
    } catch (error) {
      notices.trouble(error)
    } finally {
      reading.value = false
    }
  }

  async function recipeChanged({ id, revision }: { id: number; revision: number }) {
    const old = () => cut.recipes.some((one) => one.id === id && one.revision < revision) && !recipes.isPending(id)
    if (!old()) return
    const fresh = await getJson<Recipe>(`/recipes/${id}`).catch(() => null) // gone since, or told again
    if (fresh && old()) recipes.adopt([fresh])
  }

  async function standing({ id, turn, head }: { id: number; turn: number; head: number | null }) {
    await new Promise((resolve) => setTimeout(resolve, OWN_ANSWER))
    if (cut.project?.id !== id) return
    if (cut.project.turn < turn) await readAnew()
    else if (cut.project.head !== head && cut.project.turn === turn) {
      const fresh = await getJson<Project>(`/projects/${id}`).catch(() => null)
      if (fresh && cut.project?.id === id && fresh.turn === cut.project.turn) cut.project = fresh
    }
  }

  // an answer to one's own change that counts more than this one: somebody else's came between
  watch([() => cut.cut, () => cut.project], ([nowCut, now], [thenCut, then]) => {
    if (nowCut === thenCut && now && then && now.id === then.id && now.turn > then.turn + 1) void readAnew()
  })

  useEvents(project, {
    recipe: (told: { id: number; revision: number }) => void recipeChanged(told),
    standing: (told: { id: number; turn: number; head: number | null }) => void standing(told),
    presence: (told: { id: number; people: PresentWindow[] }) => String(told.id) === project.value && (together.windows = told.people),
    notes: (told: { id: number; mark: string }) => together.noted(told),
  })
}
