import { afterAll, afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { Rung } from '@/api/ladder'
import { installBrowser, settle } from '@/test/browser'
import { shot } from '@/test/production'
import { makePlayStore, MOST_PICTURES } from './playStore'

const live = vi.hoisted(() => ({ there: true, slow: false, drawn: [] as string[], pictures: [] as { close: unknown }[], held: new Set<string>() }))
// modules are shared by all tests: what another one has loaded is loaded anew, and what is loaded here goes
vi.hoisted(() => vi.resetModules())
afterAll(() => vi.resetModules())
vi.mock('./livePicture', () => ({
  makeLivePicture: () =>
    live.there
      ? {
          holds: () => [...live.held],
          take: (rungs: Rung[], _: number, parts: object) => rungs.flat().forEach(({ lattice }) => lattice in parts && live.held.add(lattice)),
          can: (rungs: Rung[]) => rungs.flat().every(({ lattice }) => live.held.has(lattice)),
          reduces: () => live.slow,
          setStart: ({ key }: { key: string }) => live.drawn.push(key),
          draw: () => {
            const picture = { close: vi.fn() }
            live.pictures.push(picture)
            return picture
          },
        }
      : null,
  sourceStart: (key: string) => ({ key }),
}))

let asked: string[]
/** Lattices by frame. */
let lattices: (frame: number) => string | null
/** Digests of what is kept of frames without their noise. */
let starts: (frame: number) => string | undefined

function packed(header: object, parts: Record<string, number>): ArrayBuffer {
  const listed = Object.entries(parts).map(([name, length]) => ({ name, length }))
  const text = new TextEncoder().encode(JSON.stringify({ ...header, parts: listed }))
  const total = Object.values(parts).reduce((sum, length) => sum + length, 0)
  const bytes = new Uint8Array(4 + text.length + total)
  bytes.set(text, 4)
  new DataView(bytes.buffer).setUint32(0, text.length, true)
  return bytes.buffer
}

beforeEach(() => {
  installBrowser()
  live.there = true
  live.slow = false
  live.drawn = []
  live.pictures = []
  asked = []
  rendered.clear()
  live.held.clear()
  lattices = () => 'still'
  starts = () => undefined
  vi.stubGlobal('createImageBitmap', () => Promise.resolve({ close: vi.fn() }))
  vi.stubGlobal('fetch', (url: string, init: RequestInit) => {
    asked.push(url.replace('/api', ''))
    if (url.includes('/ladders')) {
      const { first, count, held } = JSON.parse(String(init.body)) as { first: number; count: number; held: string[] }
      const found = Array.from({ length: count }, (_, i) => ({ frame: first + i, lattice: lattices(first + i) }))
      const parts = Object.fromEntries(found.flatMap(({ lattice }) => (lattice && !held.includes(lattice) ? [[lattice, 48]] : [])))
      asked.push(...Object.keys(parts))
      return Promise.resolve(new Response(packed({ nodes: 2, ladders: found.map(({ frame, lattice }) => ({ frame, rungs: lattice && [[{ lattice, share: 1, weight: null }]], start: starts(frame) })) }, parts)))
    }
    if (url.includes('/cleaned')) {
      const { first, count } = JSON.parse(String(init.body)) as { first: number; count: number }
      asked.push(`${first}+${count}`)
      const kept = Array.from({ length: count }, (_, i) => ({
        frame: first + i,
        shot: 1,
        width: 1,
        height: 1,
        start: starts(first + i),
        range: [
          [0, 0, 0],
          [1, 1, 1],
        ],
      }))
      return Promise.resolve(new Response(packed({ frames: kept }, Object.fromEntries(kept.map(({ frame }) => [`f${frame}`, 6])))))
    }
    const run = /first=(\d+)&count=(\d+)/.exec(url)
    if (!run) {
      const size = (JSON.parse(String(init.body)) as { size: string }).size
      asked.push(size)
      return Promise.resolve(new Response(packed({ size }, { picture: 1 })))
    }
    const frames = Array.from({ length: Number(run[2]) }, (_, i) => ({ frame: Number(run[1]) + i, shot: 1, width: 1, height: 1 }))
    return Promise.resolve(new Response(packed({ frames }, Object.fromEntries(frames.map(({ frame }) => [`f${frame}`, 6])))))
  })
})
afterEach(() => vi.unstubAllGlobals())

/** Frames whose finished pictures are there. */
const rendered = new Set<number>()
const shots = [shot(1, 0, 12), shot(2, 12, 18, 6)]
const make = (whole = false, processes = 2) =>
  makePlayStore({
    whole: ref(whole),
    processes: ref(processes),
    cut: ref(5),
    shotAt: (frame) => shots.find((one) => frame >= one.record_in && frame < one.record_in + one.length),
    on: ref({ target: 'television', canvas: '2.4', view: true, exaggerate: false, lut: '' }),
    trialOf: (shot) => [{ recipe: shot.recipe.id, document: shot.recipe.document }],
    kept: (frame) => rendered.has(frame),
    trouble: (error) => {
      throw error as Error
    },
  })

async function filled(store: ReturnType<typeof make>, frames: number[]) {
  for (let i = 0; i < 12; i++) {
    store.fill(frames, vi.fn())
    await settle()
    await new Promise((resolve) => setTimeout(resolve))
  }
}

describe('the play store', () => {
  it('asks for ladders and for sources in runs', async () => {
    const store = make()
    await filled(store, [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11])
    expect(asked).toEqual(['/cuts/5/ladders', 'still', '/cuts/5/playing?first=0&count=12&size=play'])
    expect(store.has(11)).toBe(true)
    expect(store.show(3)).not.toBeNull()
    expect(live.drawn).toEqual(['3'])
  })

  it('draws frames of a grade that moves up ladders of their own', async () => {
    lattices = (frame) => (frame > 1 ? `moves ${frame}` : 'still')
    const store = make()
    await filled(store, [0, 1, 2, 3])
    expect(asked.filter((one) => one.startsWith('moves'))).toHaveLength(10)
    expect(store.has(3)).toBe(true)
    live.held.delete('moves 3') // what it holds is bounded
    expect(store.has(3)).toBe(false)
    asked = []
    await filled(store, [3])
    expect(asked).toEqual(['/cuts/5/ladders', 'moves 3'])
    expect(store.has(3)).toBe(true)
  })

  it('keeps sources when a grade changes, and asks for ladders again', async () => {
    const store = make()
    await filled(store, [0, 1])
    store.forget()
    expect(store.has(0)).toBe(false)
    asked = []
    await filled(store, [0, 1])
    expect(asked).toEqual(['/cuts/5/ladders']) // what its lattices hold it has
    expect(store.has(0)).toBe(true)
  })

  it('draws frames from what is kept without their noise, as far as it is, and asks for it again when that changes', async () => {
    starts = (frame) => (frame < 3 ? `clean ${frame}` : undefined)
    lattices = (frame) => (frame < 3 ? 'still' : null)
    const store = make()
    await filled(store, [0, 1, 2, 3])
    expect(asked).toEqual(['/cuts/5/ladders', 'still', '/cuts/5/cleaned', '0+3', '/cuts/5/finished', 'play'])
    store.show(1)
    expect(live.drawn).toEqual(['clean 1'])
    starts = (frame) => `stronger ${frame}`
    store.forget()
    asked = []
    await filled(store, [0, 1])
    expect(asked).toContain('/cuts/5/cleaned')
    store.show(1)
    expect(live.drawn).toEqual(['clean 1', 'stronger 1'])
  })

  it('draws each picture once, from the whole source, where it is wanted again, and holds so many', async () => {
    const store = make(true)
    await filled(store, [0, 1, 2, 3, 4, 5])
    expect(asked).toEqual(['/cuts/5/ladders', 'still', '/cuts/5/playing?first=0&count=4&size=full', '/cuts/5/playing?first=4&count=4&size=full'])
    expect(store.ready(2)).toBe(false)
    const first = store.show(2)
    expect([store.ready(2), store.show(2) === first, live.drawn]).toEqual([true, true, ['2']])
    store.forget()
    expect(store.ready(2)).toBe(false)
    expect(live.pictures[0]?.close).not.toHaveBeenCalled() // it is on the screen

    shots[0] = shot(1, 0, MOST_PICTURES + 8)
    await filled(store, [0])
    for (let frame = 0; frame < MOST_PICTURES + 4; frame += 4) {
      await filled(store, [frame])
      for (let at = 0; at < 4; at++) store.show(frame + at)
    }
    expect(live.pictures[0]?.close).toHaveBeenCalledOnce()
    expect(live.pictures.filter(({ close }) => vi.mocked(close as () => void).mock.calls.length === 0)).toHaveLength(MOST_PICTURES)
    shots[0] = shot(1, 0, 12)
  })

  it('takes finished pictures in dissolves', async () => {
    const store = make()
    await filled(store, [12, 13])
    expect(asked).toEqual(['/cuts/5/finished', 'play', '/cuts/5/finished', 'play'])
    expect(store.show(12)).not.toBeNull()
    expect(live.drawn).toEqual([])
  })

  it('takes whole pictures for small ones as soon as they have been rendered, and shows those until then', async () => {
    const store = make(true)
    store.fill([12, 13], vi.fn())
    await vi.waitFor(() => expect([store.has(12), store.has(13)]).toEqual([true, true]))
    const small = store.show(12)
    rendered.add(12)
    asked = []
    store.fill([12], vi.fn())
    expect([store.has(12), store.show(12)]).toEqual([true, small])
    await filled(store, [12])
    expect(asked).toEqual(['/cuts/5/finished', 'play']) // it comes whole, as it is there
    expect(small?.close).not.toHaveBeenCalled()
    expect(store.show(12)).not.toBe(small)
    expect(small?.close).toHaveBeenCalledOnce()
  })

  it('has whole pictures made for small ones once all are there, one at a time, of what is wanted again', async () => {
    const store = make(true)
    await filled(store, [12, 13, 14])
    expect(asked.filter((one) => !one.startsWith('/'))).toEqual(['play', 'play', 'play', 'full', 'full', 'full'])
    asked = []
    await filled(store, [12, 13, 14])
    expect(asked).toEqual([])
    store.forget()
    await filled(store, [12])
    expect(asked).toEqual(['/cuts/5/finished', 'play', '/cuts/5/finished', 'full'])
  })

  it('takes whole pictures for those that a slow screen drew of fewer pixels, and leaves the others', async () => {
    const store = make(true)
    await filled(store, [0, 1, 2])
    const fine = store.show(0)
    live.slow = true
    const coarse = [1, 2].map((frame) => store.show(frame))
    asked = []
    ;[0, 1].forEach((frame) => rendered.add(frame))
    await filled(store, [0, 1, 2])
    expect(asked).toEqual(['/cuts/5/finished', 'play', '/cuts/5/finished', 'full'])
    expect([store.show(0) === fine, ...[1, 2].map((frame, at) => store.show(frame) === coarse[at])]).toEqual([true, false, false])
  })

  it('asks for as many at once as the server has processes, and never for all that a browser may', async () => {
    for (const [processes, most] of [
      [1, 2],
      [3, 3],
      [16, 4],
    ] as const) {
      asked = []
      make(false, processes).fill([12, 13, 14, 15, 16, 17], vi.fn())
      await settle()
      expect(asked.filter((one) => one.includes('finished'))).toHaveLength(most)
      await new Promise((resolve) => setTimeout(resolve))
    }
  })

  it('takes finished pictures of a grade that has no ladder, and without WebGL 2', async () => {
    lattices = () => null
    const store = make()
    await filled(store, [0])
    expect(asked).toEqual(['/cuts/5/ladders', '/cuts/5/finished', 'play'])
    live.there = false
    asked = []
    const plain = make()
    await filled(plain, [0])
    expect(asked).toEqual(['/cuts/5/finished', 'play'])
  })
})
