import { describe, expect, it, vi } from 'vitest'
import type { Call } from '@/test/browser'
import type { ContributorDocument, RecipeDocument } from '@/api/recipe'
import { opened } from '@/test/opened'
import { step } from '@/test/production'
import { served } from '@/test/served'
import { useNotices } from '../shell/useNotices'
import { onPath, useTracking, type Followed } from './useTracking'

const server = served()
const tell = (of: Record<string, unknown>) => server.event('errand', { id: 8, cut: 5, kind: 'track', count: 14, done: 3, result: null, message: null, ...of })
/** The nth call of its kind, once it has come. */
const asked = (method: string, path: string, nth = 1) =>
  vi.waitFor(() => {
    const found = server.calls.filter((one) => one.method === method && one.path === path)
    expect(found).toHaveLength(nth)
    return found[nth - 1] as Call
  })
const part = (id: string, path?: { id: number; from: number }): ContributorDocument => ({ id, kind: 'ellipse', mode: 'add', softness: 0, invert: false, strength: 1, parameters: {}, ...(path && { path }) })
const acting = (...contributors: ContributorDocument[]): RecipeDocument => ({ steps: [{ ...step(1), matte: { contributors, strength: 1 } }] }) as RecipeDocument

/** The shape of the first shot is being followed from frame 3. */
async function begun() {
  const store = await opened(server.calls)
  const recipe = store.shots[0]!.recipe
  recipe.document = acting(part('p'))
  store.go(3)
  const tracking = useTracking()
  const wish: Followed = { recipe, step: recipe.document.steps[0]!, part: part('p'), way: 'on', from: 3, by: null, named: 'Ellipse' }
  const ran = tracking.run(wish)
  ;(await asked('GET', '/cuts/5/paths')).answer(200, [])
  ;(await asked('POST', '/cuts/5/tracks')).answer(202, { id: 8, cut: 5, kind: 'track', status: 'waiting', count: 14, done: 0, result: null, message: null })
  await vi.waitFor(() => expect(tracking.count('p')).toBe(14))
  return { store, recipe, tracking, ran }
}

async function ends(ran: Promise<void>, lost: { frame: number; why: string } | null = null) {
  tell({ status: 'done', done: 14, result: { path: 2, lost, frames: 14 } })
  ;(await asked('GET', '/cuts/5/paths', 2)).answer(200, [])
  await ran
}

describe('tracking', () => {
  it('goes on while something else is looked at: the shape as it is by then goes on its path, from where it was begun', async () => {
    const { store, recipe, tracking, ran } = await begun()
    tell({ status: 'running' })
    expect([tracking.running('p'), tracking.done('p'), tracking.count('p'), tracking.running('q')]).toEqual([true, 3, 14, false])
    recipe.document = acting({ ...part('p'), softness: 0.2 }, part('q'))
    store.goShot(1)
    await ends(ran)
    expect(recipe.document.steps[0]!.matte!.contributors).toEqual([{ ...part('p', { id: 2, from: 3 }), softness: 0.2 }, part('q')])
    expect([tracking.running('p'), useNotices().notices.map((one) => one.words)]).toEqual([false, [expect.stringMatching(/^Balance of .* has been tracked$/)]])
  })

  it('leaves a recipe alone whose shape has gone meanwhile', async () => {
    const { recipe, ran } = await begun()
    recipe.document = acting(part('q'))
    await ends(ran)
    expect(recipe.document).toEqual(acting(part('q')))
    expect(server.calls.some((one) => one.method === 'PUT')).toBe(false)
  })

  it('says where it is lost, and keeps what was found before', async () => {
    const { recipe, ran } = await begun()
    await ends(ran, { frame: 9, why: 'something goes by' })
    expect(recipe.document.steps[0]!.matte!.contributors[0]!.path).toEqual({ id: 2, from: 3 })
    expect(useNotices().notices.at(-1)?.words).toMatch(/^Lost at frame 10: something goes by\./)
  })

  it('takes along the shapes on the same path, and takes off one alone', () => {
    const parts = [part('p', { id: 1, from: 4 }), part('q', { id: 1, from: 6 }), part('r')]
    expect(onPath(parts, 'p', 2, 9)).toEqual([part('p', { id: 2, from: 4 }), part('q', { id: 2, from: 6 }), part('r')])
    expect(onPath(parts, 'r', 2, 9)[2]).toEqual(part('r', { id: 2, from: 9 }))
    expect(onPath(parts, 'p', null, 9)).toEqual([{ ...part('p'), path: undefined }, parts[1], parts[2]])
  })
})
