import type { Manner } from '@/api/cut'
import { useCut } from '../cut/useCut'
import { useAssembly } from './useAssembly'

/** Lets the grades of two shots cross over frames that both show: a dissolve that is baked into one clip. */
export function useCrossing() {
  const cut = useCut()
  const assembly = useAssembly()

  return {
    /** Over a marked range, or else over the stretch that is the open shot; by the picture's own mix unless said otherwise. */
    make(marked: { first: number; count: number } | null, curve: Manner['curve'] = 'measured') {
      const shot = cut.shot
      const range = marked ?? (shot ? { first: shot.record_in, count: shot.length } : null)
      if (range) return assembly.hand('cross', { ...range, manner: { curve } }, () => cut.go(range.first))
    },
  }
}
