import type { Catalogue } from '@/api/catalogue'
import type { StepDocument } from '@/api/recipe'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { installBrowser } from '@/test/browser'
import { useCatalogue } from '../shell/useCatalogue'
import { useCircuit } from './useCircuit'

const step = (id: string, kind: string, bundle?: string): StepDocument => ({ id, kind, name: id, enabled: true, strength: 1, parameters: {}, ...(bundle ? { bundle } : {}) })

beforeEach(() => {
  installBrowser()
  setActivePinia(createPinia())
  useCatalogue().catalogue = {
    steps: [
      ['grain', 'film'],
      ['noise', 'noise'],
      ['balance', null],
    ].map(([id, circuit]) => ({ id, circuit })),
  } as unknown as Catalogue
})
afterEach(() => vi.unstubAllGlobals())

describe('steps out of circuit', () => {
  const document = { steps: [step('a', 'noise'), step('b', 'balance'), step('c', 'balance', 'f'), step('d', 'grain', 'f')], bundles: [{ id: 'f', name: 'Film', enabled: true, strength: 1 }] }
  const on = (made: { steps: StepDocument[] }) =>
    made.steps
      .filter(({ enabled }) => enabled)
      .map(({ id }) => id)
      .join('')

  it('are off in what is seen, film with all that is bundled with it, and come back', () => {
    const circuit = useCircuit()
    expect(circuit.within(document)).toBe(document)
    circuit.flip('film')
    expect([on(circuit.within(document)), circuit.film, circuit.noise, circuit.any]).toEqual(['ab', true, false, true])
    circuit.flip('noise')
    expect(on(circuit.within(document))).toBe('b')
    circuit.flip('film')
    expect(on(circuit.within(document))).toBe('bcd')
    circuit.flip('noise')
    expect([on(circuit.within(document)), circuit.any]).toEqual(['abcd', false])
    expect(on(document)).toBe('abcd')
  })
})
