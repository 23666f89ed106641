import { ApiError, getJson, sendJson } from '@/api/client'
import type { Manner, Placed, Shot } from '@/api/cut'
import type { AtticShot } from '@/api/list'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from '../shell/useNotices'
import type { Pull } from './strip'

/** Hands on the shots of the open cut: each is sent at once, one after another, and is one undo. */
export const useAssembly = defineStore('assembly', () => {
  const cut = useCut()
  const recipes = useRecipes()
  const notices = useNotices()
  /** Shots that are picked besides the one somebody is at. */
  const picked = ref<number[]>([])
  /** The end of the open shot that a hand is on. */
  const end = ref<'head' | 'tail'>('head')
  /** What a pointer pulls now. */
  const pull = ref<Pull | null>(null)
  const attic = ref<AtticShot[]>([])
  let sending: Promise<void> = Promise.resolve()

  const chosen = computed<Shot[]>(() => {
    const found = cut.shots.filter((shot) => picked.value.includes(shot.id))
    return found.length > 0 ? found : cut.shot ? [cut.shot] : []
  })

  function take(answer: Placed) {
    picked.value = picked.value.filter((id) => answer.places.some((place) => place.id === id))
    if (!cut.take(answer)) return cut.reload()
    recipes.kept(answer.project)
  }

  /** Does something, and goes to a frame or shot then, one after another. */
  function hand(operation: string, values: Record<string, unknown>, then?: () => void): Promise<void> {
    const at = cut.frame
    return (sending = sending.then(async () => {
      const id = cut.cut?.id
      if (!id) return
      try {
        const answer = await sendJson<Placed>('POST', `/cuts/${id}/assembly`, { operation, edition: cut.cut?.edition, ...values })
        await take(answer)
        if (answer.notes.length) notices.news(answer.notes.join('; '))
        if (cut.frame === at) then?.() // whoever has gone elsewhere meanwhile stays there
      } catch (error) {
        notices.trouble(error)
        if (error instanceof ApiError && error.status === 409) await cut.reload()
      }
    }))
  }

  /** Stays with a shot wherever it has come to. */
  const stay =
    (id: number, within = 0) =>
    () => {
      const shot = cut.shots.find((one) => one.id === id)
      if (shot) cut.go(shot.record_in + Math.min(within, shot.length - 1))
    }
  const inside = () => (cut.shot ? cut.frame - cut.shot.record_in : 0)

  function trim(shot: Shot, side: 'head' | 'tail', by: number) {
    end.value = side
    const then = side === 'head' ? stay(shot.id) : stay(shot.id, Number.MAX_SAFE_INTEGER)
    return hand('trim', { shot: shot.id, [side]: by }, then)
  }
  const roll = (shot: Shot, by: number) => hand('roll', { shot: shot.id, by }, stay(shot.id))

  /** What a pointer has pulled, when it lets go. */
  async function release() {
    const pulled = pull.value
    const shot = cut.shots.find((one) => one.id === pulled?.shot)
    if (pulled && shot) {
      if (pulled.kind === 'move') await move(pulled.before, [shot])
      else if (pulled.by !== 0 && pulled.kind === 'roll') await roll(shot, pulled.by)
      else if (pulled.by !== 0 && pulled.kind === 'slip') await slip(shot, pulled.by)
      else if (pulled.by !== 0) await trim(shot, pulled.kind as 'head' | 'tail', pulled.kind === 'head' ? pulled.by : -pulled.by)
    }
    if (pull.value === pulled) pull.value = null
  }

  const slip = (shot: Shot, by: number) => hand('slip', { shot: shot.id, by }, stay(shot.id, inside()))
  const move = (before: number | null, shots = chosen.value) => hand('move', { shots: shots.map((shot) => shot.id), ...(before === null ? {} : { before }) }, stay(shots[0]?.id ?? 0))

  /** One place earlier (-1) or later (1). */
  function step(way: number) {
    const shots = chosen.value
    const [first, last] = [shots[0], shots.at(-1)]
    if (!first || !last) return
    const target = way < 0 ? cut.shots[cut.indexOf(first) - 1] : cut.shots[cut.indexOf(last) + 2]
    if (way < 0 ? target : cut.indexOf(last) < cut.shots.length - 1) void move(target?.id ?? null, shots)
  }

  /** To a place of the cut, counted from 1. */
  function moveTo(place: number) {
    const shots = chosen.value
    const others = cut.shots.filter((shot) => !shots.includes(shot))
    if (shots.length > 0 && others.length > 0) void move(others[Math.max(0, Math.round(place) - 1)]?.id ?? null, shots)
  }

  /** The edge a key nudges: the open shot's front or end. */
  function nudge(by: number, rolling = false) {
    const shot = cut.shot
    if (!shot) return
    if (!rolling) return void trim(shot, end.value, end.value === 'head' ? by : -by)
    const edge = end.value === 'head' ? shot : cut.shots[cut.indexOf(shot) + 1]
    if (edge) void roll(edge, by)
  }

  /** The shot begins, or ends, at the frame somebody is at. */
  function trimHere(side: 'head' | 'tail') {
    const shot = cut.shot
    if (!shot) return
    const by = side === 'head' ? inside() : shot.length - 1 - inside()
    if (by > 0) void trim(shot, side, by)
  }

  return {
    picked,
    end,
    pull,
    chosen,
    attic,
    hand,
    /** When what was done so far has been answered. */
    settled: () => sending,
    take,
    trim,
    roll,
    slip,
    move,
    step,
    moveTo,
    nudge,
    trimHere,
    release,
    pick: (id: number) => (picked.value = picked.value.includes(id) ? picked.value.filter((one) => one !== id) : [...picked.value, id]),
    split: () => hand('split', { frame: cut.frame }),
    join: () => cut.shot && hand('join', { shot: cut.shot.id }, stay(cut.shot.id, inside())),
    remove: (black = false) => hand('delete', { shots: chosen.value.map((shot) => shot.id), ...(black ? { black } : {}) }),
    transition: (shot: Shot, length: number, wipe: number | null, manner: Manner = shot.manner) => hand('transition', { shot: shot.id, length, manner, ...(wipe ? { wipe } : {}) }, stay(shot.id)),
    length: (shot: Shot, length: number) => hand('length', { shot: shot.id, length }, stay(shot.id)),
    speed: (shot: Shot, speed: number) => hand('speed', { shot: shot.id, speed }, stay(shot.id)),
    /** A clip whole, before the open shot. */
    insert: (clip: number) => hand('insert', { clip, ...(cut.shot ? { before: cut.shot.id } : {}) }),
    callBack: (one: AtticShot) => hand('insert', { attic: one.id, ...(cut.shot ? { before: cut.shot.id } : {}) }, stay(one.id)),
    async loadAttic() {
      if (cut.cut) attic.value = await getJson<AtticShot[]>(`/cuts/${cut.cut.id}/attic`).catch((error: unknown) => (notices.trouble(error), []))
    },
  }
})
