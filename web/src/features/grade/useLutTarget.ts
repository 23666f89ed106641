import { getJson, sendJson } from '@/api/client'
import type { Project, ProjectSettings, Target } from '@/api/project'
import type { Recipe, StepDocument } from '@/api/recipe'
import { useCut } from '../cut/useCut'
import { useScreen } from '../screen/useScreen'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import { withoutStep } from './edit'
import { useRecipes } from './useRecipes'

/** A LUT step that returns a finished picture stands before the view, which renders it again. */
export function useLutTarget() {
  const cut = useCut()
  const screen = useScreen()
  const catalogue = useCatalogue()
  const recipes = useRecipes()
  const notices = useNotices()

  const text = (step: StepDocument, name: string) => (typeof step.parameters[name] === 'string' ? (step.parameters[name] as string) : '')

  /** What its table returns, where the view renders that a second time; null where all is well. */
  function twice(step: StepDocument): string | null {
    const returns = text(step, 'returns')
    const renders = screen.target?.rendering || screen.target?.lut
    const finished = step.kind === 'lut' && step.enabled && text(step, 'lut') !== '' && catalogue.kindOf(returns) === 'display'
    return finished && cut.project?.space.scene && renders ? returns : null
  }

  /** The table as a target, as strong as the step was, and this screen on it; the step goes. */
  async function makeTarget(recipe: Recipe, step: StepDocument) {
    const project = cut.project
    if (!project) return
    try {
      await recipes.settled()
      const settings = await getJson<ProjectSettings>(`/projects/${project.id}/settings`)
      const path = text(step, 'lut')
      const names = settings.targets.map((one) => one.name)
      const base = (path.split('/').at(-1) ?? path).replace(/\.\w+$/, '').slice(0, 50)
      const name = [base, ...Array.from({ length: names.length }, (_, n) => `${base} ${n + 2}`)].find((one) => !names.includes(one)) ?? base
      const made = { id: crypto.randomUUID(), name, encoding: text(step, 'returns'), lut: path, expects: text(step, 'expects') || null, strength: step.strength < 1 ? step.strength : null }
      const targets = [...settings.targets.map(plain), made]
      const answer = await sendJson<ProjectSettings & { project: Project }>('PUT', `/projects/${project.id}/settings`, { targets, seen: { targets: settings.seen.targets } })
      cut.project = answer.project
      recipes.change(recipe, withoutStep(recipe.document, step.id), `${step.name} made a target`)
      screen.choose({ target: made.id })
      notices.news(`${name} is a target now, at ${Math.round(step.strength * 100)} %, and this screen shows it.`)
    } catch (error) {
      notices.trouble(error)
    }
  }

  return { twice, makeTarget }
}

/** As it is kept, without what is only told. */
export const plain = ({ id, name, encoding, rendering, limit, lut, expects, strength }: Target) => ({ id, name, encoding, rendering, limit, lut, expects, strength })
