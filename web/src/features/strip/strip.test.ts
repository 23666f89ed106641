import type { RecipeDocument, SpanDocument } from '@/api/recipe'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { cut as made } from '@/test/production'
import { useCut } from '../cut/useCut'
import { keyFrames, picked, withAlteredPicks, withMovedPicks, withPasted, withValuesAt, withoutPicks } from './courses'
import { caught } from './useStripDrag'
import { useTimeView } from './useTimeView'
import { outlineOf, placeOf, pulled, withNewSpan, withPart, withoutSpan, type Grip } from './spans'

describe('keys of parameters', () => {
  const courses = {
    exposure: [
      { frame: 4, value: 0, ease: 'smooth' as const },
      { frame: 10, value: 1 },
    ],
    offset: [{ frame: 10, value: [0, 0, 0, 0] }],
  }

  it('are set at a frame, going on as the one before, and taken off again', () => {
    const made = withValuesAt(courses, 7, { exposure: 0.5, contrast: 1.2 }, 'hold')
    expect(made.exposure).toEqual([courses.exposure[0], { frame: 7, value: 0.5, ease: 'smooth' }, courses.exposure[1]])
    expect(made.contrast).toEqual([{ frame: 7, value: 1.2, ease: 'hold' }])
    expect(withValuesAt(courses, 4, { exposure: 2 }).exposure?.[0]).toEqual({ frame: 4, value: 2, ease: 'smooth' })
    expect(keyFrames(made)).toEqual([4, 7, 10])
    expect(
      withoutPicks(made, [
        { name: 'contrast', frame: 7 },
        { name: 'exposure', frame: 7 },
      ]),
    ).toEqual(courses)
  })

  it('are moved, altered, copied and pasted; one moved on to another takes its place', () => {
    expect(withMovedPicks(courses, [{ name: 'exposure', frame: 4 }], 6)).toEqual({ exposure: [{ frame: 10, value: 0, ease: 'smooth' }], offset: courses.offset })
    expect(
      withMovedPicks(
        courses,
        [
          { name: 'exposure', frame: 4 },
          { name: 'offset', frame: 10 },
        ],
        -2,
      ).offset?.[0]?.frame,
    ).toBe(8)
    expect(withAlteredPicks(courses, [{ name: 'exposure', frame: 4 }], { out: 2 }).exposure?.[0]).toEqual({ frame: 4, value: 0, ease: 'smooth', out: 2 })
    const copied = picked(courses, [
      { name: 'exposure', frame: 4 },
      { name: 'exposure', frame: 10 },
    ])
    expect(withPasted(courses, copied, 10).exposure?.map((key) => [key.frame, key.value])).toEqual([
      [4, 0],
      [10, 0],
      [16, 1],
    ])
  })
})

describe('spans', () => {
  const span: SpanDocument = { id: 's', name: 'turns', start: 30, finish: 60, fade_in: [15, 0], fade_out: [0, 10], curve: 'straight' }
  const document: RecipeDocument = { steps: [{ id: 'a', kind: 'balance', name: 'A', enabled: true, strength: 1, parameters: {} }] }

  it('are pulled by whatever a hand is on, and stay spans', () => {
    const after = (grip: Grip, by: number) => {
      const made = pulled(span, grip, by)
      return [made.start, made.finish, ...made.fade_in, ...made.fade_out]
    }
    expect(after('whole', 5)).toEqual([35, 65, 15, 0, 0, 10])
    expect(after('start', 50)).toEqual([60, 60, 15, 0, 0, 10])
    expect(after('finish', -50)).toEqual([30, 30, 15, 0, 0, 10])
    expect(after('in-before', -5)).toEqual([30, 60, 20, 0, 0, 10])
    expect(after('in-before', 99)).toEqual([30, 60, 0, 0, 0, 10])
    expect(after('in-after', 99)).toEqual([30, 60, 15, 30, 0, 10])
    expect(after('out-before', -4)).toEqual([30, 60, 15, 0, 4, 10])
    expect(after('out-after', 3)).toEqual([30, 60, 15, 0, 0, 13])
    expect((['in-before', 'in-after', 'out-before', 'out-after'] as Grip[]).map((grip) => placeOf(span, grip))).toEqual([15, 30, 60, 70])
  })

  it('are drawn as they act', () => {
    const path = outlineOf(
      span,
      (frame) => frame,
      (share) => share,
    )
    expect(path).toMatch(/^M15\.00 0\.00L15\.00 0\.00L/)
    expect(path).toContain('L30.00 1.00L61.00 1.00L')
    expect(path).toMatch(/71\.00 0\.00Z$/)
    expect(
      outlineOf(
        { ...span, fade_in: [0, 0], fade_out: [0, 0] },
        (frame) => frame,
        (share) => share,
      ),
    ).toBe('M30.00 0.00L30.00 1.00L61.00 1.00L61.00 0.00Z')
  })

  it('take steps in and leave them, and go with none left behind', () => {
    const made = withNewSpan(document, span, 'a')
    expect([made.spans?.length, made.steps[0]?.spans]).toEqual([1, ['s']])
    expect(withPart(made, 'a', 's', false).steps[0]?.spans).toBeUndefined()
    expect(withPart(withPart(made, 'a', 's', false), 'a', 's', true)).toEqual(made)
    expect(withoutSpan(made, 's')).toEqual({ ...document, steps: [{ ...document.steps[0], spans: undefined }], spans: undefined })
  })
})

describe('the frames that are seen', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    const cut = useCut()
    cut.cut = made()
    cut.frame = 14
  })

  it('are the cut, the shot, or a stretch about a place that stays under the pointer', () => {
    const view = useTimeView()
    expect(view.view).toEqual({ from: 0, count: 30 })
    view.flip()
    expect([view.view, view.at(21), view.frameAt(0.5)]).toEqual([{ from: 12, count: 18 }, 50, 21])
    const place = view.frameAt(0.75)
    view.zoom(0.5, 0.75)
    expect([view.mode, view.view.count]).toEqual(['free', 9])
    expect(view.frameAt(0.75)).toBeCloseTo(place)
    view.zoom(0.01)
    expect(view.view.count).toBe(6)
    view.zoom(100)
    expect(view.mode).toBe('cut')
  })

  it('go along with the playhead when it leaves them', async () => {
    const view = useTimeView()
    view.zoom(0.3, 0)
    expect(view.view).toEqual({ from: 0, count: 9 })
    useCut().frame = 20
    await nextTick()
    expect(view.view.from).toBeLessThanOrEqual(20)
    expect(view.view.from + view.view.count).toBeGreaterThan(20)
  })
})

it('catches what is dragged at the nearest place within reach', () => {
  expect([caught(10.3, [10, 14], 0.5), caught(12.4, [10, 14], 0.5), caught(13.7, [10, 14], 4)]).toEqual([10, 12, 14])
})
