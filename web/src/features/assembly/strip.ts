import type { Shot } from '@/api/cut'

/** What a hand does to the strip before it lets go. by: frames, of record, or of the clip while it slips. */
export type Pull = { kind: 'head' | 'tail' | 'roll' | 'slip'; shot: number; by: number } | { kind: 'move'; shot: number; before: number | null }

/** A shot as the strip draws it. */
export interface Block {
  shot: Shot
  first: number
  length: number
}

/** Shots in their places while a hand pulls, in frames. */
export function pulled(shots: readonly Shot[], pull: Pull | null): Block[] {
  let first = 0
  return shots.map((shot, index) => {
    const block = { shot, first, length: Math.max(1, shot.length + growth(shots, index, pull)) }
    first += block.length
    return block
  })
}

function growth(shots: readonly Shot[], index: number, pull: Pull | null): number {
  if (!pull || pull.kind === 'move' || pull.kind === 'slip') return 0
  const id = shots[index]?.id
  if (pull.kind === 'head') return id === pull.shot ? -pull.by : 0
  if (pull.kind === 'tail') return id === pull.shot ? pull.by : 0
  return id === pull.shot ? -pull.by : shots[index + 1]?.id === pull.shot ? pull.by : 0
}

/** As far as handles go and a frame is left. */
export function held(shots: readonly Shot[], pull: Pull): Pull {
  const index = shots.findIndex((one) => one.id === pull.shot)
  const shot = shots[index]
  if (!shot || pull.kind === 'move') return pull
  const within = (least: number, most: number) => ({ ...pull, by: Math.max(least, Math.min(most, pull.by)) })
  if (pull.kind === 'head') return within(-shot.head, shot.length - 1)
  if (pull.kind === 'tail') return within(1 - shot.length, shot.tail)
  const before = shots[index - 1]
  if (pull.kind === 'roll') return before ? within(Math.max(-shot.head, 1 - before.length), Math.min(before.tail, shot.length - 1)) : { ...pull, by: 0 }
  return within(-Math.floor(shot.head * Math.abs(shot.speed)), Math.floor(shot.tail * Math.abs(shot.speed)))
}

/** The blocks that a stretch of frames shows, and one more either way. */
export function shown(blocks: readonly Block[], from: number, to: number): Block[] {
  const index = (frame: number) => {
    let [low, high] = [0, blocks.length]
    while (low < high) {
      const middle = (low + high) >> 1
      const block = blocks[middle] as Block
      if (frame < block.first + block.length) high = middle
      else low = middle + 1
    }
    return low
  }
  return blocks.slice(Math.max(0, index(from) - 1), index(to) + 2)
}

/** The shot in front of which what is dropped at a frame comes; null: after all. */
export function dropBefore(blocks: readonly Block[], at: number): number | null {
  return blocks.find((block) => at < block.first + block.length / 2)?.shot.id ?? null
}
