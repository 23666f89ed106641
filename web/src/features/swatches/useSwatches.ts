import { getJson, send, sendJson } from '@/api/client'
import type { Shot } from '@/api/cut'
import type { RecipeDocument, Swatch } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { smallPictureOf } from '../cut/smallPicture'
import { useCut } from '../cut/useCut'
import { useCopies } from '../grade/useCopies'
import { usePaste } from '../grade/usePaste'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from '../shell/useNotices'
import { treeOf } from './folderTree'

/** Ids below it are of shots that stand in for swatches. */
const FROM_SHOT = 0

/** Kept grades, and one of them on trial: its steps ticked, in place of the shot's own or after them. */
export const useSwatches = defineStore('swatches', () => {
  const cut = useCut()
  const recipes = useRecipes()
  const copies = useCopies()
  const notices = useNotices()
  const paste = usePaste()
  const all = ref<Swatch[]>([])
  const search = ref('')
  const trial = ref<Swatch | null>(null)
  /** Ids of its steps that are left out. */
  const left = ref<string[]>([])
  const after = ref(false)
  /** With the keys its steps move between. */
  const withKeys = ref(true)

  watch(() => cut.shot?.id, drop)

  async function attempt(work: () => Promise<Swatch[]>): Promise<boolean> {
    try {
      all.value = await work()
      return true
    } catch (error) {
      notices.trouble(error)
      return false
    }
  }
  const load = () => attempt(() => getJson<Swatch[]>('/swatches'))

  const found = computed(() => {
    const words = search.value.trim().toLowerCase()
    const text = ({ name, description, folder, origin }: Swatch) => [name, description, folder, ...Object.values(origin)].join(' ').toLowerCase()
    return words ? all.value.filter((one) => text(one).includes(words)) : all.value
  })
  const tree = computed(() => treeOf(found.value))

  /** Keeps the grade of the shot that is open, with the picture that is seen. */
  async function keep(values: Partial<Pick<Swatch, 'name' | 'description' | 'folder' | 'peg'>>): Promise<boolean> {
    const shot = cut.shot
    if (!shot) return false
    await recipes.settled()
    const kept = await attempt(() => sendJson<Swatch[]>('POST', `/shots/${shot.id}/swatches`, { frame: cut.frame, ...values }))
    if (kept) notices.news(values.peg === undefined || values.peg === null ? `${values.name ?? shot.name} kept in the swatchbook` : `grade of ${shot.name} on peg ${values.peg}`)
    return kept
  }

  function recall(swatch: Swatch) {
    trial.value = swatch
    left.value = []
  }
  /** From a shot of the cut, as from a swatch. */
  function recallShot(shot: Shot, document: RecipeDocument, words: string) {
    recall({ id: FROM_SHOT - shot.id, name: words, description: '', folder: '', peg: null, origin: { cut: cut.cut?.name, shot: shot.name }, document: JSON.parse(JSON.stringify(document)) as RecipeDocument })
  }
  async function recallPeg(peg: number) {
    if (all.value.length === 0) await load()
    const swatch = all.value.find((one) => one.peg === peg)
    if (swatch) recall(swatch)
    else notices.news(`Nothing hangs on peg ${peg}. Shift and the digit hang this shot's grade on it.`)
  }
  function drop() {
    trial.value = null
  }

  const steps = computed(() => (trial.value?.document.steps ?? []).filter((step) => !left.value.includes(step.id)).map((step) => (withKeys.value ? step : { ...step, keys: undefined, spans: undefined })))
  const spans = computed(() => (withKeys.value ? (trial.value?.document.spans ?? []) : []))
  const bundles = computed(() => (trial.value?.document.bundles ?? []).filter((bundle) => steps.value.some((step) => step.bundle === bundle.id)))
  const document = computed<RecipeDocument | null>(() => {
    const mine = after.value ? cut.shot?.recipe.document : undefined
    return trial.value ? { steps: [...(mine?.steps ?? []), ...steps.value], spans: [...(mine?.spans ?? []), ...spans.value], bundles: [...(mine?.bundles ?? []), ...bundles.value] } : null
  })

  /** Onto the shot, the picked ones or all members of its family; one undo. */
  async function accept(onto: 'shot' | 'picked' | 'family') {
    const shot = cut.shot
    if (!trial.value || !shot) return
    const shots = onto === 'shot' ? [shot.id] : onto === 'picked' ? copies.shots : (cut.familyOf(shot)?.shots ?? [shot.id])
    const words = `${trial.value.name} recalled on ${shots.length === 1 ? shot.name : `${shots.length} shots`}`
    if (await paste(shots, steps.value, !after.value, words, undefined, { spans: spans.value, bundles: bundles.value })) drop()
  }

  return {
    all,
    search,
    tree,
    trial,
    left,
    after,
    withKeys,
    moves: computed(() => trial.value?.document.steps.some((step) => step.keys || step.spans?.length) ?? false),
    document,
    load,
    keep,
    change: (swatch: Swatch, values: Partial<Swatch>) => attempt(() => sendJson<Swatch[]>('PATCH', `/swatches/${swatch.id}`, values)),
    forget: (swatch: Swatch) => attempt(() => sendJson<Swatch[]>('DELETE', `/swatches/${swatch.id}`)),
    recall,
    recallShot,
    /** A swatch dragged onto the picture. */
    dropped(event: DragEvent) {
      const swatch = all.value.find((one) => String(one.id) === event.dataTransfer?.getData('text/swatch'))
      if (swatch) recall(swatch)
    },
    recallPeg,
    drop,
    tick: (id: string) => (left.value = left.value.includes(id) ? left.value.filter((one) => one !== id) : [...left.value, id]),
    /** Steps together: all of them, or none where all are ticked. */
    tickAll(ids: string[]) {
      const others = left.value.filter((one) => !ids.includes(one))
      left.value = ids.some((id) => left.value.includes(id)) ? others : [...others, ...ids]
    },
    accept,
    picture(swatch: Swatch): string {
      const shot = cut.shots.find((one) => one.id === FROM_SHOT - swatch.id)
      return swatch.id <= FROM_SHOT && shot && cut.project ? smallPictureOf(cut.project, shot) : `/api/swatches/${swatch.id}/picture.png?small=1`
    },
    file: (swatch: Swatch) => `/api/swatches/${swatch.id}/file`,
    /** Swatch files, into a folder; empty: the one each names. */
    async bringIn(files: Iterable<File>, folder: string) {
      for (const file of files) await attempt(async () => (await send('POST', `/swatches/import?name=${encodeURIComponent(file.name)}${folder ? `&folder=${encodeURIComponent(folder)}` : ''}`, file)).json() as Promise<Swatch[]>)
    },
  }
})
