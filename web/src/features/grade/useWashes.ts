import { ApiError, sendJson } from '@/api/client'
import type { Wash } from '@/api/cut'
import type { Project } from '@/api/project'
import { useCut } from '../cut/useCut'
import { useNotices } from '../shell/useNotices'
import { useRecipes } from './useRecipes'

interface Changed {
  wash: Wash
  laid?: boolean
  project: Project
}

/** Washes: laying them, their stretch, name and switch; each a change that can be undone. */
export function useWashes() {
  const cut = useCut()
  const recipes = useRecipes()
  const notices = useNotices()

  async function answered(work: () => Promise<Changed>): Promise<Wash | null> {
    try {
      await recipes.settled()
      const { wash, laid, project } = await work()
      if (cut.cut) {
        const others = cut.washes.filter((one) => one.id !== wash.id)
        cut.cut.washes = laid === false ? others : [...others, wash].sort((a, b) => a.id - b.id)
      }
      recipes.kept(project)
      recipes.adopt([wash.recipe])
      return wash
    } catch (error) {
      notices.trouble(error)
      if (error instanceof ApiError && error.details.stale === true) await cut.reload()
      return null
    }
  }

  /** Over the whole cut, under a name nobody has to think of. */
  function lay() {
    const names = cut.washes.map((wash) => wash.name)
    let name = 'Default look'
    for (let number = 2; names.includes(name); number++) name = `Wash ${number}`
    return answered(() => sendJson<Changed>('POST', `/cuts/${cut.cut?.id}/washes`, { name, words: `wash ${name} over the cut` }))
  }

  const change = (wash: Wash, values: Partial<Pick<Wash, 'name' | 'from' | 'to' | 'enabled'>> & { laid?: boolean }, words: string) =>
    answered(() => sendJson<Changed>('PATCH', `/washes/${wash.id}`, { ...values, seen: wash.seen, words: `wash ${wash.name} ${words}`.slice(0, 120) }))

  return {
    lay,
    flip: (wash: Wash) => change(wash, { enabled: !wash.enabled }, wash.enabled ? 'off' : 'on'),
    rename: (wash: Wash, name: string) => change(wash, { name }, `named ${name}`),
    stretch: (wash: Wash, from: number | null, to: number | null) => change(wash, { from, to }, 'over another stretch'),
    remove: (wash: Wash) => change(wash, { laid: false }, 'removed'),
  }
}
