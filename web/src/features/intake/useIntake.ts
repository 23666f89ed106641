import { getJson, sendJson } from '@/api/client'
import type { Clip, Intake, MediaEntry, MediaRoot } from '@/api/media'
import type { Project } from '@/api/project'
import { computed, onScopeDispose, ref, watch, type Ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useEvents } from '../shell/useEvents'

const AGAIN = 1000 // ms between readings of the list

/** Folders below the media roots, what was taken in, and what is under way. */
export function useIntake(project: Ref<string | undefined>, trouble: (error: unknown) => void) {
  const cut = useCut()
  const recipes = useRecipes()
  const roots = ref<MediaRoot[]>([])
  const root = ref<MediaRoot | null>(null)
  const path = ref('')
  const entries = ref<MediaEntry[]>([])
  const clips = ref<Clip[]>([])
  const intakes = ref(new Map<number, Intake>())

  async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
    try {
      return await work()
    } catch (error) {
      trouble(error)
      return undefined
    }
  }

  const load = () =>
    attempt(async () => {
      roots.value = await getJson<MediaRoot[]>('/media')
      await loadClips()
      if (!root.value && roots.value.length === 1 && roots.value[0]) await browse(roots.value[0], '')
    })

  async function loadClips() {
    clips.value = await getJson<Clip[]>(`/projects/${project.value}/clips`)
  }

  watch(
    () => recipes.beyond,
    () => void attempt(loadClips),
  )

  const browse = (to: MediaRoot | null, folder: string) =>
    attempt(async () => {
      if (to) entries.value = (await getJson<{ entries: MediaEntry[] }>(`/media/${to.id}?path=${encodeURIComponent(folder)}`)).entries
      root.value = to
      path.value = folder
    })

  /** Everything beneath the folder that is open. */
  const takeIn = () => attempt(() => sendJson<Intake>('POST', `/projects/${project.value}/intakes`, { root: root.value?.id, path: path.value }))

  /** Says something of clips: their encoding, range, pace, rate, or whether they are copied. */
  const change = (ids: number[], said: Record<string, unknown>) =>
    attempt(async () => {
      cut.project = (await sendJson<{ project: Project }>('PATCH', `/projects/${project.value}/clips`, { clips: ids, ...said })).project
      await loadClips()
    })
  const assign = (ids: number[], encoding: string | null) => change(ids, { encoding })

  /** Out of the project; the files stay. */
  const remove = (ids: number[]) =>
    attempt(async () => {
      await sendJson('DELETE', `/projects/${project.value}/clips`, { clips: ids })
      await loadClips()
    })

  /** Reads the list again while it is filled or copies are made, no more often than is of use. */
  let under = false
  async function refresh() {
    if (under) return
    under = true
    await attempt(loadClips)
    await new Promise((resolve) => setTimeout(resolve, AGAIN))
    under = false
  }
  const copying = computed(() => clips.value.some((clip) => ['waiting', 'making'].includes(clip.copy?.status)))
  const timer = window.setInterval(() => copying.value && void refresh(), 2 * AGAIN)
  onScopeDispose(() => clearInterval(timer))

  useEvents(project, {
    intake: (intake: Intake) => {
      const before = intakes.value.get(intake.id)
      intakes.value.set(intake.id, intake)
      if (before && intake.status !== before.status && (intake.status === 'done' || intake.status === 'failed')) void attempt(loadClips)
      else if (intake.status === 'running') void refresh()
    },
  })

  const latest = computed(() => [...intakes.value.values()].sort((a, b) => b.id - a.id)[0] ?? null)

  return { roots, root, path, entries, clips, latest, load, browse, takeIn, assign, change, remove }
}
