import type { ContributorSpec, DeclaredSpec, ParameterValue } from '@/api/declared'
import type { ContributorDocument, MatteDocument, Recipe, RefinementDocument, StepDocument } from '@/api/recipe'
import { computed, type Ref } from 'vue'
import { useCut } from '../cut/useCut'
import { keyFrames, withoutPicks, withValuesAt } from '../strip/courses'
import { neutralOf, neutralParameters, newContributor, withMatte } from '../grade/edit'
import { useMoves } from '../grade/useMoves'
import { useRecipes } from '../grade/useRecipes'
import { useGesture } from '../grade/useStepEditor'
import { useCatalogue } from '../shell/useCatalogue'

/** Changes the matte of one step of a recipe. */
export function useMatteEditor(recipe: Ref<Recipe>, step: Ref<StepDocument>) {
  const catalogue = useCatalogue()
  const recipes = useRecipes()
  const moves = useMoves()
  const cut = useCut()
  const gesture = useGesture()
  const matte = computed<MatteDocument>(() => step.value.matte ?? { contributors: [], strength: 1 })
  const parts = computed(() => matte.value.contributors)
  const specOf = (part: ContributorDocument) => catalogue.catalogue?.contributors.find((kind) => kind.id === part.kind)

  function change(to: Partial<MatteDocument>, words: string, drag?: string) {
    recipes.change(recipe.value, withMatte(recipe.value.document, step.value.id, { ...matte.value, ...to }), `${step.value.name}: ${words}`.slice(0, 120), drag)
  }
  const alter = (part: ContributorDocument, values: Partial<ContributorDocument>, words: string, drag?: string) => change({ contributors: parts.value.map((one) => (one.id === part.id ? { ...one, ...values } : one)) }, words, drag)

  /** What it is called: its own name, or that of its kind. */
  const named = (part: ContributorDocument) => part.name ?? specOf(part)?.label ?? part.kind

  /** Frame that its keys count to. */
  const frame = computed(() => moves.frameOf(step.value))
  const keyHere = (part: ContributorDocument) => keyFrames(part.keys).includes(frame.value)
  /** Its parameters at the present frame. */
  const values = (part: ContributorDocument): Record<string, ParameterValue> => moves.at(part, frame.value)

  /** With other parameters; of those that move, at the present frame. */
  function set(part: ContributorDocument, to: Record<string, ParameterValue>, words: string, drag = gesture.id()) {
    const keys = part.keys ?? {}
    const [moving, standing] = [true, false].map((moved) => Object.fromEntries(Object.entries(to).filter(([name]) => Boolean(keys[name]) === moved)))
    alter(part, { parameters: { ...part.parameters, ...standing }, ...(part.keys ? { keys: withValuesAt(keys, frame.value, moving ?? {}) } : {}) }, `${words} of ${named(part)}`, drag)
  }

  /** A key of all that moves of it, or of its whole shape where nothing does yet; or none of them here. */
  function flipKey(part: ContributorDocument) {
    const spec = specOf(part)
    const keys = part.keys ?? {}
    const there = values(part)
    if (keyHere(part)) {
      const left = withoutPicks(
        keys,
        Object.keys(keys).map((name) => ({ name, frame: frame.value })),
      )
      return alter(part, { keys: Object.keys(left).length ? left : undefined, parameters: there }, `key taken off ${named(part)}`)
    }
    const names = part.keys ? Object.keys(keys) : [...(spec?.parameters ?? []), ...(spec?.rows ?? [])].map(({ name }) => name)
    alter(part, { keys: withValuesAt(keys, frame.value, Object.fromEntries(names.map((name) => [name, there[name] ?? part.parameters[name] ?? 0]))) }, `key of ${named(part)}`)
  }
  function goKey(part: ContributorDocument, way: number) {
    const places = keyFrames(part.keys).filter((place) => (place - frame.value) * way > 0)
    if (places.length) cut.go(cut.frame + (way > 0 ? Math.min(...places) : Math.max(...places)) - frame.value)
  }

  function add(kind: ContributorSpec, parameters: Record<string, ParameterValue> = {}, more: Partial<ContributorDocument> = {}): ContributorDocument {
    const fresh = newContributor(kind, crypto.randomUUID())
    const part = { ...fresh, ...more, parameters: { ...fresh.parameters, ...parameters } }
    change({ contributors: [...parts.value, part] }, `acts on ${(more.name ?? kind.label).toLowerCase()}`)
    return part
  }

  function move(from: number, to: number) {
    const rest = parts.value.filter((_, at) => at !== from)
    const part = parts.value[from]
    if (part && from !== to) change({ contributors: [...rest.slice(0, to), part, ...rest.slice(to)] }, `${named(part)} moved`)
  }

  const refinements = computed<RefinementDocument[]>(() => matte.value.refinements ?? [])
  const refinementSpec = (one: RefinementDocument) => catalogue.catalogue?.refinements.find((kind) => kind.id === one.kind)

  return {
    matte,
    parts,
    specOf,
    named,
    alter,
    set,
    values,
    keyHere,
    flipKey,
    goKey,
    frame,
    add,
    move,
    change,
    gesture,
    remove: (part: ContributorDocument) => change({ contributors: parts.value.filter((one) => one.id !== part.id) }, `${named(part)} taken off`),
    value: (part: ContributorDocument, name: string): ParameterValue => {
      const spec = specOf(part)
      const declared = spec && [...spec.parameters, ...spec.texts, ...spec.curves, ...spec.rows].find((one) => one.name === name)
      return values(part)[name] ?? (declared ? neutralOf(declared) : 0)
    },
    refinements,
    refinementSpec,
    addRefinement(kind: DeclaredSpec) {
      const fresh: RefinementDocument = { id: crypto.randomUUID(), kind: kind.id, enabled: true, parameters: neutralParameters(kind) }
      change({ refinements: [...refinements.value, fresh] }, `${kind.label.toLowerCase()} added`)
      return fresh
    },
    refine: (one: RefinementDocument, values: Partial<RefinementDocument>, words: string, drag?: string) => change({ refinements: refinements.value.map((other) => (other.id === one.id ? { ...other, ...values } : other)) }, words, drag),
    unrefine: (one: RefinementDocument) => change({ refinements: refinements.value.filter((other) => other.id !== one.id) }, `${refinementSpec(one)?.label.toLowerCase() ?? ''} taken off`),
    moveRefinement(from: number, to: number) {
      const rest = refinements.value.filter((_, at) => at !== from)
      const one = refinements.value[from]
      if (one && from !== to) change({ refinements: [...rest.slice(0, to), one, ...rest.slice(to)] }, `${refinementSpec(one)?.label.toLowerCase() ?? ''} moved`)
    },
  }
}

export type MatteEditor = ReturnType<typeof useMatteEditor>
