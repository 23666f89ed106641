import type { Target } from '@/api/project'
import type { Region } from '@/api/readings'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useScreen } from '../screen/useScreen'

export type ScopeKind = 'luma' | 'rgb' | 'parade' | 'vectorscope' | 'histogram' | 'solid'
export type Unit = 'percent' | 'code' | 'luminance'
/** Where instruments measure. */
export type Tap = 'source' | 'before' | 'final' | 'second'

export interface Slot {
  kind: ScopeKind
  /** Its part of the dock's width. */
  share: number
}

/** A part of an instrument, as the server takes it. */
export type Selection =
  | { instrument: 'waveform'; channel: string; from: [number, number]; to: [number, number] }
  | { instrument: 'vectorscope'; from: [number, number]; to: [number, number] }
  | { instrument: 'histogram'; channel: string; from: number; to: number }
  | { instrument: 'solid'; cell: [number, number, number]; reach: number }

export const KINDS: { id: ScopeKind; label: string }[] = [
  { id: 'luma', label: 'Waveform, luma' },
  { id: 'rgb', label: 'Waveform, RGB' },
  { id: 'parade', label: 'Parade' },
  { id: 'vectorscope', label: 'Vectorscope' },
  { id: 'histogram', label: 'Histogram' },
  { id: 'solid', label: 'Colour solid' },
]
export const TAPS: { id: Tap; label: string; about: string }[] = [
  { id: 'source', label: 'source', about: 'the clip, without any step' },
  { id: 'before', label: 'no look', about: "the shot's own steps, without the washes over it" },
  { id: 'final', label: 'final', about: 'the finished picture for the target' },
  { id: 'second', label: 'reference', about: 'the picture compared with; without one the final picture' },
]
const MOST = 4
const LEAST_SHARE = 0.12

const initial = () => ({
  slots: [
    { kind: 'parade', share: 0.6 },
    { kind: 'vectorscope', share: 0.4 },
  ] as Slot[],
  height: 244,
  unit: 'code' as Unit,
  range: 'full' as 'full' | 'legal',
  zoom: 1 as 1 | 2 | 4,
  solid: 'codes',
  intensity: 1.3,
  /** Places of the scale, shares of the full range. */
  guides: [] as number[],
  /** Where black and white are to touch, and whether that is looked at. */
  /** Places where tones break are looked for. */
  breaks: false,
  touch: { on: false, black: 0, white: 940 / 1023 },
  tap: 'final' as Tap,
  /** A reference shown with the graded one. */
  beside: 'none' as 'none' | 'source' | 'before',
  /** Of a zoomed picture they read what is seen of it. */
  seenOnly: false,
})

/** The instruments under the picture: which, how large, in what unit and where they measure; kept in this browser. */
export const useScopes = defineStore('scopes', () => {
  const screen = useScreen()
  const kept = useStorage('mordant.scopes', initial(), undefined, { mergeDefaults: true })
  /** A part of the picture the instruments are restricted to. */
  const region = ref<Region | null>(null)
  /** What the stage shows of a zoomed picture. */
  const seen = ref<Region | null>(null)
  /** What they read: the restriction, what is seen where that is chosen, or null, all of it. */
  const read = computed(() => region.value ?? (kept.value.seenOnly ? seen.value : null))
  /** A part of an instrument whose pixels are shown. */
  const light = ref<Selection | null>(null)

  const touching = computed(() => (kept.value.touch.on ? { black: kept.value.touch.black, white: kept.value.touch.white } : null))

  const set = (change: Partial<ReturnType<typeof initial>>) => (kept.value = { ...kept.value, ...change })
  const slots = computed(() => kept.value.slots)
  const has = (...kinds: ScopeKind[]) => slots.value.some((slot) => kinds.includes(slot.kind))

  /** What of a picture is to be read. */
  const wanted = computed(() => ({
    ...(has('luma', 'rgb', 'parade') ? { traces: true } : {}),
    ...(has('vectorscope') ? { vectorscope: kept.value.zoom } : {}),
    ...(has('histogram') ? { histogram: true } : {}),
    ...(has('solid') ? { solid: kept.value.solid } : {}),
  }))

  const evened = (list: Slot[]) => {
    const sum = list.reduce((all, slot) => all + slot.share, 0)
    return list.map((slot) => ({ ...slot, share: slot.share / sum }))
  }
  const change = (index: number, kind: ScopeKind) => set({ slots: slots.value.map((slot, at) => (at === index ? { ...slot, kind } : slot)) })
  const add = (kind: ScopeKind) => slots.value.length < MOST && set({ slots: evened([...slots.value, { kind, share: 1 / Math.max(1, slots.value.length) }]) })
  const remove = (index: number) => slots.value.length > 1 && set({ slots: evened(slots.value.filter((_, at) => at !== index)) })

  function move(index: number, by: number) {
    const list = [...slots.value]
    const [slot] = list.splice(index, 1)
    if (slot) set({ slots: [...list.slice(0, index + by), slot, ...list.slice(index + by)] })
  }

  /** Moves the border after a slot by a share of the width. */
  function resize(index: number, by: number) {
    const [left, right] = [slots.value[index], slots.value[index + 1]]
    if (!left || !right) return
    const held = Math.min(right.share - LEAST_SHARE, Math.max(LEAST_SHARE - left.share, by))
    set({ slots: slots.value.map((slot, at) => (at === index ? { ...slot, share: slot.share + held } : at === index + 1 ? { ...slot, share: slot.share - held } : slot)) })
  }

  const scale = computed<Target['scale'] | undefined>(() => screen.target?.scale)
  const marks = computed<[number, string][]>(() => {
    if (!scale.value) return []
    if (kept.value.unit === 'luminance') return scale.value.luminance
    if (kept.value.unit === 'percent') return scale.value.percent
    return kept.value.range === 'legal' ? scale.value.legal : scale.value.code
  })

  /** Codes at both ends of the scale, as the core counts them in the range that is read. */
  const ends = computed(() => {
    const list = (kept.value.range === 'legal' ? scale.value?.legal : scale.value?.code) ?? []
    return [Number(list[0]?.[1] ?? 0), Number(list.at(-1)?.[1] ?? 0)] as const
  })

  /** A place of the scale in the unit that is shown. */
  function words(place: number): string {
    const { unit } = kept.value
    if (unit === 'percent') return `${(place * 100).toFixed(1)} %`
    if (unit === 'code') return `${Math.round(ends.value[0] + (ends.value[1] - ends.value[0]) * place)}`
    const table = scale.value?.light ?? []
    const at = Math.min(1, Math.max(0, place)) * (table.length - 1)
    const low = table[Math.floor(at)] ?? 0
    const light = low + ((table[Math.ceil(at)] ?? low) - low) * (at - Math.floor(at))
    return `${light < 10 ? light.toFixed(2) : light.toFixed(0)} cd/m²`
  }

  /** The place of what somebody typed in the unit that is shown; null when it is none. */
  function placeOf(text: string): number | null {
    const value = Number(
      text
        .trim()
        .replace(',', '.')
        .replace(/\s*(%|cd.*)$/, ''),
    )
    if (text.trim() === '' || !Number.isFinite(value)) return null
    const { unit } = kept.value
    if (unit === 'percent') return value / 100
    if (unit === 'code') return (value - ends.value[0]) / (ends.value[1] - ends.value[0])
    const table = scale.value?.light ?? []
    const above = table.findIndex((light) => light >= value)
    if (above <= 0) return above === 0 ? 0 : null
    const [low, high] = [table[above - 1] ?? 0, table[above] ?? 0]
    return (above - 1 + (value - low) / (high - low)) / (table.length - 1)
  }

  /** As the server takes it. */
  const beside = computed(() => ({ none: null, source: { source: true }, before: { washes: false } })[kept.value.beside])

  return {
    kept,
    beside,
    set,
    slots,
    most: MOST,
    region,
    seen,
    read,
    light,
    wanted,
    change,
    add,
    remove,
    move,
    resize,
    marks,
    vectorTargets: computed(() => scale.value?.targets),
    touching,
    words,
    placeOf,
    reset: () => (kept.value = initial()),
    tapLabel: computed(() => TAPS.find((one) => one.id === kept.value.tap)?.label ?? ''),
    unitLabel: computed(() => ({ percent: '%', code: `10-bit, ${kept.value.range}`, luminance: 'cd/m²' })[kept.value.unit]),
  }
})
