import { getJson } from '@/api/client'
import type { ContributorDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import { useOpenStep } from '../grade/useOpenStep'
import { useNotices } from '../shell/useNotices'
import { mapped, type Point } from './plane'

export type MatteLook = 'grey' | 'veil' | 'outline' | 'tint'
/** Of what a matte is shown: all of the step's, one contributor alone, or the stack up to it. */
export type MatteExtent = 'step' | 'upto' | 'part'

/** Where a part of a shot's picture goes, as it was tracked. */
export interface TrackedPath {
  id: number
  shot: number | null
  name: string
  kind: string
  /** Frame of its owner that the first of maps is of. */
  first: number
  centre: Point
  /** Where its middle is on each frame. */
  places: Point[]
  /** Eight numbers of a homography each, since the first frame. */
  maps: number[][]
  confidence: number[]
  /** Confidence below which somebody had better look. */
  unsure: number
  lost: { frame: number; why: string } | null
}

/** What is looked at of mattes, and which contributor is open. */
export const useMatte = defineStore('matte', () => {
  const cut = useCut()
  const opened = useOpenStep()
  const notices = useNotices()
  const look = useStorage<MatteLook>('mordant.matte.look', 'veil')
  const extent = ref<MatteExtent>('step')
  /** The side of the open step that is seen. */
  const side = ref<'does' | 'acts'>('does')
  /** It stays shown. */
  const on = ref(false)
  /** The open contributor. */
  const part = ref<string | null>(null)
  /** Of the open shape: the point that was touched last. */
  const point = ref<number | null>(null)
  /** While a key is held: no handles in the picture. */
  const bare = ref(false)
  /** A shape is to be drawn in the picture. */
  const drawing = ref(false)
  const copied = ref<ContributorDocument[]>([])
  /** The shot they were copied from. */
  let copiedFrom: number | undefined
  const paths = ref<TrackedPath[]>([])
  /** How far a carried shape has been put right at the present frame, before it is tracked on. */
  const put = ref<{ part: string; frame: number; by: Point } | null>(null)

  watch(
    () => opened.id,
    () => (part.value = null),
  )
  watch(part, () => (point.value = null))
  watch(
    () => cut.frame,
    () => (put.value = null),
  )

  async function loadPaths() {
    if (!cut.cut) return
    try {
      paths.value = await getJson<TrackedPath[]>(`/cuts/${cut.cut.id}/paths`)
    } catch (error) {
      notices.trouble(error)
    }
  }
  watch(
    () => cut.cut?.id,
    () => (paths.value = []),
  )

  const pathOf = (id: number | undefined) => paths.value.find((one) => one.id === id)
  /** The map of a path at a frame of its owner; held at its ends. */
  function mapAt(path: TrackedPath, frame: number): number[] {
    const at = Math.min(path.maps.length - 1, Math.max(0, frame - path.first))
    return [...(path.maps[at] ?? [1, 0, 0, 0, 1, 0, 0, 0]), 1]
  }

  return {
    look,
    extent,
    side,
    on,
    part,
    point,
    bare,
    drawing,
    copied,
    paths,
    put,
    loadPaths,
    pathOf,
    mapAt,
    /** Where a path's middle is at a frame of its owner. */
    middleAt: (path: TrackedPath, frame: number): Point => mapped(path.centre, mapAt(path, frame)),
    copy(parts: ContributorDocument[]) {
      copied.value = JSON.parse(JSON.stringify(parts)) as ContributorDocument[]
      copiedFrom = cut.shot?.id
    },
    /** Copies of what was copied; in another shot they stay linked to the steps of the first. */
    copies: (): ContributorDocument[] =>
      copied.value.map((part) => {
        const elsewhere = part.kind === 'linked' && !part.parameters['shot'] && copiedFrom !== undefined && copiedFrom !== cut.shot?.id
        return { ...part, id: crypto.randomUUID(), parameters: { ...part.parameters, ...(elsewhere ? { shot: String(copiedFrom) } : {}) } }
      }),
    open: (id: string) => (part.value = part.value === id ? null : id),
    /** What of the open step's matte is shown, where somebody wants to see it. */
    shown: computed(() => ({ look: look.value, ...(extent.value !== 'step' && part.value ? { contributor: part.value, upto: extent.value === 'upto' } : {}) })),
  }
})
