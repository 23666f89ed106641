import type { Catalogue } from '@/api/catalogue'
import type { StepSpec } from '@/api/declared'
import type { Target } from '@/api/project'
import type { RenditionList } from '@/api/rendition'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as cutOf, recipe } from '@/test/production'
import { useCut } from '../cut/useCut'
import { useCatalogue } from '../shell/useCatalogue'
import { heightOf, pathOf } from './levels'
import { useRenditions } from './useRenditions'

let calls: Call[]
const target = (id: string, peak: number) => ({ id, name: id, rendition: { peak, black: 0, gamut: 'bt709' } }) as Target
const number = (name: string, neutral: number) => ({ name, label: name, channels: null, unit: 'ratio', min: -2, max: 2, neutral, about: '', suffix: '', decimals: 3, nudge: 0.01 })
const kind = (id: string, ...parameters: [string, number][]) => ({ id, label: id, order: [], parameters: parameters.map(([name, neutral]) => number(name, neutral)), texts: [], colours: [], curves: [], rows: [] }) as unknown as StepSpec
const list = (): RenditionList => ({
  hdr: target('hdr', 1000),
  targets: [target('small', 100), target('large', 600)],
  listed: [],
  lift: 0.025,
  shots: [
    { shot: 1, state: 'measured', copied: null, corrected: [], corrections: { ...recipe(50), shot: null, corrects: 1, document: { steps: [] } } },
    { shot: 2, state: 'none', copied: null, corrected: [], corrections: null },
  ],
})

beforeEach(() => {
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
  const cut = useCut()
  cut.cut = cutOf()
  cut.project = cut.cut.project
  useCatalogue().catalogue = { steps: [], corrections: [kind('rendition_all', ['brightness', 0]), kind('rendition', ['contrast', 1])] } as unknown as Catalogue
})
afterEach(() => vi.unstubAllGlobals())

async function loaded() {
  const renditions = useRenditions()
  const loading = renditions.load()
  await settle()
  calls.at(-1)!.answer(200, list())
  await loading
  return renditions
}

describe('renditions', () => {
  it('have steps to correct the open shot with, neutral ones that are not kept until they are touched', async () => {
    const renditions = await loaded()
    const cut = useCut()
    const own = renditions.recipeOf(cut.shots[0]!)
    expect(own?.document.steps.map(({ id, kind, parameters }) => [id, kind, parameters])).toEqual([
      ['all', 'rendition_all', { brightness: 0 }],
      ['small', 'rendition', { contrast: 1 }],
    ])
    expect(calls.filter(({ method }) => method === 'PUT')).toEqual([])
    expect([renditions.stateOf(cut.shots[0]!), renditions.stateOf(cut.shots[1]!)]).toEqual(['measured', 'not measured'])
    own!.document.steps[1]!.parameters['contrast'] = 1.2
    expect([renditions.stateOf(cut.shots[0]!), renditions.proposed?.id]).toEqual(['corrected', 'large'])
    expect(cut.trialOf(cut.shots[0]!).map((one) => one.recipe)).toContain(50)
  })

  it('begin with the smallest, and ask before levels are copied', async () => {
    const renditions = await loaded()
    expect([renditions.proposed?.id, renditions.target?.id]).toEqual(['small', 'small'])
    const taking = renditions.takeLevels(1, [2])
    await settle()
    calls.at(-1)!.answer(409, { error: 'The levels of 1 would stand for 2', confirm: true })
    await taking
    expect(renditions.question).toEqual({ words: 'The levels of 1 would stand for 2', from: 1, shots: [2] })
    expect(calls.at(-1)!.body).toMatchObject({ from: 1, shots: [2], confirm: false })
  })
})

describe('levels', () => {
  it('stand in equal steps of stops', () => {
    expect(heightOf(20) - heightOf(10)).toBeCloseTo(heightOf(400) - heightOf(200), 6)
    expect([heightOf(0), heightOf(100_000)]).toEqual([0, 1])
    expect(
      pathOf(
        [
          [0, 5],
          [10, 2],
        ],
        40,
      ),
    ).toBe('M0.0 5.0L10.0 2.0L40 2.0')
    expect(pathOf([], 40)).toBe('')
  })
})
