import type { RecipeDocument, StepDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { usePaste } from './usePaste'

/** Steps that were copied, and the shots they would go on. */
export const useCopies = defineStore('copies', () => {
  const cut = useCut()
  const paste = usePaste()
  const notices = useNotices()
  const steps = ref<StepDocument[]>([])
  /** Spans, and bundles that are copied whole. */
  const along = ref<Pick<RecipeDocument, 'spans' | 'bundles'>>({})
  /** A whole recipe was copied: whether it replaces what it is put on is asked. */
  const whole = ref(false)
  /** The shot it was copied from, which never gets it twice. */
  const from = ref<{ shot: number; name: string } | null>(null)
  /** Shots picked besides the one that is open. */
  const picked = ref<number[]>([])
  /** Shots that a recipe is about to go on. */
  const asking = ref<number[] | null>(null)

  const words = computed(() => (whole.value ? `recipe of ${from.value?.name ?? ''}` : steps.value.map((step) => step.name).join(', ')))
  const open = computed(() => {
    const id = cut.shot?.id
    const others = picked.value.filter((one) => one !== id && cut.shots.some((shot) => shot.id === one))
    return id === undefined ? others : [id, ...others]
  })
  /** The open shot and the picked ones, without the one the copy is of. */
  const shots = computed(() => without(open.value))
  const without = (ids: number[]) => ids.filter((id) => id !== from.value?.shot)
  const named = (ids: number[]) => (ids.length <= 3 ? ids.map((id) => cut.shots.find((shot) => shot.id === id)?.name ?? '').join(', ') : `${ids.length} shots`)

  function copy(found: StepDocument[], all: boolean) {
    if (found.length === 0) return
    steps.value = structuredClone(found.map((step) => JSON.parse(JSON.stringify(step)) as StepDocument))
    const owner = cut.recipes.find((recipe) => recipe.document.steps.some(({ id }) => id === found[0]?.id))
    const bundles = owner?.document.bundles?.filter((bundle) => owner.document.steps.every((step) => step.bundle !== bundle.id || found.some(({ id }) => id === step.id)))
    along.value = JSON.parse(JSON.stringify({ spans: owner?.document.spans ?? [], bundles: bundles ?? [] })) as typeof along.value
    whole.value = all
    from.value = cut.shot ? { shot: cut.shot.id, name: cut.shot.name } : null
    notices.news(`${words.value} copied`)
  }

  function pick(id: number) {
    picked.value = picked.value.includes(id) ? picked.value.filter((one) => one !== id) : [...picked.value, id]
  }

  /** Single steps go on at once, after what is there; of a recipe it is asked first. */
  async function put(onto = open.value) {
    if (steps.value.length === 0) return
    const targets = without(onto)
    if (targets.length === 0) return notices.news(`This was copied from ${from.value?.name ?? 'this shot'}. Pick other shots with Ctrl and a click, or duplicate a step in its menu.`)
    if (whole.value) asking.value = targets
    else await go(targets, false)
  }

  async function go(targets: number[], replace: boolean) {
    const said = `${words.value} ${whole.value ? (replace ? 'in place of the steps of' : 'after the steps of') : 'put on'} ${named(targets)}`
    if (await paste(targets, steps.value, replace, said, from.value?.shot, along.value)) notices.news(said)
  }

  /** What was asked is answered: in place of what is there, after it, or not at all. */
  async function answer(how: 'replace' | 'add' | 'leave') {
    const targets = asking.value
    asking.value = null
    if (targets && how !== 'leave') await go(targets, how === 'replace')
  }

  return { steps, whole, picked, shots, asking, words, named, copy, pick, put, answer }
})
