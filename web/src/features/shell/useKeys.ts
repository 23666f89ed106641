import { onScopeDispose } from 'vue'

/** Something that can be done, as the sheet lists it; by a key or, without one, by its name alone. */
export interface Shortcut {
  /** As KeyboardEvent.key says, in lower case; "mod+" before it for Control or Command. Empty: none. */
  key: string
  words: string
  press: (event: KeyboardEvent) => void
  /** For keys that act while they are held. */
  release?: () => void
}

/** Does what a key does, for a surface; one that acts while it is held until it is let go. */
export function pressKey(key: string, down: boolean) {
  const found = activeShortcuts().findLast((shortcut) => shortcut.key === key)
  if (down) found?.press(new KeyboardEvent('keydown', { key }))
  else found?.release?.()
}

/** Everything that can be done now. */
export const activeShortcuts = () => layers.flatMap((layer) => layer.shortcuts)

/** The same by topic, for the sheet; what a layer above has taken a key from is left out. */
export function topics(): { topic: string; acts: Shortcut[] }[] {
  const found = new Map<string, Shortcut[]>()
  const taken = new Set<string>()
  for (const { topic, shortcuts } of [...layers].reverse()) {
    const acts = shortcuts.filter(({ key, words }) => words !== '' && !taken.has(key))
    for (const { key } of shortcuts) if (key !== '') taken.add(key)
    if (acts.length > 0) found.set(topic, [...(found.get(topic) ?? []), ...acts])
  }
  return [...found].map(([topic, acts]) => ({ topic, acts }))
}

/** Whether typed letters are in a text: each word of them somewhere in it. */
export const matches = (text: string, typed: string) =>
  typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.toLowerCase().includes(word))

/** A key as it stands on a keyboard. */
export const shownKey = (key: string) =>
  key
    .replace('mod+', 'Ctrl ')
    .replace('shift+', 'Shift ')
    .replace('space', 'Space')
    .replace('enter', 'Enter')
    .replace('escape', 'Esc')
    .replace(/arrow(\w)/, (_, letter: string) => letter.toUpperCase())
    .replace(/\b[a-z]$/, (letter) => letter.toUpperCase())

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

/** What has bound keys and what of it is held, the topmost last. */
interface Layer {
  topic: string
  shortcuts: Shortcut[]
  held: Set<Shortcut>
}
const layers: Layer[] = []

/** The topmost layer that knows a key, which alone acts. */
function bound(event: KeyboardEvent): { layer: Layer; shortcut: Shortcut } | null {
  if (typing(event.target) || event.altKey || event.defaultPrevented) return null
  const name = nameOf(event)
  for (const layer of [...layers].reverse()) {
    const shortcut = layer.shortcuts.find((one) => one.key === name)
    if (shortcut) return { layer, shortcut }
  }
  return null
}

function down(event: KeyboardEvent) {
  const found = bound(event)
  if (!found) return
  const { layer, shortcut } = found
  if (shortcut.key === 'space' && event.target instanceof HTMLElement && event.target.matches('input, [role=option]')) return
  if (reached(event)) return
  tabbed = false
  event.preventDefault()
  if (shortcut.release) {
    if (layer.held.has(shortcut)) return
    layer.held.add(shortcut)
  }
  shortcut.press(event)
}

const PRESSED = 'button, a, [role=button]'
// whether the hand went with Tab to what has the focus, and has done nothing else since
let tabbed = false
const pointed = () => (tabbed = false)
const reached = (event: KeyboardEvent) => event.key === 'Enter' && tabbed && event.target instanceof HTMLElement && event.target.matches(PRESSED)

/** Where the space bar means something a focused button is pressed by Enter alone; where Enter does, only by one that was reached with Tab. */
function spare(event: KeyboardEvent) {
  if (event.key === 'Tab') tabbed = true
  if (![' ', 'Enter'].includes(event.key) || !(event.target instanceof HTMLElement) || !event.target.matches(PRESSED)) return
  if (event.target.closest('[role=dialog], [role=menu], [role=listbox]') || reached(event) || !bound(event)) return
  if (event.type === 'keydown') down(event)
  event.preventDefault()
  event.stopImmediatePropagation()
}

function release(layer: Layer, matching: (shortcut: Shortcut) => boolean) {
  for (const shortcut of [...layer.held].filter(matching)) {
    layer.held.delete(shortcut)
    shortcut.release?.()
  }
}
const up = (event: KeyboardEvent) => layers.forEach((layer) => release(layer, (shortcut) => shortcut.key === event.key.toLowerCase()))
const blur = () => layers.forEach((layer) => release(layer, () => true))

function listen(way: 'addEventListener' | 'removeEventListener') {
  window[way]('keydown', spare as EventListener, { capture: true })
  window[way]('keyup', spare as EventListener, { capture: true })
  window[way]('pointerdown', pointed, { capture: true })
  window[way]('keydown', down as EventListener)
  window[way]('keyup', up as EventListener)
  window[way]('blur', blur)
}

/**
 * Binds keys while the calling component lives. Keys typed into fields are left to them; of
 * several that bind a key the one that came last is on top, and acts alone.
 *
 * @param topic what they are about, in words
 */
export function useKeys(topic: string, shortcuts: Shortcut[]) {
  const layer: Layer = { topic, shortcuts, held: new Set() }
  if (layers.length === 0) listen('addEventListener')
  layers.push(layer)
  onScopeDispose(() => {
    release(layer, () => true)
    layers.splice(layers.indexOf(layer), 1)
    if (layers.length === 0) listen('removeEventListener')
  })
}
