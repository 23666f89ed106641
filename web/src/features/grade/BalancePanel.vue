<script lang="ts">
/** The kind of step whose controls these are; see panels. */
export const kind = 'balance'
</script>

<script setup lang="ts">
import type { AnswerHeader } from '@/api/answer'
import type { StepSpec } from '@/api/declared'
import type { Recipe, StepDocument } from '@/api/recipe'
import { useStorage } from '@vueuse/core'
import { computed, toRef } from 'vue'
import { usePick } from '../bench/usePick'
import { useSight } from '../bench/useSight'
import { useCut } from '../cut/useCut'
import { useKeys } from '../shell/useKeys'
import ChannelGrid from './ChannelGrid.vue'
import NumberGrid from './NumberGrid.vue'
import QuickOrder from './QuickOrder.vue'
import SkinReadout from './SkinReadout.vue'
import StavePanel from './StavePanel.vue'
import { quickOrder } from './quickOrder'
import { shownValue } from './edit'
import { useNotices } from '../shell/useNotices'
import { usePatchPick } from './usePatchPick'
import { useStepEditor } from './useStepEditor'

const props = defineProps<{ recipe: Recipe; step: StepDocument; spec: StepSpec; header: AnswerHeader | null }>()
const cut = useCut()

const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const picking = usePatchPick(computed(() => props.step.id))
const pick = usePick()
const notices = useNotices()
const sight = useSight()
const NEUTRAL = 'click or drag over something that is grey'
const SKIN = 'click or drag over skin'

const pickNeutral = () => picking.point<Record<string, number>>(NEUTRAL, 'neutral', (found) => editor.setAll(found, 'grey picked'))
const balanceByItself = () =>
  picking.ask<Record<string, number>>('auto', (found) => {
    notices.news(replaced(found))
    editor.setAll(found, 'white, black and cast found')
  })
/** What was found in place of what, and which other numbers are still there. */
function replaced(found: Record<string, number>) {
  const specs = props.spec.parameters.filter(({ channels }) => !channels)
  const changed = specs.filter(({ name }) => name in found && found[name] !== editor.value(name)).map((one) => `${one.label} ${shownValue(editor.value(one.name) as number, one)} → ${shownValue(found[one.name] ?? 0, one)}`)
  const kept = props.spec.parameters.filter(({ name, neutral }) => !(name in found) && [editor.value(name)].flat().some((value) => value !== neutral)).map(({ label }) => label)
  return `Balance found: ${changed.join(', ') || 'nothing to change'}.${kept.length ? ` As they were: ${kept.join(', ')}.` : ''}`
}
const pickSkin = () => pick.ask(SKIN, sight.keepSkin)
useKeys('the open step', [
  { key: 'n', words: 'pick something grey', press: pickNeutral },
  { key: 'k', words: 'pick skin, measured from then on', press: pickSkin },
  { key: 'u', words: 'find white, black and cast', press: () => void balanceByItself() },
])

const inOrder = quickOrder.map((line) => line.name)
const singles = computed(() => props.spec.parameters.filter(({ name, channels }) => !channels && !inOrder.includes(name)))
const rows = computed(() => props.spec.parameters.filter(({ name, channels }) => channels && !inOrder.includes(name)))
const model = computed(() => props.spec.texts[0])
const channelsOpen = useStorage('mordant.balance.channels', false)
</script>

<template>
  <div class="px-3 pt-1 pb-3">
    <StavePanel v-if="cut.project" :editor="editor" :spec="spec" :trace="header?.tone ?? null" :curve="header?.curves?.[step.id] ?? null" :space="cut.project.space" />
    <div class="mt-1.5 mb-2 flex items-center gap-1.5">
      <button class="control px-2 py-0 text-xs" title="U: white, black and cast found from the picture, as ordinary numbers" @click="balanceByItself">find balance</button>
      <button class="control px-2 py-0 text-xs" :class="{ 'border-weld/70 bg-weld/15': picking.asking(NEUTRAL) }" :aria-pressed="picking.asking(NEUTRAL)" title="N: click or drag over something that is grey" @click="pickNeutral">
        pick grey
      </button>
      <button class="control px-2 py-0 text-xs" :class="{ 'border-weld/70 bg-weld/15': picking.asking(SKIN) }" :aria-pressed="picking.asking(SKIN)" title="K: a patch of skin, measured from then on" @click="pickSkin">pick skin</button>
    </div>
    <SkinReadout v-if="sight.skin && header?.skin" class="mb-2" :reading="header.skin" @drop="sight.keepSkin(null)" />
    <NumberGrid class="mb-2" :parameters="singles" :editor="editor" />
    <QuickOrder :editor="editor" :spec="spec" :extents="header?.extents ?? null">
      <template v-if="model" #saturation>
        <span class="text-2xs text-dim" :title="model.about" role="radiogroup" :aria-label="model.label">
          <button
            v-for="one in model.from as string[]"
            :key="one"
            role="radio"
            class="ml-2 border-b"
            :class="editor.text(model) === one ? 'border-weld text-ink' : 'border-transparent hover:text-ink'"
            :aria-checked="editor.text(model) === one"
            @click="editor.set(model.name, one)"
          >
            {{ one }}
          </button>
        </span>
      </template>
    </QuickOrder>
    <button class="mt-2 flex w-full items-center gap-1.5 text-2xs text-dim hover:text-ink" :aria-expanded="channelsOpen" @click="channelsOpen = !channelsOpen">
      <span class="inline-block w-2">{{ channelsOpen ? '−' : '+' }}</span> {{ rows.map((row) => row.label).join(' and ') }} by channel
    </button>
    <ChannelGrid v-if="channelsOpen" class="mt-1.5" :parameters="rows" :editor="editor" />
  </div>
</template>
