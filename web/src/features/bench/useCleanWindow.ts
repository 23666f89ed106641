import { onScopeDispose, ref } from 'vue'
import type { Trial } from '../cut/useCut'

/** What the first window shows, told to the clean one. */
export interface CleanWish {
  cut: number
  frame: number
  source: boolean
  trial: Trial
  test: string | null
  playing: boolean
}

const CHANNEL = 'mordant.clean'
type Message = { shown: CleanWish } | { asking: true }

/** The first window's side: opens the clean one, and tells it what is shown. */
export function useCleanWindow() {
  const channel = new BroadcastChannel(CHANNEL)
  let shown: CleanWish | null = null
  const tell = (wish: CleanWish) => {
    shown = JSON.parse(JSON.stringify(wish)) as CleanWish
    channel.postMessage({ shown } satisfies Message)
  }
  channel.onmessage = ({ data }: MessageEvent<Message>) => {
    if ('asking' in data && shown) tell(shown)
  }
  onScopeDispose(() => channel.close())
  return { tell, open: (path: string) => window.open(path, CHANNEL, 'popup,width=960,height=540') }
}

/** The clean window's side: what the first one shows. */
export function useFollowed() {
  const shown = ref<CleanWish | null>(null)
  const channel = new BroadcastChannel(CHANNEL)
  channel.onmessage = ({ data }: MessageEvent<Message>) => {
    if ('shown' in data) shown.value = data.shown
  }
  channel.postMessage({ asking: true } satisfies Message)
  onScopeDispose(() => channel.close())
  return shown
}
