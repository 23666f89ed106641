import type { ScreenSession } from '@/api/screen'

export const PHASES: Record<string, string> = {
  settling: 'how long it takes to settle',
  white: 'the white that is matched by eye',
  before: 'as it is',
  channels: 'greys and channels',
  mixtures: 'mixtures, as its channels couple',
  after: 'as it is corrected',
  drift: 'white, for drift',
}

/** Codes as a colour of the page. */
export const colourOf = (codes: readonly number[]) => `color(srgb ${codes.map((code) => Math.min(1, Math.max(0, code))).join(' ')})`

export function leftWords(seconds: number | null): string {
  if (seconds === null) return ''
  return seconds < 60 ? `${Math.ceil(seconds / 5) * 5} s left` : `${Math.round(seconds / 60)} min left`
}

export const dateOf = (session: ScreenSession) => new Date(session.began).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

/** What a session is, for its line in the list. */
export function sessionWords(session: ScreenSession): string {
  if (session.status === 'running' || session.status === 'waiting') return session.verifies ? 'verifying' : 'measuring'
  if (session.status === 'done') return session.verifies ? 'verified' : 'corrected'
  return session.status === 'failed' ? 'stopped' : session.status
}
