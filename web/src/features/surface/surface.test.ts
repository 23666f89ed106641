import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { installBrowser, settle } from '@/test/browser'
import { parseMessage, stepsOf } from './midi'
import { useSurface } from './useSurface'

interface Port {
  name: string
  onmidimessage: ((event: { data: Uint8Array }) => void) | null
}
let port: Port
let allowed = true
const done: unknown[] = []

beforeEach(() => {
  installBrowser()
  port = { name: 'Eight dials', onmidimessage: null }
  allowed = true
  done.length = 0
  vi.stubGlobal('navigator', {
    requestMIDIAccess: () => (allowed ? Promise.resolve({ inputs: new Map([['a', port]]), onstatechange: null }) : Promise.reject(new Error('denied'))),
  })
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())

const send = (...bytes: number[]) => port.onmidimessage?.({ data: new Uint8Array(bytes) })

async function connected() {
  const surface = useSurface()
  surface.bindings = []
  await surface.connect()
  surface.take({ nudge: (...what) => done.push(what), key: (...what) => done.push(what) })
  return surface
}

describe('MIDI messages', () => {
  it('tells controllers and notes by channel, and leaves the rest', () => {
    expect(parseMessage([0xb2, 7, 64])).toEqual({ control: 'cc 3.7', value: 64 })
    expect(parseMessage([0x90, 36, 100])).toEqual({ control: 'note 1.36', value: 1 })
    expect([parseMessage([0x90, 36, 0]), parseMessage([0x81, 36, 64])]).toMatchObject([{ value: 0 }, { value: 0, control: 'note 2.36' }])
    expect([parseMessage([0xf8]), parseMessage([0xe0, 0, 64]), parseMessage([])]).toEqual([null, null, null])
  })

  it('counts how far a fader or an endless dial has moved', () => {
    expect([stepsOf('stands', 70, 64), stepsOf('stands', 3, undefined)]).toEqual([6, 0])
    expect([stepsOf('turns', 2, 64), stepsOf('turns', 127, 64), stepsOf('turns', 65, undefined)]).toEqual([2, -1, -63])
  })
})

describe('a surface', () => {
  it('binds the next control that moves, and acts by how far it moves from then on', async () => {
    const surface = await connected()
    expect(surface.ports).toEqual(['Eight dials'])
    surface.learn('balance.exposure')
    send(0x90, 36, 100) // a pad is no dial
    send(0xb0, 21, 60)
    expect(surface.bindings).toEqual([{ control: 'cc 1.21', target: 'balance.exposure', movement: 'stands' }])
    send(0xb0, 21, 63)
    send(0xb0, 21, 58)
    send(0xb0, 22, 10) // bound to nothing
    expect(done).toEqual([
      ['balance.exposure', 3],
      ['balance.exposure', -5],
    ])
  })

  it('turns without end, and lets a control be bound anew or forgotten', async () => {
    const surface = await connected()
    surface.learn('balance.gain.1')
    send(0xb0, 5, 1)
    surface.move('cc 1.5', 'turns')
    send(0xb0, 5, 127)
    surface.learn('zones.exposure.0')
    send(0xb0, 5, 1)
    expect(surface.bindings).toEqual([{ control: 'cc 1.5', target: 'zones.exposure.0', movement: 'turns' }])
    surface.forget('cc 1.5')
    send(0xb0, 5, 1)
    expect(done).toEqual([['balance.gain.1', -1]])
  })

  it('presses and releases keys with pads', async () => {
    const surface = await connected()
    surface.learn('key w')
    send(0xb0, 21, 60) // a dial is no pad
    send(0x99, 40, 90)
    send(0x89, 40, 0)
    send(0x99, 40, 90)
    send(0x89, 40, 0)
    expect(done).toEqual([
      ['w', false],
      ['w', true],
      ['w', false],
    ])
  })

  it('says so when the browser does not allow it', async () => {
    allowed = false
    const surface = useSurface()
    await surface.connect()
    await settle()
    expect(surface.trouble).toMatch(/not allowed/)
  })
})
