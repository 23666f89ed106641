import { getJson, sendJson, ApiError } from '@/api/client'
import type { Shot } from '@/api/cut'
import type { Project, Target } from '@/api/project'
import type { Recipe } from '@/api/recipe'
import type { ListedScreen, RenditionList, ShotRendition } from '@/api/rendition'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { newStep } from '../grade/edit'
import { useRecipes } from '../grade/useRecipes'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'

/** Id of what corrects all targets. */
export const ALL = 'all'
export type ShotState = 'not measured' | 'measured' | 'corrected' | 'stale'

/** The renditions of a cut: its smaller targets, what is measured of its shots, and how they are corrected. */
export const useRenditions = defineStore('renditions', () => {
  const cut = useCut()
  const catalogue = useCatalogue()
  const recipes = useRecipes()
  const notices = useNotices()
  const list = ref<RenditionList | null>(null)
  const chosen = useStorage<Record<string, string>>('mordant.rendition', {})
  /** Corrections that were copied: of a shot, and which of them. */
  const copied = ref<{ from: number; parts: string[] } | null>(null)
  /** What copying levels would mean, waiting for a yes. */
  const question = ref<{ words: string; from: number; shots: number[] } | null>(null)

  const targets = computed<Target[]>(() => list.value?.targets ?? [])
  const target = computed<Target | null>(() => targets.value.find((one) => one.id === chosen.value[cut.project?.id ?? '']) ?? targets.value[0] ?? null)
  const lines = computed(() => new Map((list.value?.shots ?? []).map((one) => [one.shot, one])))
  const lineOf = (shot: Shot | null): ShotRendition | null => (shot && lines.value.get(shot.id)) ?? null

  function choose(id: string) {
    if (cut.project) chosen.value = { ...chosen.value, [cut.project.id]: id }
  }

  function take(found: RenditionList) {
    list.value = found
    cut.corrections = found.shots.flatMap((one) => (one.corrections ? [one.corrections] : []))
    prepare()
  }

  async function load() {
    if (cut.cut) take(await getJson<RenditionList>(`/cuts/${cut.cut.id}/renditions`))
  }

  const recipeOf = (shot: Shot | null): Recipe | null => (shot && cut.corrections.find((one) => one.corrects === shot.id)) ?? null

  /** What a recipe corrects, told by its own steps as they are under the hand. */
  function corrects(shot: Shot, id: string) {
    const step = recipeOf(shot)?.document.steps.find((one) => one.id === id)
    const spec = step && catalogue.step(step.kind)
    return Boolean(step && spec && (step.keys || JSON.stringify({ ...newStep(spec, step.id).parameters }) !== JSON.stringify(Object.fromEntries(Object.keys(newStep(spec, step.id).parameters).map((name) => [name, step.parameters[name]])))))
  }

  function stateOf(shot: Shot): ShotState {
    const line = lineOf(shot)
    if (!line || line.state === 'none') return 'not measured'
    if (line.state === 'stale') return 'stale'
    return [ALL, ...targets.value.map((one) => one.id)].some((id) => corrects(shot, id)) ? 'corrected' : 'measured'
  }

  /** The target to work at first, as what is corrected there flows up to the others. */
  const proposed = computed(() => (cut.shot && targets.value.find((one) => !corrects(cut.shot as Shot, one.id))) ?? null)

  /** Begins the open shot's corrections where there are none, with steps for all targets and for the chosen one, neutral ones until they are touched. */
  function prepare() {
    const shot = cut.shot
    const recipe = recipeOf(shot)
    if (!shot || !recipe) return
    const wanted = [{ id: ALL, kind: 'rendition_all', name: 'All targets' }, ...(target.value && lineOf(shot)?.state !== 'none' ? [{ id: target.value.id, kind: 'rendition', name: target.value.name }] : [])]
    const missing = wanted.filter(({ id }) => !recipe.document.steps.some((step) => step.id === id))
    const made = missing.flatMap(({ id, kind, name }) => {
      const spec = catalogue.step(kind)
      return spec ? [{ ...newStep(spec, id), name }] : []
    })
    if (made.length) recipe.document = { ...recipe.document, steps: [...recipe.document.steps, ...made] }
  }

  async function begin(shot: Shot) {
    if (recipeOf(shot)) return prepare()
    const { recipe } = await sendJson<{ recipe: Recipe }>('POST', `/shots/${shot.id}/corrections`, {})
    if (!recipeOf(shot)) cut.corrections = [...cut.corrections, recipe]
    prepare()
  }

  /** @returns the refusal in words, or null */
  async function setTargets(next: unknown[]): Promise<string | null> {
    try {
      const answer = await sendJson<{ project: Project }>('PUT', `/projects/${cut.project?.id}/settings`, { targets: next })
      cut.project = answer.project
      await load()
      return null
    } catch (error) {
      if (error instanceof ApiError && error.status === 422) return error.message
      throw error
    }
  }

  async function add(screen: ListedScreen) {
    const names = cut.project?.targets.map((one) => one.name) ?? []
    const name = [screen.name, ...Array.from({ length: 20 }, (_, n) => `${screen.name} ${n + 2}`)].find((one) => !names.includes(one)) ?? screen.name
    const id = crypto.randomUUID()
    const refusal = await setTargets([...(cut.project?.targets ?? []), { ...screen, id, name }])
    if (!refusal) choose(id)
    return refusal
  }
  const remove = (one: Target) => setTargets((cut.project?.targets ?? []).filter(({ id }) => id !== one.id))

  function copy(shot: Shot, parts: string[]) {
    copied.value = { from: shot.id, parts }
    notices.news(`corrections of ${shot.name} copied: ${parts.map((id) => (id === ALL ? 'all targets' : (targets.value.find((one) => one.id === id)?.name ?? id))).join(', ')}`)
  }

  /** Puts what was copied on shots; of one target on another one, where that is chosen. */
  async function paste(shots: Shot[], as?: string) {
    if (!copied.value || !cut.cut) return
    await recipes.settled()
    const words = `corrections put on ${shots.length === 1 ? shots[0]?.name : `${shots.length} shots`}`
    const answer = await sendJson<{ project: Project }>('POST', `/cuts/${cut.cut.id}/renditions/paste`, { ...copied.value, ...(as ? { as } : {}), shots: shots.map(({ id }) => id), words })
    recipes.kept(answer.project)
    await load()
    recipes.generation++
  }

  /** Levels of a shot for others; asks first. */
  async function takeLevels(from: number, shots: number[], confirm = false) {
    if (!cut.cut) return
    try {
      take(await sendJson<RenditionList>('POST', `/cuts/${cut.cut.id}/levels`, { from, shots, confirm }))
      question.value = null
    } catch (error) {
      if (error instanceof ApiError && error.details.confirm === true) question.value = { words: error.message, from, shots }
      else throw error
    }
  }

  return { list, targets, target, choose, load, lineOf, recipeOf, corrects, stateOf, proposed, begin, prepare, add, remove, copied, copy, paste, question, takeLevels }
})
