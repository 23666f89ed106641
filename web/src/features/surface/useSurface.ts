import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { parseMessage, stepsOf, type ControlMessage, type Movement } from './midi'

export interface Binding {
  control: string
  /** "key q", or an address as addressOf makes it. */
  target: string
  movement: Movement
}

/** As much of Web MIDI as is used. */
interface Port {
  name?: string | null
  onmidimessage: ((event: { data: Uint8Array | null }) => void) | null
}
interface Access {
  inputs: { forEach: (each: (port: Port) => void) => void }
  onstatechange: (() => void) | null
}

/** What moving a bound control does: so many nudges of a number, or a key pressed and released. */
export interface SurfaceHands {
  nudge: (address: string, nudges: number) => void
  key: (key: string, down: boolean) => void
}

/**
 * A MIDI controller as a surface: any controller bound to any number, any pad to any
 * key of the room. A control acts by how far it moves, never by where it stands, so
 * that nothing jumps when somebody goes to another shot.
 */
export const useSurface = defineStore('surface', () => {
  const bindings = useStorage<Binding[]>('mordant.surface', [])
  const wanted = useStorage('mordant.surface.on', false)
  const ports = ref<string[]>([])
  const trouble = ref<string | null>(null)
  /** What the next control that moves is bound to. */
  const learning = ref<string | null>(null)
  /** The number that had the focus last. */
  const focused = ref<string | null>(null)
  const stood = new Map<string, number>()
  let hands: SurfaceHands | null = null

  const supported = computed(() => typeof navigator !== 'undefined' && 'requestMIDIAccess' in navigator)

  function listen(access: Access) {
    const names: string[] = []
    access.inputs.forEach((port) => {
      names.push(port.name ?? 'a controller')
      port.onmidimessage = (event) => event.data && heard(event.data)
    })
    ports.value = names
  }

  async function connect() {
    wanted.value = true
    trouble.value = null
    try {
      const access = (await (navigator as unknown as { requestMIDIAccess: () => Promise<Access> }).requestMIDIAccess()) as Access
      access.onstatechange = () => listen(access)
      listen(access)
    } catch {
      trouble.value = 'The browser was not allowed to listen to MIDI controllers. Allow it for this page and connect again.'
    }
  }

  function heard(data: Uint8Array) {
    const message = parseMessage(data)
    if (!message) return
    if (learning.value) learn(message)
    else act(message)
    stood.set(message.control, message.value)
  }

  function learn({ control, value }: ControlMessage) {
    const target = learning.value
    const pad = control.startsWith('note')
    if (!target || (pad && value === 0) || pad !== target.startsWith('key ')) return
    const kept = bindings.value.find((one) => one.control === control)
    bindings.value = [...bindings.value.filter((one) => one.control !== control), { control, target, movement: kept?.movement ?? 'stands' }]
    learning.value = null
  }

  function act({ control, value }: ControlMessage) {
    const binding = bindings.value.find((one) => one.control === control)
    if (!binding || !hands) return
    if (binding.target.startsWith('key ')) return hands.key(binding.target.slice(4), value > 0)
    const steps = stepsOf(binding.movement, value, stood.get(control))
    if (steps !== 0) hands.nudge(binding.target, steps)
  }

  return {
    supported,
    wanted,
    ports,
    trouble,
    bindings,
    learning,
    focused,
    connect,
    heard,
    learn: (target: string | null) => (learning.value = target),
    forget: (control: string) => (bindings.value = bindings.value.filter((one) => one.control !== control)),
    move: (control: string, movement: Movement) => (bindings.value = bindings.value.map((one) => (one.control === control ? { ...one, movement } : one))),
    /** Gives the surface hands for as long as a room lives. */
    take: (given: SurfaceHands | null) => (hands = given),
  }
})
