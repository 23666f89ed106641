import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref, type EffectScope } from 'vue'
import { installBrowser, settle } from '@/test/browser'
import { usePlayer } from './usePlayer'

let scope: EffectScope
let now = 0
let paint: FrameRequestCallback | null
let fetched: number[]
let slow: boolean

function answer(): ArrayBuffer {
  const text = new TextEncoder().encode(JSON.stringify({ parts: [{ name: 'picture', length: 1 }] }))
  const bytes = new Uint8Array([0, 0, 0, 0, ...text, 7])
  new DataView(bytes.buffer).setUint32(0, text.length, true)
  return bytes.buffer
}

beforeEach(() => {
  installBrowser()
  now = 0
  paint = null
  fetched = []
  slow = false
  vi.stubGlobal('performance', { now: () => now })
  vi.stubGlobal('requestAnimationFrame', (callback: FrameRequestCallback) => ((paint = callback), 1))
  vi.stubGlobal('cancelAnimationFrame', () => (paint = null))
  vi.stubGlobal('createImageBitmap', () => Promise.resolve({ close: vi.fn() }))
  vi.stubGlobal('fetch', (_: string, init: RequestInit) => {
    fetched.push((JSON.parse(String(init.body)) as { frame: number }).frame)
    return slow ? new Promise(() => undefined) : Promise.resolve(new Response(answer()))
  })
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.unstubAllGlobals()
})

/** Runs the clock on, painting sixty times a second. */
async function run(milliseconds: number) {
  for (let end = now + milliseconds; now < end; now += 1000 / 60) {
    paint?.(now)
    for (let i = 0; i < 4; i++) await settle()
    await new Promise((resolve) => setTimeout(resolve))
  }
}

function start(count = 12) {
  const generation = ref(0)
  const shown: number[] = []
  const player = scope.run(() =>
    usePlayer({ cut: ref(1), rate: ref(24), range: ref({ first: 100, count }), generation, go: (frame) => shown.push(frame), trouble: vi.fn() }),
  )
  if (!player) throw new Error('the scope has ended')
  return { player, shown, generation }
}

describe('usePlayer', () => {
  it('shows every frame in order once they have arrived, round and round', async () => {
    const { player, shown } = start()
    player.play(100)
    await run(1500)
    player.dropped.value = 0
    shown.length = 0
    await run(1000)
    expect(player.dropped.value).toBe(0)
    expect(shown.length).toBeGreaterThanOrEqual(23)
    shown.slice(1).forEach((frame, index) => expect(frame).toBe(shown[index] === 111 ? 100 : (shown[index] ?? 0) + 1))
    expect(player.shownRate.value).toBeGreaterThanOrEqual(23)
  })

  it('keeps to the clock and counts what it had to drop', async () => {
    slow = true
    const { player, shown } = start()
    player.play(100)
    await run(500)
    expect(shown).toEqual([])
    expect(player.dropped.value).toBeGreaterThanOrEqual(10)
    expect(fetched).toHaveLength(2)
  })

  it('asks again for what a changed grade has made stale', async () => {
    const { player, generation } = start(4)
    player.play(100)
    await run(600)
    const before = fetched.length
    await run(300)
    expect(fetched).toHaveLength(before)
    generation.value++
    await run(300)
    expect(fetched.length).toBeGreaterThan(before)
  })

  it('stops', async () => {
    const { player, shown } = start()
    player.play(100)
    await run(400)
    player.stop()
    const seen = shown.length
    await run(400)
    expect(shown).toHaveLength(seen)
    expect(player.picture.value).toBeNull()
  })
})
