import { getJson } from '@/api/client'
import type { ContributorDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useErrands, type Errand } from '../shell/useErrands'
import type { TrackedPath } from './useMatte'
import type { Point } from './plane'

interface Found {
  path: number
  lost: { frame: number; why: string } | null
  frames: number
}

const AFTER_STOP = 400 // ms that a worker takes to put away what it has

/** Follows a shape through the open shot, as background work. */
export function useTracking() {
  const cut = useCut()
  const recipes = useRecipes()
  const project = computed(() => (cut.project ? String(cut.project.id) : undefined))
  const errands = useErrands(project)
  const kind = useStorage('mordant.track.kind', 'position')
  const latest = errands.latest(
    'track',
    computed(() => cut.cut?.id ?? 0),
  )
  const stopping = ref(false)
  const started = ref(false)
  const live = computed(() => started.value && latest.value !== null && ['waiting', 'running'].includes(latest.value.status))

  return {
    kind,
    running: started,
    done: computed(() => (live.value ? (latest.value?.done ?? 0) : 0)),
    count: computed(() => latest.value?.count ?? 0),
    /** @returns null where it was stopped before anything was found */
    async run(step: string, part: ContributorDocument, way: string, by: Point | null, name: string): Promise<Found | null> {
      if (!cut.cut || !cut.shot) return null
      started.value = true
      stopping.value = false
      const known = new Set((await getJson<TrackedPath[]>(`/cuts/${cut.cut.id}/paths`)).map((one) => one.id))
      try {
        await recipes.settled()
        return await errands.run<Found>(`/cuts/${cut.cut.id}/tracks`, { shot: cut.shot.id, step, contributor: part.id, with: kind.value, way, frame: cut.frame, path: part.path?.id, by: by ?? undefined, name })
      } catch (error) {
        if (!stopping.value) throw error
        await new Promise((resolve) => setTimeout(resolve, AFTER_STOP))
        const fresh = (await getJson<TrackedPath[]>(`/cuts/${cut.cut.id}/paths`)).find((one) => !known.has(one.id))
        return fresh ? { path: fresh.id, lost: fresh.lost, frames: fresh.maps.length } : null
      } finally {
        started.value = false
      }
    },
    async stop() {
      stopping.value = true
      if (latest.value) await errands.cancel(latest.value as Errand)
    },
  }
}
