import { onScopeDispose } from 'vue'

/** A key that does something, as the sheet lists it. */
export interface Shortcut {
  /** As KeyboardEvent.key says, in lower case; "mod+" before it for Control or Command. */
  key: string
  words: string
  press: (event: KeyboardEvent) => void
  /** For keys that act while they are held. */
  release?: () => void
}

const listeners: Shortcut[][] = []

/** Does what a key does, for a surface; one that acts while it is held until it is let go. */
export function pressKey(key: string, down: boolean) {
  const found = activeShortcuts().findLast((shortcut) => shortcut.key === key)
  if (down) found?.press(new KeyboardEvent('keydown', { key }))
  else found?.release?.()
}

/** Every key that does something now, for the sheet. */
export const activeShortcuts = () => listeners.flat()

function typing(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.matches('input:not([type=checkbox], [type=radio], [type=range], [type=file]), textarea, select') || target.isContentEditable)
}

function nameOf(event: KeyboardEvent): string {
  const mod = event.ctrlKey || event.metaKey ? 'mod+' : ''
  const shift = event.shiftKey && (mod !== '' || event.key.length > 1 || event.key === ' ' || /^[a-z]$/i.test(event.key)) ? 'shift+' : ''
  // with Shift a digit key says something else in every language
  const digit = /^Digit(\d)$/.exec(event.code)?.[1]
  if (digit && event.shiftKey && mod === '') return `shift+${digit}`
  return mod + shift + (event.key === ' ' ? 'space' : event.key.toLowerCase())
}

/** Binds keys while the calling component lives. Keys typed into fields are left to them. */
export function useKeys(shortcuts: Shortcut[]) {
  const held = new Set<Shortcut>()

  function down(event: KeyboardEvent) {
    if (typing(event.target) || event.altKey) return
    const found = shortcuts.find((shortcut) => shortcut.key === nameOf(event))
    if (!found) return
    // what has the focus is pressed by the space bar
    if (found.key === 'space' && event.target instanceof HTMLElement && event.target.matches('button, a, input')) return
    event.preventDefault()
    if (found.release) {
      if (held.has(found)) return
      held.add(found)
    }
    found.press(event)
  }

  function releaseAll(matching: (shortcut: Shortcut) => boolean) {
    for (const shortcut of [...held].filter(matching)) {
      held.delete(shortcut)
      shortcut.release?.()
    }
  }

  const up = (event: KeyboardEvent) => releaseAll((shortcut) => shortcut.key === event.key.toLowerCase())
  const blur = () => releaseAll(() => true)

  listeners.push(shortcuts)
  window.addEventListener('keydown', down)
  window.addEventListener('keyup', up)
  window.addEventListener('blur', blur)
  onScopeDispose(() => {
    listeners.splice(listeners.indexOf(shortcuts), 1)
    window.removeEventListener('keydown', down)
    window.removeEventListener('keyup', up)
    window.removeEventListener('blur', blur)
  })
}
