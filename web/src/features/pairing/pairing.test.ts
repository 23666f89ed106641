import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as cutOf, project, recipe, shot, step } from '@/test/production'
import { useCut } from '../cut/useCut'
import { useFamilies } from '../grade/useFamilies'
import { useWashes } from '../grade/useWashes'
import { useNotices } from '../shell/useNotices'
import { usePairing } from './usePairing'

let calls: Call[]
const last = () => calls.at(-1)!
const family = (hero: number) => ({ id: 7, name: 'Jetty', hero, shots: [1, 2, 3], ground: { ...recipe(70), shot: null }, finish: { ...recipe(71), shot: null } })

beforeEach(() => {
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
  const cut = useCut()
  cut.cut = { ...cutOf(), length: 40, shots: [shot(1, 0, 10), shot(2, 10, 20, 4), shot(3, 30, 10)], families: [family(2)] }
  cut.project = cut.cut.project
})
afterEach(() => vi.unstubAllGlobals())

describe('pairing', () => {
  it('lets members pass by while the hero stays', () => {
    const pairing = usePairing()
    expect([pairing.hero?.id, pairing.members.map((one) => one.id), pairing.member?.id]).toEqual([2, [1, 3], 1])
    pairing.step(1)
    expect(pairing.member?.id).toBe(3)
    pairing.step(1)
    expect([pairing.member?.id, pairing.hero?.id]).toEqual([1, 2])
  })

  it('asks for a match of the middles, shows it, and keeps it as one change', async () => {
    const pairing = usePairing()
    pairing.regions.member = [0, 0, 0.5, 0.5]
    const asking = pairing.propose()
    await settle()
    expect(last()).toMatchObject({ path: '/shots/1/match', body: { hero: 2, recipe: true, frame: 5, hero_frame: 20, region: [0, 0, 0.5, 0.5], hero_region: null } })
    last().answer(200, { document: { steps: [step(1.5)] }, parameters: { exposure: 1.5, temperature: 0, tint: 0 }, before: 0.2, after: 0.9 })
    await asking
    expect([pairing.found?.after, useCut().shots[0]?.recipe.document.steps]).toEqual([0.9, []])
    pairing.keep()
    await settle()
    expect(last()).toMatchObject({ method: 'PUT', path: '/recipes/1', body: { words: '1 matched to 2' } })
    expect(pairing.found).toBeNull()
  })

  it('drops a proposal with its member', async () => {
    const pairing = usePairing()
    const asking = pairing.propose()
    await settle()
    last().answer(200, { document: { steps: [] }, parameters: {}, before: 0, after: 1 })
    await asking
    pairing.step(1)
    await nextTick()
    expect(pairing.found).toBeNull()
  })

  it('says why there is no match', async () => {
    const pairing = usePairing()
    const asking = pairing.propose()
    await settle()
    last().answer(422, { error: 'frame: expected 200 pixels or more with light in them' })
    await asking
    expect([pairing.found, pairing.looking, useNotices().notices.length]).toEqual([null, false, 1])
  })

  it("puts the hero's recipe on all members", async () => {
    useCut().shots[1]!.recipe.document = { steps: [step(0.7)] }
    const copying = usePairing().copy(true)
    await settle()
    expect(last()).toMatchObject({ path: '/cuts/5/paste', body: { shots: [1, 3], replace: true, words: 'recipe of 2 on 2 shots' } })
    last().answer(200, { recipes: [recipe(1, 1, 0.7), recipe(3, 1, 0.7)], project: project() })
    await copying
    expect(useCut().shots.map((one) => one.recipe.document.steps[0]?.parameters.exposure)).toEqual([0.7, 0.7, 0.7])
  })
})

describe('families and washes', () => {
  it('are taken as the server answers, members included', async () => {
    const forming = useFamilies().form('Pier', [useCut().shots[0]!])
    await settle()
    expect(last()).toMatchObject({ path: '/cuts/5/families', body: { name: 'Pier', shots: [1], words: 'family Pier formed' } })
    last().answer(201, { families: [{ ...family(1), name: 'Pier', shots: [1] }], members: { 1: 7, 2: null, 3: null }, project: project({ undo: 'family Pier formed' }) })
    expect(await forming).toBe(true)
    expect([useCut().shots.map((one) => one.family), useCut().families[0]?.name, useCut().project?.undo]).toEqual([[7, null, null], 'Pier', 'family Pier formed'])
  })

  it('are laid, changed with what was seen, and taken away', async () => {
    const washes = useWashes()
    const laying = washes.lay()
    await settle()
    const made = { id: 4, name: 'Default look', from: null, to: null, enabled: true, recipe: { ...recipe(40), shot: null }, seen: { enabled: true } }
    expect(last().body).toMatchObject({ name: 'Default look' })
    last().answer(201, { wash: made, project: project() })
    await laying
    expect(useCut().washes.map((one) => one.id)).toEqual([4])
    const removing = washes.remove(made)
    await settle()
    expect(last()).toMatchObject({ method: 'PATCH', path: '/washes/4', body: { laid: false, seen: { enabled: true } } })
    last().answer(200, { wash: made, laid: false, project: project() })
    await removing
    expect(useCut().washes).toEqual([])
  })

  it('are read anew when another window was quicker', async () => {
    const made = { id: 4, name: 'x', from: null, to: null, enabled: true, recipe: { ...recipe(40), shot: null } }
    const flipping = useWashes().flip(made)
    await settle()
    last().answer(409, { error: 'another window has changed enabled meanwhile', stale: true })
    await settle()
    expect(last()).toMatchObject({ method: 'GET', path: '/cuts/5' })
    last().answer(200, cutOf())
    await flipping
    expect(useNotices().notices.map((one) => one.words)).toEqual(['another window has changed enabled meanwhile'])
  })
})
