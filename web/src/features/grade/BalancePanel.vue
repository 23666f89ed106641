<script setup lang="ts">
import type { Recipe, StepDocument, StepSpec, ToneTrace, WorkingSpace } from '@/api/types'
import { sendJson } from '@/api/client'
import { computed, onBeforeUnmount, toRef } from 'vue'
import { useCut } from '../bench/useCut'
import { usePick } from '../bench/usePick'
import { useKeys } from '../shell/useKeys'
import { useNotices } from '../shell/useNotices'
import { useStorage } from '@vueuse/core'
import NumberField from './NumberField.vue'
import NumberGrid from './NumberGrid.vue'
import StavePanel from './StavePanel.vue'
import { useStepEditor } from './useStepEditor'

const props = defineProps<{
  recipe: Recipe
  step: StepDocument
  spec: StepSpec
  trace: ToneTrace | null
  curve: number[] | null
  space: WorkingSpace
}>()

const pick = usePick()
const cut = useCut()
const notices = useNotices()
const NEUTRAL = 'click or drag over something that is grey'

/** Solves temperature and tint from a patch; what comes is an ordinary change. */
function pickNeutral() {
  pick.ask(NEUTRAL, async (region) => {
    try {
      if (!cut.shot) return
      const body = { frame: cut.frame, step: props.step.id, trial: cut.trialOf(cut.shot), region }
      const found = await sendJson<Record<string, number>>('POST', `/shots/${cut.shot.id}/neutral`, body)
      editor.setAll(found, 'grey picked')
    } catch (error) {
      notices.trouble(error)
    }
  })
}
onBeforeUnmount(pick.cancel)
useKeys([{ key: 'n', words: 'pick something grey', press: pickNeutral }])

const editor = useStepEditor(toRef(props, 'recipe'), toRef(props, 'step'), toRef(props, 'spec'))
const singles = computed(() => props.spec.parameters.filter((parameter) => !parameter.channels))
const rows = computed(() => props.spec.parameters.filter((parameter) => parameter.channels))
const channelsOpen = useStorage('mordant.balance.channels', false)

const CHANNEL_TINTS = ['text-dim', 'text-madder', 'text-leaf', 'text-woad']
const CHANNEL_NAMES = ['all', 'red', 'green', 'blue']
</script>

<template>
  <div class="px-3 pt-1 pb-3">
    <StavePanel :editor="editor" :spec="spec" :trace="trace" :curve="curve" :space="space" />
    <NumberGrid class="mt-2" :parameters="singles" :editor="editor" />
    <div class="mt-2 flex items-center gap-2 text-2xs text-dim">
      <button class="control px-2 py-0 text-xs" :class="{ 'border-weld/70 bg-weld/15': pick.asked?.words === NEUTRAL }" :aria-pressed="pick.asked?.words === NEUTRAL" title="N: click or drag over something that is grey" @click="pickNeutral">pick grey</button>
      <span class="flex-1" />
      <span v-for="text in spec.texts" :key="text.name" class="contents" :title="text.about">
        <span>{{ text.label }}</span>
        <button
          v-for="one in text.from as string[]"
          :key="one"
          class="border-b px-0.5"
          :class="editor.text(text) === one ? 'border-weld text-ink' : 'border-transparent hover:text-ink'"
          :aria-pressed="editor.text(text) === one"
          @click="editor.set(text.name, one)"
        >
          {{ one }}
        </button>
      </span>
    </div>
    <button class="mt-2.5 flex w-full items-center gap-1.5 text-2xs text-dim hover:text-ink" :aria-expanded="channelsOpen" @click="channelsOpen = !channelsOpen">
      <span class="inline-block w-2">{{ channelsOpen ? '−' : '+' }}</span> printer lights, lift, gamma, gain and offset by channel
    </button>
    <div v-if="channelsOpen" class="mt-1.5 grid grid-cols-[44px_repeat(4,minmax(0,1fr))] items-center gap-x-1.5 gap-y-1">
      <span />
      <span v-for="(channel, index) in CHANNEL_NAMES" :key="channel" class="text-2xs" :class="CHANNEL_TINTS[index]">{{ channel }}</span>
      <template v-for="parameter in rows" :key="parameter.name">
        <span class="text-2xs text-dim" :title="parameter.about">{{ parameter.label }}</span>
        <NumberField
          v-for="(channel, index) in CHANNEL_NAMES"
          :key="channel"
          compact
          :spec="parameter"
          :label="`${parameter.label} ${channel}`"
          :model-value="(editor.value(parameter.name) as number[])[index] ?? parameter.neutral"
          @update:model-value="editor.setAt(parameter.name, index, $event)"
          @begin="editor.begin"
          @end="editor.end"
        />
      </template>
    </div>
  </div>
</template>
