import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import { installBrowser } from '@/test/browser'
import { activeShortcuts, useKeys } from './useKeys'

let target: EventTarget
let scope: EffectScope

beforeEach(() => {
  target = installBrowser()
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.unstubAllGlobals()
})

function press(key: string, kind = 'keydown', held: Partial<KeyboardEvent> = {}) {
  const event = Object.assign(new Event(kind, { cancelable: true }), { key, ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...held })
  target.dispatchEvent(event)
  return event
}

describe('useKeys', () => {
  it('does what a key is for, and nothing for others', () => {
    const act = vi.fn()
    scope.run(() => useKeys([{ key: 'q', words: 'previous shot', press: act }]))
    expect(press('q').defaultPrevented).toBe(true)
    expect(press('x').defaultPrevented).toBe(false)
    expect(act).toHaveBeenCalledOnce()
  })

  it('tells keys with Control and Shift apart', () => {
    const [undo, redo] = [vi.fn(), vi.fn()]
    scope.run(() => useKeys([{ key: 'mod+z', words: '', press: undo }, { key: 'mod+shift+z', words: '', press: redo }]))
    press('z', 'keydown', { ctrlKey: true })
    press('Z', 'keydown', { metaKey: true, shiftKey: true })
    press('z')
    expect([undo.mock.calls.length, redo.mock.calls.length]).toEqual([1, 1])
  })

  it('acts once while a key is held, and lets go with it or with the window', () => {
    const [down, up] = [vi.fn(), vi.fn()]
    scope.run(() => useKeys([{ key: 'w', words: '', press: down, release: up }]))
    press('w')
    press('w')
    expect(down).toHaveBeenCalledOnce()
    press('w', 'keyup')
    expect(up).toHaveBeenCalledOnce()
    press('w')
    target.dispatchEvent(new Event('blur'))
    expect(up).toHaveBeenCalledTimes(2)
  })

  it('lists what is active, until its component goes', () => {
    scope.run(() => useKeys([{ key: 'q', words: 'previous shot', press: vi.fn() }]))
    expect(activeShortcuts().map((one) => one.words)).toEqual(['previous shot'])
    scope.stop()
    expect(activeShortcuts()).toEqual([])
  })
})
