import { computed, type Ref } from 'vue'
import { useReference } from '../compare/useReference'
import { useCut } from '../cut/useCut'
import { useBorrow } from '../grade/useBorrow'
import { useComparedVersion } from '../grade/useComparedVersion'
import { handMoving } from '../grade/useStepEditor'
import { useBands } from '../scopes/useBands'
import { useScopes } from '../scopes/useScopes'
import { useScreen } from '../screen/useScreen'
import { useStrip } from '../strip/useStrip'
import { useSwatches } from '../swatches/useSwatches'
import type { PictureWish } from './usePicture'
import { useSight } from './useSight'

export interface PresentOptions {
  /** The cut has been read. */
  opened: Ref<boolean>
  source: Ref<boolean>
  /** Clipped pixels are marked. */
  clipping: Ref<boolean>
}

/** The picture that the Bench wants at the frame somebody is at, with its instruments. */
export function usePresent({ opened, source, clipping }: PresentOptions) {
  const [cut, screen, sight, scopes, bands] = [useCut(), useScreen(), useSight(), useScopes(), useBands()]
  const strip = useStrip()
  const [reference, compared, borrow, swatches] = [useReference(), useComparedVersion(), useBorrow(), useSwatches()]

  return computed<PictureWish | null>(() => {
    if (!opened.value || !cut.cut || !cut.shot) return null
    return {
      cut: cut.cut.id,
      frame: cut.frame,
      source: source.value,
      on: screen.wish,
      moving: handMoving.value,
      copied: cut.shot.clip.copy.status === 'ready',
      trial: cut.trialOf(cut.shot, compared.document ?? borrow.document ?? swatches.document),
      test: sight.test,
      tap: sight.tap,
      acts: sight.acts,
      upto: sight.upto,
      adds: sight.adds,
      ...(sight.adds && sight.takes ? { taken: sight.gain } : {}),
      key: sight.key,
      course: strip.asked,
      patch: sight.patch,
      skin: sight.skin?.region ?? null,
      measuring: {
        scopes: scopes.wanted,
        ...(scopes.touching ? { guides: scopes.touching } : {}),
        measure: scopes.kept.tap,
        region: scopes.read,
        light: scopes.light,
        bands: bands.wish,
        marks: clipping.value,
        ...(scopes.kept.breaks ? { breaks: true } : {}),
        beside: reference.active ?? scopes.beside,
        ...(reference.active && reference.way === 'difference' ? { difference: reference.active, gain: reference.gain } : {}),
      },
    }
  })
}
