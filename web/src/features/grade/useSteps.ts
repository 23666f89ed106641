import type { Look } from '@/api/catalogue'
import type { BundleDocument, Recipe, RecipeDocument, StepDocument } from '@/api/recipe'
import { computed, type Ref } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'
import type { StepAct } from './StepMenu.vue'
import { allOf, bundledAbove, bundleMoved, tidied, unbundled, withBundle, withLook, withoutBundle } from './bundles'
import type { BundleAct } from './BundleRow.vue'
import { besideAbove, neutralParameters, newStep, withBeside, withCopy, withMoved, withStep, withoutStep } from './edit'
import { useCopies } from './useCopies'
import { useOpenStep } from './useOpenStep'
import { useRecipes } from './useRecipes'

const LONGEST = 120 // characters of what was done

/** What can be done to the steps of a recipe, each a change in words. */
export function useSteps(recipe: Ref<Recipe>) {
  const catalogue = useCatalogue()
  const recipes = useRecipes()
  const copies = useCopies()
  const opened = useOpenStep()

  const steps = computed(() => recipe.value.document.steps)
  const specOf = (step: StepDocument) => catalogue.step(step.kind)
  const keep = (document: RecipeDocument, words: string, gesture?: string) => recipes.change(recipe.value, document, words.slice(0, LONGEST), gesture)

  function add(kind: string) {
    const spec = catalogue.step(kind)
    if (!spec) return
    const step = newStep(spec, crypto.randomUUID())
    keep({ ...recipe.value.document, steps: [...steps.value, step] }, `${spec.label} added`)
    opened.open(step)
  }

  /** Of a bundle no part is open: each is one line to begin with. */
  function addLook(look: Look) {
    const made = withLook(recipe.value.document, look, () => crypto.randomUUID())
    keep(made.document, look.bundles.length && !look.steps.some(({ enabled }) => enabled) ? `${look.label} added` : `look ${look.label} added`)
    if (look.bundles.length) opened.id = null
    else opened.open(made.steps[0] ?? null)
  }

  const flip = (step: StepDocument) => keep(withStep(recipe.value.document, step.id, { enabled: !step.enabled }), `${step.name} ${step.enabled ? 'off' : 'on'}`)
  const rename = (step: StepDocument, name: string) => keep(withStep(recipe.value.document, step.id, { name }), `${step.name} named ${name}`)
  const strengthen = (step: StepDocument, strength: number, gesture?: string) => keep(withStep(recipe.value.document, step.id, { strength }), `${step.name}: strength`, gesture)

  function move(step: StepDocument, to: number, words = 'moved') {
    keep(tidied(withMoved(recipe.value.document, step.id, to), step.id), `${step.name} ${words}`)
  }

  function act(step: StepDocument, what: StepAct) {
    const document = recipe.value.document
    const index = steps.value.findIndex((one) => one.id === step.id)
    const spec = specOf(step)
    if (what === 'copy') copies.copy([step], false)
    else if (what === 'duplicate') keep(withCopy(document, step.id, crypto.randomUUID()), `${step.name} duplicated`)
    else if (what === 'up' || what === 'down') move(step, index + (what === 'up' ? -1 : 1), `moved ${what}`)
    else if (what === 'beside') keep(withBeside(besideAbove(steps.value, index) ? document : bundledBeside(index), step.id, crypto.randomUUID()), `${step.name} ${besideAbove(steps.value, index) ? 'after' : 'beside'} the one above`)
    else if (what === 'remove') keep(tidied(withoutStep(document, step.id)), `${step.name} removed`)
    else if (what === 'bundle') keep(bundledAbove(document, step.id, crypto.randomUUID()), `${step.name} bundled with the one above`)
    else if (what === 'reset' && spec) keep(withStep(document, step.id, { parameters: neutralParameters(spec), strength: 1 }), `${step.name} reset`)
  }

  /** What stands side by side is in one bundle, or in none. */
  function bundledBeside(index: number) {
    const document = recipe.value.document
    const [above, step] = [document.steps[index - 1], document.steps[index]]
    if (!above || !step || above.bundle === step.bundle) return document
    return above.bundle ? bundledAbove(document, step.id, '') : unbundledStep(document, step)
  }
  const unbundledStep = (document: RecipeDocument, step: StepDocument) => tidied(withStep(document, step.id, { bundle: undefined }))

  const partsOf = (bundle: BundleDocument) => steps.value.filter((step) => step.bundle === bundle.id)
  function changeBundle(bundle: BundleDocument, change: Partial<BundleDocument>, gesture?: string) {
    const words = change.name !== undefined ? `named ${change.name}` : change.strength !== undefined ? 'strength' : change.enabled ? 'on' : 'off'
    keep(withBundle(recipe.value.document, bundle.id, change), `${bundle.name}: ${words}`, gesture)
  }
  function actOnBundle(bundle: BundleDocument, what: BundleAct) {
    const document = recipe.value.document
    if (what === 'copy') copies.copy(partsOf(bundle), false)
    else if (what === 'all') keep(allOf(document, bundle.id, !partsOf(bundle).some(({ enabled }) => enabled)), `${bundle.name}: all parts ${partsOf(bundle).some(({ enabled }) => enabled) ? 'off' : 'on'}`)
    else if (what === 'up' || what === 'down') keep(bundleMoved(document, bundle.id, what === 'up' ? -1 : 1), `${bundle.name} moved ${what}`)
    else if (what === 'apart') keep(unbundled(document, bundle.id), `${bundle.name} taken apart`)
    else if (what === 'remove') keep(withoutBundle(document, bundle.id), `${bundle.name} removed`)
  }

  return { changeBundle, actOnBundle, steps, specOf, add, addLook, flip, rename, strengthen, move, act }
}
