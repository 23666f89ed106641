import { defineStore } from 'pinia'
import { computed } from 'vue'
import { useKeptHere } from '../bench/useKept'
import { useCut } from '../cut/useCut'
import { useCircuit } from './useCircuit'

/** Frames whose noise has been taken away ahead, from which what follows is drawn as quickly as without it. */
export const useCleaned = defineStore('cleaned', () => {
  const cut = useCut()
  const circuit = useCircuit()
  const kept = useKeptHere(
    'noise',
    computed(() => circuit.used('noise', cut.recipes)),
  )
  /** How many frames of a stretch are there. */
  const within = (first: number, count: number) => kept.spans.value.reduce((sum, [from, many]) => sum + Math.max(0, Math.min(from + many, first + count) - Math.max(from, first)), 0)
  return { ...kept, within }
})
