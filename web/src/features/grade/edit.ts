import type { ColourSpec, CurveSpec, DeclaredSpec, HandleSpec, ParameterSpec, ParameterValue, RowsSpec, StepSpec, TextSpec } from '@/api/declared'
import type { ContributorDocument, Courses, MatteDocument, RecipeDocument, StepDocument } from '@/api/recipe'

/** Recipe documents with one thing changed; none of these writes to what it is given. */

export function neutralOf(spec: ParameterSpec | TextSpec | CurveSpec | ColourSpec | RowsSpec): ParameterValue {
  if ('columns' in spec || 'across' in spec) return []
  if ('ranges' in spec) return [...spec.neutral]
  return 'channels' in spec && spec.channels ? spec.channels.map(() => spec.neutral) : spec.neutral
}

/** Every parameter of a step as it is until somebody touches it. */
export function neutralParameters(spec: DeclaredSpec): Record<string, ParameterValue> {
  return Object.fromEntries([...spec.parameters, ...spec.texts, ...spec.colours, ...spec.curves, ...spec.rows].map((parameter) => [parameter.name, neutralOf(parameter)]))
}

/** What a parameter is called. */
export function labelOf(spec: DeclaredSpec, name: string): string {
  return [...spec.parameters, ...spec.texts, ...spec.colours, ...spec.curves, ...spec.rows].find((one) => one.name === name)?.label ?? name
}

/** Strength is every step's, and every bundle's; it is no parameter of any. */
export const STRENGTH: ParameterSpec = {
  name: 'strength',
  label: 'strength',
  channels: null,
  unit: 'share',
  min: 0,
  max: 1,
  neutral: 1,
  decimals: 0,
  nudge: 0.01,
  suffix: '%',
  shown_times: 100,
  about: 'How much of the change is kept.',
}

/** Held to the declared range. */
export function held(value: number, spec: ParameterSpec): number {
  return Math.min(spec.max, Math.max(spec.min, value))
}

export function newStep(spec: StepSpec, id: string): StepDocument {
  return { id, kind: spec.id, name: spec.label, enabled: true, strength: 1, parameters: neutralParameters(spec) }
}

export function withStep(document: RecipeDocument, id: string, change: Partial<StepDocument>): RecipeDocument {
  return { ...document, steps: document.steps.map((step) => (step.id === id ? { ...step, ...change } : step)) }
}

export function withoutStep(document: RecipeDocument, id: string): RecipeDocument {
  return { ...document, steps: document.steps.filter((step) => step.id !== id) }
}

/** With a step at another place in signal order. */
export function withMoved(document: RecipeDocument, id: string, to: number): RecipeDocument {
  const step = document.steps.find((one) => one.id === id)
  if (!step) return document
  const rest = document.steps.filter((one) => one.id !== id)
  return { ...document, steps: [...rest.slice(0, to), step, ...rest.slice(to)] }
}

/** Whether a step takes the same input as the one before it. */
export function besideAbove(steps: StepDocument[], index: number): boolean {
  const braid = steps[index]?.braid
  return index > 0 && braid !== undefined && steps[index - 1]?.braid === braid
}

/** With a step put beside the one above it, or taken out of its braid. */
export function withBeside(document: RecipeDocument, id: string, fresh: string): RecipeDocument {
  const index = document.steps.findIndex((one) => one.id === id)
  const step = document.steps[index]
  const above = document.steps[index - 1]
  if (!step || !above) return document
  if (besideAbove(document.steps, index)) return { ...document, steps: document.steps.map((one) => (one.id === id ? { ...one, braid: undefined } : one)) }
  const braid = above.braid ?? fresh
  return { ...document, steps: document.steps.map((one, at) => (at === index || at === index - 1 ? { ...one, braid } : one)) }
}

/** With a copy of a step right after it. */
export function withCopy(document: RecipeDocument, id: string, copy: string): RecipeDocument {
  return { ...document, steps: document.steps.flatMap((step) => (step.id === id ? [step, { ...step, id: copy, name: `${step.name} copy`.slice(0, 80) }] : [step])) }
}

export function withParameter(document: RecipeDocument, id: string, name: string, value: ParameterValue): RecipeDocument {
  const step = document.steps.find((one) => one.id === id)
  return step ? withStep(document, id, { parameters: { ...step.parameters, [name]: value } }) : document
}

/** With other keys; a step whose parameters stand still has none. */
export function withCourses(document: RecipeDocument, id: string, courses: Courses, parameters: Record<string, ParameterValue> = {}): RecipeDocument {
  const step = document.steps.find((one) => one.id === id)
  return step ? withStep(document, id, { keys: Object.keys(courses).length ? courses : undefined, parameters: { ...step.parameters, ...parameters } }) : document
}

/** With a matte; a step without contributors and refinements has none. */
export function withMatte(document: RecipeDocument, id: string, matte: MatteDocument): RecipeDocument {
  return withStep(document, id, { matte: matte.contributors.length || matte.refinements?.length ? matte : undefined })
}

export function newContributor(spec: DeclaredSpec, id: string): ContributorDocument {
  return { id, kind: spec.id, mode: 'add', softness: 0, invert: false, strength: 1, parameters: neutralParameters(spec) }
}

/** The parts of a colour as numbers of their own. */
export function partsOf(spec: ColourSpec): ParameterSpec[] {
  return Object.entries(spec.ranges).map(([name, [min, max]], at) => ({
    name: spec.name,
    label: `${spec.label} ${name}`,
    channels: null,
    unit: max > 1 ? 'degrees' : 'ratio',
    min,
    max,
    neutral: spec.neutral[at] ?? min,
    decimals: max > 1 ? 1 : 3,
    nudge: max > 1 ? 1 : 0.01,
    suffix: max > 1 ? '°' : '',
    about: spec.about,
  }))
}

/** Whether two documents say the same, however their keys are ordered; what is undefined is not there. */
export function sameDocument(a: unknown, b: unknown): boolean {
  if (a === null || b === null || typeof a !== 'object' || typeof b !== 'object') return a === b
  const there = (of: object) => Object.entries(of).filter(([, value]) => value !== undefined)
  return Array.isArray(a) === Array.isArray(b) && there(a).length === there(b).length && there(a).every(([key, value]) => sameDocument(value, (b as Record<string, unknown>)[key]))
}

/** How far a row of numbers stands from neutral along a handle's direction. */
export function deviation(row: number[], handle: HandleSpec, spec: ParameterSpec): number {
  const along = (a: number[], b: number[]) => a.reduce((sum, x, i) => sum + x * (b[i] ?? 0), 0)
  return (
    along(
      row.map((x) => x - spec.neutral),
      handle.direction,
    ) / along(handle.direction, handle.direction)
  )
}

/** The row with the handle moved by so much, each number held to its range. */
export function moved(row: number[], handle: HandleSpec, spec: ParameterSpec, by: number): number[] {
  return row.map((x, i) => held(x + by * (handle.direction[i] ?? 0), spec))
}

/** As it is shown: sign where it matters, decimals, unit. */
export function shownValue(value: number, spec: ParameterSpec): string {
  const times = spec.shown_times ?? 1
  const text = (value * times).toFixed(spec.decimals)
  const clean = Number(text) === 0 ? text.replace('-', '') : text
  const signed = spec.min < 0 && Number(clean) > 0 ? `+${clean}` : clean
  return signed.replace('-', '−')
}

/** What somebody typed, in the stored unit; null when it is no number. */
export function typedValue(text: string, spec: ParameterSpec): number | null {
  const plain = text
    .trim()
    .replace('−', '-')
    .replace(',', '.')
    .replace(/\s*(st|pt|%)$/i, '')
  if (plain === '' || !Number.isFinite(Number(plain))) return null
  return held(Number(plain) / (spec.shown_times ?? 1), spec)
}

/** One line that says what a step does, besides what moves; empty when it does nothing. */
export function summary(step: StepDocument, spec: StepSpec): string {
  const stands = ({ name }: { name: string }) => !step.keys?.[name]
  const texts = spec.texts.flatMap(({ name, from, neutral }) => (['lut', 'negative', 'print'].includes(from as string) && step.parameters[name] !== neutral ? [String(step.parameters[name] ?? '')] : []))
  const said = spec.parameters.filter(stands).flatMap((parameter) => {
    const value = step.parameters[parameter.name]
    if (typeof value !== 'number' && !Array.isArray(value)) return []
    if (Array.isArray(value)) return (value as number[]).some((x) => x !== parameter.neutral) ? [parameter.label] : []
    if (value === parameter.neutral) return []
    return [`${parameter.label} ${shownValue(value, parameter)}${parameter.suffix && ` ${parameter.suffix}`}`]
  })
  const bent = spec.curves.filter(({ name }) => (step.parameters[name] as unknown[] | undefined)?.length).map(({ label }) => label)
  return [...texts.filter(Boolean), ...said, ...bent].join(' · ')
}
