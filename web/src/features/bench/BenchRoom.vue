<script setup lang="ts">
import { computed, ref } from 'vue'
import RecipeColumn from '../grade/RecipeColumn.vue'
import BorrowBanner from '../grade/BorrowBanner.vue'
import { useBorrow } from '../grade/useBorrow'
import { useCircuit } from '../grade/useCircuit'
import { useCopies } from '../grade/useCopies'
import { useMoves } from '../grade/useMoves'
import ScopeDock from '../scopes/ScopeDock.vue'
import { useNotices } from '../shell/useNotices'
import CutBar from './CutBar.vue'
import PictureStage from './PictureStage.vue'
import ShotRibbon from './ShotRibbon.vue'
import { useCut } from '../cut/useCut'
import { useOpenCut } from '../cut/useOpenCut'
import { useCopying } from './useCopying'
import { useBenchKeys } from './useBenchKeys'
import { useBenchPictures } from './useBenchPictures'
import { usePlayed } from './usePlayed'
import { useCaption } from './useCaption'
import DrawLayer from '../matte/DrawLayer.vue'
import ShapeLayer from '../matte/ShapeLayer.vue'
import { useMatte } from '../matte/useMatte'
import LoupeLayer from './LoupeLayer.vue'
import SkinPatch from './SkinPatch.vue'
import RegionLayer from './RegionLayer.vue'
import ReferenceBar from '../compare/ReferenceBar.vue'
import MarkLayer from '../review/MarkLayer.vue'
import NotesPanel from '../review/NotesPanel.vue'
import { useNotes } from '../review/useNotes'
import SplitLayer from '../compare/SplitLayer.vue'
import { useReference } from '../compare/useReference'
import { useCrossing } from '../assembly/useCrossing'
import StripPanel from '../strip/StripPanel.vue'
import { useSwatches } from '../swatches/useSwatches'
import BandLegend from '../scopes/BandLegend.vue'
import { useBands } from '../scopes/useBands'
import { useScopes } from '../scopes/useScopes'
import { useLayout } from './useLayout'
import { useSight } from './useSight'
import { useSurfaceHands } from '../surface/useSurfaceHands'

const [cut, notices, copies, borrow, sight, matte, moves] = [useCut(), useNotices(), useCopies(), useBorrow(), useSight(), useMatte(), useMoves()]
const [layout, notes, scopes, bands, reference, swatches, circuit, crossing] = [useLayout(), useNotes(), useScopes(), useBands(), useReference(), useSwatches(), useCircuit(), useCrossing()]
const GUTTER = 104 // px beside the lanes, for what they are
const openStep = computed(() => moves.open)
const stage = ref<InstanceType<typeof PictureStage>>()
const source = ref(false)
const clipping = ref(false)
const loupe = ref(false)
const opened = useOpenCut()
const { marks, looping, kept, player, renderRange, stop, toggle: togglePlay, goShot, goFrame } = usePlayed()
const { wish, picture, seen, real, arrived, header, bitmap, looking, second, secondSeen, secondLooking, inOne, beside, playReading, openClean } = useBenchPictures({ opened, source, clipping, player })
const copying = useCopying(
  computed(() => cut.shot),
  computed(() => cut.project?.id ?? null),
)
const shownAs = useCaption({ arrived, playing: player.playing, source, failed: picture.failed })

function tryBorrow() {
  stop()
  if (!borrow.next()) notices.news('No shot before this one has a grade to borrow.')
}

useSurfaceHands()
useBenchKeys({
  source,
  clipping,
  loupe,
  looping,
  goShot,
  goFrame,
  tryBorrow,
  togglePlay,
  togglePlaySecond: second.toggle,
  zoom: () => stage.value?.step(),
  markFirst: () => marks.from(cut.frame),
  markLast: () => marks.to(cut.frame),
  unmark: marks.clear,
  render: () => void renderRange(),
  openClean,
  crossOver: () => void crossing.make(marks.range.value),
})
</script>

<template>
  <div v-if="opened && cut.shot && cut.project" class="relative grid h-full grid-rows-1" :style="{ gridTemplateColumns: layout.columns }">
    <ShotRibbon v-if="!layout.large" :project="cut.project" :shots="cut.shots" :current="cut.shot.id" :picked="copies.picked" @go="goShot" @pick="copies.pick" @compare="reference.withShot" />
    <NotesPanel v-if="layout.notes && !layout.large" :marked="marks.range.value" />
    <section class="relative flex min-h-0 min-w-0 flex-col" aria-label="picture" @dragover.prevent @drop.prevent="swatches.dropped($event)">
      <div class="relative grid min-h-0 flex-1" :class="beside ? 'grid-cols-2 gap-px bg-line' : ''">
        <PictureStage
          ref="stage"
          :class="beside ? 'outline outline-weld -outline-offset-1' : ''"
          :bitmap="bitmap"
          :raster="cut.project"
          :label="`picture of shot ${cut.shot.name}`"
          :source="source"
          :loading="picture.loading.value"
          :stand-in="!arrived && !player.playing.value"
          :failed="player.playing.value ? null : picture.failed.value"
          :skin="sight.skin?.region ?? null"
          :looking="looking"
          :real="real"
          :covered="layout.large && layout.recipe ? 344 : 0"
          :finer="header?.finer"
          :reduced="!picture.settled.value && picture.reduced.value && !player.playing.value"
          :data-settled="picture.settled.value"
          :data-size="header?.size"
          :data-real="real ? `${real.raster.width}x${real.raster.height}` : undefined"
          @sight="seen = $event"
          @seen="scopes.seen = $event"
        >
          <template #over="{ place, pans }">
            <RegionLayer :place="place" :pans="pans" />
            <SplitLayer v-if="second.wanted.value && inOne" v-model:split="reference.split" :bitmap="second.bitmap.value" :real="second.real.value" :place="place" :whole="reference.flipped" :words="reference.words" />
            <ShapeLayer v-if="openStep && matte.side === 'acts' && !source && !player.playing.value && !sight.test" :place="place" :recipe="openStep.recipe" :step="openStep.step" />
            <SkinPatch v-if="sight.patch && openStep?.step.kind === 'emulsion'" :region="sight.patch" :place="place" words="film" />
            <DrawLayer v-if="matte.drawing" :place="place" :shot="cut.shot" />
            <div v-if="layout.notes && !player.playing.value && (notes.marks.length || notes.draws)" class="absolute" :style="{ left: `${place.x}px`, top: `${place.y}px`, width: `${place.width}px`, height: `${place.height}px` }">
              <MarkLayer v-model:drawn="notes.drawn" :marks="notes.marks" :draws="notes.draws" />
            </div>
            <BandLegend v-if="bands.on" />
            <LoupeLayer
              v-if="loupe && wish && cut.cut"
              :bitmap="bitmap"
              :place="place"
              :cut="cut.cut.id"
              :wish="{ frame: wish.frame, source: wish.source, on: wish.on, trial: wish.trial, test: wish.test, upto: wish.upto, acts: wish.acts ?? sight.beside }"
            />
          </template>
          <template #label
            ><BorrowBanner v-if="borrow.from" /><b class="font-medium text-ink">{{ cut.shot.name }}</b> {{ shownAs
            }}<button v-if="circuit.film" class="ml-2 border border-weld px-1.5 text-weld" title="Shift T: no bypass. Patches, bands and scopes read without it too." data-test="film-out" @click="circuit.flip('film')">film bypassed</button
            ><span v-if="sight.adds && openStep" class="ml-2 border border-weld px-1.5 text-weld" data-test="adds">what {{ openStep.step.name }} {{ sight.takes ? `takes, ×${sight.gain}` : 'adds' }}</span
            ><button v-if="sight.early && openStep" class="ml-2 border border-weld px-1.5 text-weld" title="Shift U: the finished picture" @click="sight.early = false">up to {{ openStep.step.name }}</button> ·
            {{ sight.testLabel ?? cut.shot.clip.name }}</template
          >
        </PictureStage>
        <PictureStage
          v-if="beside"
          shots-only
          :looking="reference.zoomFree ? secondLooking : looking"
          :bitmap="second.bitmap.value"
          :real="second.real.value"
          :finer="second.finer.value"
          :raster="cut.project"
          label="reference"
          :source="false"
          :loading="second.loading.value"
          :failed="second.failed.value"
          :data-settled="second.settled.value"
          :data-real="second.real.value ? `${second.real.value.raster.width}x${second.real.value.raster.height}` : undefined"
          @sight="secondSeen = $event"
        >
          <template #label
            ><span class="text-[#7fb0e0]">{{ reference.words }}</span
            >{{ second.loading.value ? ' · making the picture…' : '' }}</template
          >
        </PictureStage>
      </div>
      <ReferenceBar v-if="reference.on" :second="second" />
      <CutBar
        :shots="cut.shots"
        :frame="cut.frame"
        :length="cut.length"
        :rate="cut.rate"
        :playing="player.playing.value"
        :looping="looping"
        :shown-rate="player.shownRate.value"
        :dropped="player.dropped.value"
        :making="player.waiting.value"
        :keyed="moves.keyed"
        :marked="marks.range.value"
        :kept="circuit.any ? [] : kept.spans.value"
        :rendering="kept.running.value"
        :waits="copying"
        :start="cut.start"
        :gutter="layout.strip ? GUTTER : 0"
        :strip="layout.strip"
        @strip="layout.strip = !layout.strip"
        @record="cut.goTo({ record: $event })"
        @source="cut.goTo({ source: $event })"
        @start="cut.beginAt($event)"
        @render="renderRange"
        @go="goFrame"
        @play="togglePlay"
        @loop="looping = !looping"
      />
      <StripPanel v-if="layout.strip" :marked="marks.range.value" :gutter="GUTTER" @go="goFrame" @cross="crossing.make(marks.range.value)" />
      <ScopeDock v-if="layout.scopes" :second="reference.active ? ['graded', reference.words] : null" :class="arrived || playReading ? '' : 'opacity-40'" :shown="playReading ?? picture.shown.value" :floating="layout.large" />
    </section>
    <RecipeColumn v-show="layout.recipe" :shot="cut.shot" :header="header ?? null" :class="layout.large ? 'absolute top-0 right-0 bottom-[70px] z-10 w-[344px] bg-pane/90' : ''" />
  </div>
  <div v-else class="flex h-full items-center justify-center text-dim">{{ opened ? 'This cut has no shots. Make one in the Intake room.' : 'opening the cut…' }}</div>
</template>
