import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import type { Shot } from '@/api/cut'
import type { RecipeDocument } from '@/api/recipe'
import { opened } from '@/test/opened'
import { cut, shot, step } from '@/test/production'
import { toRaw } from 'vue'
import { clock } from './timecode'
import { useCut } from './useCut'

let calls: Call[]

beforeEach(() => {
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())

describe('useCut', () => {
  it('knows the shot somebody is at', async () => {
    const store = await opened(calls)
    expect([store.frame, store.shot?.id, store.rate]).toEqual([0, 1, 24])
    store.go(12)
    expect(store.shot?.id).toBe(2)
  })

  it('stays within the cut', async () => {
    const store = await opened(calls)
    store.go(-4)
    expect(store.frame).toBe(0)
    store.go(400)
    expect(store.frame).toBe(29)
    store.goShot(9)
    expect(store.shotIndex).toBe(1)
  })

  it('goes to the first frame that is a shot’s alone', async () => {
    const store = await opened(calls)
    store.goShot(1)
    expect(store.frame).toBe(16)
  })

  it('comes back to where it was left', async () => {
    const store = await opened(calls)
    store.go(17)
    store.frame = 0
    await opened(calls)
    expect(store.frame).toBe(17)
  })

  it('follows links of mattes to other shots, in circles too, and looks at no shot besides', async () => {
    const linked = (id: number, record: number, to: number[]) => {
      const one = shot(id, record, 10)
      const contributors = to.map((target) => ({ id: `l${target}`, kind: 'linked', mode: 'add', softness: 0, invert: false, strength: 1, parameters: { step: 'a', shot: String(target) } }))
      one.recipe.document = { steps: [{ ...step(0), matte: { contributors, refinements: [] } }] } as unknown as RecipeDocument
      return one
    }
    const shots = [linked(1, 0, [3, 2]), linked(2, 10, [1]), linked(3, 20, []), shot(4, 30, 10)]
    const store = useCut()
    const opening = store.open('5')
    await settle()
    calls.at(-1)?.answer(200, { ...cut(), shots })
    await opening
    const first = store.shots[0] as Shot
    expect(store.trialOf(first).map((one) => one.recipe)).toEqual([1, 2, 3])
    store.revisionOf(first)
    let looks = 0
    const last = toRaw(store.shots[3] as Shot)
    Object.defineProperty(last, 'id', { get: () => (looks++, 4) })
    store.revisionOf(first)
    expect(looks).toBe(0)
  })

  it('reads itself once more where its shots were changed while it was read', async () => {
    const store = await opened(calls)
    const { edition } = cut()
    const reading = store.reload()
    await settle()
    if (store.cut) store.cut.edition = edition + 1
    calls.at(-1)?.answer(200, cut())
    await settle()
    expect([calls.length, store.cut?.edition]).toEqual([3, edition + 1])
    calls.at(-1)?.answer(200, { ...cut(), edition: edition + 1 })
    await reading
    expect([calls.length, store.cut?.edition]).toEqual([3, edition + 1])
  })

  it('stays with another cut that was opened while it was read anew', async () => {
    const store = await opened(calls)
    const reading = store.reload()
    await settle()
    if (store.cut) store.cut = { ...store.cut, id: 6 }
    calls.at(-1)?.answer(200, cut())
    await reading
    expect(store.cut?.id).toBe(6)
  })
})

describe('clock', () => {
  it('counts frames, seconds, minutes and hours', () => {
    expect(clock(0, 24)).toBe('00:00:00:00')
    expect(clock(24 * 61 + 5, 24)).toBe('00:01:01:05')
    expect(clock(25 * 3600, 25)).toBe('01:00:00:00')
    expect(clock(30, 30000 / 1001)).toBe('00:00:01:00')
  })
})
