import type { Directive } from 'vue'

const EDGE = 8 // px that stay free at the window's edges

/** A box, and the window it is in. */
export interface Box {
  left: number
  top: number
  width: number
  height: number
}

/** Where a box that was laid out at some place is whole within a window; too tall ones are as tall as that. */
export function placedInside(box: Box, window_: { width: number; height: number }): Box {
  const height = Math.min(box.height, window_.height - 2 * EDGE)
  const held = (at: number, size: number, room: number) => Math.max(EDGE, Math.min(at, room - EDGE - size))
  return { left: held(box.left, box.width, window_.width), top: held(box.top, height, window_.height), width: box.width, height }
}

const watched = new WeakMap<HTMLElement, () => void>()

/** A menu that opens whole inside the window, whatever it stands in cuts off. */
export const inside: Directive<HTMLElement> = {
  mounted(element) {
    if (!(element instanceof HTMLElement)) return
    const settle = () => {
      observer.disconnect()
      Object.assign(element.style, { position: '', left: '', top: '', right: '', bottom: '', margin: '', minWidth: '', maxHeight: '', overflowY: '' })
      const laid = element.getBoundingClientRect()
      const { left, top, height } = placedInside(laid, { width: window.innerWidth, height: window.innerHeight })
      Object.assign(element.style, { position: 'fixed', left: `${left}px`, top: `${top}px`, right: 'auto', bottom: 'auto', margin: '0', minWidth: `${laid.width}px` })
      if (height < laid.height) Object.assign(element.style, { maxHeight: `${height}px`, overflowY: 'auto' })
      requestAnimationFrame(() => element.isConnected && observer.observe(element))
    }
    let first = true
    const observer = new ResizeObserver(() => (first ? (first = false) : settle()))
    window.addEventListener('resize', settle)
    watched.set(element, () => {
      observer.disconnect()
      window.removeEventListener('resize', settle)
    })
    settle()
  },
  beforeUnmount(element) {
    watched.get(element)?.()
  },
}
