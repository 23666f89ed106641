import { sendJson } from '@/api/client'
import { computed, ref, watch, type Ref } from 'vue'
import type { ScreenWish } from '../screen/useScreen'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useScreen } from '../screen/useScreen'
import { useEvents } from '../shell/useEvents'
import { useNotices } from '../shell/useNotices'

export type Made = 'pictures' | 'noise'

interface Render {
  id: number
  cut: number
  what: Made
  first: number
  count: number
  done: number
  status: 'waiting' | 'running' | 'done' | 'cancelled' | 'failed'
  message: string | null
}

interface Found {
  spans: [number, number][]
  wanted?: number
}

const AFTER = 400 // ms without a change before it is asked what is still there

export interface KeptOptions {
  /** Finished pictures, or frames without their noise. */
  what: Made
  project: Ref<number | null>
  cut: Ref<number | null>
  on: Ref<ScreenWish>
  /** Grows with every change that is made here. */
  generation: Ref<number>
  /** Nothing waits to be stored. */
  stored: Ref<boolean>
  /** Whether there can be any; nothing is asked else. */
  any?: Ref<boolean>
  trouble: (error: unknown) => void
}

/** What workers make ready ahead of playing: which frames are there, and a range that is under way. */
export function useKept(options: KeptOptions) {
  const spans = ref<[number, number][]>([])
  /** Frames that there could be. */
  const wanted = ref(0)
  const render = ref<Render | null>(null)
  let timer = 0

  async function load() {
    if (options.cut.value === null || options.any?.value === false) return
    try {
      const cut = `/cuts/${options.cut.value}`
      const found = await (options.what === 'noise' ? sendJson<Found>('GET', `${cut}/cleaned`) : sendJson<Found>('POST', `${cut}/kept`, { on: options.on.value }))
      spans.value = found.spans
      wanted.value = found.wanted ?? 0
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
  watch([options.cut, options.on, options.generation, options.stored, () => options.any?.value], soon, { immediate: true })
  useEvents(
    computed(() => options.project.value?.toString()),
    {
      range: (found: Render) => {
        if (found.cut !== options.cut.value || found.what !== options.what) return
        if (found.status === 'failed' && render.value?.id === found.id) options.trouble(new Error(found.message ?? 'the range could not be made ready'))
        render.value = found
        soon()
      },
    },
  )

  return {
    spans,
    wanted,
    /** Asks again, as a picture that came may have been kept. */
    soon,
    /** The range under way. */
    running: computed(() => (render.value && ['waiting', 'running'].includes(render.value.status) ? render.value : null)),
    has: (frame: number) => spans.value.some(([first, count]) => frame >= first && frame < first + count),
    async start(first: number, count: number) {
      try {
        render.value = await sendJson<Render>('POST', `/cuts/${options.cut.value}/renders`, { first, count, on: options.on.value, what: options.what })
      } catch (error) {
        options.trouble(error)
      }
    },
    async cancel() {
      if (render.value) render.value = await sendJson<Render>('POST', `/renders/${render.value.id}/cancel`)
    },
  }
}

/** Of the cut that is open, as it is seen on this screen. */
export function useKeptHere(what: Made, any?: Ref<boolean>) {
  const cut = useCut()
  const recipes = useRecipes()
  const screen = useScreen()
  return useKept({
    what,
    any,
    project: computed(() => cut.project?.id ?? null),
    cut: computed(() => cut.cut?.id ?? null),
    on: computed(() => screen.wish),
    generation: computed(() => recipes.generation),
    stored: computed(() => !recipes.unsaved),
    trouble: useNotices().trouble,
  })
}
