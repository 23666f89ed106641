import { onScopeDispose } from 'vue'

/** How a drag or a nudge is scaled by the keys held with it. */
export function fineness(event: { shiftKey: boolean; altKey: boolean }): number {
  if (event.altKey) return 0.1
  return event.shiftKey ? 5 : 1
}

const ARROWS: Record<string, number> = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }

/** Nudges an arrow key stands for, coarse and fine as a drag; 0 for other keys. */
export const nudges = (event: KeyboardEvent) => (ARROWS[event.key] ?? 0) * fineness(event)

/** Keys that put a focused control back to neutral. */
export const isReset = (event: KeyboardEvent) => event.key === 'Backspace' || event.key === 'Delete'

export interface DragHandlers {
  /** Called once when the pointer has moved far enough to mean a drag. */
  start?: () => void
  /** Pixels since the last call, already scaled by coarse and fine. */
  move: (dx: number, dy: number) => void
  end?: () => void
  /** The pointer went down and up in place. */
  click?: (event: PointerEvent) => void
}

const SLACK = 3 // px before it is a drag

/** Follows a pointer from its press to its release. */
export function followDrag(event: PointerEvent, handlers: DragHandlers) {
  if (event.button !== 0) return
  const target = event.currentTarget as Element
  target.setPointerCapture(event.pointerId)
  let { clientX: x, clientY: y } = event
  let dragging = false

  function move(next: PointerEvent) {
    if (!dragging && Math.hypot(next.clientX - event.clientX, next.clientY - event.clientY) < SLACK) return
    if (!dragging) handlers.start?.()
    dragging = true
    const scale = fineness(next)
    handlers.move((next.clientX - x) * scale, (next.clientY - y) * scale)
    x = next.clientX
    y = next.clientY
  }

  function up(last: PointerEvent) {
    target.removeEventListener('pointermove', move as EventListener)
    target.removeEventListener('pointerup', up as EventListener)
    target.removeEventListener('pointercancel', up as EventListener)
    if (dragging) handlers.end?.()
    else if (last.type === 'pointerup') handlers.click?.(last)
  }

  target.addEventListener('pointermove', move as EventListener)
  target.addEventListener('pointerup', up as EventListener)
  target.addEventListener('pointercancel', up as EventListener)
}

const NUDGES_APART = 500 // ms that still belong to one change

/** Keys pressed one after another count as one drag: returns what to call at each. */
export function useNudging(begin: () => void, end: () => void) {
  let timer = 0
  function finish() {
    if (timer === 0) return
    clearTimeout(timer)
    timer = 0
    end()
  }
  onScopeDispose(finish)
  return () => {
    if (timer === 0) begin()
    clearTimeout(timer)
    timer = window.setTimeout(finish, NUDGES_APART)
  }
}
