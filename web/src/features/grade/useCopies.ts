import type { StepDocument } from '@/api/types'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useCut } from '../bench/useCut'
import { useNotices } from '../shell/useNotices'
import { usePaste } from './usePaste'

/** Steps that were copied, and the shots they would go on. */
export const useCopies = defineStore('copies', () => {
  const cut = useCut()
  const paste = usePaste()
  const notices = useNotices()
  const steps = ref<StepDocument[]>([])
  /** A whole recipe was copied: it replaces what it is put on. */
  const whole = ref(false)
  /** Shots picked besides the one that is open. */
  const picked = ref<number[]>([])

  const words = computed(() => (whole.value ? 'recipe' : steps.value.map((step) => step.name).join(', ')))
  const shots = computed(() => {
    const open = cut.shot?.id
    const others = picked.value.filter((id) => id !== open && cut.shots.some((shot) => shot.id === id))
    return open === undefined ? others : [open, ...others]
  })

  function copy(found: StepDocument[], all: boolean) {
    if (found.length === 0) return
    steps.value = structuredClone(found.map((step) => JSON.parse(JSON.stringify(step)) as StepDocument))
    whole.value = all
    notices.news(`${words.value} copied`)
  }

  function pick(id: number) {
    picked.value = picked.value.includes(id) ? picked.value.filter((one) => one !== id) : [...picked.value, id]
  }

  async function put(onto = shots.value) {
    if (steps.value.length === 0) return
    const count = onto.length
    const said = `${words.value} put on ${count} ${count === 1 ? 'shot' : 'shots'}`
    if (await paste(onto, steps.value, whole.value, said)) notices.news(said)
  }

  return { steps, whole, picked, shots, words, copy, pick, put }
})
