import { getJson } from '@/api/client'
import type { ContributorDocument, Recipe, StepDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import { withMatte } from '../grade/edit'
import { useRecipes } from '../grade/useRecipes'
import { useErrands } from '../shell/useErrands'
import { useNotices } from '../shell/useNotices'
import type { Point } from './plane'
import { useMatte, type TrackedPath } from './useMatte'

interface Found {
  path: number
  lost: { frame: number; why: string } | null
  frames: number
}

/** A shape that is to be followed from the present frame. */
export interface Followed {
  recipe: Recipe
  step: StepDocument
  part: ContributorDocument
  way: 'on' | 'back' | 'both'
  /** Present frame of what the step is of. */
  from: number
  /** How far it has been put right here. */
  by: Point | null
  /** The shape, as it is called. */
  named: string
}

const AFTER_STOP = 400 // ms that a worker takes to put away what it has

/** Shapes with one of them, and those that share its path, on another path; null: it alone on none. */
export function onPath(parts: ContributorDocument[], id: string, path: number | null, from: number): ContributorDocument[] {
  const before = parts.find((one) => one.id === id)?.path
  const shared = (one: ContributorDocument) => one.id === id || (path !== null && before !== undefined && one.path?.id === before.id)
  return parts.map((one) => (shared(one) ? { ...one, path: path === null ? undefined : { id: path, from: one.path?.from ?? from } } : one))
}

/** Follows shapes through the open shot as background work, whatever is looked at meanwhile. */
export const useTracking = defineStore('tracking', () => {
  const cut = useCut()
  const recipes = useRecipes()
  const matte = useMatte()
  const notices = useNotices()
  const errands = useErrands(computed(() => cut.project?.id.toString()))
  const kind = useStorage('mordant.track.kind', 'position')
  /** What is under way by shape: its errand, null until it has been placed. */
  const running = ref(new Map<string, number | null>())
  const stopped = new Set<string>()

  // what goes on in a project that was left is not heard of; its path can be chosen there afterwards
  watch(
    () => cut.project?.id,
    () => running.value.clear(),
  )
  const errandOf = (part: string) => errands.known.value.get(running.value.get(part) ?? -1)

  async function run(wish: Followed) {
    const { part, step } = wish
    if (!cut.cut || !cut.shot || running.value.has(part.id)) return
    const at = { cut: cut.cut.id, shot: cut.shot.id, name: cut.shot.name, frame: cut.frame }
    running.value.set(part.id, null)
    try {
      const known = new Set((await pathsOf(at.cut)).map((one) => one.id))
      await recipes.settled()
      const body = { shot: at.shot, step: step.id, contributor: part.id, with: kind.value, way: wish.way, frame: at.frame, path: part.path?.id, by: wish.by ?? undefined, name: part.name ?? step.name }
      const found = await errands.run<Found>(`/cuts/${at.cut}/tracks`, body, (id) => placed(part.id, id)).catch((error: unknown) => left(error, part.id, at.cut, known))
      if (matte.put?.part === part.id) matte.put = null
      await matte.loadPaths()
      if (found) link(wish, found, at.name)
    } catch (error) {
      await matte.loadPaths()
      notices.trouble(error)
    } finally {
      running.value.delete(part.id)
      stopped.delete(part.id)
    }
  }

  function placed(part: string, id: number) {
    running.value.set(part, id)
    if (stopped.has(part)) void stop(part)
  }

  /** Ends it; what was found before is kept. */
  async function stop(part: string) {
    const errand = errandOf(part)
    stopped.add(part)
    if (errand) await errands.cancel(errand)
  }

  const pathsOf = (id: number) => getJson<TrackedPath[]>(`/cuts/${id}/paths`)

  /** What was found before it was stopped; null: nothing yet. */
  async function left(error: unknown, part: string, id: number, known: Set<number>): Promise<Found | null> {
    if (!stopped.has(part)) throw error
    await new Promise((resolve) => setTimeout(resolve, AFTER_STOP))
    const fresh = (await pathsOf(id)).find((one) => !known.has(one.id))
    return fresh ? { path: fresh.id, lost: fresh.lost, frames: fresh.maps.length } : null
  }

  /** The shape as it is now goes on the path, unless it has gone meanwhile. */
  function link(wish: Followed, found: Found, shot: string) {
    const recipe = cut.recipes.find((one) => one.id === wish.recipe.id)
    const step = recipe?.document.steps.find((one) => one.id === wish.step.id)
    if (!recipe || !step?.matte?.contributors.some((one) => one.id === wish.part.id)) return
    const contributors = onPath(step.matte.contributors, wish.part.id, found.path, wish.from)
    recipes.change(recipe, withMatte(recipe.document, step.id, { ...step.matte, contributors }), `${step.name}: ${wish.named} follows a path`.slice(0, 120))
    if (found.lost) notices.news(`${cut.shot?.name === shot ? 'Lost' : `${step.name} of ${shot} is lost`} at frame ${found.lost.frame + 1}: ${found.lost.why}. What was found before is kept; go there, correct the shape and track on.`)
    else if (cut.shot?.name !== shot) notices.news(`${step.name} of ${shot} has been tracked`)
  }

  return {
    kind,
    running: (part: string) => running.value.has(part),
    done: (part: string) => errandOf(part)?.done ?? 0,
    count: (part: string) => errandOf(part)?.count ?? 0,
    run,
    stop,
  }
})
