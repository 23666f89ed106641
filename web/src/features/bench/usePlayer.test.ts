import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref, type EffectScope } from 'vue'
import { installBrowser } from '@/test/browser'
import type { PlayStore } from './playStore'
import { usePlayer } from './usePlayer'

let scope: EffectScope
let now = 0
let paint: FrameRequestCallback | null
let wanted: number[]
let there: Set<number>
let slow: boolean
let forgotten: number
/** Frames whose pictures have been made. */
let made: Set<number>
/** Milliseconds that making one takes. */
let drawing: number

/** Frames are there as soon as they have been asked for, unless it is slow. */
const store = (): PlayStore => ({
  has: (frame) => there.has(frame),
  ready: (frame) => made.has(frame),
  wait: () => 40,
  fill: (frames) => {
    wanted.push(...frames.filter((frame) => !there.has(frame)))
    if (!slow) frames.forEach((frame) => there.add(frame))
  },
  show: (frame) => {
    if (!made.has(frame)) now += drawing
    made.add(frame)
    return { close: vi.fn() } as unknown as ImageBitmap
  },
  forget: () => {
    forgotten++
    there.clear()
  },
  close: vi.fn(),
})

beforeEach(() => {
  installBrowser()
  now = 0
  paint = null
  wanted = []
  there = new Set()
  slow = false
  forgotten = 0
  made = new Set()
  drawing = 0
  vi.stubGlobal('performance', { now: () => now })
  vi.stubGlobal('requestAnimationFrame', (callback: FrameRequestCallback) => ((paint = callback), 1))
  vi.stubGlobal('cancelAnimationFrame', () => (paint = null))
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.unstubAllGlobals()
})

/** Runs the clock on, painting sixty times a second. */
function run(milliseconds: number) {
  for (let end = now + milliseconds; now < end; now += 1000 / 60) paint?.(now)
}

function start(count = 12, patient = false) {
  const generation = ref(0)
  const shown: number[] = []
  const player = scope.run(() => usePlayer({ store: store(), rate: ref(24), range: ref({ first: 100, count }), generation, patient: ref(patient), go: (frame) => shown.push(frame) }))
  if (!player) throw new Error('the scope has ended')
  return { player, shown, generation }
}

describe('usePlayer', () => {
  it('shows every frame in order once they have arrived, round and round', () => {
    const { player, shown } = start()
    player.play(100)
    run(1500)
    player.dropped.value = 0
    shown.length = 0
    run(1000)
    expect(player.dropped.value).toBe(0)
    expect(shown.length).toBeGreaterThanOrEqual(23)
    shown.slice(1).forEach((frame, index) => expect(frame).toBe(shown[index] === 111 ? 100 : (shown[index] ?? 0) + 1))
    expect(player.shownRate.value).toBeGreaterThanOrEqual(23)
  })

  it('keeps to the clock and counts what it had to drop', () => {
    slow = true
    const { player, shown } = start()
    player.play(100)
    run(500)
    expect(shown).toEqual([])
    expect(player.dropped.value).toBeGreaterThanOrEqual(10)
    expect(wanted).toContain(105)
  })

  it('waits, where it is patient, for each picture of the first round, and keeps the rate from the second on', () => {
    slow = true
    const { player, shown } = start(12, true)
    player.play(100)
    const round = Array.from({ length: 12 }, (_, at) => 100 + at)
    for (const frame of round) {
      run(170) // four frames by the clock
      expect([player.waiting.value, shown.at(-1)]).toEqual([true, frame === 100 ? undefined : frame - 1])
      there.add(frame)
      run(17)
      expect(shown.at(-1)).toBe(frame)
    }
    expect([shown, player.dropped.value]).toEqual([round, 0])
    run(1100)
    expect([player.waiting.value, player.dropped.value]).toEqual([false, 0])
    expect(player.shownRate.value).toBeGreaterThanOrEqual(23)
  })

  it('passes over none, where it is patient, that takes longer to make than its time, until it has been made', () => {
    drawing = 90
    const { player, shown } = start(12, true)
    player.play(100)
    run(2000)
    expect(shown.slice(0, 12)).toEqual(Array.from({ length: 12 }, (_, at) => 100 + at))
    player.dropped.value = 0
    run(1100)
    expect(player.dropped.value).toBe(0)
    expect(player.shownRate.value).toBeGreaterThanOrEqual(23)
  })

  it('lets go of what a changed grade has made stale', () => {
    const { player, generation } = start(4)
    player.play(100)
    run(600)
    expect(forgotten).toBe(0)
    generation.value++
    run(300)
    expect(forgotten).toBe(1)
  })

  it('stops', () => {
    const { player, shown } = start()
    player.play(100)
    run(400)
    player.stop()
    const seen = shown.length
    run(400)
    expect(shown).toHaveLength(seen)
    expect(player.picture.value).toBeNull()
  })
})
