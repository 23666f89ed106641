import type { GuideReading } from '@/api/readings'

/** Whether a guide is met, in words: how far it is, or how much of the picture lies beyond. */
export function touchWords({ state, codes, beyond }: GuideReading): string {
  if (state === 'met') return 'met'
  return state === 'past' ? `past by ${(beyond * 100).toFixed(beyond < 0.1 ? 1 : 0)} %` : `${codes} to go`
}
