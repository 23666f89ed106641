import type { Project } from '@/api/project'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useScreens } from '../screens/useScreens'

/** What a picture is drawn on, as the server is asked for it. */
export interface ScreenWish {
  target: string
  canvas: string
  /** A screen that was measured: its canvas, and what corrects it. */
  screen?: number
  /** The view transform; off shows the codes of the working space. */
  view: boolean
  /** Colours drawn further from grey, while a key is held. */
  exaggerate: boolean
  /** Path of the LUT that corrects this screen; empty: none. */
  lut: string
  /** Of HDR: rolled off to this screen's white, or a window so many stops darker; left out: what is brighter is cut off. */
  bright?: 'rolled' | number
}

interface Choice {
  target?: string
  canvas?: string
  view?: boolean
  lut?: string
  screen?: number
}

/** This screen's own choice of target, canvas, view and LUT, kept in this browser for every project; the clean window is a screen of its own. */
export const useScreen = defineStore('screen', () => {
  const cut = useCut()
  const choices = useStorage<Record<string, Choice>>(window.location?.pathname.endsWith('/clean') ? 'mordant.screen.clean' : 'mordant.screen', {})

  const choice = (project: Project) => choices.value[project.id] ?? {}

  function choose(change: Choice) {
    const project = cut.project
    if (project) choices.value = { ...choices.value, [project.id]: { ...choice(project), ...change } }
  }

  /** A target that a room shows by itself. */
  const shown = ref<string | null>(null)
  const target = computed(() => {
    const project = cut.project
    const own = project?.targets.find((one) => one.id === shown.value)
    if (own) return own
    return project ? (project.targets.find((one) => one.id === choice(project).target) ?? project.targets[0]) : undefined
  })
  const canvas = computed(() => (cut.project && choice(cut.project).canvas) ?? cut.project?.canvas ?? '2.4')
  const viewOn = computed(() => !cut.project || choice(cut.project).view !== false)
  const lut = computed(() => (cut.project && choice(cut.project).lut) ?? '')
  const screens = useScreens()
  /** A measured one; what has been taken away since is none. */
  const screen = computed(() => screens.screens.find((one) => cut.project && one.id === choice(cut.project).screen) ?? null)
  const exaggerate = ref(false)
  const wish = computed<ScreenWish>(() => ({ target: target.value?.id ?? '', canvas: canvas.value, view: viewOn.value, exaggerate: exaggerate.value, lut: lut.value, ...(screen.value === null ? {} : { screen: screen.value.id }) }))

  return { target, shown, canvas, viewOn, lut, screen, exaggerate, wish, choose, flip: () => choose({ view: !viewOn.value }) }
})
