import { describe, expect, it } from 'vitest'
import { placedInside } from './inside'

describe('a menu', () => {
  const window_ = { width: 1280, height: 800 }

  it('stays where it is laid out when it fits', () => {
    expect(placedInside({ left: 100, top: 50, width: 200, height: 300 }, window_)).toEqual({ left: 100, top: 50, width: 200, height: 300 })
  })

  it('moves as far as it must at every edge', () => {
    expect(placedInside({ left: 1200, top: 700, width: 200, height: 300 }, window_)).toMatchObject({ left: 1072, top: 492 })
    expect(placedInside({ left: -40, top: -5, width: 200, height: 300 }, window_)).toMatchObject({ left: 8, top: 8 })
  })

  it('is no taller than the window', () => {
    expect(placedInside({ left: 10, top: 10, width: 200, height: 2000 }, window_)).toEqual({ left: 10, top: 8, width: 200, height: 784 })
  })
})
