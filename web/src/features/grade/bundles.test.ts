import type { RecipeDocument, StepDocument } from '@/api/recipe'
import { describe, expect, it } from 'vitest'
import { allOf, bundledAbove, bundleMoved, runsOf, tidied, unbundled, withBundle, withLook, withoutBundle } from './bundles'
import { withMoved } from './edit'

const step = (id: string, bundle?: string): StepDocument => ({ id, kind: 'balance', name: id, enabled: true, strength: 1, parameters: {}, ...(bundle ? { bundle } : {}) })
const film = { id: 'f', name: 'Film', enabled: true, strength: 1 }
const document: RecipeDocument = { steps: [step('a'), step('b', 'f'), step('c', 'f'), step('d')], bundles: [film] }
const shape = (made: RecipeDocument) =>
  runsOf(made)
    .map((run) => `${run.bundle?.name ?? ''}(${run.steps.map(({ id }) => id).join('')})`)
    .join(' ')

describe('bundles', () => {
  it('are runs of neighbours', () => {
    expect(shape(document)).toBe('(a) Film(bc) (d)')
    expect(shape({ steps: [] })).toBe('')
  })

  it('take in what comes between their steps, and let go what leaves', () => {
    expect(shape(tidied(withMoved(document, 'a', 1), 'a'))).toBe('Film(bac) (d)')
    expect(shape(tidied(withMoved(document, 'b', 3), 'b'))).toBe('(a) Film(c) (d) (b)')
    expect(shape(tidied(withMoved(document, 'b', 2), 'b'))).toBe('(a) Film(cb) (d)')
    const one = tidied(withMoved({ ...document, steps: [step('a'), step('b', 'f')] }, 'b', 0), 'b')
    expect([shape(one), one.bundles]).toEqual(['Film(b) (a)', [film]])
    expect(tidied({ ...document, steps: [step('a')] }).bundles).toBeUndefined()
  })

  it('begin with the step above, and grow by it', () => {
    const made = bundledAbove({ steps: [step('a'), step('b'), step('c')] }, 'b', 'n')
    expect([shape(made), made.bundles?.length]).toEqual(['Bundle(ab) (c)', 1])
    expect(shape(bundledAbove(made, 'c', 'm'))).toBe('Bundle(abc)')
    expect(shape(bundledAbove({ ...made, steps: [...made.steps.slice(0, 2), { ...step('c'), braid: 'x' }, { ...step('d'), braid: 'x' }] }, 'c', 'm'))).toBe('Bundle(abcd)')
    expect(shape(bundledAbove(document, 'd', 'm'))).toBe('(a) Film(bcd)')
  })

  it('are changed, moved, taken apart and taken away as one', () => {
    expect(withBundle(document, 'f', { strength: 0.5 }).bundles).toEqual([{ ...film, strength: 0.5 }])
    expect(allOf(document, 'f', false).steps.map(({ enabled }) => enabled)).toEqual([true, false, false, true])
    expect([shape(bundleMoved(document, 'f', -1)), shape(bundleMoved(document, 'f', 1)), shape(bundleMoved(bundleMoved(document, 'f', -1), 'f', -1))]).toEqual(['Film(bc) (a) (d)', '(a) (d) Film(bc)', 'Film(bc) (a) (d)'])
    expect([shape(unbundled(document, 'f')), shape(withoutBundle(document, 'f'))]).toEqual(['(a) (b) (c) (d)', '(a) (d)'])
    expect(withoutBundle(document, 'f').bundles).toBeUndefined()
  })

  it('come with a look under ids of their own', () => {
    let count = 0
    const made = withLook(document, { steps: [step('0', 'x'), step('1', 'x')], bundles: [{ ...film, id: 'x' }] }, () => `n${++count}`)
    expect(shape(made.document)).toBe('(a) Film(bc) (d) Film(n2n3)')
    expect(made.document.bundles?.map(({ id }) => id)).toEqual(['f', 'n1'])
    expect(withLook({ steps: [] }, { steps: [step('0')], bundles: [] }, () => 'n').document.bundles).toBeUndefined()
  })
})
