import type { FullSession, OwnScreen, ScreenSession } from '@/api/screen'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useScreens } from './useScreens'
import { colourOf, leftWords, sessionWords } from './words'

const settings = { target: 'rec709-bt1886', white: 'd65' as const, seen: [1, 1, 1] as [number, number, number], size: 17, range: 'full', drift: 0.005 }
const session = (more: Partial<ScreenSession> = {}): ScreenSession => ({
  id: 7,
  screen: 1,
  verifies: null,
  status: 'running',
  phase: 'before',
  showing: null,
  count: 156,
  done: 3,
  left: 60,
  message: null,
  began: '2026-05-01T10:00:00Z',
  ended: null,
  corrects: false,
  latest: { codes: [1, 0, 0], phase: 'before', light: [40, 21, 2], uv: [0.45, 0.52] },
  settings,
  figures: null,
  ...more,
})
const screen = (): OwnScreen => ({
  id: 1,
  name: 'Desk',
  kind: 'control',
  screen: '127.0.0.1:7311',
  probe: '127.0.0.1:7312',
  settings,
  days: 30,
  canvas: '2.4',
  loaded: null,
  age: null,
  overdue: true,
  words: 'not measured yet',
  sessions: [session()],
})
const full = (): FullSession => ({ ...session(), report: { settings, white: [0.3127, 0.329], drift: 0, seconds: 1, notes: [] }, points: [] })

describe('screens and their sessions', () => {
  const asked: string[] = []
  beforeEach(() => {
    setActivePinia(createPinia())
    asked.length = 0
    vi.stubGlobal('document', { cookie: '' })
    vi.stubGlobal('fetch', (path: string) => {
      asked.push(path)
      const body = path.endsWith('/screens') ? { screens: [screen()], targets: [], spectrum: [], sizes: [17], ranges: ['full'] } : full()
      return Promise.resolve(new Response(JSON.stringify(body)))
    })
  })

  it('take points as they are read, and ask for the whole only when a phase changes', async () => {
    const screens = useScreens()
    await screens.load()
    await screens.choose(1)
    expect(asked).toEqual(['/api/screens', '/api/calibrations/7'])
    await screens.take(session({ done: 4 }))
    await screens.take(session({ done: 5, latest: null }))
    expect(screens.shown?.points).toEqual([{ phase: 'before', codes: [1, 0, 0], uv: [0.45, 0.52] }])
    expect(screens.live?.done).toBe(5)
    expect(asked).toHaveLength(2)
    await screens.take(session({ phase: 'channels' }))
    expect(asked).toHaveLength(3)
    await screens.take(session({ phase: null, status: 'done' }))
    expect(asked.slice(3)).toEqual(['/api/calibrations/7', '/api/screens'])
  })

  it('are changed one thing after the other, so that no answer shows what stood before, and none takes back another', async () => {
    let stored: OwnScreen = { ...screen(), screen: '', probe: '' }
    const waits = [20, 1, 1]
    vi.stubGlobal('fetch', async (path: string, { body }: RequestInit) => {
      stored = { ...stored, ...(body ? (JSON.parse(body as string) as Partial<OwnScreen>) : {}) }
      const answer = JSON.stringify(path.endsWith('/screens') ? { screens: [stored], targets: [], spectrum: [], sizes: [17], ranges: ['full'] } : stored)
      if (!path.endsWith('/screens')) await new Promise((told) => setTimeout(told, waits.shift()))
      return new Response(answer)
    })
    const screens = useScreens()
    await screens.load()
    await Promise.all([screens.change({ screen: '127.0.0.1:1' }), screens.change({ probe: '127.0.0.1:2', settings: { size: 33 } }), screens.change({ settings: (now) => ({ drift: now.size / 330 }) })])
    const { screen: one, probe: other, settings: last } = screens.chosen!
    expect([one, other, last.size, last.drift]).toEqual(['127.0.0.1:1', '127.0.0.1:2', 33, 0.1])
  })

  it('are told in words', () => {
    expect([null, 12, 61, 150].map(leftWords)).toEqual(['', '15 s left', '1 min left', '3 min left'])
    expect([session(), session({ verifies: 3, status: 'done' }), session({ status: 'failed' }), session({ status: 'paused' })].map(sessionWords)).toEqual(['measuring', 'verified', 'stopped', 'paused'])
    expect(colourOf([0.5, 1.2, -0.1])).toBe('color(srgb 0.5 1 0)')
  })
})
