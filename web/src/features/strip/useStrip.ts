import type { CourseKey, Courses, RecipeDocument, SpanDocument, StepDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useLayout } from '../bench/useLayout'
import { labelOf, withCourses, withMatte } from '../grade/edit'
import { useMoves } from '../grade/useMoves'
import { useRecipes } from '../grade/useRecipes'
import { useMatte } from '../matte/useMatte'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import { keyFrames, picked, withAlteredPicks, withMovedPicks, withPasted, withoutPicks, type Pick } from './courses'
import { usePicks, type StripPick } from './usePicks'
import { useSpans } from './useSpans'
import { counted } from '../shell/counted'

/** A line of keys: of one parameter, of a contributor, or all of them folded. */
export interface KeyRow {
  id: string
  label: string
  picks: StripPick[]
}

type Edit = (courses: Courses, picks: Pick[]) => Courses

/** Keys of the open step as lines of the strip, and what is done to what is picked. */
export const useStrip = defineStore('strip', () => {
  const moves = useMoves()
  const recipes = useRecipes()
  const catalogue = useCatalogue()
  const matte = useMatte()
  const layout = useLayout()
  const notices = useNotices()

  const folded = useStorage('mordant.strip.folded', false)
  const graph = useStorage('mordant.strip.graph', false)
  const picks = usePicks()
  const spans = useSpans()
  const copied = ref<{ courses: { part: string | null; courses: Courses }[]; span: SpanDocument | null } | null>(null)

  const open = computed(() => moves.open)
  const spec = computed(() => (open.value ? catalogue.step(open.value.step.kind) : undefined))
  const here = computed(() => spans.here)

  const coursesOf = (step: StepDocument, part: string | null) => (part === null ? step.keys : step.matte?.contributors.find((one) => one.id === part)?.keys) ?? {}
  const allOf = (courses: Courses, part: string | null, names = Object.keys(courses)): StripPick[] => names.flatMap((name) => (courses[name] ?? []).map((key) => ({ part, name, frame: key.frame })))

  const rows = computed<KeyRow[]>(() => {
    const step = open.value?.step
    if (!step || !spec.value) return []
    const own = Object.keys(step.keys ?? {}).map((name) => ({ id: name, label: labelOf(spec.value as NonNullable<typeof spec.value>, name).toLowerCase(), picks: allOf(step.keys ?? {}, null, [name]) }))
    const parts = (step.matte?.contributors ?? [])
      .filter((part) => part.keys)
      .map((part) => ({ id: part.id, label: part.name ?? catalogue.catalogue?.contributors.find(({ id }) => id === part.kind)?.label.toLowerCase() ?? part.kind, picks: allOf(part.keys ?? {}, part.id) }))
    const all = [...own, ...parts]
    return folded.value && all.length > 1 ? [{ id: 'all', label: `${all.length} that move`, picks: all.flatMap((row) => row.picks) }] : all
  })
  /** What is declared of a pick that is a number or a row of numbers. */
  function numberSpec(pick: StripPick) {
    const kind = pick.part === null ? spec.value : catalogue.catalogue?.contributors.find(({ id }) => id === open.value?.step.matte?.contributors.find((part) => part.id === pick.part)?.kind)
    return kind?.parameters.find(({ name }) => name === pick.name) ?? null
  }
  /** What the graph is of: the first number that is picked, or that moves. */
  const graphed = computed<StripPick | null>(() => [...picks.keys, ...rows.value.flatMap((row) => row.picks)].find(numberSpec) ?? null)
  /** What is asked of the server for it. */
  const asked = computed(() => (graph.value && layout.strip && graphed.value && open.value ? { step: open.value.step.id, contributor: graphed.value.part, parameter: graphed.value.name } : null))
  /** Paths that carry shapes of the step. */
  const paths = computed(() => {
    const followed = (open.value?.step.matte?.contributors ?? []).filter((part) => part.path)
    const ids = [...new Set(followed.map((part) => part.path?.id))]
    return ids.flatMap((id) => {
      const path = matte.pathOf(id)
      return path ? [{ path, parts: followed.filter((part) => part.path?.id === id) }] : []
    })
  })
  watch(
    () => layout.strip && (open.value?.step.matte?.contributors ?? []).some((part) => part.path && !matte.pathOf(part.path.id)),
    (missing) => missing && void matte.loadPaths(),
    { immediate: true },
  )

  /** The courses of the open step and its contributors with something done to what is picked. */
  function edited(document: RecipeDocument, step: StepDocument, edit: Edit, on: StripPick[]): RecipeDocument {
    const own = on.filter((pick) => pick.part === null)
    const before = step.keys ?? {}
    const after = own.length ? edit(before, own) : before
    // what has no key left stays as it is here
    const gone = Object.keys(before).filter((name) => !after[name])
    const stays = Object.fromEntries(gone.map((name) => [name, moves.parameters(step)[name] ?? 0]))
    let made = withCourses(document, step.id, after, stays)
    const parts = [...new Set(on.map((pick) => pick.part).filter((part) => part !== null))]
    if (step.matte && parts.length) {
      const contributors = step.matte.contributors.map((part) => {
        if (!parts.includes(part.id)) return part
        const left = edit(
          part.keys ?? {},
          on.filter((pick) => pick.part === part.id),
        )
        return { ...part, keys: Object.keys(left).length ? left : undefined, parameters: Object.keys(left).length ? part.parameters : moves.at(part, here.value) }
      })
      made = withMatte(made, step.id, { ...step.matte, contributors })
    }
    return made
  }

  function change(edit: Edit, words: string, on = picks.keys, gesture?: string, from?: { document: RecipeDocument; step: StepDocument }) {
    if (!open.value || on.length === 0) return
    const { recipe, step } = open.value
    recipes.change(recipe, edited(from?.document ?? recipe.document, from?.step ?? step, edit, on), `${step.name}: ${words}`.slice(0, 120), gesture)
  }

  /** Keys of what was touched at the present frame, of what moves already, or of what was touched last; or none of them there. */
  function flipKey() {
    if (!open.value || !spec.value) return
    const { step } = open.value
    const courses = step.keys ?? {}
    const touched = moves.touched?.step === step.id ? moves.touched : null
    const moving = Object.keys(courses).filter((name, _, all) => !all.some((one) => courses[one]?.some((each) => each.frame === here.value)) || courses[name]?.some((each) => each.frame === here.value))
    const names = touched?.frame === here.value ? touched.names : moving.length ? moving : (touched?.names ?? [])
    if (names.length === 0) return notices.news('Set a number first: what was touched last is what is keyed.')
    key(names)
  }
  /** A key of some parameters at the present frame, or none of them where all have one. */
  function key(names: string[]) {
    if (!open.value) return
    const { recipe, step } = open.value
    const courses = step.keys ?? {}
    const on = names.map((name) => ({ part: null, name, frame: here.value }))
    layout.strip = true
    const label = (spec.value ? names.map((name) => labelOf(spec.value as NonNullable<typeof spec.value>, name).toLowerCase()) : names).join(', ')
    if (names.every((name) => courses[name]?.some((one) => one.frame === here.value))) return change(withoutPicks, `key taken off ${label}`, on)
    const values = moves.parameters(step)
    const made = names.reduce<Courses>((so, name) => {
      const keys = so[name] ?? []
      const fresh: CourseKey = { frame: here.value, value: values[name] ?? 0, ease: keys.findLast((one) => one.frame < here.value)?.ease ?? keys[0]?.ease ?? 'straight' }
      return { ...so, [name]: [...keys.filter((one) => one.frame !== here.value), fresh].sort((a, b) => a.frame - b.frame) }
    }, courses)
    recipes.change(recipe, withCourses(recipe.document, step.id, made), `${step.name}: key of ${label}`.slice(0, 120))
  }

  /** Without what is picked. */
  function remove() {
    if (spans.chosen) return spans.remove()
    change(withoutPicks, picks.keys.length === 1 ? 'key taken off' : `${picks.keys.length} keys taken off`)
    picks.clear()
  }

  /** So many frames later. */
  function nudge(by: number, gesture?: string) {
    const span = spans.chosen
    if (span) return spans.alter(span.id, { start: span.start + by, finish: span.finish + by }, 'moved', gesture)
    change((courses, on) => withMovedPicks(courses, on, by), 'keys moved', picks.keys, gesture)
    picks.keys = picks.keys.map((pick) => ({ ...pick, frame: pick.frame + by }))
  }

  function copy() {
    const step = open.value?.step
    if (!step) return
    const parts = [...new Set(picks.keys.map((pick) => pick.part))]
    const found = parts.map((part) => ({
      part,
      courses: picked(
        coursesOf(step, part),
        picks.keys.filter((pick) => pick.part === part),
      ),
    }))
    if (found.length === 0 && !spans.chosen) return
    copied.value = JSON.parse(JSON.stringify({ courses: found, span: spans.chosen })) as typeof copied.value
    notices.news(spans.chosen ? `span ${spans.chosen.name} copied` : `${counted(picks.keys.length, 'key')} copied`)
  }
  /** What was copied, beginning at the present frame. */
  function paste() {
    if (!open.value || !copied.value) return
    const { recipe, step } = open.value
    const { courses: found, span } = copied.value
    if (span) return spans.add({ ...span, id: crypto.randomUUID(), start: here.value, finish: here.value + span.finish - span.start }, 'pasted')
    const first = Math.min(...found.flatMap(({ courses }) => keyFrames(courses)))
    const made = found.reduce((document, { part, courses }) => {
      const known = Object.fromEntries(Object.entries(courses).filter(([name]) => part !== null || spec.value?.order.includes(name)))
      const now = document.steps.find(({ id }) => id === step.id)
      if (Object.keys(known).length === 0 || !now) return document
      return edited(
        document,
        now,
        (so) => withPasted(so, known, here.value + Math.min(...keyFrames(known)) - first),
        Object.keys(known).map((name) => ({ part, name, frame: 0 })),
      )
    }, recipe.document)
    recipes.change(recipe, made, `${step.name}: keys pasted`)
    picks.pick(
      found.flatMap(({ part, courses }) => allOf(courses, part).map((pick) => ({ ...pick, frame: pick.frame - first + here.value }))),
      false,
    )
  }

  return {
    folded,
    graph,
    open,
    spec,
    rows,
    paths,
    coursesOf,
    numberSpec,
    graphed,
    asked,
    change,
    key,
    flipKey,
    remove,
    nudge,
    copy,
    paste,
    alter: (values: Partial<CourseKey>, words: string, gesture?: string) => change((courses, on) => withAlteredPicks(courses, on, values), words, picks.keys, gesture),
  }
})
