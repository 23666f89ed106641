import { onBeforeUnmount, onMounted } from 'vue'
import { useCut } from '../cut/useCut'
import { addressed, nudged } from '../grade/address'
import { withParameter } from '../grade/edit'
import { useNudging } from '../grade/useDrag'
import { useOpenStep } from '../grade/useOpenStep'
import { useRecipes } from '../grade/useRecipes'
import { useGesture } from '../grade/useStepEditor'
import { useCatalogue } from '../shell/useCatalogue'
import { pressKey } from '../shell/useKeys'
import { useSurface } from './useSurface'

/** Lets a surface work on the shot that is open: on its open step where that is of the kind, or its first. */
export function useSurfaceHands() {
  const cut = useCut()
  const catalogue = useCatalogue()
  const recipes = useRecipes()
  const opened = useOpenStep()
  const surface = useSurface()
  const gesture = useGesture()
  const nudging = useNudging(gesture.begin, gesture.end)

  function nudge(address: string, nudges: number) {
    const found = addressed(address, catalogue.catalogue?.steps ?? [])
    const recipe = cut.shot?.recipe
    const steps = recipe?.document.steps.filter((step) => step.kind === found?.kind) ?? []
    const step = steps.find((one) => one.id === opened.id) ?? steps[0]
    if (!found || !recipe || !step) return
    nudging()
    recipes.change(recipe, withParameter(recipe.document, step.id, found.parameter.name, nudged(step, found, nudges)), `${step.name}: ${found.parameter.label}`, gesture.id())
  }

  const focus = (event: FocusEvent) => {
    const address = event.target instanceof HTMLElement ? event.target.dataset.bind : undefined
    if (address) surface.focused = address
  }

  onMounted(() => {
    surface.take({ nudge, key: pressKey })
    window.addEventListener('focusin', focus)
    if (surface.wanted && surface.supported) void surface.connect()
  })
  onBeforeUnmount(() => {
    surface.take(null)
    window.removeEventListener('focusin', focus)
  })
}
