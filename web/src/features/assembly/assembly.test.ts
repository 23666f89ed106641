import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Shot } from '@/api/cut'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { cut as cutOf, project, shot as shotOf } from '@/test/production'
import { sourceAt } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import { dropBefore, held, pulled, shown } from './strip'
import { useAssembly } from './useAssembly'

const shot = (id: number, record: number, length: number, change: Partial<Shot> = {}): Shot => ({ ...shotOf(id, record, length), head: 5, tail: 7, ...change })
const row = [shot(1, 0, 20), shot(2, 20, 30), shot(3, 50, 10)]

describe('strip', () => {
  const places = (blocks: ReturnType<typeof pulled>) => blocks.map((block) => [block.first, block.length])

  it('shows what comes of a pull before the hand lets go', () => {
    expect(places(pulled(row, null))).toEqual([
      [0, 20],
      [20, 30],
      [50, 10],
    ])
    expect(places(pulled(row, { kind: 'head', shot: 2, by: 4 }))).toEqual([
      [0, 20],
      [20, 26],
      [46, 10],
    ])
    expect(places(pulled(row, { kind: 'tail', shot: 2, by: 4 }))).toEqual([
      [0, 20],
      [20, 34],
      [54, 10],
    ])
    expect(places(pulled(row, { kind: 'roll', shot: 2, by: 4 }))).toEqual([
      [0, 24],
      [24, 26],
      [50, 10],
    ])
    expect(places(pulled(row, { kind: 'slip', shot: 2, by: 4 }))).toEqual([
      [0, 20],
      [20, 30],
      [50, 10],
    ])
  })

  it('holds a pull to handles and a frame that is left', () => {
    const by = (kind: 'head' | 'tail' | 'roll' | 'slip', frames: number, id = 2) => (held(row, { kind, shot: id, by: frames }) as { by: number }).by
    expect([by('head', -9), by('head', 90), by('tail', 90), by('tail', -90)]).toEqual([-5, 29, 7, -29])
    expect([by('roll', 90), by('roll', -90), by('roll', 3, 1), by('slip', -90), by('slip', 90)]).toEqual([7, -5, 0, -5, 7])
  })

  it('has what can be seen of thousands of shots, and where a shot is dropped', () => {
    const many = pulled(
      Array.from({ length: 2000 }, (_, at) => shot(at, at * 10, 10)),
      null,
    )
    expect(shown(many, 10_000, 10_100).map((block) => block.shot.id)).toEqual([999, 1000, 1001, 1002, 1003, 1004, 1005, 1006, 1007, 1008, 1009, 1010, 1011])
    expect([dropBefore(pulled(row, null), 3), dropBefore(pulled(row, null), 25), dropBefore(pulled(row, null), 58)]).toEqual([1, 2, null])
  })
})

describe('sourceAt', () => {
  it('counts as the server does', () => {
    const frames = (change: Partial<Shot>) => [0, 1, 2, 3, 4].map((step) => sourceAt({ ...shot(1, 10, 5), source_in: 10, ...change }, 10 + step))
    expect(frames({})).toEqual([10, 11, 12, 13, 14])
    expect(frames({ speed: 0.5 })).toEqual([10, 10, 11, 11, 12])
    expect(frames({ speed: 1 / 3 })).toEqual([10, 10, 10, 11, 11])
    expect(frames({ speed: -1 })).toEqual([10, 9, 8, 7, 6])
    expect(frames({ speed: 0.5, phase: 0.5 })).toEqual([10, 11, 11, 12, 12])
  })
})

describe('useAssembly', () => {
  let calls: Call[]
  beforeEach(() => {
    installBrowser()
    calls = installServer()
    setActivePinia(createPinia())
  })
  afterEach(() => vi.unstubAllGlobals())

  function opened() {
    const cut = useCut()
    cut.cut = { ...cutOf(), edition: 3, length: 60, shots: row.map((one) => ({ ...one })) }
    cut.project = cut.cut.project
    return { cut, assembly: useAssembly() }
  }
  const place = (one: Shot, change: object = {}) => ({ id: one.id, clip: one.clip.id, source_in: 0, phase: 0, length: one.length, speed: 1, dissolve: 0, wipe: null, clock: 0, link: null, head: 5, tail: 7, ...change })

  it('sends hands one after another with the edition they were made on, and takes where shots stand then', async () => {
    const { cut, assembly } = opened()
    cut.go(20)
    void assembly.trim(cut.shots[1] as Shot, 'head', 4)
    void assembly.split()
    await settle()
    expect([calls.length, calls[0]?.body]).toEqual([1, { operation: 'trim', edition: 3, shot: 2, head: 4 }])
    const fresh = shot(9, 0, 6)
    calls[0]?.answer(200, {
      edition: 4,
      length: 62,
      places: [place(row[0] as Shot), place(row[1] as Shot, { length: 26, source_in: 4, clock: 4 }), place(fresh), place(row[2] as Shot)],
      fresh: [fresh],
      washes: [],
      notes: [],
      project: project({ undo: 'trimmed' }),
    })
    await settle()
    expect(cut.shots.map((one) => [one.id, one.record_in, one.length, one.position])).toEqual([
      [1, 0, 20, 0],
      [2, 20, 26, 1],
      [9, 46, 6, 2],
      [3, 52, 10, 3],
    ])
    expect([cut.cut?.edition, cut.length, cut.project?.undo]).toEqual([4, 62, 'trimmed'])
    expect(calls[1]?.body).toMatchObject({ operation: 'split', edition: 4 })
  })

  it('shows a refusal, and reads the cut anew when another window has changed it', async () => {
    const { assembly } = opened()
    void assembly.remove()
    await settle()
    calls[0]?.answer(409, { error: 'another window has changed the cut', stale: true })
    await settle()
    expect(calls.at(-1)?.path).toContain('/cuts/5')
  })
})
