import { useElementSize } from '@vueuse/core'
import { watchEffect, type Ref } from 'vue'

/** Draws a canvas that fills a box anew whenever what its drawing reads changes. */
export function useCanvas(canvas: Ref<HTMLCanvasElement | undefined>, box: Ref<HTMLElement | undefined>, draw: (context: CanvasRenderingContext2D, width: number, height: number, pixels: number) => void) {
  const { width, height } = useElementSize(box)
  watchEffect(
    () => {
      const surface = canvas.value
      const context = surface?.getContext('2d')
      if (!surface || !context || width.value === 0 || height.value === 0) return
      const pixels = window.devicePixelRatio || 1
      surface.width = Math.round(width.value * pixels)
      surface.height = Math.round(height.value * pixels)
      draw(context, surface.width, surface.height, pixels)
    },
    { flush: 'post' },
  )
  return { width, height }
}

export type Tint = readonly [number, number, number]

export const TINTS: Record<string, Tint> = { luma: [205, 205, 205], red: [214, 112, 92], green: [150, 176, 118], blue: [104, 152, 198] }

/** The graded picture and the second one, told apart; where both are, they add up to nearly white. */
export const PAIR: [Tint, Tint] = [
  [216, 150, 70],
  [70, 130, 200],
]

/** Brightness by column and level, or by row and column, as a picture; level 0 at the bottom. */
export function traceImage(part: Uint8Array, columns: number, levels: number, tint: Tint, intensity: number, at: (column: number, level: number) => number): OffscreenCanvas {
  const image = new ImageData(columns, levels)
  for (let column = 0; column < columns; column++)
    for (let level = 0; level < levels; level++) {
      const bright = part[at(column, level)] ?? 0
      if (bright === 0) continue
      const place = ((levels - 1 - level) * columns + column) * 4
      image.data[place] = tint[0]
      image.data[place + 1] = tint[1]
      image.data[place + 2] = tint[2]
      image.data[place + 3] = Math.min(255, bright * intensity)
    }
  const surface = new OffscreenCanvas(columns, levels)
  surface.getContext('2d')?.putImageData(image, 0, 0)
  return surface
}
