<script setup lang="ts">
import { getJson } from '@/api/client'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import MeasuredScreens from '../screen/MeasuredScreens.vue'
import { useScreens } from '../screens/useScreens'
import { useScreen } from '../screen/useScreen'
import ChoiceList from '../shell/ChoiceList.vue'
import OptionRow from '../shell/OptionRow.vue'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import PictureStage from './PictureStage.vue'
import { useCut } from '../cut/useCut'
import { useCircuit } from '../grade/useCircuit'
import { useFollowed } from './useCleanWindow'
import { usePicture, type PictureWish } from './usePicture'

/** The picture alone, for a second screen: it follows the first window, with a target, canvas and LUT of its own. */
const route = useRoute()
const cut = useCut()
const screen = useScreen()
const catalogue = useCatalogue()
const screens = useScreens()
const notices = useNotices()
const followed = useFollowed()
const circuit = useCircuit()
const ready = ref(false)
const asked = ref(false)
const luts = ref<string[]>([])

onMounted(async () => {
  try {
    await Promise.all([catalogue.load(), screens.once(), cut.open(String(route.params.cut))])
    luts.value = await getJson<string[]>('/luts')
    ready.value = true
  } catch (error) {
    notices.trouble(error)
  }
})

const wish = computed<PictureWish | null>(() => {
  if (!ready.value || !cut.cut) return null
  const shown = followed.value
  const at = shown && shown.cut === cut.cut.id ? shown : { frame: cut.frame, source: false, trial: cut.shot ? cut.trialOf(cut.shot) : null, test: null, playing: false }
  return { cut: cut.cut.id, frame: at.frame, source: at.source, trial: at.trial, test: at.test, moving: at.playing, on: screen.wish, measuring: undefined }
})
const picture = usePicture(wish, notices.trouble)
const full = () => void document.documentElement.requestFullscreen()
</script>

<template>
  <div class="relative flex h-full flex-col" @dblclick="full" @pointermove="asked = true" @pointerleave="asked = false">
    <PictureStage
      v-if="ready && cut.project"
      bare
      :bitmap="picture.shown.value?.bitmap ?? null"
      :raster="cut.project"
      label="clean picture"
      :source="false"
      :loading="picture.loading.value"
      :failed="picture.failed.value"
      :data-settled="picture.settled.value"
    />
    <p v-if="circuit.any" class="absolute top-2 left-2 border border-weld bg-ground/80 px-1.5 text-2xs text-weld" data-test="out">
      {{ [circuit.noise && 'noise reduction bypassed', circuit.film && 'film bypassed'].filter(Boolean).join(', ') }}
    </p>
    <div v-if="asked && cut.project" class="absolute right-3 bottom-3 max-h-[90%] w-72 overflow-y-auto space-y-2 border border-line bg-raise/95 p-3" role="group" aria-label="this screen">
      <ChoiceList
        label="target of this screen"
        :groups="[{ name: '', options: cut.project.targets.map(({ id, name }) => ({ id, label: name })) }]"
        :model-value="screen.target?.id ?? null"
        @update:model-value="$event && screen.choose({ target: $event })"
        >{{ screen.target?.name }}</ChoiceList
      >
      <MeasuredScreens />
      <OptionRow v-if="!screen.screen" label="canvas of this screen" :options="catalogue.canvases" :model-value="screen.canvas" @update:model-value="screen.choose({ canvas: $event })" />
      <ChoiceList
        label="LUT of this screen"
        :groups="[{ name: '', options: [{ id: '', label: 'no screen LUT' }, ...luts.map((path) => ({ id: path, label: path }))] }]"
        :model-value="screen.lut"
        @update:model-value="screen.choose({ lut: $event ?? '' })"
        >{{ screen.lut || 'no screen LUT' }}</ChoiceList
      >
      <button class="control w-full" @click="full">full screen</button>
    </div>
  </div>
</template>
