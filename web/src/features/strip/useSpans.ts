import type { RecipeDocument, SpanDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import { useLayout } from '../bench/useLayout'
import { useCut } from '../cut/useCut'
import { useMoves } from '../grade/useMoves'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from '../shell/useNotices'
import { withNewSpan, withPart, withSpan, withoutSpan } from './spans'
import { usePicks } from './usePicks'

/** Spans of the recipe that the open step is in. */
export const useSpans = defineStore('spans', () => {
  const cut = useCut()
  const moves = useMoves()
  const recipes = useRecipes()
  const layout = useLayout()
  const notices = useNotices()
  const picks = usePicks()

  const open = computed(() => moves.open)
  const all = computed(() => open.value?.recipe.document.spans ?? [])
  /** Those the open step takes part in. */
  const own = computed(() => all.value.filter((one) => open.value?.step.spans?.includes(one.id)))
  const chosen = computed(() => all.value.find((one) => one.id === picks.span) ?? null)
  /** The present frame as the step's owner counts. */
  const here = computed(() => cut.frame - (open.value?.start ?? 0))

  function add(fresh: SpanDocument, words: string) {
    if (!open.value) return
    const { recipe, step } = open.value
    recipes.change(recipe, withNewSpan(recipe.document, fresh, step.id), `${step.name}: span ${fresh.name} ${words}`.slice(0, 120))
    picks.pickSpan(fresh.id)
    layout.strip = true
  }
  function alter(id: string, values: Partial<SpanDocument>, words: string, gesture?: string, from?: RecipeDocument) {
    if (!open.value) return
    const { recipe } = open.value
    const name = all.value.find((one) => one.id === id)?.name ?? ''
    recipes.change(recipe, withSpan(from ?? recipe.document, id, values), `span ${name} ${words}`.slice(0, 120), gesture)
  }
  function fresh(): string {
    const names = all.value.map((one) => one.name)
    for (let number = all.value.length + 1; ; number++) if (!names.includes(`span ${number}`)) return `span ${number}`
  }

  return {
    all,
    own,
    chosen,
    here,
    add,
    alter,
    /** One of the open step begins at the present frame, up to its next one or the shot's end. */
    begin() {
      const shot = cut.shot
      if (!open.value || !shot) return notices.news('Open a step: the span is for what it does.')
      const last = shot.record_in + shot.length - 1 - open.value.start
      const next = own.value.filter((one) => one.start > here.value).map((one) => one.start - 1)
      add({ id: crypto.randomUUID(), name: fresh(), start: here.value, finish: Math.max(here.value, Math.min(last, ...next)), fade_in: [0, 0], fade_out: [0, 0], curve: 'cosine' }, 'begun')
    },
    /** The picked one, or that of the open step which began last, ends at the present frame. */
    finish() {
      const begun = own.value.filter((one) => one.start <= here.value).sort((a, b) => b.start - a.start)
      const target = chosen.value && chosen.value.start <= here.value ? chosen.value : begun[0]
      if (!target) return notices.news('No span of the open step begins before this frame.')
      alter(target.id, { finish: here.value }, 'ends here')
      picks.pickSpan(target.id)
    },
    /** Whether the open step takes part in one. */
    part: (one: SpanDocument, on: boolean) =>
      open.value && recipes.change(open.value.recipe, withPart(open.value.recipe.document, open.value.step.id, one.id, on), `${open.value.step.name} ${on ? 'takes part in' : 'leaves'} ${one.name}`.slice(0, 120)),
    /** Takes the picked one away, and says which steps act everywhere then. */
    remove() {
      if (!open.value || !chosen.value) return
      const { recipe } = open.value
      const { id, name } = chosen.value
      const alone = recipe.document.steps.filter((step) => step.spans?.length === 1 && step.spans[0] === id).map((step) => step.name)
      recipes.change(recipe, withoutSpan(recipe.document, id), `span ${name} removed`)
      picks.clear()
      if (alone.length) notices.news(`${alone.join(', ')} ${alone.length === 1 ? 'acts' : 'act'} all through the shot now.`)
    },
  }
})
