import { expect, it, vi } from 'vitest'
import { opened } from '@/test/opened'
import { served } from '@/test/served'
import { useProgramme } from './useProgramme'

const server = served()
const errand = (of: Record<string, unknown>) => ({ id: 8, cut: 5, kind: 'compare', status: 'waiting', count: 14, done: 0, result: null, message: null, ...of })

it('has what a worker found of a cut, whatever cut is open meanwhile, until something else lies under it', async () => {
  const store = await opened(server.calls)
  const programme = useProgramme()
  const comparing = programme.compare()
  await vi.waitFor(() => expect(server.calls.at(-1)).toMatchObject({ method: 'POST', path: '/cuts/5/comparisons' }))
  server.calls.at(-1)?.answer(202, errand({}))
  await vi.waitFor(() => expect([programme.comparing?.status, programme.found]).toEqual(['waiting', null]))
  store.cut!.id = 6
  server.event('errand', errand({ status: 'done', result: { disagreements: [], longer: 2 } }))
  await comparing
  expect(programme.found).toBeNull()
  store.cut!.id = 5
  expect(programme.found).toEqual({ disagreements: [], longer: 2 })
  const laying = programme.lay(null)
  await vi.waitFor(() => expect(server.calls.at(-1)).toMatchObject({ method: 'PATCH', path: '/cuts/5' }))
  server.calls.at(-1)?.answer(200, {})
  await laying
  expect(programme.found).toBeNull()
})
