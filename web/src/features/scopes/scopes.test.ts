import type { BandSet, Quantity } from '@/api/catalogue'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { installBrowser, installServer } from '@/test/browser'
import { cut as cutOf } from '@/test/production'
import { useMarks } from '../bench/useMarks'
import { useCut } from '../cut/useCut'
import { bandWords, equal, limitMoved, parted, placeOf, rangeOf, valueAt, without } from './bandEdit'
import { pointAt, seen } from './solidView'
import { useScopes } from './useScopes'

const quantity = (change: Partial<Quantity> = {}): Quantity => ({ id: 'luma', label: 'luma', unit: '%', min: 0, max: 1, log: false, ...change })
const set = (change: Partial<BandSet> = {}): BandSet => ({ name: 'x', quantity: 'luma', scale: 'absolute', join: 'hard', rest: 'grey', opacity: 1, softness: 0, bands: [], ...change })
const band = (from: number, to: number, colour = '#000000') => ({ from, to, colour })

describe('editing bands', () => {
  const whole: [number, number, boolean] = [0, 1, false]

  it('moves a limit, with the neighbour that touches it', () => {
    const bands = [band(0, 0.5), band(0.5, 1)]
    expect(limitMoved(bands, 0, 'to', 0.3, whole)).toEqual([band(0, 0.3), band(0.3, 1)])
    expect(limitMoved([band(0, 0.4), band(0.6, 1)], 0, 'to', 0.5, whole)).toEqual([band(0, 0.5), band(0.6, 1)])
  })

  it('never passes a neighbour nor turns a band inside out', () => {
    expect(limitMoved([band(0, 0.4), band(0.6, 1)], 0, 'to', 0.9, whole)[0]?.to).toBe(0.6)
    expect(limitMoved([band(0.2, 0.5)], 0, 'to', 0, whole)[0]?.to).toBeCloseTo(0.204)
    expect(limitMoved([band(0, 0.5), band(0.5, 1)], 0, 'to', 1, whole)[1]?.from).toBeCloseTo(0.996)
  })

  it('parts bands and takes them away, one being left', () => {
    const two = parted([band(0, 1, '#3d5a70')], 0, whole)
    expect(two.map(({ from, to }) => [from, to])).toEqual([
      [0, 0.5],
      [0.5, 1],
    ])
    expect(two[1]?.colour).not.toBe('#3d5a70')
    expect(without(two, 0)).toHaveLength(1)
    expect(without([band(0, 1)], 0)).toHaveLength(1)
  })

  it('counts along a logarithm where the quantity does', () => {
    const light = quantity({ unit: 'cd/m2', min: 0.01, max: 10_000, log: true })
    const range = rangeOf(set(), light)
    expect([placeOf(10, range), valueAt(0.5, range)].map((x) => Number(x.toFixed(6)))).toEqual([0.5, 10])
    expect(equal(3, range).map(({ to }) => to)).toEqual([1, 100, 10_000])
    expect([bandWords(203, set(), light), bandWords(0.5, set({ scale: 'relative' }), light), bandWords(-2, set(), quantity({ unit: 'st' }))]).toEqual(['203 cd/m2', '50 % of the most', '-2.0 st'])
  })
})

describe('a marked range', () => {
  it('runs from mark to mark, or to the end that is not marked', () => {
    const marks = useMarks(ref(100))
    expect(marks.range.value).toBeNull()
    marks.from(20)
    expect(marks.range.value).toEqual({ first: 20, count: 80 })
    marks.to(29)
    expect(marks.range.value).toEqual({ first: 20, count: 10 })
    marks.from(50) // beyond the other mark
    expect(marks.range.value).toEqual({ first: 50, count: 50 })
    marks.to(10)
    expect(marks.range.value).toEqual({ first: 0, count: 11 })
    marks.clear()
    expect(marks.range.value).toBeNull()
  })
})

describe('the colour solid', () => {
  it('turns about its upright axis, and is tipped towards the eye', () => {
    const turned = seen([1, 0, 0], { yaw: Math.PI / 2, pitch: 0 }).map((x) => Number(x.toFixed(6)))
    expect([turned[0], turned[2]]).toEqual([0, 1])
    expect(seen([0, 0, 1], { yaw: 0.3, pitch: 0 })[1]).toBeCloseTo(1)
    expect(seen([0, 0, 1], { yaw: 0, pitch: Math.PI / 2 })[1]).toBeCloseTo(0)
  })

  it('finds the nearest of the points under a place', () => {
    const solid = { points: new Float32Array([0, -0.5, 0, 0, 0.5, 0, 0.9, 0, 0.9]), colours: new Uint8Array(12) }
    expect(pointAt(solid, { yaw: 0, pitch: 0 }, [0, 0], 0.05)).toBe(0)
    expect(pointAt(solid, { yaw: Math.PI, pitch: 0 }, [0, 0], 0.05)).toBe(1)
    expect(pointAt(solid, { yaw: 0, pitch: 0 }, [-0.9, -0.9], 0.05)).toBe(-1)
  })
})

describe('instruments', () => {
  beforeEach(() => {
    installBrowser()
    installServer()
    setActivePinia(createPinia())
    const cut = useCut()
    cut.cut = cutOf()
    cut.project = cut.cut.project
    cut.project.targets[0]!.scale = {
      percent: [[0, '0']],
      code: [
        [0, '0'],
        [1, '1023'],
      ],
      legal: [
        [0, '64'],
        [1, '940'],
      ],
      luminance: [[1, '100']],
      light: [0, 10, 100],
      absolute: false,
      targets: [],
    }
    useScopes().reset()
  })
  afterEach(() => vi.unstubAllGlobals())

  it('asks only for what is looked at', () => {
    const scopes = useScopes()
    expect(scopes.wanted).toEqual({ traces: true, vectorscope: 1 })
    scopes.change(0, 'histogram')
    scopes.change(1, 'solid')
    expect(scopes.wanted).toEqual({ histogram: true, solid: 'codes' })
  })

  it('holds one to four, whose widths fill the dock', () => {
    const scopes = useScopes()
    for (const kind of ['luma', 'rgb', 'histogram'] as const) scopes.add(kind)
    expect(scopes.slots.map((slot) => slot.kind)).toEqual(['parade', 'vectorscope', 'luma', 'rgb'])
    expect(scopes.slots.reduce((sum, slot) => sum + slot.share, 0)).toBeCloseTo(1)
    scopes.resize(0, -5)
    expect(Math.min(...scopes.slots.map((slot) => slot.share))).toBeGreaterThan(0.1)
    scopes.move(3, -1)
    for (let n = 0; n < 5; n++) scopes.remove(0)
    expect(scopes.slots.map((slot) => [slot.kind, slot.share])).toEqual([['luma', 1]])
  })

  it('reads and writes places in the unit that is shown', () => {
    const scopes = useScopes()
    expect([scopes.words(0.5), scopes.placeOf('1023'), scopes.placeOf('x'), scopes.placeOf('')]).toEqual(['512', 1, null, null])
    scopes.set({ range: 'legal' })
    expect([scopes.words(1), scopes.placeOf('64')]).toEqual(['940', 0])
    scopes.set({ unit: 'percent' })
    expect([scopes.words(0.25), scopes.placeOf('75 %')]).toEqual(['25.0 %', 0.75])
    scopes.set({ unit: 'luminance' })
    expect([scopes.words(0.25), scopes.placeOf('55'), scopes.marks]).toEqual(['5.00 cd/m²', 0.75, [[1, '100']]])
  })

  it('measures the reference that is chosen', () => {
    const scopes = useScopes()
    expect(scopes.beside).toBeNull()
    scopes.set({ beside: 'source' })
    expect(scopes.beside).toEqual({ source: true })
  })
})

describe('instruments', () => {
  beforeEach(() => {
    installBrowser()
    installServer()
    setActivePinia(createPinia())
  })

  it('read all of a picture, what is seen of it where that is chosen, or the region they are restricted to', () => {
    const scopes = useScopes()
    scopes.seen = [0.25, 0.25, 0.5, 0.5]
    expect(scopes.read).toBeNull()
    scopes.set({ seenOnly: true })
    expect(scopes.read).toEqual([0.25, 0.25, 0.5, 0.5])
    scopes.region = [0, 0, 0.1, 0.1]
    expect(scopes.read).toEqual([0, 0, 0.1, 0.1])
    scopes.set({ seenOnly: false })
    scopes.region = null
    expect(scopes.read).toBeNull()
  })
})
