import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { installBrowser, installEvents, installServer, settle, type Call } from '@/test/browser'
import { cut } from '@/test/production'
import { useCut } from '../cut/useCut'
import { useProgramme } from './useProgramme'

let calls: Call[]
let event: ReturnType<typeof installEvents>
const errand = (of: Record<string, unknown>) => ({ id: 8, cut: 5, kind: 'compare', status: 'waiting', count: 14, done: 0, result: null, message: null, ...of })

beforeEach(() => {
  installBrowser()
  calls = installServer()
  event = installEvents()
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())

it('has what a worker found of a cut, whatever cut is open meanwhile, until something else lies under it', async () => {
  const opened = useCut()
  const opening = opened.open('5')
  await settle()
  calls.at(-1)?.answer(200, cut())
  await opening
  const programme = useProgramme()
  const comparing = programme.compare()
  await vi.waitFor(() => expect(calls.at(-1)).toMatchObject({ method: 'POST', path: '/cuts/5/comparisons' }))
  calls.at(-1)?.answer(202, errand({}))
  await vi.waitFor(() => expect([programme.comparing?.status, programme.found]).toEqual(['waiting', null]))
  opened.cut!.id = 6
  event('errand', errand({ status: 'done', result: { disagreements: [], longer: 2 } }))
  await comparing
  expect(programme.found).toBeNull()
  opened.cut!.id = 5
  expect(programme.found).toEqual({ disagreements: [], longer: 2 })
  const laying = programme.lay(null)
  await vi.waitFor(() => expect(calls.at(-1)).toMatchObject({ method: 'PATCH', path: '/cuts/5' }))
  calls.at(-1)?.answer(200, {})
  await laying
  expect(programme.found).toBeNull()
})
