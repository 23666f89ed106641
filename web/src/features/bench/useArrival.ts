import type { Shot } from '@/api/cut'
import type { Project } from '@/api/project'
import { computed, onScopeDispose, shallowRef, watch, type Ref } from 'vue'
import { smallPictureOf } from '../cut/smallPicture'

/**
 * What stands in for a shot's picture until that is there: the small one of the ribbon,
 * never the picture of the shot that was left.
 *
 * @param shownFrame record frame of the picture that is there; null without one
 * @returns whether the shown picture is the shot's own, and the picture in its place
 */
export function useArrival(options: { shot: Ref<Shot | null>; project: Ref<Project | null>; shownFrame: Ref<number | null>; load?: (address: string) => Promise<ImageBitmap> }) {
  const load = options.load ?? loadBitmap
  const small = shallowRef<{ shot: number; bitmap: ImageBitmap } | null>(null)
  const arrived = computed(() => {
    const shot = options.shot.value
    const frame = options.shownFrame.value
    return shot !== null && frame !== null && frame >= shot.record_in && frame < shot.record_in + shot.length
  })

  watch(
    [() => options.shot.value?.id, arrived],
    async ([id]) => {
      const shot = options.shot.value
      const project = options.project.value
      if (arrived.value || !shot || !project || id === undefined || small.value?.shot === id) return
      try {
        const bitmap = await load(smallPictureOf(project, shot))
        if (options.shot.value?.id !== id) return bitmap.close()
        small.value?.bitmap.close()
        small.value = { shot: id, bitmap }
      } catch {
        small.value = null // the whole picture comes, or says what is wrong
      }
    },
    { immediate: true },
  )
  onScopeDispose(() => small.value?.bitmap.close())

  return { arrived, standIn: computed(() => (!arrived.value && small.value?.shot === options.shot.value?.id ? (small.value?.bitmap ?? null) : null)) }
}

async function loadBitmap(address: string): Promise<ImageBitmap> {
  const response = await fetch(address)
  if (!response.ok || response.headers.has('x-mordant-slate')) throw new Error(`no picture at ${address}`)
  return createImageBitmap(await response.blob(), { colorSpaceConversion: 'none' })
}
