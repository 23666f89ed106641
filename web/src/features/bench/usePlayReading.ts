import { send } from '@/api/client'
import { unpack } from '@/api/answer'
import { onScopeDispose, shallowRef, watch, type Ref } from 'vue'
import type { PictureWish, Reading } from './usePicture'

const EVERY = 160 // ms between readings while playing

/** What the instruments read while it plays: of small pictures, as often as answers come. */
export function usePlayReading(wish: Ref<PictureWish | null>, trouble: (error: unknown) => void) {
  const reading = shallowRef<Reading | null>(null)
  let timer = 0
  let busy = false

  async function read() {
    const now = wish.value
    if (!now || busy) return
    busy = true
    try {
      const { cut, frame, source, on, trial, test, measuring } = now
      const response = await send('POST', `/cuts/${cut}/picture`, { frame, source, on, trial, test, playing: true, size: 'small', ...measuring, light: null, bands: null, marks: false })
      const answer = response.status === 204 ? null : unpack(await response.arrayBuffer())
      // playing may have stopped meanwhile; what comes late is of a picture that has been left
      if (answer && wish.value) reading.value = answer
    } catch (error) {
      trouble(error)
    }
    busy = false
  }

  watch(
    () => wish.value !== null,
    (playing) => {
      clearInterval(timer)
      if (playing) timer = window.setInterval(() => void read(), EVERY)
      else reading.value = null
    },
    { immediate: true },
  )
  onScopeDispose(() => clearInterval(timer))
  return reading
}
