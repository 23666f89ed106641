import { ApiError, getJson, sendJson } from '@/api/client'
import type { Project, ProjectSettings } from '@/api/project'
import { ref, type Ref } from 'vue'
import { useCut } from '../cut/useCut'

type Change = Partial<Pick<ProjectSettings, 'working_space' | 'canvas' | 'output_range' | 'compress_gamut' | 'mixing' | 'input_rules' | 'targets'>>

/** A project's colour management; every change is kept when it is made. */
export function useSettings(project: Ref<string | undefined>, trouble: (error: unknown) => void) {
  const cut = useCut()
  const settings = ref<ProjectSettings | null>(null)
  /** A change that turns graded pictures into others, waiting for a yes. */
  const question = ref<{ words: string; change: Change } | null>(null)

  async function load() {
    try {
      settings.value = await getJson<ProjectSettings>(`/projects/${project.value}/settings`)
    } catch (error) {
      trouble(error)
    }
  }

  /** What was seen of the settings that are changed. */
  const seenOf = (values: Change) => Object.fromEntries(Object.entries(settings.value?.seen ?? {}).filter(([key]) => key in values))

  /** @returns the refusal in words, or null when it is kept or asked about */
  async function change(values: Change, confirm = false): Promise<string | null> {
    try {
      const answer = await sendJson<ProjectSettings & { project: Project }>('PUT', `/projects/${project.value}/settings`, { ...values, seen: seenOf(values), confirm })
      settings.value = answer
      cut.project = answer.project
      question.value = null
      return null
    } catch (error) {
      if (error instanceof ApiError && error.details.confirm === true) {
        question.value = { words: error.message, change: values }
        return null
      }
      if (error instanceof ApiError && error.details.stale === true) await load()
      if (error instanceof ApiError && error.status === 422) return error.message
      trouble(error)
      return null
    }
  }

  async function answer(yes: boolean) {
    const asked = question.value
    question.value = null
    if (yes && asked) await change(asked.change, true)
  }

  async function assign(clips: number[], values: { encoding?: string | null; range?: string }) {
    try {
      cut.project = (await sendJson<{ project: Project }>('PATCH', `/projects/${project.value}/clips`, { clips, ...values })).project
      await load()
    } catch (error) {
      trouble(error)
    }
  }

  return { settings, question, load, change, answer, assign }
}
