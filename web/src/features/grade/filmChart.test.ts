import { describe, expect, it } from 'vitest'
import { at, CX, CY, HEIGHT, left, onPrint, up, wayOf, WIDTH } from './filmChart'

const exposure = [-2.4, -1.2, 0, 1.2, 2.4]
const shapes = { exposure, negative_green: [0, 0.7, 1.4, 2.1, 2.8], dyes_green: [0, 0.7, 1.4, 2.1, 2.8], print_green: [4.4, 3.3, 2.2, 1.1, 0], light_green: exposure }

describe('the tone reproduction diagram', () => {
  it('reads curves between what is told, and holds to their ends', () => {
    expect([at(shapes, 'negative_green', 0.6), at(shapes, 'negative_green', -9), at(shapes, 'negative_green', 9)].map((value) => Number(value.toFixed(6)))).toEqual([1.75, 0, 2.8])
  })

  it('runs a grey round its four quarters and back', () => {
    const way = wayOf(shapes, 0)
    expect(way.dots).toEqual([
      [CX + WIDTH / 2, CY - HEIGHT / 2],
      [CX - WIDTH / 2, CY - HEIGHT / 2],
      [CX + WIDTH / 2, CY + HEIGHT / 2],
    ])
    expect(way.path.startsWith(`M${CX + WIDTH / 2} ${CY - HEIGHT / 2}L`)).toBe(true)
  })

  it('finds a density on a print, or says that it is none of its', () => {
    expect(onPrint(shapes, 'green', 2.2)).toEqual([left(2.2), up(1.4)])
    expect(onPrint(shapes, 'green', 5)).toBeNull()
  })
})
