import { send } from '@/api/client'
import type { Region } from '@/api/readings'
import { unpack, words, type Answer, type AnswerHeader } from '@/api/answer'
import { onScopeDispose, shallowRef, ref, watch, type Ref } from 'vue'
import type { ScreenWish } from '../screen/useScreen'
import type { Trial } from '../cut/useCut'
import { makeLivePicture } from './livePicture'

/** What a picture shows; a new one is asked for whenever it changes. */
export interface PictureWish {
  cut: number
  frame: number
  /** Without any recipe. */
  source: boolean
  /** What it is drawn on. */
  on: ScreenWish
  /** A hand is moving: a reduced picture now, the exact one when it rests. */
  moving: boolean
  /** Recipes under the hand, not stored yet. */
  trial: Trial | null
  /** The picture of a still or a swatch in place of the shot's. */
  still?: number
  swatch?: number
  /** A test picture in place of the shot's. */
  test?: string | null
  /** The open step, whose input is told. */
  tap?: string | null
  /** A step, and one of its regions, whose pixels alone are shown as they are. */
  acts?: { step: string; region: string | null } | null
  /** A patch of skin to be measured. */
  skin?: Region | null
  /** What instruments read and where, and what is marked in the picture. */
  measuring?: Measuring
  /** False leaves the instruments out. */
  instruments?: boolean
}

export interface Measuring {
  scopes: Record<string, unknown>
  measure: string
  region: Region | null
  light: unknown
  bands: unknown
  marks: boolean
  /** A second picture that instruments show together with this one. */
  beside: unknown
  /** A second picture that the shown one is the difference from, times gain. */
  difference?: unknown
  gain?: number
}

/** A second picture in place of the wish's own. */
export interface SecondWish {
  frame?: number
  source?: boolean
  washes?: boolean
  trial?: Trial
  /** The picture of a still or a swatch, by its id, in place of all that. */
  still?: number
  swatch?: number
}

/** What instruments have read. */
export interface Reading {
  header: AnswerHeader
  parts: Answer['parts']
}

export interface ShownPicture extends Reading {
  bitmap: ImageBitmap
}

const REST = 120 // ms without a change before the exact picture is asked for

/**
 * The picture of a wish. While a hand moves, the source frame is drawn here through
 * look-up tables that the server computes, or where that cannot be, reduced pictures
 * come from there; when it rests, the exact one. One request is under way at a time; of the wishes that
 * come meanwhile only the newest is asked for. The server drops what is overtaken.
 */
export function usePicture(wish: Ref<PictureWish | null>, trouble: (error: unknown) => void) {
  const shown = shallowRef<ShownPicture | null>(null)
  const loading = ref(false)
  const failed = ref<string | null>(null)
  /** The exact picture of the present wish is shown. */
  const settled = ref(false)
  const screen = crypto.randomUUID()
  let sequence = 0
  let waiting: { wish: PictureWish; size: string } | null = null
  let busy = false
  let timer = 0
  let over = false
  const live = makeLivePicture()
  /** A frame whose source is under way, or cannot be drawn here. */
  let sourceAsked: string | null = null
  /** The test picture that the source held for live drawing is of. */
  let liveTest: string | null = null

  function want(size: string) {
    if (!wish.value) return
    waiting = { wish: wish.value, size }
    if (!busy) void next()
  }

  async function next() {
    busy = true
    while (waiting && !over) {
      const { wish: asked, size } = waiting
      waiting = null
      loading.value = size === 'full'
      try {
        await fetchOne(asked, size)
        failed.value = null
        if (size === 'full' && !waiting) void fetchSource(asked)
      } catch (error) {
        failed.value = error instanceof Error ? error.message : String(error)
        trouble(error)
      }
    }
    loading.value = false
    busy = false
  }

  async function fetchOne(asked: PictureWish, size: string) {
    const response = await send('POST', `/cuts/${asked.cut}/picture`, {
      frame: asked.frame, source: asked.source, on: asked.on, trial: asked.trial, test: asked.test, still: asked.still, swatch: asked.swatch, tap: asked.tap, acts: asked.acts, skin: asked.skin, instruments: asked.instruments, ...asked.measuring, size: sizeFor(asked, size), screen, sequence: ++sequence,
    })
    if (response.status === 204) return
    const answer = unpack(await response.arrayBuffer())
    const bitmap = await bitmapOf(answer)
    if (over || !bitmap) return
    shown.value?.bitmap.close()
    shown.value = { bitmap, header: answer.header, parts: answer.parts }
    settled.value = size === 'full' && asked === wish.value
  }

  function sizeFor(wanted: PictureWish, size: string) {
    return size === 'drag' && !wanted.source && live && !wanted.acts && !wanted.measuring?.light && !wanted.measuring?.bands && !wanted.measuring?.difference && live.frame() === wanted.frame && liveTest === (wanted.test ?? null) ? 'live' : size
  }

  /** Null when the source of a look-up table has been left meanwhile. */
  async function bitmapOf(answer: Answer): Promise<ImageBitmap | null> {
    const { picture, lattice } = answer.parts
    const { nodes, domain, frame } = answer.header
    if (lattice && live && nodes && domain) return live.frame() === frame ? live.draw(words(lattice), nodes, domain, wish.value?.measuring?.marks) : null
    if (!picture) throw new Error('the server sent no picture')
    return createImageBitmap(new Blob([picture], { type: 'image/png' }), { colorSpaceConversion: 'none' })
  }

  /** Fetches what a hand would need, once the picture is exact. */
  async function fetchSource({ cut, frame, test = null }: PictureWish) {
    const key = `${frame} ${test}`
    if (!live || (live.frame() === frame && liveTest === test) || sourceAsked === key) return
    sourceAsked = key
    try {
      const response = await send('GET', `/cuts/${cut}/source?frame=${frame}${test ? `&test=${test}` : ''}`)
      if (response.status === 204) return
      const { header, parts } = unpack(await response.arrayBuffer())
      if (parts.codes && !over) {
        live.setSource({ frame, width: header.width, height: header.height, codes: words(parts.codes) })
        liveTest = test
      }
      sourceAsked = null
    } catch (error) {
      sourceAsked = null
      trouble(error)
    }
  }

  watch(
    wish,
    (now, before) => {
      clearTimeout(timer)
      settled.value = false
      if (!now) return
      const quick = now.moving || (before !== null && before !== undefined && before.frame !== now.frame && busy)
      if (quick) want('drag')
      timer = window.setTimeout(() => want('full'), quick ? REST : 0)
    },
    { immediate: true },
  )

  onScopeDispose(() => {
    over = true
    clearTimeout(timer)
    shown.value?.bitmap.close()
  })

  return { shown, loading, failed, settled }
}
