import { getJson, sendJson } from '@/api/client'
import type { Cut, Family, Placed, Shot, Wash } from '@/api/cut'
import type { Project, ProjectSummary } from '@/api/project'
import type { Recipe, RecipeDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed, ref, toRaw } from 'vue'
import { useCircuit } from '../grade/useCircuit'
import { useNotices } from '../shell/useNotices'
import { rateOf } from './timecode'

/** Recipes as they are under the hand, whether or not they are kept yet. */
export type Trial = { recipe: number; document: RecipeDocument }[]

/** Shots whose mattes a recipe is linked to. */
const linkedShots = (document: RecipeDocument) =>
  document.steps
    .flatMap((step) => step.matte?.contributors ?? [])
    .filter((part) => part.kind === 'linked' && part.parameters['shot'])
    .map((part) => Number(part.parameters['shot']))

/** The cut that is open: its shots and the record frame somebody is at. */
export const useCut = defineStore('cut', () => {
  const cut = ref<Cut | null>(null)
  const circuit = useCircuit()
  const project = ref<Project | null>(null)
  const frame = ref(0)
  const last = ref<Record<string, string>>({})
  /** Corrections of renditions that have been read, one recipe for a shot that has some. */
  const corrections = ref<Recipe[]>([])

  const shots = computed(() => cut.value?.shots ?? [])
  const washes = computed(() => cut.value?.washes ?? [])
  const families = computed(() => cut.value?.families ?? [])
  const length = computed(() => cut.value?.length ?? 0)
  /** Last frame of each shot, one after another, and where each shot stands; cuts may have thousands. */
  const ends = computed(() => shots.value.map((shot) => shot.record_in + shot.length))
  const indices = computed(() => new Map(shots.value.map((shot, index) => [shot.id, index])))
  const shotIndex = computed(() => indexAt(frame.value))
  const shot = computed<Shot | null>(() => shots.value[shotIndex.value] ?? null)
  const rate = computed(() => rateOf(project.value?.rate ?? '24/1'))
  const start = computed(() => ({ text: cut.value?.start ?? '01:00:00:00', frames: cut.value?.start_frames ?? 0, drop: cut.value?.drop ?? false }))

  /** Of the shot a record frame belongs to; -1 outside of the cut. */
  function indexAt(at: number): number {
    let [low, high] = [0, ends.value.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (at < (ends.value[middle] as number)) high = middle
      else low = middle + 1
    }
    return at >= 0 && low < ends.value.length ? low : -1
  }

  const shotOf = (id: number | null): Shot | undefined => shots.value[indices.value.get(id ?? -1) ?? -1]
  const place = (id: number | null, otherwise: number) => (id === null ? otherwise : (indices.value.get(id) ?? -1))

  /** The washes that lie over a shot, in their order. */
  function washesOver(over: Shot): Wash[] {
    if (washes.value.length === 0) return []
    const index = place(over.id, -1)
    return washes.value.filter((wash) => index >= place(wash.from, 0) && index <= place(wash.to, shots.value.length - 1))
  }

  const familyOf = (member: Shot): Family | null => families.value.find((family) => family.id === member.family) ?? null

  /** The recipes that make a shot's grade, in signal order: its family's ground, its own, the finish, washes. */
  function layersOf(over: Shot): Recipe[] {
    const family = familyOf(over)
    const laid = washesOver(over)
      .filter((wash) => wash.enabled)
      .map((wash) => wash.recipe)
    return [...(family ? [family.ground] : []), over.recipe, ...(family ? [family.finish] : []), ...laid]
  }

  const correctionsOf = (over: Shot) => corrections.value.filter((one) => one.corrects === over.id)

  /** What is tried in a shot's picture: its layers, another recipe perhaps in place of its own. */
  function trialOf(over: Shot, instead?: RecipeDocument | null): Trial {
    const own = [...layersOf(over), ...correctionsOf(over)].map((one) => ({ recipe: one.id, document: circuit.within(toRaw(one === over.recipe ? (instead ?? one.document) : one.document)) }))
    const linked = linkedTo(over).flatMap((one) => layersOf(one).map((recipe) => ({ recipe: recipe.id, document: circuit.within(toRaw(recipe.document)) })))
    return [...own, ...linked.filter((one, at) => [...own, ...linked.slice(0, at)].every((other) => other.recipe !== one.recipe))]
  }
  /** Other shots that its mattes come from, and theirs. */
  function linkedTo(over: Shot, seen: Shot[] = [over]): Shot[] {
    const ids = new Set(layersOf(over).flatMap((one) => linkedShots(one.document)))
    const fresh = [...ids]
      .flatMap((id) => shotOf(id) ?? [])
      .filter((one) => !seen.includes(one))
      .sort((a, b) => a.position - b.position)
    return fresh.flatMap((one) => [one, ...linkedTo(one, [...seen, ...fresh])])
  }

  /** What a shot's pictures depend on besides clip and project; of a wash that moves, when it began too. */
  function revisionOf(over: Shot): string {
    const of = (one: Shot) => layersOf(one).map((recipe) => `${recipe.id}.${recipe.revision}${beganBefore(recipe, one)}`)
    return [...of(over), ...linkedTo(over).flatMap((one) => [...of(one), one.source_in])].join('-')
  }
  const washOf = (recipe: Recipe) => washes.value.find((wash) => wash.recipe.id === recipe.id)
  /** Frames that what owns a recipe that moves began before a shot, as in the server's Shot#revision. */
  function beganBefore(recipe: Recipe, over: Shot) {
    if (!recipe.document.steps.some((step) => step.keys || step.spans?.length || step.matte?.contributors.some((part) => part.keys || part.path))) return ''
    if (washOf(recipe)) return `.${over.record_in - startOf(recipe)}`
    return over.clock ? `.${over.clock}` : ''
  }
  /** Record frame that a recipe's keys count from: the first one of a wash, or where the open shot's clock is 0. */
  function startOf(recipe: Recipe) {
    const wash = washOf(recipe)
    if (wash) return (shotOf(wash.from) ?? shots.value[0])?.record_in ?? 0
    return shot.value ? shot.value.record_in - shot.value.clock : 0
  }

  const spot = (id: number | string) => `mordant.frame.${id}`

  /** Opens a cut, where somebody left it. */
  async function open(id: string) {
    show(await getJson<Cut>(`/cuts/${id}`))
  }

  function show(found: Cut) {
    cut.value = found
    project.value = found.project
    last.value[found.project.id] = String(found.id)
    go(Number(sessionStorage.getItem(spot(found.id)) ?? 0))
  }

  /** Reads the open cut anew, where somebody is; and once more where a hand was on its shots meanwhile. */
  async function reload(): Promise<void> {
    const id = cut.value?.id
    if (!id) return
    const found = await getJson<Cut>(`/cuts/${id}`)
    if (cut.value?.id !== id) return // somebody has gone to another one
    if (found.edition < cut.value.edition) return reload()
    show(found)
  }

  /** Opens a project without a cut. */
  async function openProject(id: string) {
    const found = (await getJson<ProjectSummary[]>('/projects')).find((one) => one.id === Number(id))
    if (!found) throw new Error(`there is no project ${id}`)
    project.value = await getJson<Project>(`/projects/${id}`) // with what undo would take back
    const first = found.cuts[0]
    if (first) last.value[id] ??= String(first.id)
  }

  /** Takes where each shot stands now; what is new comes in whole. False where a shot or clip is not known here. */
  function take(answer: Placed): boolean {
    if (!cut.value) return false
    const known = new Map([...cut.value.shots, ...answer.fresh].map((one) => [one.id, one]))
    const clips = new Map([...cut.value.shots, ...answer.fresh].map((one) => [one.clip.id, one.clip]))
    let record = 0
    const next: Shot[] = []
    for (const { id, clip, ...values } of answer.places) {
      const [found, of] = [known.get(id), clips.get(clip)]
      if (!found || !of) return false
      next.push(Object.assign(found, values, { clip: of, record_in: record, position: next.length }))
      record += values.length
    }
    const laid = new Map(answer.washes.map((wash) => [wash.id, wash]))
    cut.value.washes = cut.value.washes.filter((wash) => laid.has(wash.id)).map((wash) => Object.assign(wash, laid.get(wash.id)))
    Object.assign(cut.value, { shots: next, length: record, edition: answer.edition })
    project.value = answer.project
    go(frame.value)
    return true
  }

  function go(to: number) {
    frame.value = Math.max(0, Math.min(length.value - 1, Math.round(to)))
    if (cut.value) sessionStorage.setItem(spot(cut.value.id), String(frame.value))
  }

  /** To a timecode somebody typed, of the cut or of the open shot's source. */
  async function goTo(typed: { record: string } | { source: string }) {
    if (!cut.value) return
    const asked = new URLSearchParams({ ...typed, ...('source' in typed && shot.value ? { shot: String(shot.value.id) } : {}) })
    try {
      go((await getJson<{ frame: number }>(`/cuts/${cut.value.id}/frame?${asked}`)).frame)
    } catch (error) {
      useNotices().trouble(error)
    }
  }

  /** Gives the cut's first frame another timecode. */
  async function beginAt(text: string) {
    if (!cut.value) return
    try {
      Object.assign(cut.value, await sendJson<Partial<Cut>>('PATCH', `/cuts/${cut.value.id}`, { start: text }))
    } catch (error) {
      useNotices().trouble(error)
    }
  }

  /** To the first frame that is a shot's alone. */
  function goShot(index: number) {
    const to = shots.value[Math.max(0, Math.min(shots.value.length - 1, index))]
    if (to) go(to.record_in + to.dissolve)
  }

  return {
    cut,
    project,
    frame,
    shots,
    washes,
    families,
    familyOf,
    recipes: computed<Recipe[]>(() => [...shots.value.map((one) => one.recipe), ...washes.value.map((one) => one.recipe), ...families.value.flatMap((one) => [one.ground, one.finish]), ...corrections.value]),
    corrections,
    washesOver,
    /** Recipes that make a shot's grade, in signal order, and the one that corrects its renditions. */
    recipesOf: (over: Shot) => [...layersOf(over), ...correctionsOf(over)],
    trialOf,
    revisionOf,
    startOf,
    length,
    shot,
    shotIndex,
    /** The shot a record frame belongs to. */
    shotAt: (at: number): Shot | undefined => shots.value[indexAt(at)],
    indexOf: (over: Shot) => place(over.id, -1),
    rate,
    start,
    goTo,
    beginAt,
    open,
    take,
    reload,
    openProject,
    go,
    goShot,
    lastOf: (id: string | undefined) => (id ? last.value[id] : undefined),
  }
})
