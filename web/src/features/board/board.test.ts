import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Shot } from '@/api/cut'
import type { Clip } from '@/api/media'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as cutOf, recipe, shot } from '@/test/production'
import { useCut } from '../cut/useCut'
import { useCopies } from '../grade/useCopies'
import { noFilters, ordered, passes, posterOf } from './arrange'
import { GAP, useBoard } from './useBoard'
import { useFlags } from './useFlags'

let calls: Call[]
const of = (id: number, change: Partial<Shot> = {}, clip: Partial<Clip> = {}): Shot => {
  const made = shot(id, id * 10, 10)
  return { ...made, ...change, clip: { ...made.clip, ...clip } }
}

beforeEach(() => {
  installBrowser()
  calls = installServer()
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())

function open(count: number) {
  const cut = useCut()
  cut.cut = { ...cutOf(), length: count * 10, shots: Array.from({ length: count }, (_, at) => ({ ...shot(at + 1, at * 10, 10), position: at })) }
  cut.project = cut.cut.project
  const board = useBoard()
  board.look = { size: 190, details: true, order: 'cut', poster: 'middle', follows: true }
  Object.assign(board.stage, { width: 1010, height: 620 })
  return board
}

describe('the order of the board', () => {
  it('is by reel and source timecode, camera or scene, and leaves the cut alone', () => {
    const shots = [of(1, {}, { reel: 'B', start: '02:00:00:00', camera: 'heron' }), of(2, {}, { reel: 'A', start: '09:00:00:00', camera: 'knot' }), of(3, {}, { reel: 'B', start: '01:00:00:00', camera: 'dunlin' }), of(4)]
    const ids = (order: string) => ordered(shots, order).map((one) => one.id)
    expect([ids('cut'), ids('source'), ids('camera')]).toEqual([
      [1, 2, 3, 4],
      [4, 2, 3, 1],
      [4, 3, 1, 2],
    ])
    expect(shots.map((one) => one.id)).toEqual([1, 2, 3, 4])
  })
})

describe('filters', () => {
  const graded = of(1, { recipe: recipe(1, 0, 1), flag: 'woad', note: 'too cold', family: 7 }, { camera: 'heron' })
  const bare = of(2, {}, { encoding: null })
  const found = (change: Partial<ReturnType<typeof noFilters>>) => [graded, bare].filter((one) => passes(one, { ...noFilters(), ...change })).map((one) => one.id)

  it('choose by grade, steps, flag, family, camera, encoding and words', () => {
    expect([found({}), found({ grade: 'graded' }), found({ grade: 'ungraded' })]).toEqual([[1, 2], [1], [2]])
    expect([found({ step: 'balance' }), found({ step: 'zones' })]).toEqual([[1], []])
    expect([found({ flag: 'any' }), found({ flag: 'none' }), found({ flag: 'woad' }), found({ flag: 'weld' })]).toEqual([[1], [2], [1], []])
    expect([found({ family: '7' }), found({ family: 'none' }), found({ camera: 'heron' }), found({ encoding: 'acescct' })]).toEqual([[1], [2], [1], [1]])
    expect([found({ words: ' COLD ' }), found({ words: 'cold', flag: 'none' })]).toEqual([[1], []])
  })

  it('stand beside the frame that is shown of each', () => {
    const worked = of(1, { dissolve: 3, worked: 6, poster: 2 })
    expect(['first', 'middle', 'last', 'worked', 'chosen'].map((choice) => posterOf(worked, choice))).toEqual([3, undefined, 9, 6, 2])
  })
})

describe('the board', () => {
  it('holds the cards of the rows that can be seen, however many shots there are', () => {
    const board = open(2000)
    expect([board.columns, board.rowHeight]).toEqual([5, 107 + 44 + GAP])
    expect(board.seen.shots.map((one) => one.id)).toEqual(Array.from({ length: 25 }, (_, at) => at + 1))
    board.scroll = 200 * board.rowHeight
    expect([board.seen.first, board.seen.shots[0]?.id]).toEqual([199, 996])
    expect(board.seen.shots.length).toBeLessThan(40)
    expect(board.height).toBe(400 * board.rowHeight + GAP)
  })

  it('is walked by keys and picked from by Control and Shift', () => {
    const board = open(20)
    const cut = useCut()
    board.move(5)
    board.move(-1)
    expect([cut.shot?.id, board.place]).toEqual([5, 4])
    board.move(-99)
    expect(cut.shot?.id).toBe(1)
    const plain = { shiftKey: false, ctrlKey: false, metaKey: false }
    board.click(cut.shots[2]!, plain)
    board.click(cut.shots[6]!, { ...plain, shiftKey: true })
    board.click(cut.shots[9]!, { ...plain, ctrlKey: true })
    board.click(cut.shots[4]!, { ...plain, ctrlKey: true })
    expect([cut.shot?.id, useCopies().picked]).toEqual([3, [3, 4, 6, 7, 10]])
    expect(board.chosen.map((one) => one.id)).toEqual([3, 4, 6, 7, 10])
  })

  it('flags what is chosen in one change', async () => {
    const board = open(4)
    useCopies().picked = [2, 3]
    const putting = useFlags().put(board.chosen, 'weld', 'lamps')
    await settle()
    expect(calls[0]).toMatchObject({ path: '/cuts/5/flags', body: { shots: [2, 3], flag: 'weld', note: 'lamps', words: '2 shots: flag weld' } })
    calls[0]?.answer(200, { shots: [2, 3].map((id) => ({ id, flag: 'weld', note: 'lamps' })), project: useCut().project })
    await putting
    board.filters.flag = 'any'
    expect([board.shown.map((one) => one.id), board.filtered]).toEqual([[2, 3], true])
  })
})
