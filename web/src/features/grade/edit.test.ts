import type { ColourSpec, DeclaredSpec, HandleSpec, ParameterSpec } from '@/api/declared'
import type { RecipeDocument } from '@/api/recipe'
import { describe, expect, it } from 'vitest'
import { deviation, moved, neutralOf, newContributor, partsOf, shownValue, summary, typedValue, besideAbove, withBeside, withCopy, withCourses, withMatte, withMoved, withoutStep, withParameter } from './edit'

const gain: ParameterSpec = {
  name: 'gain',
  label: 'gain',
  channels: ['master', 'red', 'green', 'blue'],
  unit: 'ratio',
  min: 0,
  max: 4,
  neutral: 1,
  about: '',
  suffix: '',
  decimals: 3,
  nudge: 0.01,
}
const lift: ParameterSpec = { ...gain, name: 'lift', unit: 'tone', min: -0.5, max: 0.5, neutral: 0, suffix: '%', decimals: 1, shown_times: 100 }
const warmth: HandleSpec = { stave: 'warmth', zone: 'high', parameter: 'gain', direction: [0, 0.5, 0, -0.5], at: 0.9 }

describe('handles of the staves', () => {
  it('read back what they were moved by', () => {
    const row = moved([1, 1, 1, 1], warmth, gain, 0.2)
    expect(row).toEqual([1, 1.1, 1, 0.9])
    expect(deviation(row, warmth, gain)).toBeCloseTo(0.2)
  })

  it('leave alone what lies across them', () => {
    expect(deviation([1.5, 1.2, 1.2, 1.2], warmth, gain)).toBeCloseTo(0)
  })

  it('stay in the declared range', () => {
    expect(moved([1, 3.9, 1, 0.1], warmth, gain, 1)).toEqual([1, 4, 1, 0])
  })
})

describe('numbers', () => {
  it('are shown and typed in the unit of the parameter', () => {
    expect(shownValue(-0.025, lift)).toBe('−2.5')
    expect(shownValue(-0.0001, lift)).toBe('0.0')
    expect(typedValue('−2,5 %', lift)).toBeCloseTo(-0.025)
    expect(typedValue('99', lift)).toBe(0.5)
    expect(typedValue('warm', lift)).toBeNull()
  })

  it('change one parameter and no other document', () => {
    const before: RecipeDocument = { steps: [{ id: 'a', kind: 'balance', name: 'Balance', enabled: true, strength: 1, parameters: { exposure: 0, tint: 3 } }] }
    const after = withParameter(before, 'a', 'exposure', 1)
    expect(after.steps[0]?.parameters).toEqual({ exposure: 1, tint: 3 })
    expect(before.steps[0]?.parameters.exposure).toBe(0)
  })
})

describe('the order of steps', () => {
  const steps = ['a', 'b', 'c'].map((id) => ({ id, kind: 'balance', name: id, enabled: true, strength: 1, parameters: {} }))
  const order = (document: RecipeDocument) => document.steps.map((one) => one.name).join('')

  it('changes by moving one, up, down and to the ends', () => {
    expect(order(withMoved({ steps }, 'a', 2))).toBe('bca')
    expect(order(withMoved({ steps }, 'c', 0))).toBe('cab')
    expect(order(withMoved({ steps }, 'x', 0))).toBe('abc')
  })

  it('has a copy right after its original', () => {
    const copied = withCopy({ steps }, 'b', 'new')
    expect(order(copied)).toBe('abb copyc')
    expect(copied.steps[2]?.id).toBe('new')
    expect(steps).toHaveLength(3)
  })

  it('puts a step beside the one above, and takes it out again', () => {
    const beside = withBeside({ steps }, 'b', 'x')
    expect(beside.steps.map((one: { braid?: string }) => one.braid)).toEqual(['x', 'x', undefined])
    expect([0, 1, 2].map((index) => besideAbove(beside.steps, index))).toEqual([false, true, false])
    const three = withBeside(beside, 'c', 'y')
    expect(three.steps.map((one) => one.braid)).toEqual(['x', 'x', 'x'])
    expect(withBeside(three, 'c', 'z').steps[2]?.braid).toBeUndefined()
    expect(withBeside({ steps }, 'a', 'x')).toEqual({ steps })
  })
})

describe('courses of a step', () => {
  const document: RecipeDocument = {
    steps: [{ id: 'a', kind: 'balance', name: 'Balance', enabled: true, strength: 1, parameters: { exposure: 0 } }],
    spans: [{ id: 's', name: 's', start: 0, finish: 1, fade_in: [0, 0], fade_out: [0, 0], curve: 'cosine' }],
  }

  it('come with what stands still, and go without a trace; spans stay', () => {
    const made = withCourses(document, 'a', { exposure: [{ frame: 2, value: 3 }] }, { contrast: 1.1 })
    expect(made).toEqual({ ...document, steps: [{ ...document.steps[0], keys: { exposure: [{ frame: 2, value: 3 }] }, parameters: { exposure: 0, contrast: 1.1 } }] })
    expect(withCourses(made, 'a', {}).steps[0]?.keys).toBeUndefined()
    expect([withMoved(document, 'a', 0), withCopy(document, 'a', 'b'), withoutStep(document, 'a')].map(({ spans }) => spans?.length)).toEqual([1, 1, 1])
  })
})

describe('mattes and colours', () => {
  const document: RecipeDocument = { steps: [{ id: 'a', kind: 'balance', name: 'A', enabled: true, strength: 1, parameters: {} }] }
  const radii: ParameterSpec = { ...gain, name: 'radii', channels: ['across', 'down'], neutral: 0.25 }
  const ellipse: DeclaredSpec = { id: 'ellipse', label: 'Ellipse', order: ['radii'], parameters: [radii], texts: [], colours: [], curves: [], rows: [] }

  it('give a step what it acts on, and take it away with the last contributor', () => {
    const part = newContributor(ellipse, 'e')
    expect(part).toEqual({ id: 'e', kind: 'ellipse', mode: 'add', softness: 0, invert: false, strength: 1, parameters: { radii: [0.25, 0.25] } })
    const made = withMatte(document, 'a', { contributors: [part], strength: 0.5 })
    expect(made.steps[0]?.matte).toEqual({ contributors: [part], strength: 0.5 })
    expect(withMatte(made, 'a', { contributors: [], strength: 0.5 }).steps[0]?.matte).toBeUndefined()
  })

  it('are three numbers of their own', () => {
    const colour: ColourSpec = { name: 'towards', label: 'towards', neutral: [30, 0, 0.5], about: '', ranges: { hue: [0, 360], chroma: [0, 1], lightness: [0, 1] } }
    expect(neutralOf(colour)).toEqual([30, 0, 0.5])
    expect(partsOf(colour).map(({ label, max, neutral, suffix }) => [label, max, neutral, suffix])).toEqual([
      ['towards hue', 360, 30, '°'],
      ['towards chroma', 1, 0, ''],
      ['towards lightness', 1, 0.5, ''],
    ])
  })
})

it('says of a step in one line what stands still in it', () => {
  const parameter = (name: string): ParameterSpec => ({ name, label: name, min: -4, max: 4, neutral: 0, suffix: 'st', decimals: 2 }) as ParameterSpec
  const spec = { texts: [], curves: [], parameters: [parameter('exposure'), parameter('tint')] } as never
  const step = { id: 'a', kind: 'balance', name: 'Balance', enabled: true, strength: 1, parameters: { exposure: 0.5, tint: 1 } }
  expect(summary(step, spec)).toMatch(/^exposure .*0\.50? st · tint .*1.* st$/)
  expect(summary({ ...step, keys: { exposure: [{ frame: 0, value: 0.8, ease: 'straight' }] } } as never, spec)).toMatch(/^tint /)
})
