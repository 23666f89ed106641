import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import { installBrowser, settle } from '@/test/browser'
import { step } from '@/test/production'
import { usePicture, type PictureWish } from './usePicture'

interface Asked {
  frame: number
  size: string
  sequence: number
  answer: () => Promise<void>
  fail: (words: string) => Promise<void>
}

let asked: Asked[]
let scope: EffectScope
const trouble = vi.fn()

function answerOf(header: object): ArrayBuffer {
  const text = new TextEncoder().encode(JSON.stringify({ ...header, parts: [{ name: 'picture', length: 1 }] }))
  const bytes = new Uint8Array([0, 0, 0, 0, ...text, 7])
  new DataView(bytes.buffer).setUint32(0, text.length, true)
  return bytes.buffer
}

beforeEach(() => {
  vi.useFakeTimers()
  installBrowser()
  asked = []
  trouble.mockClear()
  vi.stubGlobal(
    'OffscreenCanvas',
    class {
      getContext = () => null
    },
  )
  vi.stubGlobal('createImageBitmap', () => Promise.resolve({ width: 1, height: 1, close: vi.fn() }))
  vi.stubGlobal(
    'fetch',
    (_: string, init: RequestInit) =>
      new Promise((resolve) => {
        const body = JSON.parse(String(init.body)) as { frame: number; size: string; sequence: number }
        const give = async (response: Response) => {
          resolve(response)
          await vi.advanceTimersByTimeAsync(0)
          await settle()
        }
        asked.push({
          ...body,
          answer: () => give(new Response(answerOf(body))),
          fail: (words) => give(new Response(JSON.stringify({ error: words }), { status: 422 })),
        })
      }),
  )
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const wish = (change: Partial<PictureWish> = {}): PictureWish => ({ cut: 1, frame: 0, source: false, on: { target: 'television', canvas: '2.4', view: true, exaggerate: false, lut: '' }, moving: false, trial: null, ...change })

async function start(first: PictureWish) {
  const wanted = ref<PictureWish | null>(first)
  const picture = scope.run(() => usePicture(wanted, trouble))
  if (!picture) throw new Error('the scope has ended')
  await vi.advanceTimersByTimeAsync(0)
  return { wanted, picture }
}

describe('usePicture', () => {
  it('asks for the exact picture when the hand rests, and says when it is there', async () => {
    const { picture } = await start(wish())
    expect(asked.map((one) => one.size)).toEqual(['full'])
    expect(picture.settled.value).toBe(false)
    await asked[0]?.answer()
    expect(picture.settled.value).toBe(true)
    expect(picture.shown.value?.header.frame).toBe(0)
  })

  it('asks for reduced pictures while a hand moves, the newest only', async () => {
    const { wanted, picture } = await start(wish())
    await asked[0]?.answer()
    for (const exposure of [1, 2, 3]) {
      wanted.value = wish({ moving: true, trial: [{ recipe: 1, document: { steps: [step(exposure)] } }] })
      await nextTick()
    }
    expect(asked.slice(1).map((one) => one.size)).toEqual(['drag'])
    await asked[1]?.answer()
    expect(asked).toHaveLength(3)
    await asked[2]?.answer()
    expect(asked).toHaveLength(3)
    wanted.value = wish({ trial: [{ recipe: 1, document: { steps: [] } }] })
    await vi.advanceTimersByTimeAsync(150)
    expect(asked.at(-1)?.size).toBe('full')
    await asked.at(-1)?.answer()
    expect(picture.settled.value).toBe(true)
  })

  it('shows another frame of what takes long to decode from its working copy first', async () => {
    const { wanted, picture } = await start(wish({ copied: true }))
    await asked[0]?.answer()
    wanted.value = wish({ copied: true, frame: 40 })
    await vi.advanceTimersByTimeAsync(0)
    expect(asked.slice(1).map((one) => one.size)).toEqual(['drag'])
    await asked[1]?.answer()
    expect([picture.settled.value, asked.at(-1)?.size]).toEqual([false, 'full'])
    await asked[2]?.answer()
    expect(picture.settled.value).toBe(true)
    wanted.value = wish({ copied: true, frame: 40, source: true })
    await vi.advanceTimersByTimeAsync(0)
    expect(asked.slice(3).map((one) => one.size)).toEqual(['full'])
  })

  it('numbers its requests, so that the server can drop what is overtaken', async () => {
    const { wanted } = await start(wish())
    await asked[0]?.answer()
    wanted.value = wish({ frame: 4 })
    await vi.advanceTimersByTimeAsync(0)
    expect(asked.map((one) => one.sequence)).toEqual([1, 2])
  })

  it('is not settled by a picture of what is not wanted any more', async () => {
    const { wanted, picture } = await start(wish())
    wanted.value = wish({ frame: 9 })
    await nextTick()
    await asked[0]?.answer()
    expect(picture.settled.value).toBe(false)
  })

  it('says what went wrong, and recovers', async () => {
    const { wanted, picture } = await start(wish())
    await asked[0]?.fail('a.mov: the file is not there any more')
    expect(picture.failed.value).toMatch(/not there/)
    expect(trouble).toHaveBeenCalledOnce()
    wanted.value = wish({ frame: 1 })
    await vi.advanceTimersByTimeAsync(0)
    await asked[1]?.answer()
    expect(picture.failed.value).toBeNull()
  })
})
