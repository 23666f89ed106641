import { sendJson } from '@/api/client'
import { computed, ref, type Ref } from 'vue'
import { useEvents } from './useEvents'

/** What a worker does for somebody who waits. */
export interface Errand<Result = Record<string, unknown>> {
  id: number
  cut: number
  kind: 'freeze' | 'export' | 'package' | 'changes' | 'compare' | 'track' | 'measure'
  status: 'waiting' | 'running' | 'done' | 'cancelled' | 'failed'
  count: number
  done: number
  result: Result | null
  message: string | null
}

const LIVE = ['waiting', 'running']

/** Errands of a project: how far they are, and their ends. */
export function useErrands(project: Ref<string | undefined>) {
  const known = ref(new Map<number, Errand>())
  const waiting = new Map<number, (errand: Errand) => void>()

  function take(found: Errand) {
    const before = known.value.get(found.id)
    if (before && !LIVE.includes(before.status)) return // an answer that was overtaken by its event
    known.value.set(found.id, found)
    if (LIVE.includes(found.status)) return
    waiting.get(found.id)?.(found)
    waiting.delete(found.id)
  }
  useEvents(project, { errand: take })

  /** @throws ApiError when it is refused */
  async function place(path: string, wish: unknown): Promise<Errand> {
    const errand = await sendJson<Errand>('POST', path, wish)
    take(errand)
    return errand
  }

  return {
    /** By id. */
    known,
    place,
    /** The latest of a kind for a cut. */
    latest: (kind: Errand['kind'], cut: Ref<number>) => computed(() => [...known.value.values()].filter((one) => one.kind === kind && one.cut === cut.value).sort((a, b) => b.id - a.id)[0] ?? null),
    cancel: async (errand: Errand) => take(await sendJson<Errand>('POST', `/errands/${errand.id}/cancel`, {})),
    /**
     * Places one and waits for its end.
     *
     * @param placed is told its id, before it ends
     * @throws Error with the reason when it fails
     */
    async run<Result>(path: string, wish: unknown, placed?: (id: number) => void): Promise<Result> {
      const { id } = await place(path, wish)
      placed?.(id)
      const ended = LIVE.includes(known.value.get(id)?.status ?? '') ? await new Promise<Errand>((resolve) => waiting.set(id, resolve)) : (known.value.get(id) as Errand)
      if (ended.status !== 'done') throw new Error(ended.message ?? 'it was cancelled')
      return ended.result as Result
    },
  }
}
