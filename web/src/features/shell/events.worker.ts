import { realHub, serve } from './eventHub'

// All windows of the browser share this worker, and its one stream.
const hub = realHub()
addEventListener('connect', (event) => serve(hub, (event as MessageEvent).ports[0] as MessagePort))
