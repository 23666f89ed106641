import { getJson, sendJson } from '@/api/client'
import type { NoteMark, ReviewLink, ShotNote } from '@/api/review'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import { useTogether } from '../people/useTogether'
import { useNotices } from '../shell/useNotices'

/** What was said about frames of the open cut, and the links by which others look at it. */
export const useNotes = defineStore('notes', () => {
  const cut = useCut()
  const notices = useNotices()
  const together = useTogether()
  const notes = ref<ShotNote[]>([])
  const links = ref<ReviewLink[]>([])
  /** Address of the link made last, told once. */
  const address = ref<string | null>(null)
  const chosen = ref<number | null>(null)
  const drawn = ref<NoteMark | null>(null)
  const draws = ref<NoteMark['kind'] | null>(null)

  async function attempt(work: () => Promise<unknown>) {
    try {
      await work()
    } catch (error) {
      notices.trouble(error)
    }
  }
  async function load() {
    const id = cut.cut?.id
    if (!id) return
    const found = await getJson<ShotNote[]>(`/cuts/${id}/notes`)
    if (cut.cut?.id === id) notes.value = found
  }
  async function loadLinks() {
    if (cut.cut) links.value = await getJson<ReviewLink[]>(`/cuts/${cut.cut.id}/reviews`)
  }
  watch([() => cut.cut?.id, () => cut.cut?.edition, () => (cut.cut ? together.notes[cut.cut.id] : '')], () => void attempt(load), { immediate: true })

  const open = computed(() => notes.value.filter((note) => !note.closed))
  return {
    notes,
    links,
    address,
    chosen,
    drawn,
    draws,
    open,
    /** Open ones of each shot. */
    counts: computed(() => open.value.reduce((all, note) => (note.shot === null ? all : all.set(note.shot, (all.get(note.shot) ?? 0) + 1)), new Map<number, number>())),
    /** Marks of the frame somebody is at, the chosen note's strong. */
    marks: computed(() => notes.value.filter((note) => note.mark && note.frame === cut.frame && !note.closed).map((note) => ({ mark: note.mark as NoteMark, strong: note.id === chosen.value }))),
    choose(note: ShotNote) {
      chosen.value = chosen.value === note.id ? null : note.id
      cut.go(note.frame)
    },
    leave: (words: string) =>
      attempt(async () => {
        await sendJson('POST', `/cuts/${cut.cut?.id}/notes`, { frame: cut.frame, words, mark: drawn.value })
        drawn.value = draws.value = null
        await load()
      }),
    answer: (note: ShotNote, words: string) => attempt(async () => (await sendJson('POST', `/cuts/${cut.cut?.id}/notes`, { answers: note.id, words }), await load())),
    close: (note: ShotNote) => attempt(async () => (await sendJson('PATCH', `/notes/${note.id}`, { closed: !note.closed }), await load())),
    loadLinks: () => attempt(loadLinks),
    send: (name: string, range: { first: number; count: number } | null, days: number | null) =>
      attempt(async () => {
        const made = await sendJson<ReviewLink>('POST', `/cuts/${cut.cut?.id}/reviews`, { name, ...range, days })
        address.value = made.address ? location.origin + made.address : null
        await loadLinks()
      }),
    end: (link: ReviewLink) => attempt(async () => (await sendJson('DELETE', `/review_links/${link.id}`), await loadLinks())),
  }
})
