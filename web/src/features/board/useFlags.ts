import { sendJson } from '@/api/client'
import type { Shot } from '@/api/cut'
import type { Project } from '@/api/project'
import { useStorage } from '@vueuse/core'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from '../shell/useNotices'

/** Classes of the flags' colours; the colours themselves are the server's words. */
export const FLAG_FILL: Record<string, string> = { madder: 'fill-madder', weld: 'fill-weld', woad: 'fill-woad', orchil: 'fill-orchil', walnut: 'fill-walnut' }

type Marked = Pick<Shot, 'id' | 'flag' | 'note'>

/** Flags on shots, and the frames that stand for them. */
export function useFlags() {
  const cut = useCut()
  const recipes = useRecipes()
  const notices = useNotices()
  const colour = useStorage('mordant.flag', 'madder')

  /** One change for all of them; null takes flags off. */
  async function put(shots: Shot[], flag: string | null, note?: string) {
    if (!cut.cut || shots.length === 0) return
    if (flag) colour.value = flag
    const who = shots.length === 1 ? (shots[0]?.name ?? '') : `${shots.length} shots`
    const body = { shots: shots.map((shot) => shot.id), flag, note: note ?? (shots.length === 1 ? shots[0]?.note : ''), words: `${who}: ${flag ? `flag ${flag}` : 'no flag'}`.slice(0, 120) }
    try {
      await recipes.settled()
      const answer = await sendJson<{ shots: Marked[]; project: Project }>('POST', `/cuts/${cut.cut.id}/flags`, body)
      for (const marked of answer.shots) {
        const shot = cut.shots.find((one) => one.id === marked.id)
        if (shot) Object.assign(shot, marked)
      }
      recipes.kept(answer.project)
    } catch (error) {
      notices.trouble(error)
    }
  }

  /** The present frame stands for its shot. */
  async function standIn() {
    const shot = cut.shot
    if (!shot) return
    try {
      shot.poster = (await sendJson<{ poster: number }>('PUT', `/shots/${shot.id}/poster`, { frame: cut.frame })).poster
      notices.news(`this frame stands for ${shot.name}`)
    } catch (error) {
      notices.trouble(error)
    }
  }

  return { put, standIn, flip: () => (cut.shot ? put([cut.shot], cut.shot.flag ? null : colour.value) : undefined) }
}
