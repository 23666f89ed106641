import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { installBrowser, settle } from '@/test/browser'
import { project, shot } from '@/test/production'
import type { Shot } from '@/api/cut'
import { useArrival } from './useArrival'
import { clock, sourceClock } from '../cut/timecode'
import { usePlayReading } from './usePlayReading'
import type { PictureWish } from './usePicture'

beforeEach(() => {
  installBrowser()
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('arriving at a shot', () => {
  it('shows its small picture until its own is there, never that of the shot before', async () => {
    const made = vi.fn((address: string) => Promise.resolve({ address, close: vi.fn() } as unknown as ImageBitmap))
    const [one, two] = [shot(1, 0, 12), shot(2, 12, 18)]
    const at = ref<Shot | null>(one)
    const shownFrame = ref<number | null>(3)
    const scope = effectScope()
    const { arrived, standIn } = scope.run(() => useArrival({ shot: at, project: ref(project()), shownFrame, load: made }))!
    await settle()
    expect([arrived.value, standIn.value, made.mock.calls.length]).toEqual([true, null, 0])
    at.value = two
    await settle()
    expect(arrived.value).toBe(false)
    expect((standIn.value as unknown as { address: string }).address).toMatch('/shots/2/small.png')
    at.value = one
    await nextTick()
    expect([arrived.value, standIn.value]).toEqual([true, null])
    at.value = two
    shownFrame.value = 14
    await settle()
    expect([arrived.value, standIn.value]).toEqual([true, null])
    scope.stop()
  })

  it('leaves out a small picture that comes after the shot was left', async () => {
    let done: (bitmap: ImageBitmap) => void = () => {}
    const close = vi.fn()
    const at = ref<Shot | null>(shot(1, 0, 12))
    const scope = effectScope()
    const { standIn } = scope.run(() => useArrival({ shot: at, project: ref(project()), shownFrame: ref(null), load: () => new Promise((resolve) => (done = resolve)) }))!
    const first = done
    at.value = shot(2, 12, 18)
    await nextTick()
    first({ close } as unknown as ImageBitmap)
    await settle()
    expect([standIn.value, close.mock.calls.length]).toEqual([null, 1])
    scope.stop()
  })
})

describe('instruments while it plays', () => {
  /** As the server packs it: the header's length, the header, and no parts. */
  function packed(header: object) {
    const text = new TextEncoder().encode(JSON.stringify({ ...header, parts: [] }))
    const bytes = new Uint8Array(4 + text.length)
    new DataView(bytes.buffer).setUint32(0, text.length, true)
    bytes.set(text, 4)
    return new Response(bytes, { status: 200 })
  }

  it('take no answer that comes after it has stopped', async () => {
    vi.useFakeTimers()
    installBrowser()
    const answers: ((response: Response) => void)[] = []
    vi.stubGlobal('fetch', () => new Promise((resolve) => answers.push(resolve)))
    const trouble = vi.fn()
    const wish = ref<PictureWish | null>({ cut: 5, frame: 7, source: false, on: {} as never, moving: false, trial: null })
    const scope = effectScope()
    const reading = scope.run(() => usePlayReading(wish, trouble))!
    await vi.advanceTimersByTimeAsync(200)
    answers[0]?.(packed({ frame: 7 }))
    await vi.advanceTimersByTimeAsync(1)
    expect(reading.value?.header.frame).toBe(7)
    await vi.advanceTimersByTimeAsync(200)
    wish.value = null
    await nextTick()
    answers[1]?.(packed({ frame: 9 }))
    await vi.advanceTimersByTimeAsync(50)
    expect([answers.length, reading.value, trouble.mock.calls]).toEqual([2, null, []])
    scope.stop()
  })
})

describe('timecode', () => {
  // SMPTE ST 12-1: frames 00 and 01 are left out of every minute but each tenth.
  it('drops numbers as the standard does', () => {
    const rate = 30000 / 1001
    expect([1799, 1800, 17981, 17982, 107892].map((frame) => clock(frame, rate, true))).toEqual(['00:00:59;29', '00:01:00;02', '00:09:59;29', '00:10:00;00', '01:00:00;00'])
    expect([3599, 3600].map((frame) => clock(frame, 60000 / 1001, true))).toEqual(['00:00:59;59', '00:01:00;04'])
  })

  it('counts a source at its own rate', () => {
    const one = { ...shot(1, 100, 12), source_in: 4 }
    const fast = { ...one.clip, rate: '50/1', start_frames: 50 * 3600, drop: false, pace: 'frames' as const }
    expect(sourceClock({ ...one, clip: fast }, 102, 25)).toBe('01:00:00:06')
    expect(sourceClock({ ...one, clip: { ...fast, pace: 'time' } }, 102, 25)).toBe('01:00:00:13')
  })
})
