import type { Role } from '@/api/people'

export const ROLE_WORDS: Record<Role, string> = { look: 'looks', grade: 'grades', deliver: 'grades and delivers', administer: 'administers' }

/** What a role may do, for whoever gives it. */
export const ROLE_ABOUT: Record<Role, string> = {
  look: 'sees everything and leaves notes',
  grade: 'takes in, cuts, grades, matches, measures screens',
  deliver: 'grades, and orders and fetches deliveries',
  administer: 'all of it, makes accounts, deletes projects',
}

/** A browser as a person names it, of what it says of itself. */
export function browserWords(agent: string): string {
  const system = /Windows|Macintosh|Android|iPhone|iPad|Linux/.exec(agent)?.[0] ?? ''
  const name = /(Firefox|Edg|Chrome|Safari)\//.exec(agent)?.[1] ?? 'a browser'
  return [name === 'Edg' ? 'Edge' : name, system === 'Macintosh' ? 'Mac' : system].filter(Boolean).join(' on ')
}

/** Time of day where it is today, else the date too. */
export function shortTime(at: string, now = new Date()): string {
  const when = new Date(at)
  const clock = when.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  return when.toDateString() === now.toDateString() ? clock : `${when.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })} ${clock}`
}
