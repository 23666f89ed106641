import type { BandSet } from '@/api/catalogue'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import { useKept } from '../bench/useKept'
import { usePlayReading } from '../bench/usePlayReading'
import type { PictureWish } from '../bench/usePicture'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import { useBands } from './useBands'

let calls: Call[]
const last = () => calls.at(-1)!
const set = (name: string, own = false): BandSet => ({ name, quantity: 'stops', scale: 'absolute', join: 'hard', rest: 'grey', opacity: 1, softness: 0, bands: [{ from: -1, to: 1, colour: '#ffffff' }], own })

beforeEach(() => {
  installBrowser()
  calls = installServer()
  vi.stubGlobal(
    'EventSource',
    class {
      addEventListener() {}
      close() {}
    },
  )
  setActivePinia(createPinia())
  useCatalogue().catalogue = {
    quantities: [
      { id: 'stops', label: 'stops', unit: 'st', min: -9, max: 8, log: false },
      { id: 'light', label: 'light', unit: 'cd/m2', min: 0.01, max: 10_000, log: true },
    ],
  } as never
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('bands', () => {
  async function on() {
    const bands = useBands()
    bands.shown = null
    const flipping = bands.flip()
    await settle()
    last().answer(200, [set('Key and fill'), set('Mine', true)])
    await flipping
    return bands
  }

  it('are fetched when they are first wanted, and painted without what only we know of them', async () => {
    const bands = await on()
    expect([bands.on, bands.wish?.name, 'own' in (bands.wish ?? {})]).toEqual([true, 'Key and fill', false])
    await bands.flip()
    expect([bands.wish, calls.length]).toEqual([null, 1])
  })

  it('begin anew with another quantity', async () => {
    const bands = await on()
    bands.measure('light')
    expect(bands.shown?.bands.map(({ from, to }) => [from, Math.round(to)])).toEqual([
      [0.01, 10],
      [10, 10_000],
    ])
    bands.choose('Mine')
    expect(bands.shown?.quantity).toBe('stops')
  })

  it('are kept under a name, and brought from a file the server has looked at', async () => {
    const bands = await on()
    const keeping = bands.keep('Night')
    await settle()
    expect(last()).toMatchObject({ method: 'PUT', path: '/bands', body: { name: 'Night', quantity: 'stops' } })
    last().answer(200, [set('Night', true)])
    await keeping
    expect(bands.shown?.name).toBe('Night')
    await bands.bring('{ no json')
    expect(useNotices().notices.at(-1)?.words).toMatch(/not JSON/)
    const bringing = bands.bring(JSON.stringify(set('Bad')))
    await settle()
    last().answer(422, { error: 'bands.bands: expected 1 to 32 bands' })
    await bringing
    expect([bands.shown?.name, useNotices().notices.at(-1)?.words]).toEqual(['Night', 'bands.bands: expected 1 to 32 bands'])
  })
})

describe('finished pictures', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    installBrowser()
  })

  it('are asked after once nothing waits to be stored, and forgotten with every change', async () => {
    const scope = effectScope()
    const generation = ref(0)
    const options = { what: 'pictures' as const, project: ref(1), cut: ref(5), on: ref({ target: '', canvas: '2.4', view: true, exaggerate: false, lut: '' }), generation, stored: ref(true), trouble: vi.fn() }
    const kept = scope.run(() => useKept(options))!
    await vi.advanceTimersByTimeAsync(500)
    expect(last()).toMatchObject({ path: '/cuts/5/kept' })
    last().answer(200, {
      spans: [
        [0, 10],
        [20, 5],
      ],
    })
    await vi.advanceTimersByTimeAsync(1)
    expect([0, 9, 10, 24, 25].map(kept.has)).toEqual([true, true, false, true, false])
    generation.value++
    await nextTick()
    expect(kept.has(0)).toBe(false)
    await vi.advanceTimersByTimeAsync(500)
    expect(calls).toHaveLength(2)
    const starting = kept.start(3, 12)
    await vi.advanceTimersByTimeAsync(1)
    expect(last()).toMatchObject({ path: '/cuts/5/renders', body: { first: 3, count: 12, what: 'pictures' } })
    last().answer(202, { id: 9, cut: 5, what: 'pictures', first: 3, count: 12, done: 0, status: 'waiting', message: null })
    await starting
    expect(kept.running.value?.id).toBe(9)
    scope.stop()
  })

  it('leave the instruments to small pictures while playing, one at a time', async () => {
    const scope = effectScope()
    const wish = ref<PictureWish | null>(null)
    const reading = scope.run(() => usePlayReading(wish as never, vi.fn()))!
    wish.value = { cut: 5, frame: 7, source: false, on: { target: '', canvas: '2.4', view: true, exaggerate: false, lut: '' }, moving: false, trial: null }
    await nextTick()
    await vi.advanceTimersByTimeAsync(1000)
    expect(calls).toHaveLength(1) // none has been answered yet
    expect(last()).toMatchObject({ path: '/cuts/5/picture', body: { frame: 7, size: 'small' } })
    wish.value = null
    await nextTick()
    expect(reading.value).toBeNull()
    scope.stop()
  })
})
