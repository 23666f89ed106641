import { computed, shallowRef, watch, type Ref } from 'vue'
import { makePlayStore } from '../bench/playStore'
import { useCut, type Trial } from '../cut/useCut'
import { usePicture, type PictureWish } from '../bench/usePicture'
import { usePlayer } from '../bench/usePlayer'
import { useRealPixels, type Sight } from '../bench/useRealPixels'
import { useScreen } from '../screen/useScreen'
import { useSight } from '../bench/useSight'
import { useReference } from './useReference'

const AHEAD = 24 // frames asked for before the first picture reaches them

/**
 * The reference, at rest and playing: with the first one while their times are
 * linked, by itself while they are not.
 *
 * @param present what the first picture shows
 * @param firstPlays whether that is playing
 * @param sight what of it is seen, where that has more pixels than the settled picture
 */
export function useReferencePicture(options: { present: Ref<PictureWish | null>; firstPlays: Ref<boolean>; generation: Ref<number>; sight: Ref<Sight | null>; trouble: (error: unknown) => void }) {
  const cut = useCut()
  const screen = useScreen()
  const reference = useReference()
  const sight = useSight()

  const seen = computed(() => (reference.flipped || (reference.on && reference.way !== 'difference') ? reference.second : null))

  /** The recipes of a shot as the reference has them. */
  function trialOf(trial: Trial): Trial {
    const second = reference.second
    if (second?.source) return trial.map(({ recipe }) => ({ recipe, document: { steps: [] } }))
    return trial.map((one) => second?.trial?.find((other) => other.recipe === one.recipe) ?? one)
  }
  const shotTrial = (frame: number) => {
    const shot = cut.shotAt(frame)
    return shot ? trialOf(cut.trialOf(shot)) : null
  }

  const store = makePlayStore({
    kept: () => false,
    cut: computed(() => cut.cut?.id ?? null),
    shotAt: cut.shotAt,
    on: computed(() => screen.wish),
    trialOf: (shot) => trialOf(cut.trialOf(shot)),
    wished: (frame) => ({ frame, source: reference.second?.source === true, trial: shotTrial(frame) }),
    trouble: options.trouble,
  })
  /** What its played pictures depend on besides grades. */
  const told = computed(() => JSON.stringify([reference.kind, reference.second?.source, reference.second?.trial, screen.wish]))
  const changes = shallowRef(0)
  watch(told, () => changes.value++)
  const generation = computed(() => options.generation.value + changes.value)

  const own = usePlayer({
    store,
    rate: computed(() => cut.rate),
    range: computed(() => (reference.shot ? { first: reference.shot.record_in, count: reference.shot.length } : { first: 0, count: cut.length })),
    generation,
    go: (frame) => (reference.freeFrame = frame),
  })

  /** Plays with the first picture. */
  const follows = computed(() => options.firstPlays.value && seen.value !== null && !reference.timeless && reference.freeFrame === null)
  const followed = shallowRef<ImageBitmap | null>(null)
  let shownGeneration = generation.value
  watch([follows, () => reference.frame], () => {
    const frame = reference.frame
    if (!follows.value || frame === null) return void (followed.value = null)
    if (shownGeneration !== generation.value) {
      shownGeneration = generation.value
      store.forget()
    }
    const last = reference.shot ? reference.shot.record_in + reference.shot.length : frame + 1
    store.fill(
      Array.from({ length: Math.min(AHEAD, last - frame) }, (_, step) => frame + step),
      () => (followed.value = null),
    )
    if (store.has(frame)) followed.value = store.show(frame)
  })

  // As a text, so that a wish that is the same again asks for nothing.
  const restingText = computed(() => {
    const second = seen.value
    const present = options.present.value
    if (!second || !present || follows.value || own.playing.value) return ''
    const frame = reference.frame ?? cut.frame
    return JSON.stringify({
      cut: present.cut,
      frame,
      source: second.source === true,
      on: present.on,
      moving: false,
      instruments: false,
      measuring: { scopes: {}, measure: 'final', region: null, light: null, bands: present.measuring?.bands ?? null, marks: false, beside: null },
      still: second.still,
      swatch: second.swatch,
      acts: second.matte ? sight.beside : null,
      trial: second.frame === undefined ? trialOf(present.trial ?? []) : shotTrial(frame),
      test: second.frame === undefined && !reference.timeless ? present.test : null,
    })
  })
  const wish = computed(() => (restingText.value ? (JSON.parse(restingText.value) as PictureWish) : null))
  const resting = usePicture(wish, options.trouble)
  const real = useRealPixels({ wish: computed(() => (resting.settled.value && !own.playing.value ? wish.value : null)), sight: options.sight, trouble: options.trouble })

  /** Stops or plays it by itself; its time is free from then on. */
  function toggle() {
    if (reference.timeless || reference.frame === null) return
    if (own.playing.value) return own.stop()
    const at = reference.frame
    const wasFollowing = follows.value
    reference.freeFrame = at
    if (!wasFollowing) own.play(at)
  }
  function link() {
    own.stop()
    reference.freeFrame = null
  }
  watch(
    () => reference.freeFrame,
    (frame) => frame === null && own.stop(),
  )
  watch(
    () => reference.on,
    (on) => !on && own.stop(),
  )

  return {
    wanted: computed(() => seen.value !== null),
    bitmap: computed(() => (own.playing.value && own.picture.value) || (follows.value && followed.value) || resting.shown.value?.bitmap || null),
    playing: computed(() => own.playing.value || follows.value),
    loading: resting.loading,
    failed: computed(() => (own.playing.value || follows.value ? null : resting.failed.value)),
    settled: resting.settled,
    real,
    finer: computed(() => resting.shown.value?.header.finer ?? false),
    toggle,
    link,
    free: () => (reference.freeFrame ??= reference.frame),
    go(frame: number) {
      own.stop()
      reference.freeFrame = frame
    },
  }
}

export type SecondPicture = ReturnType<typeof useReferencePicture>
