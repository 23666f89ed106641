import { send } from '@/api/client'
import { onScopeDispose, shallowRef, watch, type Ref } from 'vue'
import type { PictureWish } from './usePicture'

/** A part of the picture as the stage shows it: the whole picture's raster, and the part in its pixels. */
export interface Sight {
  raster: { width: number; height: number }
  window: { left: number; top: number; width: number; height: number }
}

export interface RealPixels extends Sight {
  bitmap: ImageBitmap
}

export interface RealPixelsOptions {
  /** The picture that is shown exactly; null while there is none. */
  wish: Ref<PictureWish | null>
  /** What of it is seen; null where the settled picture has as many pixels as the screen. */
  sight: Ref<Sight | null>
  trouble: (error: unknown) => void
}

const REST = 150 // ms in which neither picture nor sight changes

/** The visible part of a picture that rests, with a pixel of its own for each of the screen, up to those of the master. */
export function useRealPixels({ wish, sight, trouble }: RealPixelsOptions) {
  const shown = shallowRef<RealPixels | null>(null)
  const screen = crypto.randomUUID()
  let sequence = 0
  let timer = 0
  let over = false

  function show(next: RealPixels | null) {
    shown.value?.bitmap.close()
    shown.value = next
  }

  async function fetchPart(asked: PictureWish, seen: Sight) {
    try {
      const { cut, frame, source, on, trial, test, still, swatch, acts, upto, adds, taken, measuring } = asked
      const marked = measuring && {
        measure: measuring.measure,
        light: measuring.light,
        bands: measuring.bands,
        marks: measuring.marks,
        breaks: measuring.breaks,
        beside: measuring.beside,
        difference: measuring.difference,
        gain: measuring.gain,
      }
      const response = await send('POST', `/cuts/${cut}/window`, { frame, source, on, trial, test, still, swatch, acts, upto, adds, taken_gain: taken, ...marked, ...seen, screen, sequence: ++sequence })
      if (response.status === 204) return
      const bitmap = await createImageBitmap(await response.blob(), { colorSpaceConversion: 'none' })
      if (over || asked !== wish.value || seen !== sight.value) bitmap.close()
      else show({ bitmap, ...seen })
    } catch (error) {
      trouble(error)
    }
  }

  watch(
    [wish, sight],
    ([asked, seen]) => {
      clearTimeout(timer)
      show(null)
      if (asked && seen) timer = window.setTimeout(() => void fetchPart(asked, seen), REST)
    },
    { immediate: true },
  )

  onScopeDispose(() => {
    over = true
    clearTimeout(timer)
    show(null)
  })

  return shown
}

/**
 * Draws them where the whole picture lies: pixel upon pixel, or each as a square of several.
 *
 * @param place of the whole picture, in screen units
 * @param pixels device pixels a screen unit
 */
export function drawReal(context: CanvasRenderingContext2D, { bitmap, raster, window: part }: RealPixels, place: { x: number; y: number; width: number; height: number }, pixels: number) {
  const [wide, high] = [(place.width * pixels) / raster.width, (place.height * pixels) / raster.height]
  context.imageSmoothingEnabled = false
  context.drawImage(bitmap, Math.round(place.x * pixels + part.left * wide), Math.round(place.y * pixels + part.top * high), Math.round(part.width * wide), Math.round(part.height * high))
}

/**
 * What of a picture a stage shows.
 *
 * @param raster of the master
 * @param place where the whole picture lies in the stage, in screen units
 * @param pixels device pixels a screen unit
 */
export function sightOf(raster: { width: number; height: number }, place: { x: number; y: number; width: number; height: number }, stage: { width: number; height: number }, pixels: number): Sight | null {
  const scale = Math.min(1, (place.width * pixels) / raster.width)
  const whole = { width: Math.max(1, Math.round(raster.width * scale)), height: Math.max(1, Math.round(raster.height * scale)) }
  const span = (at: number, of: number, room: number, edge: number) => {
    const perPixel = edge / of // of the raster, a screen unit
    const first = Math.max(0, Math.floor(-at * perPixel))
    return { first, count: Math.min(edge, Math.ceil((room - at) * perPixel)) - first }
  }
  const across = span(place.x, place.width, stage.width, whole.width)
  const down = span(place.y, place.height, stage.height, whole.height)
  if (!(across.count > 0 && down.count > 0)) return null
  return { raster: whole, window: { left: across.first, top: down.first, width: across.count, height: down.count } }
}
