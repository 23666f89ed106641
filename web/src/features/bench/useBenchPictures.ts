import { computed, shallowRef, watch, type Ref } from 'vue'
import { useReference } from '../compare/useReference'
import { useReferencePicture } from '../compare/useReferencePicture'
import { useCut } from '../cut/useCut'
import { useBorrow } from '../grade/useBorrow'
import { useComparedVersion } from '../grade/useComparedVersion'
import { useMoves } from '../grade/useMoves'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from '../shell/useNotices'
import { useSwatches } from '../swatches/useSwatches'
import { useArrival } from './useArrival'
import { useCleanWindow } from './useCleanWindow'
import { usePicture } from './usePicture'
import type { usePlayer } from './usePlayer'
import { usePlayReading } from './usePlayReading'
import { usePresent } from './usePresent'
import { useRealPixels, type Sight } from './useRealPixels'
import { useSight } from './useSight'
import { makeLooking } from './useZoom'

/** The picture of the Bench and its reference, with the pixels of the part that is seen; and the clean picture, which follows. */
export function useBenchPictures({ opened, source, clipping, player }: { opened: Ref<boolean>; source: Ref<boolean>; clipping: Ref<boolean>; player: ReturnType<typeof usePlayer> }) {
  const [cut, recipes, moves, sight, reference, notices] = [useCut(), useRecipes(), useMoves(), useSight(), useReference(), useNotices()]
  const [compared, borrow, swatches, clean] = [useComparedVersion(), useBorrow(), useSwatches(), useCleanWindow()]
  const present = usePresent({ opened, source, clipping })
  const wish = computed(() => (player.playing.value ? null : present.value))
  const picture = usePicture(wish, notices.trouble)
  const seen = shallowRef<Sight | null>(null)
  const real = useRealPixels({ wish: computed(() => (picture.settled.value ? wish.value : null)), sight: seen, trouble: notices.trouble })
  const { arrived, standIn } = useArrival({ shot: computed(() => cut.shot), project: computed(() => cut.project), shownFrame: computed(() => picture.shown.value?.header.frame ?? null) })
  const header = computed(() => (arrived.value ? picture.shown.value?.header : undefined))
  watch(header, (now) => {
    moves.told = now?.moved ?? {}
    moves.spanned = now?.spanned ?? {}
    moves.course = now?.course ?? null
  })

  const secondSeen = shallowRef<Sight | null>(null)
  const inOne = computed(() => reference.flipped || reference.way === 'split')
  const second = useReferencePicture({ present, firstPlays: player.playing, generation: computed(() => recipes.generation), sight: computed(() => (inOne.value ? seen.value : secondSeen.value)), trouble: notices.trouble })

  watch([wish, player.playing, () => cut.frame], () => {
    if (cut.cut && cut.shot) clean.tell({ cut: cut.cut.id, frame: cut.frame, source: source.value, trial: cut.trialOf(cut.shot, compared.document ?? borrow.document ?? swatches.document), test: sight.test, playing: player.playing.value })
  })

  return {
    wish,
    picture,
    seen,
    real,
    arrived,
    header,
    bitmap: computed(() => player.picture.value ?? (arrived.value ? (picture.shown.value?.bitmap ?? null) : standIn.value)),
    looking: makeLooking(),
    second,
    secondSeen,
    secondLooking: makeLooking(),
    inOne,
    /** The reference stands beside the picture. */
    beside: computed(() => reference.on && reference.way === 'side' && second.wanted.value),
    playReading: usePlayReading(
      computed(() => (player.playing.value ? present.value : null)),
      notices.trouble,
    ),
    openClean: () => cut.project && cut.cut && clean.open(`/projects/${cut.project.id}/cuts/${cut.cut.id}/clean`),
  }
}
