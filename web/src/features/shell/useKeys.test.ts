import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import { installBrowser } from '@/test/browser'
import { activeShortcuts, matches, shownKey, topics, useKeys } from './useKeys'

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
  const { target: focused, ...rest } = held
  const event = Object.assign(new Event(kind, { cancelable: true }), { key, ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...rest })
  if (focused) Object.defineProperty(event, 'target', { value: focused })
  target.dispatchEvent(event)
  return event
}

describe('useKeys', () => {
  it('does what a key is for, and nothing for others', () => {
    const act = vi.fn()
    scope.run(() => useKeys('trial', [{ key: 'q', words: 'previous shot', press: act }]))
    expect(press('q').defaultPrevented).toBe(true)
    expect(press('x').defaultPrevented).toBe(false)
    expect(act).toHaveBeenCalledOnce()
  })

  it('tells keys with Control and Shift apart', () => {
    const [undo, redo] = [vi.fn(), vi.fn()]
    scope.run(() =>
      useKeys('trial', [
        { key: 'mod+z', words: '', press: undo },
        { key: 'mod+shift+z', words: '', press: redo },
      ]),
    )
    press('z', 'keydown', { ctrlKey: true })
    press('Z', 'keydown', { metaKey: true, shiftKey: true })
    press('z')
    expect([undo.mock.calls.length, redo.mock.calls.length]).toEqual([1, 1])
  })

  it('acts once while a key is held, and lets go with it or with the window', () => {
    const [down, up] = [vi.fn(), vi.fn()]
    scope.run(() => useKeys('trial', [{ key: 'w', words: '', press: down, release: up }]))
    press('w')
    press('w')
    expect(down).toHaveBeenCalledOnce()
    press('w', 'keyup')
    expect(up).toHaveBeenCalledOnce()
    press('w')
    target.dispatchEvent(new Event('blur'))
    expect(up).toHaveBeenCalledTimes(2)
  })

  it('leaves Enter to a button that was reached with Tab, until a key or the pointer has done something else', () => {
    const [open, next] = [vi.fn(), vi.fn()]
    const button = Object.assign(new HTMLElement(), { matches: (selector: string) => selector.includes('button'), closest: () => null })
    const enter = () => press('Enter', 'keydown', { target: button } as Partial<KeyboardEvent>).defaultPrevented
    scope.run(() =>
      useKeys('the Board', [
        { key: 'enter', words: 'to the Bench', press: open },
        { key: 'e', words: 'next shot', press: next },
      ]),
    )
    expect(enter()).toBe(true)
    press('Tab')
    expect([enter(), enter(), open.mock.calls.length]).toEqual([false, false, 1])
    press('e')
    expect([enter(), open.mock.calls.length]).toEqual([true, 2])
    press('Tab')
    target.dispatchEvent(new Event('pointerdown'))
    expect([enter(), open.mock.calls.length]).toEqual([true, 3])
  })

  it('lists by topic what can be done, without keys that something above has taken', () => {
    scope.run(() => {
      useKeys('the shot', [
        { key: 'n', words: 'notes', press: vi.fn() },
        { key: '', words: 'add Balance', press: vi.fn() },
        { key: 'x', words: '', press: vi.fn() },
      ])
      useKeys('the open step', [
        { key: 'n', words: 'pick a colour', press: vi.fn() },
        { key: '', words: 'add Curves', press: vi.fn() },
      ])
    })
    expect(topics().map(({ topic, acts }) => [topic, acts.map(({ words }) => words)])).toEqual([
      ['the open step', ['pick a colour', 'add Curves']],
      ['the shot', ['add Balance']],
    ])
    expect(['lift', 'gain master'].map((typed) => matches('Balance: master gain, lift', typed))).toEqual([true, true])
    expect(matches('Balance', 'bal x')).toBe(false)
    expect(['mod+shift+z', 'space', 'arrowleft', '?'].map(shownKey)).toEqual(['Ctrl Shift Z', 'Space', 'Left', '?'])
  })

  it('lists what is active, until its component goes', () => {
    scope.run(() => useKeys('trial', [{ key: 'q', words: 'previous shot', press: vi.fn() }]))
    expect(activeShortcuts().map((one) => one.words)).toEqual(['previous shot'])
    scope.stop()
    expect(activeShortcuts()).toEqual([])
  })
})
