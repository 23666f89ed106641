import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { EventHub, type Source, type Told } from './eventHub'

/** A stream whose events and faults are given by hand. */
class Stream implements Source {
  static all: Stream[] = []
  readyState = 1
  onopen: (() => void) | null = null
  onerror: (() => void) | null = null
  private listeners = new Map<string, (event: MessageEvent<string>) => void>()
  constructor(readonly address: string) {
    Stream.all.push(this)
  }
  addEventListener(kind: string, listen: (event: MessageEvent<string>) => void) {
    this.listeners.set(kind, listen)
  }
  close() {
    this.readyState = 2
  }
  say(kind: string, project: number | null, of: object) {
    this.listeners.get(kind)!({ data: JSON.stringify({ project, of }) } as MessageEvent<string>)
  }
}

function port() {
  const heard: Told[] = []
  return { heard, postMessage: (told: Told) => void heard.push(told) }
}

describe('the hub of all windows', () => {
  let hub: EventHub
  let reason: string | null
  const open = () => Stream.all.filter((one) => one.readyState !== 2)

  beforeEach(() => {
    vi.useFakeTimers()
    Stream.all = []
    reason = null
    hub = new EventHub({ open: (address) => new Stream(address), ask: async () => reason })
  })
  afterEach(() => vi.useRealTimers())

  it('has one stream for all, of the projects that are looked at, and none when nobody looks', () => {
    const [one, two, three] = [port(), port(), port()]
    hub.join(one, '7')
    hub.join(two, '3')
    hub.join(three, null)
    vi.runAllTimers()
    expect(open().map((stream) => stream.address)).toEqual(['/api/events?projects=3,7'])
    hub.join(three, '7')
    vi.runAllTimers()
    expect(Stream.all.length).toBe(1)
    hub.leave(two)
    vi.runAllTimers()
    expect(open().map((stream) => stream.address)).toEqual(['/api/events?projects=7'])
    ;[one, three].forEach((window) => hub.leave(window))
    vi.runAllTimers()
    expect(open()).toEqual([])
  })

  it('tells each window of its project and of trouble, once, and whoever comes later what is known', () => {
    const [one, two, late] = [port(), port(), port()]
    hub.join(one, '7')
    hub.join(two, '3')
    vi.runAllTimers()
    const stream = open()[0]!
    stream.say('output', 7, { id: 1, done: 2 })
    stream.say('output', 7, { id: 1, done: 2 })
    stream.say('trouble', null, { words: 'the disk is full' })
    expect(one.heard).toEqual([
      { kind: 'output', of: { id: 1, done: 2 } },
      { kind: 'trouble', of: { words: 'the disk is full' } },
    ])
    expect(two.heard).toEqual([{ kind: 'trouble', of: { words: 'the disk is full' } }])
    hub.join(late, '7')
    expect(late.heard).toEqual(one.heard)
  })

  it('tells of a server that stays away, not of a stream that is back at once', () => {
    const one = port()
    hub.join(one, null)
    vi.runAllTimers()
    const stream = open()[0]!
    stream.readyState = 0
    stream.onerror!()
    vi.advanceTimersByTime(1000)
    stream.onopen!()
    vi.runAllTimers()
    expect(one.heard).toEqual([])
    stream.onerror!()
    vi.advanceTimersByTime(4000)
    expect(one.heard.at(-1)).toMatchObject({ kind: 'trouble', of: { words: expect.stringContaining('does not answer') } })
    stream.onopen!()
    stream.say('trouble', null, { words: null })
    expect(one.heard.at(-1)!.of).toEqual({ words: null })
  })

  it('says why it is refused, and asks again', async () => {
    const one = port()
    hub.join(one, null)
    vi.runAllTimers()
    reason = 'close one'
    const stream = open()[0]!
    stream.readyState = 2
    stream.onerror!()
    await vi.advanceTimersByTimeAsync(100)
    expect(one.heard).toEqual([{ kind: 'trouble', of: { words: 'close one' } }])
    await vi.advanceTimersByTimeAsync(6000)
    expect(open().length).toBe(1)
  })
})
