import { sendJson } from '@/api/client'
import type { Region } from '@/api/readings'
import { onBeforeUnmount, type Ref } from 'vue'
import { useCut } from '../cut/useCut'
import { usePick } from '../bench/usePick'
import { useNotices } from '../shell/useNotices'

/** Asks the server something about the frame as a step sees it: of a patch somebody points at, or of all. */
export function usePatchPick(step: Ref<string>) {
  const pick = usePick()
  const cut = useCut()
  const notices = useNotices()

  async function ask<T>(what: string, done: (found: T) => void, region?: Region, more: Record<string, unknown> = {}) {
    try {
      if (!cut.shot) return
      done(await sendJson<T>('POST', `/shots/${cut.shot.id}/${what}`, { frame: cut.frame, step: step.value, trial: cut.trialOf(cut.shot), region, ...more }))
    } catch (error) {
      notices.trouble(error)
    }
  }

  onBeforeUnmount(pick.cancel)
  return {
    ask,
    /** Points at a patch first; asked again for the same, it is called off. */
    point: <T>(words: string, what: string, done: (found: T) => void) => pick.ask(words, (region) => void ask(what, done, region)),
    asking: (words: string) => pick.asked?.words === words,
  }
}
