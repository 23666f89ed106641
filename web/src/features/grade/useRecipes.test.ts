import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut, project, recipe, step } from '@/test/production'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { useRecipes } from './useRecipes'

let calls: Call[]
let recipes: ReturnType<typeof useRecipes>
let store: ReturnType<typeof useCut>

const exposed = (exposure: number) => ({ steps: [step(exposure)] })
const accepted = (revision: number, exposure: number) => ({ recipe: recipe(1, revision, exposure), project: project({ undo: 'x' }) })
const call = (index: number) => {
  const found = calls[index]
  if (!found) throw new Error(`there was no call ${index}`)
  return found
}
const mine = () => {
  const found = store.shots[0]?.recipe
  if (!found) throw new Error('no recipe')
  return found
}

beforeEach(() => {
  vi.useFakeTimers()
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
  store = useCut()
  store.cut = cut()
  store.project = project()
  recipes = useRecipes()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('useRecipes', () => {
  it('shows a change at once and keeps it with the revision it was made on', async () => {
    recipes.change(mine(), exposed(1), 'Balance: exposure')
    expect(mine().document.steps[0]?.parameters.exposure).toBe(1)
    expect(recipes.unsaved).toBe(true)
    await settle()
    expect(call(0)).toMatchObject({ method: 'PUT', path: '/recipes/1', body: { revision: 0, words: 'Balance: exposure' } })
    call(0).answer(200, accepted(1, 1))
    await settle()
    expect([mine().revision, recipes.unsaved, store.project?.undo]).toEqual([1, false, 'x'])
    expect(recipes.savedAt).not.toBeNull()
  })

  it('takes back one change after another, however quickly it is asked to', async () => {
    const both = [recipes.undo(), recipes.undo()]
    await settle()
    expect(calls).toHaveLength(1)
    call(0).answer(200, { project: project(), recipes: [recipe(1, 1, 1)], beyond: false })
    await settle()
    expect([calls.length, mine().document]).toEqual([2, exposed(1)])
    call(1).answer(200, { project: project(), recipes: [recipe(1, 2, 0)], beyond: false })
    await Promise.all(both)
    expect(mine().document).toEqual(exposed(0))
  })

  it('sends only the newest of what comes while a write is under way', async () => {
    recipes.change(mine(), exposed(1), 'a')
    await settle()
    recipes.change(mine(), exposed(2), 'b')
    recipes.change(mine(), exposed(3), 'c')
    call(0).answer(200, accepted(1, 1))
    await settle()
    expect(calls).toHaveLength(2)
    expect(call(1).body).toMatchObject({ revision: 1, words: 'c', document: exposed(3) })
    expect(mine().document.steps[0]?.parameters.exposure).toBe(3)
  })

  it('does not write more often than five times a second while a hand moves', async () => {
    recipes.change(mine(), exposed(1), 'a', 'drag')
    await settle()
    call(0).answer(200, accepted(1, 1))
    await settle()
    recipes.change(mine(), exposed(2), 'a', 'drag')
    await settle()
    expect(calls).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(200)
    expect(call(1).body).toMatchObject({ gesture: 'drag', document: exposed(2) })
  })

  it('keeps what could not be sent, says so, and tries again', async () => {
    recipes.change(mine(), exposed(1), 'a')
    await settle()
    call(0).fail()
    await settle()
    expect([recipes.offline, recipes.unsaved]).toEqual([true, true])
    await vi.advanceTimersByTimeAsync(1500)
    call(1).answer(200, accepted(1, 1))
    await settle()
    expect([recipes.offline, recipes.unsaved]).toEqual([false, false])
  })

  it('goes on when one of its changes was kept and only the answer was lost', async () => {
    recipes.change(mine(), exposed(1), 'a', 'drag')
    await settle()
    call(0).fail() // it was kept, as is told below
    recipes.change(mine(), exposed(2), 'a', 'drag')
    await settle()
    await vi.advanceTimersByTimeAsync(1500)
    call(1).fail()
    await settle()
    await vi.advanceTimersByTimeAsync(1500)
    call(2).answer(409, { error: 'changed', recipe: { ...recipe(1, 1), document: JSON.parse(JSON.stringify(exposed(1))) } })
    await settle()
    expect(recipes.conflict).toBeNull()
    expect(call(3).body).toMatchObject({ revision: 1, document: exposed(2) })
    call(3).answer(200, accepted(2, 2))
    await settle()
    expect([recipes.offline, recipes.unsaved]).toEqual([false, false])
  })

  it('puts its own change on top of another when told to', async () => {
    recipes.change(mine(), exposed(1), 'a')
    await settle()
    call(0).answer(409, { error: 'changed', recipe: recipe(1, 7, 5) })
    await settle()
    expect(recipes.conflict?.theirs.revision).toBe(7)
    void recipes.settle(true)
    await settle()
    expect(call(1).body).toMatchObject({ revision: 7, document: exposed(1) })
  })

  it('keeps its own change for redo when the other is taken', async () => {
    recipes.change(mine(), exposed(1), 'a')
    await settle()
    call(0).answer(409, { error: 'changed', recipe: recipe(1, 7, 5) })
    await settle()
    const settled = recipes.settle(false)
    await settle()
    call(1).answer(200, accepted(8, 1))
    await settle()
    expect(call(2)).toMatchObject({ method: 'POST', path: '/projects/1/undo' })
    call(2).answer(200, { project: project({ redo: 'a' }), recipes: [recipe(1, 9, 5)] })
    await settled
    expect(mine().document.steps[0]?.parameters.exposure).toBe(5)
    expect(store.project?.redo).toBe('a')
  })

  it('goes back to what is stored when a change is refused, and says why', async () => {
    recipes.change(mine(), exposed(99), 'a')
    await settle()
    call(0).answer(422, { error: 'steps[0].parameters.exposure: expected a number in -10.0..10.0' })
    await settle()
    call(1).answer(200, recipe(1, 0, 0.5))
    await settle()
    expect(mine().document.steps[0]?.parameters.exposure).toBe(0.5)
    expect(useNotices().notices[0]?.words).toMatch(/expected a number/)
  })

  it('goes to the shot whose grade was taken back', async () => {
    store.go(20)
    const undone = recipes.undo()
    await settle()
    call(0).answer(200, { project: project(), recipes: [recipe(1, 3)] })
    await undone
    expect(store.shot?.id).toBe(1)
  })
})
