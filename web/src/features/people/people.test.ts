import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as cutOf, project, recipe } from '@/test/production'
import { getJson } from '@/api/client'
import type { Person, PresentWindow } from '@/api/people'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useHere } from './useHere'
import { OWN_ANSWER, useNews } from './useNews'
import { useTogether } from './useTogether'
import { browserWords, shortTime } from './words'

let calls: Call[]
const ida: Person = { id: 1, name: 'Ida Rooke', initials: 'IR', role: 'grade', ended: false }

beforeEach(() => {
  vi.useFakeTimers()
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

function open() {
  const cut = useCut()
  cut.cut = cutOf()
  cut.project = cut.cut.project
  return cut
}
const last = () => calls.at(-1) as Call

describe('useHere', () => {
  it('asks nobody where there is no account, and lets them do everything', async () => {
    const here = useHere()
    const looking = here.look()
    last().answer(200, { asked: false, person: null })
    await looking
    expect([here.shut, here.opened, here.may('administer')]).toEqual([false, true, true])
  })

  it('lets in, and shuts as soon as the server does not know somebody any more', async () => {
    const here = useHere()
    const entering = here.signIn('ida', 'ferry at low tide')
    expect(last().body).toEqual({ name: 'ida', password: 'ferry at low tide' })
    last().answer(200, { asked: true, person: ida })
    await entering
    expect([here.shut, here.may('grade'), here.may('deliver')]).toEqual([false, true, false])
    const asking = getJson('/projects').catch(() => undefined)
    last().answer(401, { error: 'sign in first', sign_in: true })
    await asking
    expect([here.shut, here.opened]).toEqual([true, true])
  })
})

describe('useNews', () => {
  it('takes a newer recipe in, but not under the own hand, and nothing older', async () => {
    const cut = open()
    const recipes = useRecipes()
    const news = useNews()
    const told = news.recipe({ id: 1, revision: 3 })
    expect(last().path).toBe('/recipes/1')
    last().answer(200, recipe(1, 3, 0.5))
    await told
    expect(cut.shots[0]?.recipe.revision).toBe(3)
    await news.recipe({ id: 1, revision: 3 })
    await news.recipe({ id: 99, revision: 3 })
    expect(calls.length).toBe(1)
    recipes.change(cut.recipes[1] as never, recipe(2, 0, 1).document, 'up')
    await news.recipe({ id: 2, revision: 4 })
    expect(calls.filter(({ path, method }) => method === 'GET' && path === '/recipes/2')).toEqual([])
  })

  it('reads the cut anew where more has changed than its own answers say', async () => {
    const cut = open()
    const news = useNews()
    const told = news.standing({ id: 1, turn: 2, head: 7 })
    cut.project = project({ turn: 2, head: 7 }) // one's own change, answered meanwhile; and one of somebody else before it
    await vi.advanceTimersByTimeAsync(OWN_ANSWER)
    await told
    await settle()
    expect(calls.map(({ path }) => path)).toEqual(['/cuts/5'])
  })

  it('leaves the cut as it is after an own change, and asks only for what undo would take back after another', async () => {
    const cut = open()
    const news = useNews()
    cut.project = project({ turn: 1, head: 7 })
    const own = news.standing({ id: 1, turn: 1, head: 7 })
    await vi.advanceTimersByTimeAsync(OWN_ANSWER)
    await own
    expect(calls).toEqual([])
    const other = news.standing({ id: 1, turn: 1, head: 8 })
    await vi.advanceTimersByTimeAsync(OWN_ANSWER)
    last().answer(200, project({ turn: 1, head: 8, undo: 'warmer' }))
    await other
    expect(cut.project?.undo).toBe('warmer')
  })
})

describe('useTogether', () => {
  it('says which colleagues are at a shot, each once, and what windows have a recipe open', () => {
    const together = useTogether()
    const at = (window: string, change: Partial<PresentWindow> = {}): PresentWindow => ({ window, person: 2, name: 'Bo Larch', initials: 'BL', room: 'bench', cut: 5, shot: 1, recipe: 1, touching: false, ...change })
    together.windows = [at('a'), at('b'), at('c', { shot: 2, recipe: null }), at('d', { person: null, name: null })]
    expect([together.at(1), together.at(2), together.at(3)].map((all) => all.map((one) => one.window))).toEqual([['a'], ['c'], []])
    expect(together.on([1]).map((one) => one.window)).toEqual(['a', 'b', 'd'])
  })
})

describe('words', () => {
  it('names browsers and times', () => {
    expect(browserWords('Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 Chrome/120.0 Safari/537.36')).toBe('Chrome on Linux')
    expect(browserWords('curl/8')).toBe('a browser')
    const now = new Date(2026, 10, 28, 12, 0)
    expect(shortTime(new Date(2026, 10, 28, 9, 5).toISOString(), now)).toBe('09:05')
    expect(shortTime(new Date(2026, 10, 27, 9, 5).toISOString(), now)).toBe('27 Nov 09:05')
  })
})
