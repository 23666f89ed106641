import { onScopeDispose, watch, type Ref } from 'vue'
import { realHub, serve, type EventHub, type Told } from './eventHub'

let own: EventHub | null = null

/** To the worker of all windows; a browser without such workers has a stream for each window. */
function connect(): MessagePort {
  if ('SharedWorker' in window) return new SharedWorker(new URL('./events.worker.ts', import.meta.url), { type: 'module', name: 'events' }).port
  const channel = new MessageChannel()
  serve((own ??= realHub()), channel.port2)
  return channel.port1
}

/** Follows a project's progress, or only what is wrong with the server, for as long as the component lives. */
export function useEvents(project: Ref<string | undefined>, handlers: Record<string, (data: never) => void>) {
  const port = connect()
  port.onmessage = ({ data }: MessageEvent<Told>) => handlers[data.kind]?.(data.of as never)
  const join = () => port.postMessage({ project: project.value ?? null })
  const leave = () => port.postMessage('leave')
  const back = (event: PageTransitionEvent) => event.persisted && join()

  watch(project, join, { immediate: true })
  window.addEventListener('pagehide', leave)
  window.addEventListener('pageshow', back)
  onScopeDispose(() => {
    leave()
    window.removeEventListener('pagehide', leave)
    window.removeEventListener('pageshow', back)
  })
}
