import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { installBrowser, installServer } from '@/test/browser'
import { cut as cutOf, recipe, shot } from '@/test/production'
import { useCut } from '../cut/useCut'
import { useBorrow } from './useBorrow'

beforeEach(() => {
  installBrowser()
  installServer()
  vi.stubGlobal('crypto', { randomUUID: () => 'fresh' })
  setActivePinia(createPinia())
  const cut = useCut()
  const shots = [shot(1, 0, 10), shot(2, 10, 10), shot(3, 20, 10), shot(4, 30, 10)]
  shots.forEach((one, index) => index !== 1 && index !== 3 && (one.recipe = recipe(one.id, 0, index)))
  cut.cut = { ...cutOf(), length: 40, shots }
  cut.project = cut.cut.project
  cut.goShot(3)
})

describe('borrowing', () => {
  it('tries graded shots before this one, the nearest first, and round again', () => {
    const borrow = useBorrow()
    expect(borrow.lenders.map((one) => one.id)).toEqual([3, 1])
    expect([borrow.next(), borrow.from?.id]).toEqual([true, 3])
    borrow.next()
    expect(borrow.from?.id).toBe(1)
    borrow.next()
    expect(borrow.from?.id).toBe(3)
  })

  it('changes nothing until it is kept, and then only this shot', () => {
    const cut = useCut()
    const borrow = useBorrow()
    borrow.next()
    expect(cut.shot?.recipe.document.steps).toEqual([])
    borrow.keep()
    expect(cut.shot?.recipe.document.steps).toMatchObject([{ id: 'fresh', parameters: { exposure: 2 } }])
    expect(cut.shots[2]?.recipe.document.steps[0]?.id).toBe('a')
    expect(borrow.from).toBeNull()
  })

  it('is dropped when one goes to another shot, and has nothing to try on the first', async () => {
    const cut = useCut()
    const borrow = useBorrow()
    borrow.next()
    cut.goShot(0)
    await nextTick()
    expect(borrow.from).toBeNull()
    expect(borrow.next()).toBe(false)
  })
})
