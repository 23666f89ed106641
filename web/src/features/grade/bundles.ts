import type { BundleDocument, RecipeDocument, StepDocument } from '@/api/recipe'
import { withStep } from './edit'

/** Bundles of a recipe document; none of these writes to what it is given. */

/** Steps one after another that are kept in a bundle, or a single one that is in none. */
export interface Run {
  bundle: BundleDocument | null
  steps: StepDocument[]
}

export const bundleOf = (document: RecipeDocument, step: StepDocument | undefined) => document.bundles?.find((one) => one.id === step?.bundle) ?? null

export function runsOf(document: RecipeDocument): Run[] {
  return document.steps.reduce<Run[]>((runs, step) => {
    const bundle = bundleOf(document, step)
    const last = runs.at(-1)
    return bundle && last?.bundle?.id === bundle.id ? [...runs.slice(0, -1), { bundle, steps: [...last.steps, step] }] : [...runs, { bundle, steps: [step] }]
  }, [])
}

/** Steps stay in a bundle, or come into it, by where they stand; bundles of no steps go. */
export function tidied(document: RecipeDocument, moved?: string): RecipeDocument {
  const at = document.steps.findIndex((step) => step.id === moved)
  const [before, after] = [document.steps[at - 1]?.bundle, document.steps[at + 1]?.bundle]
  const own = document.steps[at]?.bundle
  const alone = own !== undefined && document.steps.filter((step) => step.bundle === own).length === 1
  const next = before !== undefined && before === after ? before : own !== undefined && (alone || own === before || own === after) ? own : undefined
  const steps = at < 0 ? document.steps : document.steps.map((step) => (step.id === moved ? { ...step, bundle: next } : step))
  return kept({ ...document, steps })
}

/** Without bundles that no step is in. */
function kept(document: RecipeDocument): RecipeDocument {
  const bundles = document.bundles?.filter((bundle) => document.steps.some((step) => step.bundle === bundle.id))
  return document.bundles ? { ...document, bundles: bundles?.length ? bundles : undefined } : document
}

export function withBundle(document: RecipeDocument, id: string, change: Partial<BundleDocument>): RecipeDocument {
  return { ...document, bundles: document.bundles?.map((one) => (one.id === id ? { ...one, ...change } : one)) }
}

/** With a step in the bundle of the one above it, which is a new one where there is none. */
export function bundledAbove(document: RecipeDocument, id: string, fresh: string): RecipeDocument {
  const index = document.steps.findIndex((one) => one.id === id)
  const [above, step] = [document.steps[index - 1], document.steps[index]]
  if (!above || !step) return document
  const bundle = above.bundle ?? fresh
  const bundles = above.bundle ? document.bundles : [...(document.bundles ?? []), { id: fresh, name: 'Bundle', enabled: true, strength: 1 }]
  const beside = (one: StepDocument) => (one.braid !== undefined && (one.braid === above.braid || one.braid === step.braid)) || (step.bundle !== undefined && one.bundle === step.bundle)
  return kept({ ...document, bundles, steps: document.steps.map((one) => (one === above || one === step || beside(one) ? { ...one, bundle } : one)) })
}

/** With the steps of a bundle by themselves. */
export function unbundled(document: RecipeDocument, id: string): RecipeDocument {
  return kept({ ...document, steps: document.steps.map((step) => (step.bundle === id ? { ...step, bundle: undefined } : step)) })
}

export function withoutBundle(document: RecipeDocument, id: string): RecipeDocument {
  return kept({ ...document, steps: document.steps.filter((step) => step.bundle !== id) })
}

/** With all its steps on, or off. */
export function allOf(document: RecipeDocument, id: string, enabled: boolean): RecipeDocument {
  return document.steps.filter((step) => step.bundle === id).reduce((made, step) => withStep(made, step.id, { enabled }), document)
}

/** With a bundle before the run of steps above it, or after the one below. */
export function bundleMoved(document: RecipeDocument, id: string, way: -1 | 1): RecipeDocument {
  const runs = runsOf(document)
  const at = runs.findIndex((run) => run.bundle?.id === id)
  const other = runs[at + way]
  const own = runs[at]
  if (!own || !other) return document
  const next = runs.map((run, index) => (index === at ? other : index === at + way ? own : run))
  return { ...document, steps: next.flatMap((run) => run.steps) }
}

/** With the steps of a look after all that is there, and their bundle, under ids of their own. */
export function withLook(document: RecipeDocument, look: { steps: StepDocument[]; bundles: BundleDocument[] }, fresh: () => string): { document: RecipeDocument; steps: StepDocument[] } {
  const ids = new Map(look.bundles.map((bundle) => [bundle.id, fresh()]))
  const steps = look.steps.map((step) => ({ ...step, id: fresh(), bundle: step.bundle ? ids.get(step.bundle) : undefined }))
  const bundles = [...(document.bundles ?? []), ...look.bundles.map((bundle) => ({ ...bundle, id: ids.get(bundle.id) ?? bundle.id }))]
  return { document: { ...document, steps: [...document.steps, ...steps], ...(bundles.length ? { bundles } : {}) }, steps }
}
