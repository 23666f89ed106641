import type { Region } from '@/api/readings'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useOpenStep } from '../grade/useOpenStep'
import { useCatalogue } from '../shell/useCatalogue'
import { useCut } from '../cut/useCut'
import { useMatte } from '../matte/useMatte'

/** What is looked at beside the graded picture: test pictures, what a step acts on, a patch of skin. */
export const useSight = defineStore('sight', () => {
  const cut = useCut()
  const catalogue = useCatalogue()
  const opened = useOpenStep()
  const matte = useMatte()

  const test = ref<string | null>(null)
  /** A region of the open step that stays shown. */
  const region = ref<string | null>(null)
  /** While a key is held: all that the open step acts on. */
  const acting = ref(false)
  /** Patches of skin by shot, kept in this browser. */
  const patches = useStorage<Record<string, { region: Region; frame: number }>>('mordant.skin', {})

  const tests = computed(() => catalogue.catalogue?.tests ?? [])
  const step = computed(() => cut.recipes.flatMap((recipe) => recipe.document.steps).find((one) => one.id === opened.id))
  const acts = computed(() => {
    const regions = step.value ? (catalogue.step(step.value.kind)?.regions ?? []) : []
    const shown = region.value !== null && regions.includes(region.value)
    if (!step.value) return null
    if (shown) return { step: step.value.id, region: region.value, look: 'veil' }
    // held, all of the step's matte; its switch, what was chosen: neither blocks the other
    if (acting.value) return { step: step.value.id, region: null, look: matte.look }
    return matte.on && step.value.matte ? { step: step.value.id, region: null, ...matte.shown } : null
  })
  /** The picture is shown as it is after the open step, without what follows. */
  const early = ref(false)
  /** While a key is held: the light that the open step adds, by itself. */
  const adding = ref(false)
  /** What is taken away is amplified by so much. */
  const gain = useStorage('mordant.taken.gain', 8)
  /** A key of the open step's matte that is open, whose axes are told. */
  const key = computed(() => {
    const part = step.value?.matte?.contributors.find((one) => one.id === matte.part)
    return step.value && part && catalogue.catalogue?.contributors.find((kind) => kind.id === part.kind)?.family === 'key' ? { step: step.value.id, contributor: part.id } : null
  })
  /** A patch whose way through film is shown, on the shot it was picked in. */
  const picked = ref<{ shot: number; region: Region } | null>(null)
  const patch = computed(() => (picked.value && picked.value.shot === cut.shot?.id ? picked.value.region : null))
  const skin = computed(() => (cut.shot ? (patches.value[cut.shot.id] ?? null) : null))

  /** Off, and then each test picture in turn. */
  function nextTest() {
    const ids = [null, ...tests.value.map((one) => one.id)]
    test.value = ids[(ids.indexOf(test.value) + 1) % ids.length] ?? null
  }

  function keepSkin(patch: Region | null) {
    const shot = cut.shot
    if (!shot) return
    const others = Object.fromEntries(Object.entries(patches.value).filter(([id]) => id !== String(shot.id)))
    patches.value = patch ? { ...others, [shot.id]: { region: patch, frame: cut.frame } } : others
  }

  return {
    test,
    tests,
    testLabel: computed(() => tests.value.find((one) => one.id === test.value)?.label ?? null),
    nextTest,
    region,
    acting,
    acts,
    early,
    upto: computed(() => (early.value ? (step.value?.id ?? null) : null)),
    adding,
    /** What is shown by itself is taken away by the open step, amplified. */
    takes: computed(() => (step.value ? catalogue.step(step.value.kind)?.takes_away === true : false)),
    gain,
    adds: computed(() => (adding.value ? (step.value?.id ?? null) : null)),
    key,
    /** What a matte would be shown of, as the reference. */
    beside: computed(() => (step.value?.matte ? { step: step.value.id, region: null, ...matte.shown, look: matte.look === 'veil' ? 'grey' : matte.look } : null)),
    tap: computed(() => step.value?.id ?? null),
    showRegion: (name: string) => (region.value = region.value === name ? null : name),
    patch,
    pickPatch: (region: Region | null) => (picked.value = region && cut.shot ? { shot: cut.shot.id, region } : null),
    skin,
    keepSkin,
  }
})
