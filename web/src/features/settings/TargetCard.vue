<script setup lang="ts">
import type { Target } from '@/api/project'
import { computed, onMounted } from 'vue'
import { useLuts } from '../grade/useLuts'
import ChoiceList, { type ChoiceGroup } from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'

const props = defineProps<{ target: Target; leading: boolean; alone: boolean }>()
const emit = defineEmits<{ change: [target: Target]; lead: []; drop: [] }>()
const catalogue = useCatalogue()
const luts = useLuts()
onMounted(() => void luts.load())

const LUT = 'lut:'
const set = (change: Partial<Target>) => emit('change', { ...props.target, ...change })

const encodings = computed(() => catalogue.encodingGroups.map((group) => ({ ...group, options: group.options.filter((one) => catalogue.kindOf(one.id) === 'display') })).filter((group) => group.options.length))
const renderings = computed<ChoiceGroup[]>(() => [
  { name: '', options: [{ id: '', label: 'none: light as it is' }] },
  { name: 'renderings', options: (catalogue.catalogue?.renderings ?? []).map(({ id, label, source }) => ({ id, label, about: source })) },
  { name: 'a LUT of the library', options: luts.paths.map((path) => ({ id: LUT + path, label: path })) },
])
const way = computed(() => (props.target.lut ? LUT + props.target.lut : (props.target.rendering ?? '')))
const wayLabel = computed(() => props.target.lut ?? catalogue.catalogue?.renderings.find((one) => one.id === props.target.rendering)?.label ?? 'none: light as it is')
const limits = computed(() => [{ name: '', options: [{ id: '', label: "the encoding's own" }, ...(catalogue.catalogue?.limits ?? [])] }])
const limitLabel = computed(() => catalogue.catalogue?.limits.find((one) => one.id === props.target.limit)?.label ?? "the encoding's own")

function through(id: string | null) {
  if (id?.startsWith(LUT)) set({ lut: id.slice(LUT.length), rendering: null })
  else set({ lut: null, expects: null, strength: null, rendering: id || null })
}
const light = (name: 'peak' | 'black', typed: string) => props.target.rendition && set({ rendition: { ...props.target.rendition, [name]: Number(typed) } })
function strength(typed: string) {
  const share = Math.min(100, Math.max(0, Number(typed) || 0)) / 100
  set({ strength: share < 1 ? share : null })
}
</script>

<template>
  <section class="mt-3 border px-3 py-2.5" :class="leading ? 'border-weld/60' : 'border-line'" :aria-label="target.name">
    <header class="flex items-center gap-2">
      <input class="field min-w-0 flex-1" :value="target.name" aria-label="name of the target" maxlength="60" @change="set({ name: ($event.target as HTMLInputElement).value })" />
      <span v-if="leading" class="text-2xs text-weld">leads</span>
      <span v-else-if="target.rendition" class="text-2xs text-dim" title="made of what the HDR target shows; corrected in the Renditions room">rendition</span>
      <button v-else class="text-2xs text-dim hover:text-ink" @click="emit('lead')">let it lead</button>
      <button v-if="!alone" class="text-2xs text-dim hover:text-madder" @click="emit('drop')">remove</button>
    </header>
    <dl class="mt-2 grid grid-cols-[64px_minmax(0,1fr)] items-center gap-x-2 gap-y-1 text-sm">
      <dt class="text-2xs text-dim">encoding</dt>
      <dd>
        <ChoiceList :groups="encodings" :model-value="target.encoding" label="encoding of the target" @update:model-value="set({ encoding: $event ?? target.encoding })">{{ catalogue.encodingLabel(target.encoding) }}</ChoiceList>
      </dd>
      <template v-if="target.rendition">
        <dt class="text-2xs text-dim">light</dt>
        <dd class="flex items-center gap-1.5 text-2xs text-dim">
          <input class="field w-14 py-0.5" inputmode="decimal" aria-label="peak, cd/m2" :value="target.rendition.peak" @keydown.stop @change="light('peak', ($event.target as HTMLInputElement).value)" /> peak
          <input class="field w-14 py-0.5" inputmode="decimal" aria-label="black, cd/m2" :value="target.rendition.black" @keydown.stop @change="light('black', ($event.target as HTMLInputElement).value)" /> black, cd/m²
        </dd>
      </template>
      <dt v-if="!target.rendition" class="text-2xs text-dim">rendered by</dt>
      <dd v-if="!target.rendition">
        <ChoiceList :groups="renderings" :model-value="way" label="rendering of the target" @update:model-value="through($event)">{{ wayLabel }}</ChoiceList>
      </dd>
      <template v-if="target.lut">
        <dt class="text-2xs text-dim">it expects</dt>
        <dd>
          <ChoiceList
            :groups="[{ name: '', options: [{ id: '', label: 'the working space' }] }, ...catalogue.encodingGroups]"
            :model-value="target.expects ?? ''"
            label="encoding the LUT expects"
            @update:model-value="set({ expects: $event || null })"
            >{{ target.expects ? catalogue.encodingLabel(target.expects) : 'the working space' }}</ChoiceList
          >
        </dd>
      </template>
      <template v-if="target.lut">
        <dt class="text-2xs text-dim">strength</dt>
        <dd class="flex items-center gap-1.5">
          <input
            type="number"
            min="0"
            max="100"
            step="5"
            class="field w-16 py-0.5"
            aria-label="strength of the LUT, per cent"
            title="the rest is rendered by SDR video"
            :value="Math.round((target.strength ?? 1) * 100)"
            @keydown.stop
            @change="strength(($event.target as HTMLInputElement).value)"
          />%
        </dd>
      </template>
      <dt class="text-2xs text-dim">held to</dt>
      <dd>
        <ChoiceList :groups="limits" :model-value="target.limit ?? ''" label="gamut the target is held to" @update:model-value="set({ limit: $event || null })">{{ limitLabel }}</ChoiceList>
      </dd>
    </dl>
  </section>
</template>
