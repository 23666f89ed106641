import type { ParameterSpec, StepSpec } from '@/api/declared'
import { describe, expect, it } from 'vitest'
import { step } from '@/test/production'
import { addressed, addressOf, addressWords, nudged } from './address'
import { quickOrder, readingOf } from './quickOrder'
import { limitsMoved } from './zones'

const parameter = (name: string, channels: string[] | null = null): ParameterSpec => ({
  name,
  label: name,
  channels,
  unit: 'x',
  min: -1,
  max: 1,
  neutral: 0,
  about: '',
  suffix: '',
  decimals: 2,
  nudge: 0.1,
})
const specs = [{ id: 'balance', label: 'Balance', parameters: [parameter('exposure'), parameter('gain', ['master', 'red'])] }] as StepSpec[]

describe('addresses', () => {
  it('find a number whatever the shot, and refuse what is none', () => {
    expect(addressOf('balance', 'gain', 1)).toBe('balance.gain.1')
    expect(addressed('balance.gain.1', specs)).toMatchObject({ kind: 'balance', index: 1 })
    expect(addressed('balance.exposure', specs)).toMatchObject({ index: null })
    for (const wrong of ['balance.gain', 'balance.gain.2', 'balance.exposure.0', 'moon.exposure', '']) expect(addressed(wrong, specs)).toBeNull()
    expect(addressWords('balance.gain.1', specs)).toBe('Balance, gain red')
  })

  it('nudge a number within its range, alone of its row', () => {
    const at = (address: string) => addressed(address, specs)!
    expect(nudged(step(0.2), at('balance.exposure'), 3)).toBe(0.5)
    expect(nudged(step(0.9), at('balance.exposure'), 9)).toBe(1)
    expect(nudged({ ...step(0), parameters: { gain: [0.1, 0.2] } }, at('balance.gain.1'), -1)).toEqual([0.1, 0.1])
    expect(nudged({ ...step(0), parameters: {} }, at('balance.gain.0'), 1)).toEqual([0.1, 0])
  })
})

describe('the quick order', () => {
  const extents = { luma: [0.02, 0.4, 0.9], red: [0.01, 0.41, 0.88], green: [0.03, 0.4, 0.9], blue: [0, 0.39, 0.95] } as Parameters<typeof readingOf>[1]
  const read = (name: string, place: number | null) =>
    readingOf(
      quickOrder.find((line) => line.name === name)!,
      extents,
      place,
    )

  it('runs from contrast to saturation', () => {
    expect(quickOrder.map((line) => line.name)).toEqual(['contrast', 'pivot', 'offset', 'temperature', 'tint', 'gain', 'gamma', 'saturation'])
  })

  it('reads beside each line what it is judged by', () => {
    expect(read('contrast', null)).toBe('green 3.0 to 90.0 %')
    expect([0, 1, 2, 3].map((place) => read('offset', place))).toEqual(['2.0', '1.0', '3.0', '0.0'])
    expect(read('temperature', null)).toBe('peak: red 88.0 blue 95.0')
    expect(read('tint', null)).toBe('peak: green 90.0, others 91.5')
    expect([read('gain', 3), read('gamma', 1), read('saturation', null)]).toEqual(['95.0', '41.0', ''])
    expect(readingOf(quickOrder[0]!, null, null)).toBe('')
  })
})

describe('limits of zones', () => {
  it('move between their neighbours', () => {
    expect(limitsMoved([0, 0, 0, 0], [-5, -2, 1, 3], 1, 0.5)).toEqual([0, 0.5, 0, 0])
    expect(limitsMoved([0, 0, 0, 0], [-5, -2, 1, 3], 1, 9)).toEqual([0, 2.9, 0, 0])
    expect(limitsMoved([0.5, 0, 0, 0], [-4.5, -2, 1, 3], 0, -0.25)).toEqual([0.25, 0, 0, 0])
  })
})
