import { sendJson } from '@/api/client'
import { computed, ref, type Ref } from 'vue'
import { useEvents } from '../shell/useEvents'

export interface Package {
  id: number
  cut: number
  status: 'waiting' | 'running' | 'done' | 'cancelled' | 'failed'
  /** Shots in it, and those whose tables there are. */
  count: number
  done: number
  message: string | null
}

export interface PackageWish {
  size: number
  layers: string[]
  per: string
  target?: string
}

/** The looks of a cut as one file, made by workers: the latest one. */
export function usePackages(project: Ref<string>, cut: Ref<number>, trouble: (error: unknown) => void) {
  const latest = ref<Package | null>(null)

  function take(found: Package) {
    if (found.cut === cut.value && found.id >= (latest.value?.id ?? 0)) latest.value = found
  }
  async function attempt(path: string, body: unknown) {
    try {
      take(await sendJson<Package>('POST', path, body))
    } catch (error) {
      trouble(error)
    }
  }
  useEvents(project, { package: take })

  return {
    latest: computed(() => latest.value),
    running: computed(() => ['waiting', 'running'].includes(latest.value?.status ?? '')),
    make: (wish: PackageWish) => attempt(`/cuts/${cut.value}/packages`, wish),
    cancel: () => attempt(`/packages/${latest.value?.id}/cancel`, {}),
  }
}
