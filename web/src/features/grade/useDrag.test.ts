import { describe, expect, it } from 'vitest'
import { fineness, isReset, nudges } from './useDrag'

const key = (name: string, held: Partial<KeyboardEvent> = {}) => ({ key: name, shiftKey: false, altKey: false, ...held }) as KeyboardEvent

describe('keys on a focused control', () => {
  it('nudge up and right, down and left, coarse with Shift and fine with Alt', () => {
    expect(['ArrowUp', 'ArrowRight', 'ArrowDown', 'ArrowLeft'].map((name) => nudges(key(name)))).toEqual([1, 1, -1, -1])
    expect(nudges(key('ArrowUp', { shiftKey: true }))).toBe(fineness({ shiftKey: true, altKey: false }))
    expect(nudges(key('ArrowDown', { altKey: true }))).toBeCloseTo(-0.1)
    expect(nudges(key('a'))).toBe(0)
  })

  it('go back to neutral with Backspace and Delete', () => {
    expect(['Backspace', 'Delete', 'Enter'].map((name) => isReset(key(name)))).toEqual([true, true, false])
  })
})
