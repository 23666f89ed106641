import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import { useCircuit } from '../grade/useCircuit'
import { useCleaned } from '../grade/useCleaned'
import { useRecipes } from '../grade/useRecipes'
import { useScreen } from '../screen/useScreen'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import { makePlayStore, MOST_PICTURES } from './playStore'
import { useKeptHere } from './useKept'
import { useMarks } from './useMarks'
import { usePlayer } from './usePlayer'

/** What plays on the Bench: the marked range, the shot or the cut, from finished pictures where they are there. */
export function usePlayed() {
  const [cut, circuit, cleaned, recipes, screen, notices, catalogue] = [useCut(), useCircuit(), useCleaned(), useRecipes(), useScreen(), useNotices(), useCatalogue()]
  const marks = useMarks(computed(() => cut.length))
  const looping = ref(true)
  const range = computed(() => {
    const shot = cut.shot
    if (marks.range.value) return marks.range.value
    return looping.value && shot ? { first: shot.record_in, count: shot.length } : { first: 0, count: cut.length }
  })

  /** Of what is looped each picture is shown, as long as all of them can be held. */
  const whole = computed(() => range.value.count <= MOST_PICTURES)

  const screenChanges = ref(0)
  watch([whole, () => screen.wish, () => circuit.names, () => cleaned.spans.join()], () => screenChanges.value++)
  const kept = useKeptHere('pictures')
  const store = makePlayStore({
    kept: (frame) => !circuit.any && kept.has(frame),
    cut: computed(() => cut.cut?.id ?? null),
    shotAt: cut.shotAt,
    on: computed(() => screen.wish),
    trialOf: (shot) => cut.trialOf(shot),
    whole,
    processes: computed(() => catalogue.catalogue?.processes ?? 0),
    trouble: notices.trouble,
  })
  const player = usePlayer({ store, rate: computed(() => cut.rate), range, generation: computed(() => recipes.generation + screenChanges.value), patient: whole, go: cut.go })
  const stop = () => player.playing.value && player.stop()

  return {
    marks,
    looping,
    kept,
    player,
    renderRange: () => (kept.running.value ? kept.cancel() : kept.start(range.value.first, range.value.count)),
    stop,
    toggle: () => (player.playing.value ? player.stop() : player.play(cut.frame)),
    goShot(index: number) {
      stop()
      cut.goShot(index)
    },
    goFrame(frame: number) {
      stop()
      cut.go(frame)
    },
  }
}
