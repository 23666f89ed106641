<script setup lang="ts">
import type { OutputSheet } from '@/api/delivery'
import type { Project } from '@/api/project'
import { computed, ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useCircuit } from '../grade/useCircuit'
import ChoiceList from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'
import BurnEditor from './BurnEditor.vue'
import { MASTERS } from './useSheets'

/** One output of an order that is being made. */
const props = defineProps<{ sheet: OutputSheet; project: Project; cut: string; statement: string; warnings: string[]; refusal?: string | null; from: string; alone: boolean }>()
const emit = defineEmits<{ change: [change: Partial<OutputSheet>]; remove: [] }>()
const catalogue = useCatalogue()
const circuit = useCircuit()
const made = useCut()
const cleaned = computed(() => circuit.used('noise', made.recipes))
const open = ref(false)
const drawing = ref(false)

const format = computed(() => catalogue.catalogue?.formats.find((one) => one.id === props.sheet.format))
const formats = computed(() => [true, false].map((sequence) => ({ name: sequence ? 'numbered files' : 'one file', options: (catalogue.catalogue?.formats ?? []).filter((one) => one.sequence === sequence) })))
const targets = computed(() => [
  { name: 'targets of the project', options: props.project.targets.map(({ id, name, label }) => ({ id, label: name, about: label })) },
  { name: 'light of the scene', options: MASTERS },
])
const target = computed(() => targets.value.flatMap((group) => group.options).find((one) => one.id === props.sheet.target)?.label ?? catalogue.encodingLabel(props.sheet.view?.encoding ?? null))
const number = (event: Event) => {
  const value = Number((event.target as HTMLInputElement).value)
  return Number.isFinite(value) && value > 0 ? value : undefined
}
const SAFE = [0.93, 0.9, 0.8]
const per = (share: number) => `${Math.round(share * 100)} %`
</script>

<template>
  <section class="border border-line bg-raise px-3 py-2" :aria-label="`output ${format?.label}`">
    <div class="flex items-baseline gap-1">
      <ChoiceList label="format" look="flat" :groups="formats" :model-value="sheet.format" @update:model-value="$event && emit('change', { format: $event, options: undefined, range: undefined })"
        ><b class="font-medium">{{ format?.label }}</b></ChoiceList
      >
      <span class="text-xs text-dim">for</span>
      <ChoiceList label="target" look="flat" :groups="targets" :model-value="sheet.target ?? ''" @update:model-value="$event && emit('change', { view: undefined, target: $event })">{{ target }}</ChoiceList>
      <span class="flex-1" />
      <button type="button" class="text-2xs text-dim hover:text-ink" :aria-expanded="open" @click="open = !open">{{ open ? 'less' : 'more' }}</button>
      <button v-if="!alone" type="button" class="pl-2 text-2xs text-dim hover:text-madder" aria-label="take this output out" @click="emit('remove')">remove</button>
    </div>
    <!-- as high whatever it says, so that nothing below moves away from the hand when it arrives -->
    <div class="min-h-[3lh] px-2 text-2xs">
      <p v-if="refusal" class="text-madder select-text" role="alert" data-test="refusal">{{ refusal }}</p>
      <p v-else class="text-dim" data-test="statement">
        <span class="text-faint">from {{ from }} to</span> {{ statement }}
      </p>
    </div>
    <p v-for="warning in warnings" :key="warning" class="px-2 pt-0.5 text-2xs text-weld">{{ warning }}</p>
    <div v-if="open" class="mt-2 space-y-2 border-t border-line px-2 pt-2 text-xs text-dim">
      <p class="flex items-center gap-1.5">
        raster
        <input class="field w-16 py-0 text-xs select-text" :value="sheet.width ?? project.width" inputmode="numeric" aria-label="width" @change="emit('change', { width: number($event) })" /> ×
        <input class="field w-16 py-0 text-xs select-text" :value="sheet.height ?? project.height" inputmode="numeric" aria-label="height" @change="emit('change', { height: number($event) })" />
        <ChoiceList label="fit" look="flat" :groups="[{ name: '', options: catalogue.catalogue?.fits ?? [] }]" :model-value="sheet.fit ?? 'bars'" @update:model-value="$event && emit('change', { fit: $event })">{{
          sheet.fit === 'crop' ? 'filled, cut off' : 'whole, with bars'
        }}</ChoiceList>
      </p>
      <p class="flex items-center gap-1.5">
        mask
        <input
          class="field w-16 py-0 text-xs select-text"
          :value="sheet.mask ?? ''"
          placeholder="none"
          inputmode="decimal"
          aria-label="aspect mask"
          title="width over height that is shown, such as 2.39"
          @change="emit('change', { mask: number($event) ?? null })"
        />
        <template v-if="format && format.ranges.length > 1">
          range
          <button v-for="range in format.ranges" :key="range" type="button" class="control px-1.5 py-0" :class="{ 'border-weld/70 bg-weld/15': (sheet.range ?? format.ranges[0]) === range }" @click="emit('change', { range })">
            {{ range }}
          </button>
        </template>
        <template v-for="(values, name) in format?.options" :key="name">
          {{ name }}
          <button
            v-for="value in values"
            :key="value"
            type="button"
            class="control px-1.5 py-0"
            :class="{ 'border-weld/70 bg-weld/15': (sheet.options?.[name] ?? values[0]) === value }"
            @click="emit('change', { options: { ...sheet.options, [name]: value } })"
          >
            {{ value }}
          </button>
        </template>
      </p>
      <p class="flex flex-wrap items-center gap-x-1.5 gap-y-1">
        <label class="flex items-center gap-1"><input type="checkbox" class="accent-weld" :checked="sheet.graded !== false" @change="emit('change', { graded: ($event.target as HTMLInputElement).checked })" />graded</label>
        <label v-if="sheet.graded !== false" class="flex items-center gap-1" title="how much of the washes goes in"
          >look <input type="range" min="0" max="1" step="0.05" class="w-20 accent-weld" aria-label="strength of the look" :value="sheet.look ?? 1" @input="emit('change', { look: Number(($event.target as HTMLInputElement).value) })" />{{
            per(sheet.look ?? 1)
          }}</label
        >
        <label v-if="sheet.graded !== false && (cleaned || sheet.noise === false)" class="flex items-center gap-1" title="Noise steps are left out of this output; its report says so"
          ><input type="checkbox" class="accent-weld" :checked="sheet.noise === false" @change="emit('change', { noise: ($event.target as HTMLInputElement).checked ? false : undefined })" />noise left in</label
        >
        <span v-if="format?.sequence" class="flex items-center gap-1" role="radiogroup" aria-label="numbers of the files"
          >numbered
          <button
            v-for="one in [
              { id: undefined, label: 'as it fits', about: 'as the source where that is a run of frames, else by timecode' },
              { id: 'source', label: 'as source', about: 'the numbers of the source\'s own files' },
              { id: 'timecode', label: 'by timecode', about: 'frames since midnight' },
            ]"
            :key="one.label"
            type="button"
            role="radio"
            class="control px-1.5 py-0"
            :class="{ 'border-weld/70 bg-weld/15': sheet.numbers === one.id }"
            :aria-checked="sheet.numbers === one.id"
            :title="one.about"
            @click="emit('change', { numbers: one.id as 'source' | 'timecode' | undefined })"
          >
            {{ one.label }}
          </button>
        </span>
        <label v-if="format?.bits" class="flex items-center gap-1"
          ><input type="checkbox" class="accent-weld" :checked="sheet.dither !== false" @change="emit('change', { dither: ($event.target as HTMLInputElement).checked })" />dithered</label
        >
      </p>
      <p class="flex items-center gap-2">
        safe areas
        <label v-for="share in SAFE" :key="share" class="flex items-center gap-1"
          ><input type="checkbox" class="accent-weld" :checked="sheet.safe?.includes(share)" @change="emit('change', { safe: sheet.safe?.includes(share) ? sheet.safe.filter((one) => one !== share) : [...(sheet.safe ?? []), share] })" />{{
            per(share)
          }}</label
        >
        <span class="flex-1" /><button type="button" class="control px-2 py-0" @click="drawing = true">burn-ins{{ sheet.burns?.length ? `, ${sheet.burns.length}` : '' }}…</button>
      </p>
      <input
        class="field w-full py-0.5 text-xs select-text"
        :value="sheet.name ?? ''"
        placeholder="name of its own"
        aria-label="name of this output"
        maxlength="300"
        @change="emit('change', { name: ($event.target as HTMLInputElement).value.trim() || undefined })"
      />
    </div>
    <BurnEditor v-if="drawing" :sheet="sheet" :cut="cut" :aspect="(sheet.width ?? project.width) / (sheet.height ?? project.height)" @change="emit('change', { burns: $event })" @close="drawing = false" />
  </section>
</template>
