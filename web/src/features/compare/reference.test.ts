import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as cutOf, recipe, shot, step } from '@/test/production'
import { useCut } from '../cut/useCut'
import { useReference } from './useReference'

let calls: Call[]

beforeEach(() => {
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
  const cut = useCut()
  const shots = [shot(1, 0, 10), shot(2, 10, 20, 4), shot(3, 30, 10)]
  cut.cut = { ...cutOf(), length: 40, shots }
  cut.project = cut.cut.project
  cut.go(25)
  Object.assign(useReference(), { kind: 'source', way: 'split', distance: -1, on: false })
})
afterEach(() => vi.unstubAllGlobals())

describe('what the picture is compared with', () => {
  const second = (kind: string) => {
    Object.assign(useReference(), { kind })
    return useReference().second
  }

  it('is a frame about the edit', () => {
    expect([second('before'), second('after')]).toEqual([{ frame: 9 }, { frame: 30 }])
    useCut().go(5)
    expect([second('before'), second('after')]).toEqual([null, { frame: 14 }]) // after the dissolve
  })

  it('follows along in a shot at a distance, as far as that goes', () => {
    expect(second('distance')).toEqual({ frame: 9 }) // 15 frames into a shot of ten
    useCut().go(12)
    expect(second('distance')).toEqual({ frame: 2 })
    expect(useReference().words).toMatch(/ one before$/)
    useReference().distance = 1
    expect(second('distance')).toEqual({ frame: 32 })
    useReference().distance = 5
    expect(second('distance')).toBeNull()
  })

  it('is the shot as it was on arriving, whatever has been done since', async () => {
    const cut = useCut()
    const here = cut.shot
    useReference()
    await nextTick()
    if (here) here.recipe.document = { steps: [step(2)] }
    expect(second('found')).toEqual({ trial: [{ recipe: 2, document: { steps: [] } }] })
    cut.goShot(0)
    await nextTick()
    cut.goShot(1)
    await nextTick()
    expect(second('found')?.trial?.[0]?.document.steps).toHaveLength(1)
    expect(second('first')?.trial?.[0]?.document.steps).toHaveLength(1)
  })

  it('is the hero of the family', () => {
    const cut = useCut()
    expect(second('hero')).toBeNull()
    cut.cut!.families = [{ id: 7, name: 'x', hero: 1, shots: [1, 2], ground: recipe(70), finish: recipe(71) }]
    cut.shots.slice(0, 2).forEach((one) => (one.family = 7))
    expect(second('hero')).toEqual({ frame: 9 })
    expect(cut.trialOf(cut.shots[1]!).map((one) => one.recipe)).toEqual([70, 2, 71])
  })

  it('is one of several kept frames, in turn', () => {
    const reference = useReference()
    reference.keep()
    useCut().go(3)
    reference.keep()
    expect([reference.kept, reference.second, reference.words]).toEqual([[25, 3], { frame: 3 }, '1 saved frame'])
    reference.nextKept()
    expect(reference.second).toEqual({ frame: 25 })
    reference.kind = 'source'
    reference.nextKept()
    expect([reference.kind, reference.second]).toEqual(['kept', { frame: 25 }])
    reference.dropKept(25)
    expect([reference.kept, reference.second]).toEqual([[3], { frame: 3 }])
  })

  it('is another version, once that has been fetched', async () => {
    const reference = useReference()
    useCut().shot!.versions = [2, 9].map((id) => ({ id, name: `v${id}`, revision: 0 }))
    reference.on = true
    reference.kind = 'version'
    await settle()
    expect(reference.active).toBeNull()
    calls.at(-1)?.answer(200, { ...recipe(9, 0, 1.5), id: 9 })
    await settle()
    await new Promise((resolve) => setTimeout(resolve))
    expect(reference.active).toMatchObject({ trial: [{ recipe: 2, document: { steps: [{ parameters: { exposure: 1.5 } }] } }] })
  })

  it('counts for instruments only while it is on', () => {
    const reference = useReference()
    expect(reference.active).toBeNull()
    reference.on = true
    expect(reference.active).toEqual({ source: true })
  })

  it('follows along, stays where it is locked, and has a time of its own', () => {
    const reference = useReference()
    reference.on = true
    reference.lock()
    useCut().go(5)
    expect([reference.second, reference.words]).toEqual([{ source: true, frame: 25 }, '2 as shot, locked'])
    reference.freeFrame = 17
    expect([reference.second, reference.frame, reference.shot?.id]).toEqual([{ source: true, frame: 17 }, 17, 2])
    reference.freeFrame = null
    reference.lock()
    expect([reference.second, reference.frame]).toEqual([{ source: true }, 5])
  })

  it('may be a picture that has no time', () => {
    const reference = useReference()
    Object.assign(reference, { kind: 'still', still: 4 })
    reference.lock()
    expect([reference.second, reference.timeless, reference.frame, reference.locked]).toEqual([{ still: 4 }, true, null, null])
    Object.assign(reference, { kind: 'swatch' })
    expect(reference.second).toBeNull()
  })
})
