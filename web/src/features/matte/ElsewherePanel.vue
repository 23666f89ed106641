<script setup lang="ts">
import { getJson } from '@/api/client'
import type { Clip } from '@/api/media'
import type { ContributorSpec } from '@/api/declared'
import type { ContributorDocument, StepDocument } from '@/api/recipe'
import { computed, onMounted, ref } from 'vue'
import { useCut } from '../cut/useCut'
import TextChoice from '../grade/TextChoice.vue'
import ChoiceList, { type ChoiceGroup } from '../shell/ChoiceList.vue'
import { useNotices } from '../shell/useNotices'
import PartNumbers from './PartNumbers.vue'
import type { MatteEditor } from './useMatteEditor'

/** A matte from elsewhere: whose, what of it is hidden, and where it is put. */
const props = defineProps<{ editor: MatteEditor; part: ContributorDocument; spec: ContributorSpec; step: StepDocument }>()
const cut = useCut()
const notices = useNotices()
const clips = ref<Clip[]>([])
const text = (name: string) => String(props.editor.value(props.part, name))
const set = (to: Record<string, string>, words: string) => props.editor.set(props.part, to, words)
const words = computed(() => props.spec.texts.filter((one) => Array.isArray(one.from)))

onMounted(async () => {
  if (props.spec.id !== 'clip' || !cut.project) return
  try {
    clips.value = (await getJson<Clip[]>(`/projects/${cut.project.id}/clips`)).filter((clip) => clip.status === 'ready')
  } catch (error) {
    notices.trouble(error)
  }
})
const clipGroups = computed<ChoiceGroup[]>(() => [{ name: '', options: clips.value.map((clip) => ({ id: String(clip.id), label: clip.name })) }])

/** Steps with a matte: of this shot, then of the others, as "shot/step". */
const places = computed<ChoiceGroup[]>(() => {
  const masked = (steps: StepDocument[]) => steps.filter((one) => one.id !== props.step.id && one.matte?.contributors.length)
  const own = cut.shot ? cut.recipes.filter((recipe) => recipe.shot === cut.shot?.id || recipe.shot === null).flatMap((recipe) => masked(recipe.document.steps)) : []
  const others = cut.shots.filter((shot) => shot.id !== cut.shot?.id).map((shot) => ({ name: shot.name, options: masked(shot.recipe.document.steps).map((one) => ({ id: `${shot.id}/${one.id}`, label: one.name })) }))
  return [{ name: 'this shot', options: own.map((one) => ({ id: `/${one.id}`, label: one.name })) }, ...others].filter((group) => group.options.length)
})
const chosen = computed(() => `${text('shot')}/${text('step')}`)
const shown = computed(() => {
  const group = places.value.find((one) => one.options.some((option) => option.id === chosen.value))
  const option = group?.options.find((one) => one.id === chosen.value)
  return option ? `${group?.name === 'this shot' ? '' : `${group?.name} · `}${option.label}` : text('step') ? 'a step that is not there any more' : 'choose a step…'
})
function choose(id: string | null) {
  const [shot = '', step = ''] = (id ?? '/').split('/')
  set({ shot, step }, 'link')
}
</script>

<template>
  <div class="space-y-1 pt-1">
    <template v-if="spec.id === 'linked'">
      <ChoiceList :groups="places" :model-value="chosen" label="matte from" empty="No other step of the cut has a matte yet." @update:model-value="choose">{{ shown }}</ChoiceList>
    </template>
    <ChoiceList v-else :groups="clipGroups" :model-value="text('clip')" label="matte clip" empty="Take a matte in at Intake first." @update:model-value="set({ clip: $event ?? '' }, 'clip')">{{
      clips.find((clip) => String(clip.id) === text('clip'))?.name ?? 'choose a clip…'
    }}</ChoiceList>
    <div class="grid grid-cols-2 gap-x-2"><TextChoice v-for="one in words" :key="one.name" :spec="one" :model-value="text(one.name)" @update:model-value="set({ [one.name]: $event }, one.label)" /></div>
    <p class="pt-1">crop: what is hidden of it, where it comes from</p>
    <PartNumbers :editor="editor" :part="part" :spec="spec" :only="['crop']" />
    <p class="pt-1">place: where what is left is put</p>
    <PartNumbers :editor="editor" :part="part" :spec="spec" :only="['move', 'scale', 'turn', 'pivot', 'offset']" />
  </div>
</template>
