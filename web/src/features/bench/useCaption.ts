import { computed, type Ref } from 'vue'
import { useReference } from '../compare/useReference'
import { sourceAt } from '../cut/timecode'
import { useCut } from '../cut/useCut'
import { useComparedVersion } from '../grade/useComparedVersion'
import { useScopes } from '../scopes/useScopes'
import { useScreen } from '../screen/useScreen'
import { useSwatches } from '../swatches/useSwatches'
import { useSight } from './useSight'

export interface CaptionOptions {
  /** The picture of the present shot is there. */
  arrived: Ref<boolean>
  playing: Ref<boolean>
  source: Ref<boolean>
  /** What is wrong where there is no picture. */
  failed: Ref<string | null>
}

/** How the picture is shown, in words. */
export function useCaption({ arrived, playing, source, failed }: CaptionOptions) {
  const [cut, screen, sight, scopes] = [useCut(), useScreen(), useSight(), useScopes()]
  const [reference, compared, swatches] = [useReference(), useComparedVersion(), useSwatches()]

  /** Number of the frame somebody is at, where its run leaves it out. */
  const missing = computed(() => {
    const { shot } = cut
    if (!shot?.clip.gaps?.length || shot.clip.first_number === null || shot.clip.pace === 'time') return null
    const number = shot.clip.first_number + sourceAt(shot, cut.frame)
    return shot.clip.gaps.some(([first, last]) => number >= first && number <= last) ? number : null
  })

  return computed(() => {
    if (failed.value && !playing.value) return 'no picture'
    if (!arrived.value && !playing.value) return 'loading…'
    if (missing.value !== null) return `frame ${missing.value} is missing from the run`
    if (source.value) return 'as shot'
    if (reference.flipped) return reference.words
    if (reference.active && reference.way === 'difference' && !playing.value) return `difference from ${reference.words}, times ${reference.gain}`
    if (scopes.light) return `what makes up a part of the ${scopes.light.instrument}`
    if (swatches.trial) return `with ${swatches.trial.name} on trial`
    if (compared.words) return `version ${compared.words}`
    if (sight.acts) return sight.acts.region ? `the ${sight.acts.region} alone` : 'what the open step acts on'
    return screen.exaggerate ? 'graded, colours exaggerated' : 'graded'
  })
}
