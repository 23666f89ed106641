import { getJson } from '@/api/client'
import type { Shot } from '@/api/cut'
import type { Clip } from '@/api/media'
import { computed, onScopeDispose, ref, watch, type Ref } from 'vue'

const AGAIN = 2000 // ms between looks
const UNDER_WAY = ['waiting', 'making']

/** How far the working copy of a shot's clip is, while it is being made; in words, or nothing. */
export function useCopying(shot: Ref<Shot | null>, project: Ref<number | null>) {
  const clip = ref<Clip | null>(null)
  let timer = 0

  async function look() {
    const id = shot.value?.clip.id
    if (id === undefined || project.value === null) return
    try {
      const found = await getJson<Clip>(`/projects/${project.value}/clips/${id}`)
      if (shot.value?.clip.id !== id) return
      clip.value = found
      if (!UNDER_WAY.includes(found.copy.status)) clearInterval(timer)
    } catch {
      clearInterval(timer) // pictures tell of a clip that is gone
    }
  }
  watch(
    () => shot.value?.clip.id,
    () => {
      clearInterval(timer)
      clip.value = shot.value?.clip ?? null
      if (clip.value?.copy && UNDER_WAY.includes(clip.value.copy.status)) {
        void look()
        timer = window.setInterval(() => void look(), AGAIN)
      }
    },
    { immediate: true },
  )
  onScopeDispose(() => clearInterval(timer))

  return computed(() => {
    const copy = clip.value?.copy
    if (!clip.value || !copy) return ''
    if (copy.status === 'waiting') return 'its working copy waits for a worker; until it is there it plays slowly'
    return copy.status === 'making' ? `its working copy is ${Math.round((copy.done / clip.value.file_frames) * 100)} % made; until it is there it plays slowly` : ''
  })
}
