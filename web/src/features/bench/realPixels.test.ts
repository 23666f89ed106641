import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref, shallowRef } from 'vue'
import { installBrowser, installServer, settle, type Call } from '@/test/browser'
import type { PictureWish } from './usePicture'
import { sightOf, useRealPixels, type Sight } from './useRealPixels'

const UHD = { width: 3840, height: 2160 }

describe('what of a picture is seen', () => {
  const stage = { width: 700, height: 400 }

  it('is all of it where it fits, at as many pixels as the screen has for it', () => {
    expect(sightOf(UHD, { x: 0, y: 3.125, width: 700, height: 393.75 }, stage, 2)).toEqual({ raster: { width: 1400, height: 788 }, window: { left: 0, top: 0, width: 1400, height: 788 } })
  })

  it('is a part of the master at 1:1 and at 2:1', () => {
    expect(sightOf(UHD, { x: -1000, y: -500, width: 3840, height: 2160 }, stage, 1)).toEqual({ raster: UHD, window: { left: 1000, top: 500, width: 700, height: 400 } })
    expect(sightOf(UHD, { x: -1000, y: -501, width: 7680, height: 4320 }, stage, 1)).toEqual({ raster: UHD, window: { left: 500, top: 250, width: 350, height: 201 } })
  })

  it('ends where the picture ends, and is nothing beside it', () => {
    expect(sightOf(UHD, { x: 300, y: -2000, width: 3840, height: 2160 }, stage, 1)?.window).toEqual({ left: 0, top: 2000, width: 400, height: 160 })
    expect(sightOf(UHD, { x: 800, y: 0, width: 3840, height: 2160 }, stage, 1)).toBeNull()
  })
})

describe('real pixels', () => {
  let calls: Call[]
  const scope = effectScope()
  beforeEach(() => {
    vi.useFakeTimers()
    installBrowser()
    calls = installServer()
    vi.stubGlobal('createImageBitmap', async () => ({ close() {} }))
  })
  afterEach(() => {
    scope.stop()
    vi.useRealTimers()
  })

  it('are asked for when picture and sight rest, the newest alone, and go when either changes', async () => {
    const wish = shallowRef<PictureWish | null>({ cut: 4, frame: 7 } as PictureWish)
    const sight = ref<Sight | null>(null)
    const shown = scope.run(() => useRealPixels({ wish, sight, trouble: () => {} }))!
    vi.advanceTimersByTime(500)
    expect(calls).toEqual([])
    const seen = (left: number): Sight => ({ raster: UHD, window: { left, top: 0, width: 700, height: 400 } })
    sight.value = seen(1)
    await settle()
    vi.advanceTimersByTime(100)
    sight.value = seen(2)
    await settle()
    vi.advanceTimersByTime(200)
    expect(calls.map(({ path, body }) => [path, body.frame, (body.window as Sight['window']).left])).toEqual([['/cuts/4/window', 7, 2]])
    calls[0]!.answer(200, {})
    await settle()
    await vi.advanceTimersByTimeAsync(1)
    expect(shown.value?.window.left).toBe(2)
    wish.value = { cut: 4, frame: 8 } as PictureWish
    await settle()
    expect(shown.value).toBeNull()
  })
})
