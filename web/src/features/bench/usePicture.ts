import { send } from '@/api/client'
import type { Region } from '@/api/readings'
import { unpack, type Answer, type AnswerHeader } from '@/api/answer'
import { onScopeDispose, shallowRef, ref, watch, type Ref } from 'vue'
import type { ScreenWish } from '../screen/useScreen'
import type { Trial } from '../cut/useCut'
import { makeLadderHand } from './ladderHand'

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
  /** Its footage has a working copy, as it takes long to decode: another frame is shown from that first. */
  copied?: boolean
  /** Recipes under the hand, not stored yet. */
  trial: Trial | null
  /** The picture of a still or a swatch in place of the shot's. */
  still?: number
  swatch?: number
  /** A test picture in place of the shot's. */
  test?: string | null
  /** The open step, whose input is told. */
  tap?: string | null
  /** A step, and one of its regions or a contributor of its matte, shown as what is acted on. */
  acts?: Acts | null
  /** The last step whose work is shown. */
  upto?: string | null
  /** A step of which only the light that it adds is shown. */
  adds?: string | null
  /** What it takes away is amplified by so much. */
  taken?: number
  /** A patch whose exposure a film step is told. */
  patch?: Region | null
  /** A key that is open, whose axes are told. */
  key?: { step: string; contributor: string } | null
  /** A parameter that moves, whose course over the shot is told. */
  course?: { step: string; contributor: string | null; parameter: string } | null
  /** A patch of skin to be measured. */
  skin?: Region | null
  /** What instruments read and where, and what is marked in the picture. */
  measuring?: Measuring
  /** False leaves the instruments out. */
  instruments?: boolean
}

/** What of the picture a step acts on, and how it is shown. */
export interface Acts {
  step: string
  region: string | null
  contributor?: string
  /** With the contributors before it. */
  upto?: boolean
  look: string
}

export interface Measuring {
  scopes: Record<string, unknown>
  /** Levels that black and white are to touch. */
  guides?: Record<string, number>
  measure: string
  region: Region | null
  light: unknown
  bands: unknown
  marks: boolean
  /** Places where tones break are marked, and their share told. */
  breaks?: boolean
  /** A reference that instruments show together with this one. */
  beside: unknown
  /** A reference that the shown one is the difference from, times gain. */
  difference?: unknown
  gain?: number
}

/** A reference in place of the wish's own. */
export interface SecondWish {
  frame?: number
  source?: boolean
  washes?: boolean
  trial?: Trial
  /** The picture of a still or a swatch, by its id, in place of all that. */
  still?: number
  swatch?: number
  /** Of the movie that lies under the cut. */
  programme?: boolean
  /** The open step's matte, of the same picture. */
  matte?: boolean
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
 * The picture of a wish. While a hand moves, it is drawn here up a ladder of look-up tables
 * that the server computes, or where that cannot be, reduced pictures come from there; when
 * it rests, the exact one. One request is under way at a time; of the wishes that come
 * meanwhile only the newest is asked for. The server drops what is overtaken.
 */
export function usePicture(wish: Ref<PictureWish | null>, trouble: (error: unknown) => void) {
  const shown = shallowRef<ShownPicture | null>(null)
  const loading = ref(false)
  const failed = ref<string | null>(null)
  /** The exact picture of the present wish is shown. */
  const settled = ref(false)
  /** What is shown has fewer pixels than the exact one, as a hand moves. */
  const reduced = ref(false)
  const screen = crypto.randomUUID()
  let sequence = 0
  let waiting: { wish: PictureWish; size: string } | null = null
  let busy = false
  let timer = 0
  let over = false
  const hand = makeLadderHand()

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
        if (size === 'full' && !waiting) hand.prepare(asked).catch(trouble)
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
      frame: asked.frame,
      source: asked.source,
      on: asked.on,
      trial: asked.trial,
      test: asked.test,
      still: asked.still,
      swatch: asked.swatch,
      tap: asked.tap,
      acts: asked.acts,
      upto: asked.upto,
      adds: asked.adds,
      taken_gain: asked.taken,
      key: asked.key,
      course: asked.course,
      skin: asked.skin,
      patch: asked.patch,
      instruments: asked.instruments,
      ...asked.measuring,
      ...sizeFor(asked, size),
      screen,
      sequence: ++sequence,
    })
    if (response.status === 204) return
    const answer = unpack(await response.arrayBuffer())
    const bitmap = await bitmapOf(answer)
    if (over || !bitmap) return
    shown.value?.bitmap.close()
    shown.value = { bitmap, header: answer.header, parts: answer.parts }
    settled.value = size === 'full' && asked === wish.value
    reduced.value = answer.header.ladder ? hand.reduces() : answer.header.size === 'drag'
  }

  function sizeFor(wanted: PictureWish, size: string) {
    const { measuring } = wanted
    const plain = !wanted.source && wanted.still === undefined && wanted.swatch === undefined && !wanted.acts && !wanted.upto && !wanted.adds && !measuring?.light && !measuring?.bands && !measuring?.breaks && !measuring?.difference
    const ladder = size === 'drag' && plain ? hand.asks(wanted) : null
    return ladder ? { size: 'live', ladder } : { size }
  }

  /** Null when the start of a ladder has been left meanwhile. */
  async function bitmapOf(answer: Answer): Promise<ImageBitmap | null> {
    const { picture } = answer.parts
    if (answer.header.ladder) return hand.draw(answer.header.ladder, answer.parts, wish.value?.measuring?.marks)
    if (!picture) throw new Error('the server sent no picture')
    return createImageBitmap(new Blob([picture], { type: 'image/png' }), { colorSpaceConversion: 'none' })
  }

  watch(
    wish,
    (now, before) => {
      clearTimeout(timer)
      settled.value = false
      if (!now) return
      const elsewhere = before !== null && before !== undefined && before.frame !== now.frame
      const quick = now.moving || (elsewhere && busy)
      if (quick || (elsewhere && now.copied)) want('drag')
      timer = window.setTimeout(() => want('full'), quick ? REST : 0)
    },
    { immediate: true },
  )

  onScopeDispose(() => {
    over = true
    clearTimeout(timer)
    shown.value?.bitmap.close()
  })

  return { shown, loading, failed, settled, reduced }
}
