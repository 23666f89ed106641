import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as production, step } from '@/test/production'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { useCopies } from './useCopies'

let calls: Call[]
beforeEach(() => {
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
  const cut = useCut()
  cut.cut = production()
  cut.project = production().project
})
afterEach(() => vi.unstubAllGlobals())

describe('copies of steps', () => {
  it('never go on the shot they came from', async () => {
    const copies = useCopies()
    copies.copy([step(1)], false)
    await copies.put()
    expect([calls.length, useNotices().notices.at(-1)?.words]).toEqual([0, 'This was copied from 1. Pick other shots with Ctrl and a click, or duplicate a step in its menu.'])
    copies.pick(2)
    expect(copies.shots).toEqual([2])
    void copies.put()
    await settle()
    expect(calls[0]?.body).toMatchObject({ shots: [2], replace: false, words: 'Balance put on 2' })
  })

  it('of a recipe ask first how they go on', async () => {
    const copies = useCopies()
    copies.copy([step(1)], true)
    copies.pick(2)
    await copies.put()
    expect([copies.asking, calls.length]).toEqual([[2], 0])
    await copies.answer('leave')
    expect([copies.asking, calls.length]).toEqual([null, 0])
    await copies.put()
    void copies.answer('replace')
    await settle()
    expect(calls[0]?.body).toMatchObject({ shots: [2], replace: true, words: 'recipe of 1 in place of the steps of 2' })
  })
})
