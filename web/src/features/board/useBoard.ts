import type { Shot } from '@/api/cut'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, reactive, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useCopies } from '../grade/useCopies'
import { noFilters, ordered, passes } from './arrange'

export const SMALLEST = 96 // pixels of width
export const LARGEST = 420
export const GAP = 10
const DETAIL = 44 // pixels of a card below its picture
const NAME = 18

/** Which shots the board shows, in which order, how large, and what is picked of them. */
export const useBoard = defineStore('board', () => {
  /** What it is shown in, pixels. */
  const stage = reactive({ width: 0, height: 0 })
  const cut = useCut()
  const copies = useCopies()
  const look = useStorage('mordant.board', { size: 176, details: true, order: 'cut', poster: 'middle', follows: true }, undefined, { mergeDefaults: true })
  const filters = reactive(noFilters())
  const scroll = ref(0)
  /** Where a range begins that Shift and a click end. */
  let anchor: number | null = null

  const shown = computed(() => ordered(cut.shots, look.value.order).filter((shot) => passes(shot, filters)))
  const columns = computed(() => Math.max(1, Math.floor((stage.width - GAP) / (look.value.size + GAP))))
  /** Pixels of a card: at least the size asked for, so that a row is full. */
  const cardWidth = computed(() => Math.max(SMALLEST, Math.floor((stage.width - GAP) / columns.value) - GAP))
  const rowHeight = computed(() => Math.round((cardWidth.value * 9) / 16) + (look.value.details ? DETAIL : NAME) + GAP)
  const rows = computed(() => Math.ceil(shown.value.length / columns.value))
  /** Rows that can be seen, and one more either way. */
  const seen = computed(() => {
    const first = Math.max(0, Math.floor(scroll.value / rowHeight.value) - 1)
    const last = Math.min(rows.value, Math.ceil((scroll.value + stage.height) / rowHeight.value) + 1)
    return { first, shots: shown.value.slice(first * columns.value, last * columns.value) }
  })
  const places = computed(() => new Map(shown.value.map((shot, at) => [shot.id, at])))
  const place = computed(() => (cut.shot ? (places.value.get(cut.shot.id) ?? -1) : -1))

  const go = (shot: Shot | undefined) => shot && cut.goShot(cut.indexOf(shot))

  /** By keys: so many cards on. */
  function move(by: number) {
    const at = place.value < 0 ? 0 : Math.max(0, Math.min(shown.value.length - 1, place.value + by))
    go(shown.value[at])
    anchor = at
  }

  function click(shot: Shot, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) {
    const at = shown.value.indexOf(shot)
    if (event.shiftKey) {
      const from = anchor ?? place.value
      const range = shown.value.slice(Math.min(from, at), Math.max(from, at) + 1).map((one) => one.id)
      copies.picked = [...new Set([...copies.picked, ...range])]
    } else if (event.ctrlKey || event.metaKey) {
      copies.pick(shot.id)
      anchor = at
    } else {
      anchor = at
      go(shot)
    }
  }

  return {
    stage,
    look,
    filters,
    scroll,
    shown,
    columns,
    cardWidth,
    rowHeight,
    height: computed(() => rows.value * rowHeight.value + GAP),
    seen,
    place,
    move,
    click,
    /** What actions act on: what is picked, or the shot somebody is at. */
    chosen: computed(() => {
      if (copies.picked.length === 0) return cut.shot ? [cut.shot] : []
      const ids = new Set(copies.picked)
      const picked = cut.shots.filter((shot) => ids.has(shot.id))
      return picked.length > 0 ? picked : cut.shot ? [cut.shot] : []
    }),
    pickAll: () => (copies.picked = shown.value.map((shot) => shot.id)),
    pickNone: () => (copies.picked = []),
    filtered: computed(() => shown.value.length < cut.shots.length),
    allOf: () => void Object.assign(filters, noFilters()),
  }
})
