import type { CourseReading } from '@/api/answer'
import type { ParameterValue } from '@/api/declared'
import type { Courses, Recipe, StepDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { useCut } from '../cut/useCut'
import { keyAt, keyFrames } from '../strip/courses'
import { useOpenStep } from './useOpenStep'

/** Steps and contributors that move: where they are at the present frame, as the server says, and where their keys lie. */
export const useMoves = defineStore('moves', () => {
  const cut = useCut()
  const opened = useOpenStep()
  const told = shallowRef<Record<string, Record<string, ParameterValue>>>({})
  const spanned = shallowRef<Record<string, number>>({})
  const course = shallowRef<CourseReading | null>(null)
  /** The parameters that a hand was on last. */
  const touched = ref<{ step: string; names: string[]; frame: number } | null>(null)

  const ownerOf = (step: StepDocument): Recipe | undefined => cut.recipes.find((recipe) => recipe.document.steps.some(({ id }) => id === step.id))
  /** Record frame that a step's keys and spans count from. */
  function startOf(step: StepDocument) {
    const owner = ownerOf(step)
    return owner ? cut.startOf(owner) : (cut.shot?.record_in ?? 0)
  }
  const frameOf = (step: StepDocument) => cut.frame - startOf(step)

  /** The open step and the recipe it is in. */
  const open = computed(() => {
    if (!cut.shot || opened.id === null) return null
    const recipe = cut.recipesOf(cut.shot).find((one) => one.document.steps.some(({ id }) => id === opened.id))
    const step = recipe?.document.steps.find(({ id }) => id === opened.id)
    return recipe && step ? { recipe, step, start: cut.startOf(recipe) } : null
  })
  /** Frames of the open step's keys and of those of what it acts on, as its owner counts. */
  const frames = computed(() => {
    const step = open.value?.step
    return step ? [...new Set([step.keys, ...(step.matte?.contributors.map((part) => part.keys) ?? [])].flatMap(keyFrames))].sort((a, b) => a - b) : []
  })
  /** Record frames of them within the shot. */
  const keyed = computed(() => {
    const [shot, start] = [cut.shot, open.value?.start ?? 0]
    return shot ? frames.value.map((frame) => frame + start).filter((at) => at >= shot.record_in && at < shot.record_in + shot.length) : []
  })

  /** Parameters of a step or a contributor at a frame of its owner, the present one. */
  function at(one: { id: string; keys?: Courses; parameters: Record<string, ParameterValue> }, frame: number): Record<string, ParameterValue> {
    if (!one.keys) return one.parameters
    const names = Object.keys(one.keys)
    return { ...one.parameters, ...Object.fromEntries(names.map((name) => [name, keyAt(one.keys, name, frame)?.value ?? told.value[one.id]?.[name] ?? one.keys?.[name]?.[0]?.value ?? 0])) }
  }

  return {
    told,
    spanned,
    course,
    touched,
    open,
    keyed,
    startOf,
    frameOf,
    at,
    moves: (step: StepDocument) => Boolean(step.keys),
    /** All parameters of a step at the present frame. */
    parameters: (step: StepDocument) => at(step, frameOf(step)),
    /** To the key of the open step before (-1) or after (1). */
    go(way: number) {
      const shot = cut.shot
      const places = keyed.value.filter((place) => (place - cut.frame) * way > 0)
      if (shot && places.length > 0) cut.go(way > 0 ? Math.min(...places) : Math.max(...places))
    },
  }
})
