import type { Swatch } from '@/api/recipe'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as cutOf, project, recipe, shot, step } from '@/test/production'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { sizeOf, type Folder } from './folderTree'
import { useSwatches } from './useSwatches'

let calls: Call[]
const last = () => calls.at(-1)!
const swatch = (id: number, change: Partial<Swatch> = {}): Swatch => ({
  id,
  name: `Look ${id}`,
  description: '',
  folder: '',
  peg: null,
  origin: { shot: '1A' },
  document: {
    steps: [
      { ...step(1), id: 'x', name: 'Light' },
      { ...step(2), id: 'y', name: 'Colour' },
    ],
  },
  ...change,
})

beforeEach(() => {
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
  const cut = useCut()
  cut.cut = { ...cutOf(), length: 30, shots: [shot(1, 0, 10), shot(2, 10, 20)] }
  cut.project = cut.cut.project
  cut.shots[0]!.recipe.document = { steps: [step(0.5)] }
})
afterEach(() => vi.unstubAllGlobals())

describe('the swatchbook', () => {
  it('keeps the grade that is open, on a peg or under a name', async () => {
    const swatches = useSwatches()
    useCut().go(4)
    const keeping = swatches.keep({ peg: 3 })
    await settle()
    expect(last()).toMatchObject({ path: '/shots/1/swatches', body: { frame: 4, peg: 3 } })
    last().answer(201, [swatch(1, { peg: 3 })])
    expect(await keeping).toBe(true)
    expect(useNotices().notices.at(-1)?.words).toBe('grade of 1 on peg 3')
  })

  it('is searched by everything that is known of a swatch, and ordered by folder', () => {
    const swatches = useSwatches()
    swatches.all = [swatch(1, { folder: 'night' }), swatch(2, { folder: 'day/wide', description: 'for faces' }), swatch(3, { folder: ' day / close ' }), swatch(4)]
    const shown = (folder: Folder): unknown[] => [folder.path, folder.swatches.map((one) => one.id), ...folder.folders.map(shown)]
    expect(shown(swatches.tree)).toEqual(['', [4], ['day', [], ['day/close', [3]], ['day/wide', [2]]], ['night', [1]]])
    expect(sizeOf(swatches.tree)).toBe(4)
    swatches.search = 'Faces'
    expect(shown(swatches.tree)).toEqual(['', [], ['day', [], ['day/wide', [2]]]])
    swatches.search = '1a'
    expect(sizeOf(swatches.tree)).toBe(4)
  })

  it('recalls a peg, and says when nothing hangs there', async () => {
    const swatches = useSwatches()
    swatches.all = [swatch(1, { peg: 0 })]
    await swatches.recallPeg(0)
    expect(swatches.trial?.id).toBe(1)
    swatches.drop()
    await swatches.recallPeg(7)
    expect([swatches.trial, useNotices().notices.at(-1)?.words]).toEqual([null, expect.stringMatching(/peg 7/)])
  })
})

describe('recall', () => {
  it('tries the ticked steps in place of the own ones or after them, and changes nothing yet', () => {
    const swatches = useSwatches()
    swatches.recall(swatch(1))
    swatches.tick('x')
    expect(swatches.document?.steps.map((one) => one.name)).toEqual(['Colour'])
    swatches.after = true
    expect(swatches.document?.steps.map((one) => one.name)).toEqual(['Balance', 'Colour'])
    expect(useCut().shot?.recipe.document.steps).toHaveLength(1)
    swatches.tick('x')
    expect(swatches.document?.steps).toHaveLength(3)
    swatches.after = false
  })

  it('goes onto the shot or its family in one change', async () => {
    const cut = useCut()
    cut.cut!.families = [{ id: 7, name: 'F', hero: 1, shots: [1, 2], ground: recipe(70), finish: recipe(71) }]
    cut.shots.forEach((one) => (one.family = 7))
    const swatches = useSwatches()
    swatches.recall(swatch(1))
    swatches.tick('y')
    const accepting = swatches.accept('family')
    await settle()
    expect(last()).toMatchObject({ path: '/cuts/5/paste', body: { shots: [1, 2], replace: true, words: 'Look 1 recalled on 2 shots' } })
    expect((last().body.steps as { id: string }[]).map((one) => one.id)).toEqual(['x'])
    last().answer(200, { recipes: [recipe(1, 1, 1), recipe(2, 1, 1)], project: project() })
    await accepting
    expect([swatches.trial, cut.shots.map((one) => one.recipe.revision)]).toEqual([null, [1, 1]])
  })

  it('is dropped with the shot', async () => {
    const swatches = useSwatches()
    swatches.recall(swatch(1))
    useCut().goShot(1)
    await nextTick()
    expect(swatches.document).toBeNull()
  })

  it('takes steps with their keys and spans, or without', () => {
    const swatches = useSwatches()
    swatches.recall({
      ...swatch(1),
      document: { steps: [{ ...step(1), keys: { exposure: [{ frame: 3, value: 2 }] }, spans: ['s'] }], spans: [{ id: 's', name: 's', start: 0, finish: 1, fade_in: [0, 0], fade_out: [0, 0], curve: 'cosine' }] },
    })
    expect([swatches.moves, swatches.document?.steps[0]?.keys?.exposure?.length, swatches.document?.spans?.length]).toEqual([true, 1, 1])
    swatches.withKeys = false
    expect(swatches.document?.steps[0]).toEqual({ ...step(1), keys: undefined, spans: undefined })
    expect(swatches.document?.spans).toEqual([])
  })
})
