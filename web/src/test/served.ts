import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, vi } from 'vitest'
import { installBrowser, installEvents, installServer, type Call } from './browser'

/** For every example of a file: a browser, stores that hold nothing, and a server whose answers and events the example gives. */
export function served() {
  const server = {} as { calls: Call[]; event: ReturnType<typeof installEvents> }
  beforeEach(() => {
    installBrowser()
    Object.assign(server, { calls: installServer(), event: installEvents() })
    setActivePinia(createPinia())
  })
  afterEach(() => vi.unstubAllGlobals())
  return server
}
