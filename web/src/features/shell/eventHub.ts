/** One event as a window hears it: of a project, or of none. */
export interface Told {
  kind: string
  of: unknown
}

/** As much of a MessagePort as the hub needs. */
export interface Window {
  postMessage(told: Told): void
}

/** As much of an EventSource as the hub needs. */
export interface Source {
  readonly readyState: number
  onopen: (() => void) | null
  onerror: (() => void) | null
  addEventListener(kind: string, listen: (event: MessageEvent<string>) => void): void
  close(): void
}

export interface Outside {
  open: (address: string) => Source
  /** Why an address is refused, in words; null when it is not. */
  ask: (address: string) => Promise<string | null>
}

export const KINDS = ['trouble', 'intake', 'range', 'output', 'errand', 'calibration', 'standing', 'recipe', 'presence', 'notes'] as const
const CLOSED = 2 // EventSource.CLOSED
const PATIENCE = 3000 // ms without a stream before it is told
const AGAIN = 5000 // ms, after a refusal
const GATHER = 30 // ms in which windows that come and go change the stream once
const SILENT = 'the server does not answer; what you did last is kept here until it does'

/** What the windows of a browser hear of long work and of trouble: one stream for all of them. */
export class EventHub {
  private readonly windows = new Map<Window, string | null>()
  private readonly known = new Map<string, { project: string | null; text: string; told: Told }>()
  private source: Source | null = null
  private address = ''
  private gathering: ReturnType<typeof setTimeout> | undefined
  private waiting: ReturnType<typeof setTimeout> | undefined

  constructor(private readonly outside: Outside) {}

  /** A window looks at a project, or at none. */
  join(window: Window, project: string | null) {
    this.windows.set(window, project)
    for (const one of this.known.values()) if (one.project === null || one.project === project) window.postMessage(one.told)
    this.gather()
  }

  leave(window: Window) {
    if (this.windows.delete(window)) this.gather()
  }

  private gather() {
    this.gathering ??= setTimeout(() => {
      this.gathering = undefined
      const projects = [...new Set([...this.windows.values()].filter((one) => one !== null))].sort()
      for (const [key, one] of this.known) if (one.project !== null && !projects.includes(one.project)) this.known.delete(key)
      const address = `/api/events?projects=${projects.join(',')}`
      if (this.windows.size === 0) this.stop()
      else if (address !== this.address || !this.source) this.start(address)
    }, GATHER)
  }

  private stop() {
    clearTimeout(this.waiting)
    this.source?.close()
    this.source = null
  }

  private start(address: string) {
    this.stop()
    this.address = address
    const source = this.outside.open(address)
    this.source = source
    source.onopen = () => clearTimeout(this.waiting)
    source.onerror = () => void this.lost(source)
    for (const kind of KINDS) source.addEventListener(kind, (event) => this.heard(kind, event.data))
  }

  private heard(kind: string, text: string) {
    const { project, of } = JSON.parse(text) as { project: number | null; of: { id?: number } }
    this.tell(kind, project === null ? null : String(project), of)
  }

  private tell(kind: string, project: string | null, of: { id?: number }) {
    const key = `${kind} ${of.id ?? ''}`
    const text = JSON.stringify(of)
    if (this.known.get(key)?.text === text) return
    const told = { kind, of }
    this.known.set(key, { project, text, told })
    for (const [window, wants] of this.windows) if (project === null || wants === project) window.postMessage(told)
  }

  /** A stream that is cut comes back by itself; one that is refused is asked for again. */
  private async lost(source: Source) {
    clearTimeout(this.waiting)
    if (source.readyState !== CLOSED) {
      this.waiting = setTimeout(() => this.tell('trouble', null, { words: SILENT } as object), PATIENCE)
      return
    }
    const words = await this.outside.ask(this.address)
    if (source !== this.source) return
    if (words) this.tell('trouble', null, { words } as object)
    this.waiting = setTimeout(() => this.start(this.address), AGAIN)
  }
}

/** The hub of real windows. */
export function realHub() {
  return new EventHub({
    open: (address) => new EventSource(address) as unknown as Source,
    ask: async (address) => {
      const stop = new AbortController()
      try {
        const answer = await fetch(address, { signal: stop.signal })
        if (answer.ok) return null
        const body = (await answer.json().catch(() => ({}))) as { error?: string }
        return body.error ?? `the server answered ${answer.status}`
      } catch {
        return SILENT
      } finally {
        stop.abort()
      }
    },
  })
}

/** Lets whoever is at the other end of a port join and leave by messages. */
export function serve(hub: EventHub, port: MessagePort) {
  port.onmessage = ({ data }: MessageEvent<{ project: string | null } | 'leave'>) => {
    if (data === 'leave') hub.leave(port)
    else hub.join(port, data.project)
  }
}
