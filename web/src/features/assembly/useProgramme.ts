import { sendJson } from '@/api/client'
import type { Cut } from '@/api/cut'
import type { Disagreement } from '@/api/list'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useErrands } from '../shell/useErrands'
import { useNotices } from '../shell/useNotices'
import { useAssembly } from './useAssembly'

interface Compared {
  disagreements: Disagreement[]
  longer: number
}

/** The programme under the open cut, and what workers find in it or in a flat one, whatever room one is in meanwhile. */
export const useProgramme = defineStore('programme', () => {
  const cut = useCut()
  const notices = useNotices()
  const assembly = useAssembly()
  const errands = useErrands(computed(() => cut.project?.id.toString()))
  const id = computed(() => cut.cut?.id ?? 0)
  /** Where cuts differ from what lies under them, by cut. */
  const compared = ref(new Map<number, Compared>())

  async function attempt(work: () => Promise<unknown>) {
    try {
      await work()
    } catch (error) {
      notices.trouble(error)
    }
  }

  return {
    cutting: errands.latest('changes', id),
    comparing: errands.latest('compare', id),
    found: computed(() => compared.value.get(id.value) ?? null),
    cancel: errands.cancel,
    attempt,
    lay: (reference: { clip: number; offset?: number } | null) =>
      attempt(async () => {
        const answer = await sendJson<Partial<Cut>>('PATCH', `/cuts/${id.value}`, { reference })
        compared.value.delete(id.value)
        if (cut.cut) Object.assign(cut.cut, answer)
        if (answer.project) cut.project = answer.project
      }),
    compare: () =>
      attempt(async () => {
        const of = id.value
        await assembly.settled()
        compared.value.set(of, await errands.run<Compared>(`/cuts/${of}/comparisons`, {}))
      }),
    cutUp: () =>
      attempt(async () => {
        const [of, shot] = [id.value, cut.shot?.id]
        await assembly.settled()
        const { shots } = await errands.run<{ shots: number }>(`/cuts/${of}/changes`, { shot })
        if (id.value === of) await cut.reload()
        notices.news(shots > 1 ? `${shots} shots; one undo takes it back` : 'no shot change was found')
      }),
  }
})
