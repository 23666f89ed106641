import type { CurvePoint, ParameterValue, StepSpec, TextSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { ref, type Ref } from 'vue'
import { withValuesAt } from '../strip/courses'
import { labelOf, neutralOf, withCourses, withParameter } from './edit'
import { useMoves } from './useMoves'
import { addressOf } from './address'
import { useRecipes } from './useRecipes'

/** Whether a hand is moving something, anywhere; pictures are reduced meanwhile. */
export const handMoving = ref(false)

/** A drag: everything changed between its ends is undone as one change. */
export function useGesture() {
  let id: string | undefined
  return {
    id: () => id,
    begin() {
      id = crypto.randomUUID()
      handMoving.value = true
    },
    end() {
      id = undefined
      handMoving.value = false
    },
  }
}

/** Changes the parameters of one step of a recipe. */
export function useStepEditor(recipe: Ref<Recipe>, step: Ref<StepDocument>, spec: Ref<StepSpec>) {
  const recipes = useRecipes()
  const gesture = useGesture()
  const moves = useMoves()

  /** With other values; of parameters that move, at the present frame. */
  function withValues(values: Record<string, ParameterValue>) {
    const { document } = recipe.value
    const { id, keys = {} } = step.value
    moves.touched = { step: id, names: Object.keys(values), frame: moves.frameOf(step.value) }
    const standing = Object.entries(values).filter(([name]) => !keys[name])
    const made = standing.reduce((so, [name, value]) => withParameter(so, id, name, value), document)
    return standing.length === Object.keys(values).length ? made : withCourses(made, id, withValuesAt(keys, moves.frameOf(step.value), Object.fromEntries(Object.entries(values).filter(([name]) => keys[name]))))
  }

  /** Several parameters in one change. */
  function setAll(values: Record<string, ParameterValue>, words: string) {
    recipes.change(recipe.value, withValues(values), `${step.value.name}: ${words}`)
  }

  function set(name: string, value: ParameterValue) {
    recipes.change(recipe.value, withValues({ [name]: value }), `${step.value.name}: ${labelOf(spec.value, name)}`, gesture.id())
  }

  function parameter(name: string) {
    const found = spec.value.parameters.find((one) => one.name === name)
    if (!found) throw new Error(`the step ${spec.value.id} has no parameter ${name}`)
    return found
  }

  return {
    parameter,
    value: (name: string): ParameterValue => moves.parameters(step.value)[name] ?? neutralOf(parameter(name)),
    row: (name: string, neutral: number[]): number[] => (moves.parameters(step.value)[name] as number[] | undefined) ?? neutral,
    text: (one: TextSpec): string => String(moves.parameters(step.value)[one.name] ?? one.neutral),
    points: (name: string): CurvePoint[] => (moves.parameters(step.value)[name] as CurvePoint[] | undefined) ?? [],
    set,
    setAll,
    /** One number of a row. */
    setAt: (name: string, index: number, value: number) =>
      set(
        name,
        ((moves.parameters(step.value)[name] as number[] | undefined) ?? (neutralOf(parameter(name)) as number[])).map((x, at) => (at === index ? value : x)),
      ),
    begin: gesture.begin,
    end: gesture.end,
    /** What a control of a surface is bound to. */
    address: (name: string, index?: number) => addressOf(spec.value.id, name, index),
    reset: (name: string) => set(name, neutralOf(parameter(name))),
  }
}

export type StepEditor = ReturnType<typeof useStepEditor>
