import type { ParameterValue, StepDocument } from '@/api/types'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { useCut } from '../bench/useCut'
import { useOpenStep } from './useOpenStep'

/** Steps that move from key to key: where they are at the present frame, as the server says. */
export const useMoves = defineStore('moves', () => {
  const cut = useCut()
  const told = shallowRef<Record<string, Record<string, ParameterValue>>>({})
  /** Of the present frame, from the shot's first one. */
  const frame = computed(() => (cut.shot ? cut.frame - cut.shot.record_in : 0))
  const open = useOpenStep()
  /** Record frames of the open step's keys. */
  const keyed = computed(() => {
    const shot = cut.shot
    const step = cut.recipes.flatMap((recipe) => recipe.document.steps).find((one) => one.id === open.id)
    return shot ? (step?.keys ?? []).map((key) => key.frame + shot.record_in).filter((at) => at < shot.record_in + shot.length) : []
  })
  const keyAt = (step: StepDocument) => step.keys?.find((key) => key.frame === frame.value)

  return {
    told,
    frame,
    keyed,
    keyAt,
    moves: (step: StepDocument) => Boolean(step.keys?.length),
    /** All parameters at the present frame. */
    parameters: (step: StepDocument): Record<string, ParameterValue> => (step.keys?.length ? (keyAt(step)?.parameters ?? told.value[step.id] ?? step.parameters) : step.parameters),
    /** To the key before (-1) or after (1). */
    go(step: StepDocument, way: number) {
      const shot = cut.shot
      const places = (step.keys ?? []).map((key) => key.frame).filter((place) => (place - frame.value) * way > 0)
      const to = way > 0 ? Math.min(...places) : Math.max(...places)
      if (shot && places.length > 0) cut.go(shot.record_in + Math.min(to, shot.length - 1))
    },
  }
})
