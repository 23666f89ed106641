import type { ParameterSpec, StepSpec } from '@/api/declared'
import type { StepDocument } from '@/api/recipe'
import { held, neutralOf } from './edit'

/** Where a number stands whatever the shot: kind of step, parameter, place in its row. */
export const addressOf = (kind: string, parameter: string, index?: number) => [kind, parameter, ...(index === undefined ? [] : [index])].join('.')

export interface Address {
  kind: string
  parameter: ParameterSpec
  index: number | null
}

/** @returns null when no step has such a parameter */
export function addressed(address: string, specs: StepSpec[]): Address | null {
  const [kind, name, place] = address.split('.')
  const parameter = specs.find((spec) => spec.id === kind)?.parameters.find((one) => one.name === name)
  if (!kind || !parameter) return null
  const index = place === undefined ? null : Number(place)
  if ((parameter.channels === null) !== (index === null) || (index !== null && !(index in (parameter.channels ?? [])))) return null
  return { kind, parameter, index }
}

/** In words: "Balance, gain red". */
export function addressWords(address: string, specs: StepSpec[]): string {
  const found = addressed(address, specs)
  if (!found) return address
  const channel = found.index === null ? '' : ` ${found.parameter.channels?.[found.index] ?? ''}`
  return `${specs.find((spec) => spec.id === found.kind)?.label ?? found.kind}, ${found.parameter.label}${channel}`
}

/** The value of a step's parameter with the number at an address moved by so many nudges. */
export function nudged(step: StepDocument, { parameter, index }: Address, nudges: number): number | number[] {
  const value = (step.parameters[parameter.name] ?? neutralOf(parameter)) as number | number[]
  const rounded = (x: number) => Math.round(held(x, parameter) * 1e6) / 1e6
  if (Array.isArray(value)) return value.map((x, at) => (at === index ? rounded(x + nudges * parameter.nudge) : x))
  return rounded(value + nudges * parameter.nudge)
}
