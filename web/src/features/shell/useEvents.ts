import { onScopeDispose, watch, type Ref } from 'vue'

/** Follows a project's progress for as long as the component lives; reconnects by itself. */
export function useEvents(project: Ref<string | undefined>, handlers: Record<string, (data: never) => void>) {
  let source: EventSource | null = null

  watch(
    project,
    (id) => {
      source?.close()
      source = null
      if (!id) return
      source = new EventSource(`/api/projects/${id}/events`)
      for (const [name, handle] of Object.entries(handlers))
        source.addEventListener(name, (event) => handle(JSON.parse((event as MessageEvent<string>).data) as never))
    },
    { immediate: true },
  )

  onScopeDispose(() => source?.close())
}
