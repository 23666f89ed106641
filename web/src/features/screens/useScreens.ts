import { getJson, sendJson } from '@/api/client'
import type { FoundDevice, FullSession, OwnScreen, ScreenList, ScreenSession, ScreenSettings } from '@/api/screen'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

/** Of a screen, what is changed; of its settings those that are, or what is made of them as they are when their turn comes. */
type Changed = Record<string, unknown> & { settings?: Partial<ScreenSettings> | ((now: ScreenSettings) => Partial<ScreenSettings>) }

export const LIVE: ScreenSession['status'][] = ['waiting', 'running', 'paused']

/** The screens that are graded on, and the sessions that measure them. */
export const useScreens = defineStore('screens', () => {
  const list = ref<ScreenList | null>(null)
  const chosenId = ref<number | null>(null)
  const devices = ref<FoundDevice[]>([])
  /** What was read in the session that is looked at. */
  const shown = ref<FullSession | null>(null)

  const screens = computed<OwnScreen[]>(() => list.value?.screens ?? [])
  const chosen = computed<OwnScreen | null>(() => screens.value.find((one) => one.id === chosenId.value) ?? screens.value[0] ?? null)
  const sessions = computed<ScreenSession[]>(() => chosen.value?.sessions ?? [])
  const live = computed<ScreenSession | null>(() => sessions.value.find((one) => LIVE.includes(one.status)) ?? null)
  const target = computed(() => list.value?.targets.find((one) => one.id === (shown.value ?? chosen.value)?.settings.target) ?? null)

  async function load() {
    list.value = await getJson<ScreenList>('/screens')
  }

  /** So that pictures are made for the right screen from the first one on. */
  const once = async () => void (list.value ?? (await load()))

  async function look(id: number | null) {
    shown.value = id === null ? null : await getJson<FullSession>(`/calibrations/${id}`)
  }

  /** Shows a screen with its latest session. */
  async function choose(id: number) {
    chosenId.value = id
    await look(sessions.value[0]?.id ?? null)
  }

  function put(session: ScreenSession) {
    const own = screens.value.find((one) => one.id === session.screen)
    if (!own?.sessions) return
    const at = own.sessions.findIndex((one) => one.id === session.id)
    if (at < 0) own.sessions.unshift(session)
    else own.sessions[at] = session
  }

  /** A session told by an event: its points come one by one, its report when it ends or a phase does. */
  async function take(session: ScreenSession) {
    const before = screens.value.find((one) => one.id === session.screen)?.sessions?.find((one) => one.id === session.id)
    put(session)
    const looked = shown.value
    if (looked?.id === session.id) {
      if (session.latest?.uv) looked.points.push({ phase: session.latest.phase, codes: session.latest.codes, uv: session.latest.uv })
      if (before && (before.phase !== session.phase || before.status !== session.status)) await look(session.id)
      else Object.assign(looked, session)
    }
    if (before && before.status !== session.status && !LIVE.includes(session.status)) await load()
  }

  /** One after the other, however quickly they come: an answer that came late would show what stood before. */
  let changing: Promise<void> = Promise.resolve()
  function change(body: Changed) {
    const own = chosen.value
    const done = changing.then(() => (own ? changeNow(own, body) : undefined))
    changing = done.catch(() => undefined)
    return done
  }

  async function changeNow(own: OwnScreen, body: Changed) {
    const changed = typeof body.settings === 'function' ? body.settings(own.settings) : body.settings
    const settings = changed && { ...own.settings, ...changed }
    Object.assign(own, await sendJson<OwnScreen>('PUT', `/screens/${own.id}`, { ...body, settings }), { sessions: own.sessions })
  }

  async function add(body: Record<string, unknown>) {
    const made = await sendJson<OwnScreen>('POST', '/screens', body)
    await load()
    await choose(made.id)
  }

  async function drop() {
    if (!chosen.value) return
    await sendJson('DELETE', `/screens/${chosen.value.id}`)
    await load()
    if (screens.value[0]) await choose(screens.value[0].id)
    else shown.value = null
  }

  async function begin(verify: boolean) {
    if (!chosen.value) return
    const session = await sendJson<ScreenSession>('POST', `/screens/${chosen.value.id}/calibrations`, { verify })
    put(session)
    await look(session.id)
  }

  async function act(session: ScreenSession, verb: 'pause' | 'go-on' | 'cancel' | 'load') {
    await take(await sendJson<ScreenSession>('POST', `/calibrations/${session.id}/${verb}`, {}))
    if (verb === 'load') await load()
  }

  async function unload() {
    if (!chosen.value) return
    await sendJson('POST', `/screens/${chosen.value.id}/unload`, {})
    await load()
  }

  const find = async () => void (devices.value = await getJson<FoundDevice[]>('/screens/devices'))

  return { list, screens, chosen, sessions, live, shown, target, devices, load, once, look, choose, take, change, add, drop, begin, act, unload, find }
})
