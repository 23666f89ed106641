import type { Output } from '@/api/delivery'

/** Frames a second of an output that is being rendered, since it began; null before anything can be said. */
export function speedOf(output: Output, now = Date.now()): number | null {
  const seconds = output.started ? (now - Date.parse(output.started)) / 1000 : 0
  return output.status === 'running' && seconds > 0 && output.done > 0 ? output.done / seconds : null
}

/** Time that is left, in words. */
export function leftOf(output: Output, now = Date.now()): string | null {
  const speed = speedOf(output, now)
  if (!speed) return null
  const seconds = Math.ceil((output.frames - output.done) / speed)
  if (seconds < 90) return `${seconds} s left`
  return seconds < 5400 ? `${Math.round(seconds / 60)} min left` : `${(seconds / 3600).toFixed(1)} h left`
}
