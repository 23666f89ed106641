import type { Catalogue } from '@/api/catalogue'
import type { Recipe, RecipeDocument, StepDocument } from '@/api/recipe'
import { computed, type Ref } from 'vue'
import { useCatalogue } from '../shell/useCatalogue'
import type { StepAct } from './StepMenu.vue'
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

  function addLook(look: Catalogue['looks'][number]) {
    const fresh = look.steps.map((step) => ({ ...step, id: crypto.randomUUID() }))
    keep({ ...recipe.value.document, steps: [...steps.value, ...fresh] }, `look ${look.label} added`)
    opened.open(fresh[0] ?? null)
  }

  const flip = (step: StepDocument) => keep(withStep(recipe.value.document, step.id, { enabled: !step.enabled }), `${step.name} ${step.enabled ? 'off' : 'on'}`)
  const rename = (step: StepDocument, name: string) => keep(withStep(recipe.value.document, step.id, { name }), `${step.name} named ${name}`)
  const strengthen = (step: StepDocument, strength: number, gesture?: string) => keep(withStep(recipe.value.document, step.id, { strength }), `${step.name}: strength`, gesture)

  function move(step: StepDocument, to: number, words = 'moved') {
    keep(withMoved(recipe.value.document, step.id, to), `${step.name} ${words}`)
  }

  function act(step: StepDocument, what: StepAct) {
    const document = recipe.value.document
    const index = steps.value.findIndex((one) => one.id === step.id)
    const spec = specOf(step)
    if (what === 'copy') copies.copy([step], false)
    else if (what === 'duplicate') keep(withCopy(document, step.id, crypto.randomUUID()), `${step.name} duplicated`)
    else if (what === 'up' || what === 'down') move(step, index + (what === 'up' ? -1 : 1), `moved ${what}`)
    else if (what === 'beside') keep(withBeside(document, step.id, crypto.randomUUID()), `${step.name} ${besideAbove(steps.value, index) ? 'after' : 'beside'} the one above`)
    else if (what === 'remove') keep(withoutStep(document, step.id), `${step.name} removed`)
    else if (what === 'reset' && spec) keep(withStep(document, step.id, { parameters: neutralParameters(spec), strength: 1 }), `${step.name} reset`)
  }

  return { steps, specOf, add, addLook, flip, rename, strengthen, move, act }
}
