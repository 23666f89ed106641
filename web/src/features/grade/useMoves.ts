import type { ParameterValue } from '@/api/declared'
import type { StepDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { useCut } from '../cut/useCut'
import { useOpenStep } from './useOpenStep'

/** Steps that move from key to key: where they are at the present frame, as the server says. */
export const useMoves = defineStore('moves', () => {
  const cut = useCut()
  const told = shallowRef<Record<string, Record<string, ParameterValue>>>({})
  /** Record frame that a step's keys count from. */
  function startOf(step: StepDocument) {
    const owner = cut.recipes.find((recipe) => recipe.document.steps.some(({ id }) => id === step.id))
    return owner ? cut.startOf(owner) : (cut.shot?.record_in ?? 0)
  }
  const frameOf = (step: StepDocument) => cut.frame - startOf(step)
  const open = useOpenStep()
  /** Record frames of the open step's keys. */
  const keyed = computed(() => {
    const shot = cut.shot
    const step = cut.recipes.flatMap((recipe) => recipe.document.steps).find((one) => one.id === open.id)
    return shot && step ? (step.keys ?? []).map((key) => key.frame + startOf(step)).filter((at) => at >= shot.record_in && at < shot.record_in + shot.length) : []
  })
  const keyAt = (step: StepDocument) => step.keys?.find((key) => key.frame === frameOf(step))

  return {
    told,
    frameOf,
    keyed,
    keyAt,
    moves: (step: StepDocument) => Boolean(step.keys?.length),
    /** All parameters at the present frame. */
    parameters: (step: StepDocument): Record<string, ParameterValue> => (step.keys?.length ? (keyAt(step)?.parameters ?? told.value[step.id] ?? step.parameters) : step.parameters),
    /** To the key before (-1) or after (1). */
    go(step: StepDocument, way: number) {
      const places = (step.keys ?? []).map((key) => key.frame).filter((place) => (place - frameOf(step)) * way > 0)
      const to = way > 0 ? Math.min(...places) : Math.max(...places)
      if (cut.shot && places.length > 0) cut.go(Math.min(startOf(step) + to, cut.shot.record_in + cut.shot.length - 1))
    },
  }
})
