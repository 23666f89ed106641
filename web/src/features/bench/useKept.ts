import { sendJson } from '@/api/client'
import { computed, ref, watch, type Ref } from 'vue'
import type { ScreenWish } from '../screen/useScreen'
import { useEvents } from '../shell/useEvents'

interface Render {
  id: number
  cut: number
  first: number
  count: number
  done: number
  status: 'waiting' | 'running' | 'done' | 'cancelled' | 'failed'
  message: string | null
}

const AFTER = 400 // ms without a change before it is asked what is still there

export interface KeptOptions {
  project: Ref<number | null>
  cut: Ref<number | null>
  on: Ref<ScreenWish>
  /** Grows with every change that is made here. */
  generation: Ref<number>
  /** Nothing waits to be stored. */
  stored: Ref<boolean>
  trouble: (error: unknown) => void
}

/** Finished pictures that workers make ahead of playing: which are there, and a range that is under way. */
export function useKept(options: KeptOptions) {
  const spans = ref<[number, number][]>([])
  const render = ref<Render | null>(null)
  let timer = 0

  async function load() {
    if (options.cut.value === null) return
    try {
      spans.value = (await sendJson<{ spans: [number, number][] }>('POST', `/cuts/${options.cut.value}/kept`, { on: options.on.value })).spans
    } catch (error) {
      options.trouble(error)
    }
  }
  function soon() {
    clearTimeout(timer)
    timer = window.setTimeout(() => void load(), AFTER)
  }

  // what a hand is changing is not there until it is stored
  watch([options.generation, options.on], () => (spans.value = []))
  watch([options.cut, options.on, options.generation, options.stored], soon, { immediate: true })
  useEvents(computed(() => options.project.value?.toString()), {
    range: (found: Render) => {
      if (found.cut !== options.cut.value) return
      if (found.status === 'failed' && render.value?.id === found.id) options.trouble(new Error(found.message ?? 'the range could not be rendered'))
      render.value = found
      soon()
    },
  })

  return {
    spans,
    /** The range under way. */
    running: computed(() => (render.value && ['waiting', 'running'].includes(render.value.status) ? render.value : null)),
    has: (frame: number) => spans.value.some(([first, count]) => frame >= first && frame < first + count),
    async start(first: number, count: number) {
      try {
        render.value = await sendJson<Render>('POST', `/cuts/${options.cut.value}/renders`, { first, count, on: options.on.value })
      } catch (error) {
        options.trouble(error)
      }
    },
    async cancel() {
      if (render.value) render.value = await sendJson<Render>('POST', `/renders/${render.value.id}/cancel`)
    },
  }
}
