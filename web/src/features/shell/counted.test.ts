import { expect, it } from 'vitest'
import { counted } from './counted'

it('counts as people say it', () => {
  expect([0, 1, 2, -1, -3].map((count) => counted(count, 'frame'))).toEqual(['0 frames', '1 frame', '2 frames', '-1 frame', '-3 frames'])
})
