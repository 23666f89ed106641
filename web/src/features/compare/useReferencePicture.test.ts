import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as cutOf, shot, step } from '@/test/production'
import { useCut } from '../cut/useCut'
import type { PictureWish } from '../bench/usePicture'
import { useReference } from './useReference'
import { useReferencePicture, type SecondPicture } from './useReferencePicture'

let calls: Call[]
let scope: EffectScope
let second: SecondPicture
const plays = ref(false)
const present = ref<PictureWish | null>(null)

beforeEach(async () => {
  installBrowser()
  vi.stubGlobal(
    'OffscreenCanvas',
    class {
      getContext = () => null
    },
  )
  vi.stubGlobal('requestAnimationFrame', () => 0)
  vi.stubGlobal('cancelAnimationFrame', () => undefined)
  calls = installServer()
  setActivePinia(createPinia())
  const cut = useCut()
  cut.cut = { ...cutOf(), length: 40, shots: [shot(1, 0, 10), shot(2, 10, 20, 4), shot(3, 30, 10)] }
  cut.project = cut.cut.project
  cut.go(15)
  plays.value = false
  present.value = { cut: 5, frame: 15, source: false, on: {} as PictureWish['on'], moving: false, trial: cut.trialOf(cut.shot!) }
  Object.assign(useReference(), { kind: 'distance', distance: -1, way: 'split', on: false })
  scope = effectScope()
  second = scope.run(() => useReferencePicture({ present, firstPlays: plays, generation: ref(0), sight: ref(null), trouble: () => undefined }))!
  await nextTick()
})
afterEach(() => {
  scope.stop()
  vi.unstubAllGlobals()
})

const pictures = () => calls.filter((call) => call.path.endsWith('/picture'))
async function rest() {
  await nextTick()
  await new Promise((resolve) => setTimeout(resolve, 5))
  await settle()
}

describe('the reference', () => {
  it('is asked for while it is compared with, with the recipes of its own shot', async () => {
    await rest()
    expect(pictures()).toHaveLength(0)
    useReference().on = true
    await rest()
    expect(pictures().at(-1)?.body).toMatchObject({ frame: 5, source: false, instruments: false, trial: [{ recipe: 1 }] })
    expect(second.wanted.value).toBe(true)
  })

  it('is not asked for again while nothing about it has changed', async () => {
    const reference = useReference()
    reference.on = true
    reference.lock()
    await rest()
    const before = pictures().length
    useCut().go(16)
    present.value = { ...present.value!, frame: 16 }
    await rest()
    expect(pictures()).toHaveLength(before)
  })

  it('has the tried steps of another version, and none as shot', async () => {
    const reference = useReference()
    reference.on = true
    useCut().shots[1]!.recipe.document = { steps: [step(1)] }
    reference.kind = 'source'
    await rest()
    expect(pictures().at(-1)?.body).toMatchObject({ frame: 15, source: true, trial: [{ recipe: 2, document: { steps: [] } }] })
    Object.assign(reference, { kind: 'still', still: 9 })
    calls.at(-1)?.answer(204, null)
    await rest()
    await rest()
    expect(pictures().at(-1)?.body).toMatchObject({ still: 9 })
    expect(second.playing.value).toBe(false)
  })

  it('plays with the first one until it is stopped by itself, and is linked again', async () => {
    const reference = useReference()
    reference.on = true
    plays.value = true
    await nextTick()
    expect(second.playing.value).toBe(true)
    second.toggle()
    expect([reference.freeFrame, second.playing.value]).toEqual([5, false])
    second.toggle()
    expect(second.playing.value).toBe(true)
    plays.value = false
    second.go(7)
    expect([reference.frame, second.playing.value]).toEqual([7, false])
    second.link()
    expect([reference.freeFrame, reference.frame]).toEqual([null, 5])
  })
})
