import { useCut } from '@/features/cut/useCut'
import { settle, type Call } from './browser'
import { cut } from './production'

/** The store of a cut that has just been opened. */
export async function opened(calls: Call[]) {
  const store = useCut()
  const opening = store.open('5')
  await settle()
  calls.at(-1)?.answer(200, cut())
  await opening
  return store
}
