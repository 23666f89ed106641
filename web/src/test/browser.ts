import { vi } from 'vitest'

/** As much of a browser as composables need. */
export function installBrowser() {
  const listeners = new EventTarget()
  const store = new Map<string, string>()
  vi.stubGlobal('window', Object.assign(listeners, { setTimeout: globalThis.setTimeout.bind(globalThis), setInterval: globalThis.setInterval.bind(globalThis), devicePixelRatio: 1 }))
  vi.stubGlobal('document', { cookie: 'mordant_token=secret' })
  vi.stubGlobal('sessionStorage', {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => store.set(key, value),
  })
  vi.stubGlobal(
    'HTMLElement',
    class {
      matches = () => false
    },
  )
  return listeners
}

export interface Call {
  method: string
  path: string
  body: Record<string, unknown>
  answer: (status: number, body: unknown) => void
  fail: () => void
}

/** A server whose answers are given by hand, one by one. */
export function installServer() {
  const calls: Call[] = []
  vi.stubGlobal(
    'fetch',
    (url: string, init: RequestInit) =>
      new Promise((resolve, reject) => {
        calls.push({
          method: init.method ?? 'GET',
          path: url.replace('/api', ''),
          body: init.body ? (JSON.parse(String(init.body)) as Record<string, unknown>) : {},
          answer: (status, body) => resolve(new Response(status === 204 ? null : JSON.stringify(body), { status })),
          fail: () => reject(new TypeError('failed to fetch')),
        })
      }),
  )
  return calls
}

/** A stream of events of the server, told by hand. */
export function installEvents() {
  const ports: { onmessage: ((event: { data: unknown }) => void) | null; postMessage: () => void }[] = []
  class Hub {
    port = { onmessage: null, postMessage: () => {} }
    constructor() {
      ports.push(this.port)
    }
  }
  vi.stubGlobal('SharedWorker', Hub)
  Object.assign(window, { SharedWorker: Hub })
  return (kind: string, of: unknown) => ports.forEach((port) => port.onmessage?.({ data: { kind, of } }))
}

/** Lets everything that waits only for promises happen. */
export async function settle() {
  for (let i = 0; i < 20; i++) await Promise.resolve()
}
