import { getJson } from '@/api/client'
import type { Shot } from '@/api/cut'
import { computed, ref, watch, type Ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'

interface Distance {
  worst: number
  mean: number
}

interface Measured {
  seen: Distance
  left_out: string[]
  /** The frame of a grade that moves, in words. */
  taken: string | null
}

interface Correction {
  exact: boolean
  error: Distance
  left_out: string[]
  taken: string | null
}

const SIZES = [17, 33, 65]

/** A shot's grade as a file for elsewhere: which steps, how near, and where to get it. */
export function useTake(shot: Ref<Shot>, withView: Ref<boolean>, target: Ref<string>) {
  const notices = useNotices()
  const left = ref<string[]>([])
  const measured = ref<Record<number, Measured>>({})
  const correction = ref<Correction | null>(null)
  let asked = 0

  const cut = useCut()
  /** The shot's own steps and those of the washes over it. */
  const steps = computed(() => cut.trialOf(shot.value).flatMap(({ document }) => document.steps))
  const chosen = computed(() => steps.value.map((step) => step.id).filter((id) => !left.value.includes(id)))
  /** A grade that moves is taken as it is where somebody is. */
  const frame = ref(cut.frame)
  const query = computed(() => new URLSearchParams({ steps: chosen.value.join(','), frame: String(frame.value), view: withView.value ? 'on' : 'off', target: target.value }).toString())
  const address = (size: number, format: string) => `/api/shots/${shot.value.id}/look.${format}?size=${size}&${query.value}`
  const correctionAddress = (format: string) => `/api/shots/${shot.value.id}/correction.${format}?steps=${chosen.value.join(',')}&frame=${frame.value}`

  /** Asks how near each comes; whatever is chosen next is asked for again. */
  async function measure() {
    const mine = ++asked
    measured.value = {}
    correction.value = null
    try {
      correction.value = await getJson<Correction>(`/shots/${shot.value.id}/correction?steps=${chosen.value.join(',')}&frame=${frame.value}`)
      for (const size of SIZES) {
        if (mine !== asked) return
        const found = await getJson<Measured>(`/shots/${shot.value.id}/bake?size=${size}&${query.value}`)
        if (mine === asked) measured.value = { ...measured.value, [size]: found }
      }
    } catch (error) {
      notices.trouble(error)
    }
  }

  watch([query, () => cut.revisionOf(shot.value)], () => void measure(), { immediate: true })

  return {
    SIZES,
    steps,
    chosen,
    flip: (id: string) => (left.value = left.value.includes(id) ? left.value.filter((one) => one !== id) : [...left.value, id]),
    measured,
    correction,
    taken: computed(() => correction.value?.taken ?? null),
    leftOut: computed(() => measured.value[SIZES[0] ?? 17]?.left_out ?? correction.value?.left_out ?? []),
    address,
    setAddress: computed(() => `/api/shots/${shot.value.id}/on_set.tar?${query.value}`),
    correctionAddress,
  }
}
