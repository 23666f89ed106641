import { send } from '@/api/client'
import type { Ladder } from '@/api/ladder'
import { unpack, words, type Answer } from '@/api/answer'
import { makeLivePicture } from './livePicture'
import type { PictureWish } from './usePicture'

const DRAWING = 70 // ms of a move

/** What a prepared ladder is for, and what the server told of its start. */
interface Prepared {
  frame: string
  start: string
  domain: [number[], number[]]
}

/**
 * What a moving hand needs to draw pictures here: fetched while it rests, and with each move what
 * the move has changed.
 */
export function makeLadderHand() {
  const live = makeLivePicture(DRAWING)
  let prepared: Prepared | null = null
  /** What the latest preparation was for. */
  let asked: string | null = null

  const frameOf = ({ cut, frame, test = null }: PictureWish) => `${cut} ${frame} ${test}`
  const named = () => ({ held: live?.holds() ?? [], ...(prepared ? { start: prepared.start, domain: prepared.domain } : {}) })

  return {
    /** Fetches what a hand on the open step would need; once for what it depends on. */
    async prepare(wish: PictureWish) {
      const { cut, frame, test, on, trial, tap, source, still, swatch } = wish
      const key = JSON.stringify([cut, frame, test, on, trial, tap])
      if (!live || source || still !== undefined || swatch !== undefined || asked === key) return
      asked = key
      try {
        const response = await send('POST', `/cuts/${cut}/ladder`, { frame, on, trial, test, ladder: { step: tap, ...named() } })
        if (response.status === 204 || asked !== key) return
        const { header, parts } = unpack(await response.arrayBuffer())
        const { ladder } = header
        if (!ladder) return
        live.take(ladder.rungs, ladder.nodes, parts)
        const { width, height, range, domain } = ladder
        if (!parts.start || !width || !height || !range || !domain) return
        live.setStart({ key: ladder.start, width, height, codes: words(parts.start), range })
        prepared = { frame: frameOf(wish), start: ladder.start, domain }
      } catch (error) {
        asked = null
        throw error
      }
    },
    /** What to ask of a move; null where none has been prepared for its frame. */
    asks: (wish: PictureWish) => (prepared?.frame === frameOf(wish) ? { step: wish.tap, ...named() } : null),
    /** What it drew last has fewer pixels than the exact picture. */
    reduces: () => live?.reduces() ?? false,
    /** Null where the start has been left meanwhile. */
    draw(ladder: Ladder, parts: Answer['parts'], marks = false): ImageBitmap | null {
      if (!live || live.start() !== ladder.start) return null
      live.take(ladder.rungs, ladder.nodes, parts)
      return live.draw(ladder.rungs, ladder.nodes, marks)
    },
  }
}
