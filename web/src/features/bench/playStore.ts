import { send } from '@/api/client'
import { unpack, words } from '@/api/answer'
import type { Rung } from '@/api/ladder'
import type { Shot } from '@/api/cut'
import type { Ref } from 'vue'
import type { ScreenWish } from '../screen/useScreen'
import type { Trial } from '../cut/useCut'
import { makeLivePicture, sourceStart, type StartPicture } from './livePicture'

const AT_ONCE = { least: 2, most: 4 } // requests under way, one a server process, as many as leave a browser some for other things
const RUN = { play: 16, full: 4 } // source frames asked for in one go
const LADDERS = 500 // and ladders, of which as many come as the server can tell without looking at more frames
const MOST_SOURCES = { play: 480, full: 120 } // frames of three quarters of a megabyte, and of three
const DRAWING = 30 // ms of a frame
/** Pictures of two megabytes at most. */
export const MOST_PICTURES = 300

export interface PlayStoreOptions {
  cut: Ref<number | null>
  /** The shot a record frame belongs to. */
  shotAt: (frame: number) => Shot | undefined
  on: Ref<ScreenWish>
  trialOf: (shot: Shot) => Trial
  /** What to ask for where a finished picture is needed that is not the graded one. */
  wished?: (frame: number) => Record<string, unknown>
  /** Whether the finished picture of a frame is there already. */
  kept: (frame: number) => boolean
  /** Whether what is played is wanted again, and drawn from whole sources: else a quarter of their pixels will do. */
  whole?: Ref<boolean>
  /** Processes of the server. */
  processes?: Ref<number>
  trouble: (error: unknown) => void
}

/**
 * Frames to play: sources as decoded, or as they are once their noise is taken away, which stay good whatever the grade
 * after that, drawn up ladders that the server computes; and finished pictures where that cannot be, in dissolves and of
 * steps that reach beyond a pixel.
 */
export function makePlayStore(options: PlayStoreOptions) {
  const whole = () => options.whole?.value ?? false
  const size = () => (whole() ? 'full' : 'play')
  const atOnce = () => Math.min(Math.max(options.processes?.value ?? 0, AT_ONCE.least), AT_ONCE.most)
  const live = makeLivePicture(DRAWING)
  const sources = new Map<number, StartPicture>()
  /** Finished ones that came, and drawn ones that are wanted again. */
  const pictures = new Map<number, ImageBitmap>()
  /** Frames of those that are smaller than what there is of them once it is rendered. */
  const rough = new Set<number>()
  let held = size()
  /** Null of a frame that has none. */
  const ladders = new Map<number, { rungs: Rung[]; start: string } | null>()
  let nodes = 0
  const under = new Set<string>()
  let epoch = 0
  /** Milliseconds an answer takes, running mean. */
  let wait = 100
  /** On the screen just now. */
  let shown: ImageBitmap | null = null

  const alone = (shot: Shot, frame: number) => frame - shot.record_in >= shot.dissolve

  /** Whether a frame is drawn from its source; undefined until its ladder is known. */
  function bySource(frame: number): boolean | undefined {
    const shot = options.shotAt(frame)
    if (!live || !shot || !alone(shot, frame) || options.kept(frame)) return false
    const ladder = ladders.get(frame)
    if (ladder === undefined || (ladder && !live.can(ladder.rungs))) return undefined
    return ladder !== null
  }

  /** What a frame is drawn from, if it is there: its source, or what its ladder says. */
  function sourceOf(frame: number): StartPicture | undefined {
    const found = sources.get(frame)
    return found?.key === ladders.get(frame)?.start ? found : undefined
  }

  function has(frame: number): boolean {
    return pictures.has(frame) || (bySource(frame) === true && sourceOf(frame) !== undefined)
  }

  /** Who was kept first goes first. */
  function keep(frame: number, bitmap: ImageBitmap) {
    drop(frame)
    pictures.set(frame, bitmap)
    for (const old of pictures.keys()) {
      if (pictures.size <= MOST_PICTURES) return
      drop(old)
    }
  }
  function drop(frame: number) {
    const old = pictures.get(frame)
    if (old !== shown) old?.close()
    pictures.delete(frame)
    rough.delete(frame)
  }

  async function ask(key: string, work: () => Promise<void>) {
    under.add(key)
    const asked = performance.now()
    try {
      await work()
      wait += (performance.now() - asked - wait) / 4
    } finally {
      under.delete(key)
    }
  }

  const fetchLadders = (shot: Shot, first: number, count: number) =>
    ask(`ladders ${first}`, async () => {
      const mine = epoch
      const response = await send('POST', `/cuts/${options.cut.value}/ladders`, { first, count, on: options.on.value, trial: options.trialOf(shot), held: live?.holds() ?? [], size: size() })
      const { header, parts } = unpack(await response.arrayBuffer())
      if (mine !== epoch || !header.nodes) return
      nodes = header.nodes
      for (const { frame, rungs, start } of header.ladders ?? []) {
        if (rungs) live?.take(rungs, nodes, parts)
        ladders.set(frame, rungs && { rungs, start: start ?? String(frame) })
      }
    })

  const fetchSources = (shot: Shot, first: number, count: number, cleaned: boolean) =>
    ask(`sources ${first}`, async () => {
      const cut = `/cuts/${options.cut.value}`
      const asked = size()
      const response = cleaned ? await send('POST', `${cut}/cleaned`, { first, count, trial: options.trialOf(shot), size: asked }) : await send('GET', `${cut}/playing?first=${first}&count=${count}&size=${asked}`)
      const { header, parts } = unpack(await response.arrayBuffer())
      if (asked !== held) return
      for (const { frame, width, height, start, range } of header.frames ?? []) {
        const bytes = parts[`f${frame}`]
        if (bytes) sources.set(frame, { ...sourceStart(start ?? String(frame), width, height, words(bytes)), ...(range && { range }) })
      }
      for (const frame of sources.keys()) {
        if (sources.size <= MOST_SOURCES[asked]) break
        sources.delete(frame)
      }
    })

  const fetchPicture = (frame: number, as: 'play' | 'full' = 'play') =>
    ask(`picture ${frame}`, async () => {
      const [mine, small] = [epoch, as === 'play' && !options.kept(frame)]
      const wished = options.wished?.(frame)
      const response = await send('POST', `/cuts/${options.cut.value}/${wished ? 'picture' : 'finished'}`, wished ? { ...wished, on: options.on.value, size: as, instruments: false } : { frame, on: options.on.value, size: as })
      const bytes = unpack(await response.arrayBuffer()).parts.picture
      if (!bytes) return
      const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }), { colorSpaceConversion: 'none' })
      if (mine !== epoch) return bitmap.close()
      keep(frame, bitmap)
      if (small) rough.add(frame)
    })

  /** Whether a run of frames is under way that holds one. */
  const within = (kind: string, frame: number, run: number) => [...under].some((key) => key.startsWith(`${kind} `) && frame >= Number(key.slice(kind.length + 1)) && frame < Number(key.slice(kind.length + 1)) + run)

  const isCleaned = (frame: number) => ladders.get(frame)?.start !== undefined && ladders.get(frame)?.start !== String(frame)
  /** Frames from one on that are all kept without their noise. */
  function cleanedRun(frame: number, most: number): number {
    const end = Array.from({ length: most }, (_, at) => at).find((at) => !isCleaned(frame + at))
    return end ?? most
  }

  /** What to ask for so that a frame can be shown; undefined when that is under way. */
  function missing(frame: number): (() => Promise<void>) | undefined {
    const shot = options.shotAt(frame)
    if (!shot) return undefined
    const most = RUN[size()]
    const run = Math.min(most, shot.record_in + shot.length - frame)
    const way = bySource(frame)
    if (way === undefined) return within('ladders', frame, LADDERS) ? undefined : () => fetchLadders(shot, frame, Math.min(LADDERS, shot.record_in + shot.length - frame))
    if (way) return within('sources', frame, most) ? undefined : () => fetchSources(shot, frame, isCleaned(frame) ? cleanedRun(frame, run) : run, isCleaned(frame))
    return under.has(`picture ${frame}`) ? undefined : () => fetchPicture(frame)
  }

  function draw(frame: number): ImageBitmap | null {
    const ladder = ladders.get(frame)
    const source = sourceOf(frame)
    if (!bySource(frame) || !live || !ladder || !source) return null
    live.setStart(source)
    const picture = live.draw(ladder.rungs, nodes)
    if (!whole()) return picture
    keep(frame, picture)
    if (live.reduces()) rough.add(frame)
    return picture
  }

  return {
    has,
    /** Whether its picture is made, so that it costs nothing to show it. */
    ready: (frame: number) => pictures.has(frame),
    /** Milliseconds to ask ahead. */
    wait: () => wait,
    /** Asks for what is missing of the frames, in their order; once all are there, for a whole one where a smaller one has to do. */
    fill(frames: number[], stop: () => void) {
      const begin = (work: () => Promise<void>) =>
        void work().catch((error: unknown) => {
          stop()
          options.trouble(error)
        })
      for (const frame of frames) {
        if (under.size >= atOnce()) return
        const work = has(frame) && !(rough.has(frame) && options.kept(frame)) ? undefined : missing(frame)
        if (work) begin(work)
      }
      const small = whole() && under.size === 0 ? frames.find((frame) => rough.has(frame)) : undefined
      if (small !== undefined) begin(() => fetchPicture(small, 'full'))
    },
    /** The picture of a frame that is there; good until the next one. */
    show(frame: number): ImageBitmap | null {
      const next = pictures.get(frame) ?? draw(frame)
      if (!next) return null // what is on the screen stays there
      if (next !== shown && ![...pictures.values()].includes(shown as ImageBitmap)) shown?.close()
      shown = next
      return next
    },
    /** A grade or the screen has changed, or what is wanted: sources stay if that is still the same, all else goes. */
    forget() {
      epoch++
      if (held !== size()) sources.clear()
      held = size()
      ladders.clear()
      for (const frame of [...pictures.keys()]) drop(frame)
    },
    close() {
      this.forget()
      sources.clear()
      shown?.close()
      shown = null
    },
  }
}

export type PlayStore = ReturnType<typeof makePlayStore>
