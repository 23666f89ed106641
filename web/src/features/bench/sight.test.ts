import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as cutOf, recipe, step, wash } from '@/test/production'
import { useComparedVersion } from '../grade/useComparedVersion'
import { useOpenStep } from '../grade/useOpenStep'
import { useCatalogue } from '../shell/useCatalogue'
import { smallPictureOf, smallPictureOfVersion } from '../cut/smallPicture'
import { useCut } from '../cut/useCut'
import { useMatte } from '../matte/useMatte'
import { useSight } from './useSight'

let calls: Call[]

beforeEach(() => {
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
  const cut = useCut()
  cut.cut = cutOf()
  cut.project = cut.cut.project
})
afterEach(() => vi.unstubAllGlobals())

const shotAt = (index: number) => useCut().shots[index]!

describe('washes over shots', () => {
  beforeEach(() => {
    useCut().cut!.washes = [wash(1), wash(2, { from: 2, to: 2 }), wash(3, { to: 1, enabled: false })]
  })

  it('lie over the cut or from shot to shot', () => {
    expect(
      [0, 1].map((index) =>
        useCut()
          .washesOver(shotAt(index))
          .map((one) => one.id),
      ),
    ).toEqual([
      [1, 3],
      [1, 2],
    ])
  })

  it('come with the grades of shots that mattes are linked to, there and in addresses', () => {
    const cut = useCut()
    cut.cut!.washes = []
    const before = cut.revisionOf(shotAt(0))
    shotAt(0).recipe.document = { steps: [{ ...step(1), matte: { strength: 1, contributors: [{ id: 'l', kind: 'linked', mode: 'add', softness: 0, invert: false, strength: 1, parameters: { shot: String(shotAt(1).id), step: 's' } }] } }] }
    expect(cut.trialOf(shotAt(0)).map((one) => one.recipe)).toEqual([1, 2])
    expect(cut.trialOf(shotAt(1)).map((one) => one.recipe)).toEqual([2])
    const linked = cut.revisionOf(shotAt(0))
    shotAt(1).recipe.revision++
    expect(new Set([before, linked, cut.revisionOf(shotAt(0))]).size).toBe(3)
  })

  it('are tried with the shot, unless they are off', () => {
    expect(
      useCut()
        .trialOf(shotAt(0))
        .map((one) => one.recipe),
    ).toEqual([1, 101])
    const other = { steps: [step(3)] }
    expect(useCut().trialOf(shotAt(1), other)).toMatchObject([{ recipe: 2, document: other }, { recipe: 101 }, { recipe: 102 }])
  })

  it('change the addresses of small pictures', () => {
    const address = () => smallPictureOf(useCut().project!, shotAt(0))
    const before = address()
    useCut().cut!.washes[0]!.recipe.revision++
    expect(address()).not.toBe(before)
    const off = address()
    useCut().cut!.washes[0]!.enabled = false
    expect(address()).not.toBe(off)
    expect(smallPictureOfVersion(useCut().project!, shotAt(0), { id: 9, name: 'x', revision: 4 })).toMatch(/recipe=9&of=4$/)
  })
})

describe('what is looked at', () => {
  it('goes through test pictures in turn and back to the shot', () => {
    useCatalogue().catalogue = { tests: [{ id: 'bars' }, { id: 'ramps' }], steps: [] } as never
    const sight = useSight()
    expect([0, 1, 2].map(() => (sight.nextTest(), sight.test))).toEqual(['bars', 'ramps', null])
  })

  it('shows a region of the open step only while that has it', () => {
    useCatalogue().catalogue = {
      tests: [],
      steps: [
        { id: 'zones', regions: ['blacks', 'whites'] },
        { id: 'balance', regions: [] },
      ],
    } as never
    shotAt(0).recipe.document = {
      steps: [
        { ...step(0), id: 'z', kind: 'zones' },
        { ...step(0), id: 'b' },
      ],
    }
    const sight = useSight()
    const opened = useOpenStep()
    opened.open(shotAt(0).recipe.document.steps[0]!)
    sight.showRegion('whites')
    expect(sight.acts).toEqual({ step: 'z', region: 'whites', look: 'veil' })
    opened.open(shotAt(0).recipe.document.steps[1]!)
    expect([sight.acts, sight.tap]).toEqual([null, 'b'])
    sight.acting = true
    expect(sight.acts).toEqual({ step: 'b', region: null, look: 'veil' })
    sight.acting = false
    const matte = useMatte()
    const open = shotAt(0).recipe.document.steps[1]!
    open.matte = { strength: 1, contributors: [{ id: 'e', kind: 'ellipse', mode: 'add', softness: 0, invert: false, strength: 1, parameters: {} }] }
    Object.assign(matte, { on: true, part: 'e', extent: 'part', look: 'grey' })
    expect(sight.acts).toEqual({ step: 'b', region: null, look: 'grey', contributor: 'e', upto: false })
    sight.acting = true
    expect(sight.acts).toEqual({ step: 'b', region: null, look: 'grey' })
  })

  it('keeps a patch of skin for each shot', () => {
    const sight = useSight()
    sight.keepSkin([0, 0, 0.1, 0.1])
    useCut().goShot(1)
    expect(sight.skin).toBeNull()
    useCut().goShot(0)
    expect(sight.skin?.region).toEqual([0, 0, 0.1, 0.1])
    sight.keepSkin(null)
    expect(sight.skin).toBeNull()
  })

  it('opens on each shot the kind of step that was open last, or none when all were closed', () => {
    const opened = useOpenStep()
    const two = {
      ...recipe(1),
      document: {
        steps: [
          { ...step(0), id: 'b' },
          { ...step(0), id: 'z', kind: 'zones' },
        ],
      },
    }
    opened.open({ id: 'other', kind: 'zones' })
    opened.arrive(two)
    expect(opened.id).toBe('z')
    opened.toggle({ id: 'z', kind: 'zones' })
    opened.arrive(two)
    expect(opened.id).toBeNull()
  })
})

describe('comparing versions', () => {
  it('shows the other one while it is held, and the chosen one of many', async () => {
    const compared = useComparedVersion()
    const shot = shotAt(0)
    expect(await compared.hold()).toBe(false)
    shot.versions = [1, 7, 8].map((id) => ({ id, name: `v${id}`, revision: 0 }))
    expect(compared.candidate?.id).toBe(7)
    compared.choose(shot, 8)
    const holding = compared.hold()
    await settle()
    expect(compared.document).toBeNull()
    calls.at(-1)?.answer(200, { ...recipe(8, 0, 2), id: 8 })
    await holding
    expect([compared.words, compared.document?.steps.length]).toEqual(['v8', 1])
    compared.release()
    expect(compared.document).toBeNull()
  })
})
