import type { Ref } from 'vue'
import { useFlags } from '../board/useFlags'
import { useReference } from '../compare/useReference'
import { useCircuit } from '../grade/useCircuit'
import { useCut } from '../cut/useCut'
import { useBands } from '../scopes/useBands'
import { useScopes } from '../scopes/useScopes'
import { useScreen } from '../screen/useScreen'
import { useKeys } from '../shell/useKeys'
import { useMatte } from '../matte/useMatte'
import { useTimeView } from '../strip/useTimeView'
import { useLayout } from './useLayout'
import { useSight } from './useSight'

/** What the keys of the Bench do that no store does. */
export interface BenchActs {
  source: Ref<boolean>
  clipping: Ref<boolean>
  loupe: Ref<boolean>
  looping: Ref<boolean>
  goShot: (index: number) => void
  goFrame: (frame: number) => void
  tryBorrow: () => void
  togglePlay: () => void
  togglePlaySecond: () => void
  zoom: () => void
  markFirst: () => void
  markLast: () => void
  unmark: () => void
  render: () => void
  openClean: () => void
  crossOver: () => void
}

/** The keys of the Bench. */
export function useBenchKeys(acts: BenchActs) {
  const view = useTimeView()
  const circuit = useCircuit()
  const scopes = useScopes()
  const [cut, reference, flags, screen, sight, layout, bands, matte] = [useCut(), useReference(), useFlags(), useScreen(), useSight(), useLayout(), useBands(), useMatte()]

  useKeys('shots and frames', [
    { key: 'q', words: 'previous shot', press: () => acts.goShot(cut.shotIndex - 1) },
    { key: 'e', words: 'next shot', press: () => acts.goShot(cut.shotIndex + 1) },
    { key: 'a', words: 'one frame back', press: () => acts.goFrame(cut.frame - 1) },
    { key: 'd', words: 'one frame on', press: () => acts.goFrame(cut.frame + 1) },
    { key: ',', words: 'mark the first frame of a range', press: acts.markFirst },
    { key: '.', words: 'mark the last frame of a range', press: acts.markLast },
    { key: '-', words: 'clear the range', press: acts.unmark },
    { key: 'shift+f', words: 'flag on and off', press: () => void flags.flip() },
    { key: 'shift+r', words: 'use this frame as the poster frame', press: () => void flags.standIn() },
  ])
  useKeys('playing', [
    { key: 'space', words: 'play, stop', press: acts.togglePlay },
    { key: 'r', words: 'loop the shot or the cut', press: () => (acts.looping.value = !acts.looping.value) },
    { key: 'h', words: 'render ahead; again: stop', press: acts.render },
    { key: 'shift+space', words: 'play, stop the reference by itself', press: acts.togglePlaySecond },
  ])
  useKeys('comparing', [
    { key: 'w', words: 'held: the source', press: () => (acts.source.value = true), release: () => (acts.source.value = false) },
    { key: 'y', words: 'compare on and off', press: () => (reference.on = !reference.on) },
    { key: 'shift+y', words: 'lock the reference where it is; again: let it follow', press: reference.lock },
    { key: 'shift+e', words: 'next saved reference', press: reference.nextKept },
    { key: '#', words: 'held: the reference alone', press: () => (reference.flipped = true), release: () => (reference.flipped = false) },
    { key: 'b', words: 'borrow the grade before; again: one further back', press: acts.tryBorrow },
  ])
  useKeys('the picture', [
    { key: 'f', words: 'fit, 1:1, 2:1', press: acts.zoom },
    { key: 'l', words: 'large picture', press: () => (layout.large = !layout.large) },
    { key: 'v', words: 'view transform on and off', press: screen.flip },
    { key: 'x', words: 'held: colours exaggerated, to see a cast', press: () => (screen.exaggerate = true), release: () => (screen.exaggerate = false) },
    { key: 'i', words: 'held: loupe under the pointer', press: () => (acts.loupe.value = true), release: () => (acts.loupe.value = false) },
    { key: 't', words: 'test pictures in turn, in place of the shot', press: sight.nextTest },
    { key: 'm', words: 'clipping, and colours beyond P3, marked in the picture', press: () => (acts.clipping.value = !acts.clipping.value) },
    { key: 'shift+m', words: 'places where tones break, marked in the picture', press: () => scopes.set({ breaks: !scopes.kept.breaks }) },
    { key: 'j', words: 'colour bands', press: () => void bands.flip() },
    { key: '+', words: 'clean picture in a window of its own', press: acts.openClean },
  ])
  useKeys('the open step', [
    { key: 'z', words: 'held: what the open step acts on', press: () => (sight.acting = true), release: () => (sight.acting = false) },
    { key: 'shift+z', words: 'matte of the open step shown, on and off', press: () => (matte.on = !matte.on) },
    { key: 'shift+u', words: 'picture up to the open step, or finished', press: () => (sight.early = !sight.early) },
    { key: '=', words: 'held: what the open step adds, or takes away, by itself', press: () => (sight.adding = true), release: () => (sight.adding = false) },
    { key: 'shift+o', words: 'draw a shape in the picture; again: stop', press: () => (matte.drawing = !matte.drawing) },
    { key: ';', words: 'held: no handles in the picture', press: () => (matte.bare = true), release: () => (matte.bare = false) },
    { key: 'shift+t', words: 'bypass the film look, and back', press: () => circuit.flip('film') },
    { key: 'shift+n', words: 'bypass noise reduction everywhere, and back', press: () => circuit.flip('noise') },
  ])
  useKeys('change over time', [
    { key: 'shift+s', words: 'show or hide the strip of what changes over time', press: () => (layout.strip = !layout.strip) },
    { key: 'shift+l', words: 'cut bar and strip: zoom to this shot, or the whole cut', press: view.flip },
    { key: 'shift+x', words: 'cross over two grades across the marked range, or around this frame', press: acts.crossOver },
  ])
  useKeys('panels', [
    { key: 'p', words: 'show or hide the recipe', press: () => layout.flip('recipe') },
    { key: 'o', words: 'show or hide the scopes', press: () => layout.flip('scopes') },
    { key: 'shift+w', words: 'show or hide the notes', press: () => (layout.notes = !layout.notes) },
  ])
}
