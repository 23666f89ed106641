import type { ParameterValue } from '@/api/declared'
import type { CourseKey, Courses, Ease } from '@/api/recipe'

/** Keys of parameters with something changed; none of these writes to what it is given. */

/** A key of a parameter. */
export interface Pick {
  name: string
  frame: number
}

const ordered = (keys: CourseKey[]) => [...keys].sort((a, b) => a.frame - b.frame)

export const keyAt = (courses: Courses | undefined, name: string, frame: number) => courses?.[name]?.find((key) => key.frame === frame)

/** All frames that have a key, in order. */
export const keyFrames = (courses: Courses | undefined): number[] => [...new Set(Object.values(courses ?? {}).flatMap((keys) => keys.map((key) => key.frame)))].sort((a, b) => a - b)

/** With values at a frame; what a key there is besides stays, and a new one goes on as the one before it does. */
export function withValuesAt(courses: Courses, frame: number, values: Record<string, ParameterValue>, ease: Ease = 'straight'): Courses {
  return Object.entries(values).reduce((made, [name, value]) => {
    const keys = made[name] ?? []
    const there = keys.find((key) => key.frame === frame) ?? { frame, ease: keys.findLast((key) => key.frame < frame)?.ease ?? keys[0]?.ease ?? ease }
    return { ...made, [name]: ordered([...keys.filter((key) => key.frame !== frame), { ...there, value }]) }
  }, courses)
}

/** Without some keys; a parameter that has none left is gone. */
export function withoutPicks(courses: Courses, picks: Pick[]): Courses {
  const left = Object.entries(courses).map(([name, keys]) => [name, keys.filter((key) => !picks.some((pick) => pick.name === name && pick.frame === key.frame))] as const)
  return Object.fromEntries(left.filter(([, keys]) => keys.length > 0))
}

/** With some keys later or earlier; one that is moved on to another takes its place. */
export function withMovedPicks(courses: Courses, picks: Pick[], by: number): Courses {
  return Object.fromEntries(
    Object.entries(courses).map(([name, keys]) => {
      const chosen = keys.filter((key) => picks.some((pick) => pick.name === name && pick.frame === key.frame))
      const moved = chosen.map((key) => ({ ...key, frame: key.frame + by }))
      const others = keys.filter((key) => !chosen.includes(key) && !moved.some((one) => one.frame === key.frame))
      return [name, ordered([...others, ...moved])]
    }),
  )
}

/** With some keys changed otherwise; what is undefined is left out. */
export function withAlteredPicks(courses: Courses, picks: Pick[], change: Partial<CourseKey>): Courses {
  return Object.fromEntries(Object.entries(courses).map(([name, keys]) => [name, keys.map((key) => (picks.some((pick) => pick.name === name && pick.frame === key.frame) ? { ...key, ...change } : key))]))
}

/** With keys as they were copied, the first of them at a frame. */
export function withPasted(courses: Courses, copied: Courses, frame: number): Courses {
  const first = Math.min(...keyFrames(copied))
  return Object.entries(copied).reduce((made, [name, keys]) => {
    const fresh = keys.map((key) => ({ ...key, frame: key.frame - first + frame }))
    return { ...made, [name]: ordered([...(made[name] ?? []).filter((key) => !fresh.some((one) => one.frame === key.frame)), ...fresh]) }
  }, courses)
}

/** Only what was picked of it. */
export function picked(courses: Courses, picks: Pick[]): Courses {
  const found = Object.entries(courses).map(([name, keys]) => [name, keys.filter((key) => picks.some((pick) => pick.name === name && pick.frame === key.frame))] as const)
  return Object.fromEntries(found.filter(([, keys]) => keys.length > 0))
}
