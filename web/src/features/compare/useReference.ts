import type { Shot } from '@/api/cut'
import type { RecipeDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import type { SecondWish as Second } from '../bench/usePicture'
import { useSight } from '../bench/useSight'
import { useComparedVersion } from '../grade/useComparedVersion'

export type Kind = 'source' | 'found' | 'before' | 'after' | 'distance' | 'kept' | 'version' | 'shot' | 'hero' | 'first' | 'swatch' | 'still' | 'programme' | 'matte'
export type Way = 'side' | 'split' | 'difference'

export const KINDS: { id: Kind; label: string; about: string }[] = [
  { id: 'source', label: 'as shot', about: 'this frame without any step' },
  { id: 'found', label: 'as found', about: 'as it was when you came to the shot' },
  { id: 'first', label: 'first step alone', about: "with the first of the shot's own steps" },
  { id: 'version', label: 'other version', about: 'the version compared with' },
  { id: 'before', label: 'before the edit', about: 'the last frame of the shot before' },
  { id: 'after', label: 'after the edit', about: 'the first frame of the shot after' },
  { id: 'distance', label: 'shots away', about: 'the shot so many before or after, following along' },
  { id: 'shot', label: 'chosen shot', about: 'the shot you chose (Alt and a click in the ribbon), at the same place within it' },
  { id: 'hero', label: 'hero', about: "the family's hero" },
  { id: 'kept', label: 'saved frame', about: 'a place of the cut that was kept; its grade follows' },
  { id: 'swatch', label: "swatch's picture", about: 'the picture a kept grade made' },
  { id: 'programme', label: 'programme', about: 'the movie of the edit that lies under the cut (Assembly)' },
  { id: 'matte', label: 'matte', about: 'what the open step acts on, of the same picture' },
  { id: 'still', label: 'still', about: 'a picture that was frozen or brought in' },
]

const MOST_KEPT = 8

/** A distance in shots, in words. */
const away = (shots: number) => (shots === 0 ? 'the same shot' : `${Math.abs(shots) === 1 ? 'one' : Math.abs(shots)} ${shots < 0 ? 'before' : 'after'}`)

/**
 * The reference beside the one that is graded: which, and how the two are shown. It
 * follows along, or is locked to its place; its time runs with the first one's or by itself.
 */
export const useReference = defineStore('reference', () => {
  const cut = useCut()
  const compared = useComparedVersion()
  const sight = useSight()
  const on = ref(false)
  const kind = useStorage<Kind>('mordant.reference.kind', 'source')
  const way = useStorage<Way>('mordant.reference.way', 'split')
  const split = useStorage('mordant.reference.split', 0.5)
  const gain = useStorage('mordant.reference.gain', 4)
  /** Shots before (-) or after (+). */
  const distance = useStorage('mordant.reference.distance', -1)
  /** Kept frames by cut, and which of them is shown. */
  const keptFrames = useStorage<Record<string, number[]>>('mordant.reference.kept', {})
  const keptAt = ref(0)
  const swatch = ref<number | null>(null)
  const still = ref<number | null>(null)
  /** A shot that was chosen to compare with. */
  const other = ref<number | null>(null)
  /** Shown in place of the graded picture, while a key is held. */
  const flipped = ref(false)
  /** What it was when it was locked. */
  const locked = ref<{ second: Second; words: string } | null>(null)
  /** The reference's own frame, while its time is free. */
  const freeFrame = ref<number | null>(null)
  const zoomFree = useStorage('mordant.reference.zoom', false)
  const foundDocuments = new Map<number, RecipeDocument>()

  watch(
    () => cut.shot?.id,
    () => {
      const shot = cut.shot
      if (shot) foundDocuments.set(shot.id, JSON.parse(JSON.stringify(shot.recipe.document)) as RecipeDocument)
    },
    { immediate: true },
  )

  watch([kind, on, () => compared.candidate?.id], () => {
    if (on.value && kind.value === 'version') void compared.fetch()
  })
  watch([kind, keptAt, distance, swatch, still, other], () => {
    locked.value = null
    freeFrame.value = null
  })

  const kept = computed(() => keptFrames.value[String(cut.cut?.id ?? '')] ?? [])

  function keep() {
    const id = String(cut.cut?.id ?? '')
    const frames = [...kept.value.filter((frame) => frame !== cut.frame), cut.frame].slice(-MOST_KEPT)
    keptFrames.value = { ...keptFrames.value, [id]: frames }
    keptAt.value = frames.length - 1
    kind.value = 'kept'
    on.value = true
  }

  /** The same place within another shot, as far as it goes. */
  function along(shot: Shot | undefined, frame: number): number | null {
    if (!shot || !cut.shot) return null
    return shot.record_in + Math.min(shot.length - 1, Math.max(shot.dissolve, frame - cut.shot.record_in))
  }

  /** Whether the programme has a frame there. */
  function inProgramme(frame: number) {
    const reference = cut.cut?.reference
    return Boolean(reference && frame + reference.offset >= 0 && frame + reference.offset < reference.frames)
  }

  /** As it follows along; null where there is no such picture. */
  const following = computed<Second | null>(() => {
    const shot = cut.shot
    if (!shot) return null
    const own = (document: RecipeDocument | undefined | null): Second | null => (document ? { trial: [{ recipe: shot.recipe.id, document }] } : null)
    const at = (frame: number | null | undefined): Second | null => (frame === null || frame === undefined ? null : { frame })
    const before = cut.shots[cut.shotIndex - 1]
    const after = cut.shots[cut.shotIndex + 1]
    switch (kind.value) {
      case 'source':
        return { source: true }
      case 'found':
        return own(foundDocuments.get(shot.id))
      case 'first':
        return own({ ...shot.recipe.document, steps: shot.recipe.document.steps.slice(0, 1) })
      case 'version':
        return own(compared.other?.id === compared.candidate?.id ? compared.other?.document : null)
      case 'before':
        return at(before && before.record_in + before.length - 1)
      case 'after':
        return at(after && after.record_in + after.dissolve)
      case 'distance':
        return at(along(cut.shots[cut.shotIndex + distance.value], cut.frame))
      case 'shot':
        return at(
          along(
            cut.shots.find((one) => one.id === other.value),
            cut.frame,
          ),
        )
      case 'hero':
        return at(
          along(
            cut.shots.find((one) => one.id === cut.familyOf(shot)?.hero),
            cut.frame,
          ),
        )
      case 'swatch':
        return swatch.value === null ? null : { swatch: swatch.value }
      case 'programme':
        return cut.cut?.reference && inProgramme(cut.frame) ? { programme: true } : null
      case 'matte':
        return sight.beside ? { matte: true } : null
      case 'still':
        return still.value === null ? null : { still: still.value }
      default:
        return at(kept.value[keptAt.value])
    }
  })

  /** A finished picture has no time of its own. */
  const timeless = computed(() => following.value?.swatch !== undefined || following.value?.still !== undefined || following.value?.matte === true)
  const second = computed<Second | null>(() => {
    const found = locked.value?.second ?? following.value
    return found && freeFrame.value !== null && !timeless.value ? { ...found, frame: freeFrame.value } : found
  })
  /** Record frame the reference is at. */
  const frame = computed(() => (timeless.value || !second.value ? null : (second.value.frame ?? cut.frame)))

  const label = () => (kind.value === 'distance' ? away(distance.value) : (KINDS.find((one) => one.id === kind.value)?.label ?? ''))
  const NOTHING: Partial<Record<Kind, string>> = {
    before: 'no shot before',
    after: 'no shot after',
    distance: 'no shot there',
    shot: 'no shot chosen',
    hero: 'no hero',
    kept: 'no place kept',
    swatch: 'no swatch chosen',
    still: 'no still chosen',
    version: 'no other version',
    programme: 'no programme there',
    matte: 'no matte: the open step acts on the whole picture',
  }
  const words = computed(() => {
    if (locked.value) return locked.value.words
    if (!second.value) return NOTHING[kind.value] ?? `no ${label()}`
    if (timeless.value) return label()
    if (kind.value === 'programme') return label()
    return `${cut.shotAt(frame.value ?? 0)?.name ?? ''} ${label()}`
  })

  /** Stays at its place, whatever the first picture does; what is graded there still shows. Again: follows. */
  function lock() {
    if (locked.value || !following.value || timeless.value) return void (locked.value = null)
    locked.value = { second: { ...following.value, frame: following.value.frame ?? cut.frame }, words: `${words.value}, locked` }
  }

  return {
    on,
    kind,
    way,
    split,
    gain,
    distance,
    flipped,
    kept,
    keptAt,
    keep,
    swatch,
    still,
    other,
    /** Compares with a shot; again: no more. */
    withShot(id: number) {
      if (on.value && kind.value === 'shot' && other.value === id) return void (on.value = false)
      other.value = id
      kind.value = 'shot'
      on.value = true
    },
    locked,
    lock,
    timeless,
    freeFrame,
    zoomFree,
    frame,
    /** The shot the reference is of. */
    shot: computed(() => (frame.value === null ? undefined : cut.shotAt(frame.value))),
    second,
    words,
    /** What instruments and the difference take. */
    active: computed(() => (on.value && !second.value?.matte ? second.value : null)),
    /** Shows the next of the kept places; from another kind of picture, the one shown last. */
    nextKept() {
      if (kept.value.length === 0) return
      if (on.value && kind.value === 'kept') keptAt.value = (keptAt.value + 1) % kept.value.length
      kind.value = 'kept'
      on.value = true
    },
    dropKept: (dropped: number) => {
      keptFrames.value = { ...keptFrames.value, [String(cut.cut?.id ?? '')]: kept.value.filter((one) => one !== dropped) }
      keptAt.value = 0
    },
  }
})
