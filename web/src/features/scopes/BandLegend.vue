<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import type { BandSet } from '@/api/catalogue'
import { computed, nextTick, ref } from 'vue'
import { fineness, followDrag } from '../grade/useDrag'
import ChoiceList from '../shell/ChoiceList.vue'
import OptionRow from '../shell/OptionRow.vue'
import { useCatalogue } from '../shell/useCatalogue'
import { bandWords, equal, limitMoved, limitTyped, parted, placeOf, rangeOf, without } from './bandEdit'
import { useBands } from './useBands'
import { useScopes } from './useScopes'

/** The scale of the bands beside the picture: limits are dragged, a band is coloured, parted and taken away. */
const bands = useBands()
const scopes = useScopes()
const catalogue = useCatalogue()
const bar = ref<HTMLElement>()
const chosen = ref<number | null>(null)
const file = ref<HTMLInputElement>()
const name = ref('')

const set = computed(() => bands.shown)
const range = computed<[number, number, boolean]>(() => (set.value && bands.quantity ? rangeOf(set.value, bands.quantity) : [0, 1, false]))
const at = (value: number) => `${placeOf(value, range.value) * 100}%`
/** Display luma is told in the unit of the waveform. */
function words(value: number) {
  if (!set.value || !bands.quantity) return ''
  return set.value.quantity === 'luma' && set.value.scale === 'absolute' ? scopes.words(value) : bandWords(value, set.value, bands.quantity)
}
const groups = computed(() =>
  [
    { name: 'ours', options: bands.sets.filter((one) => !one.own).map((one) => ({ id: one.name, label: one.name })) },
    { name: 'your own', options: bands.sets.filter((one) => one.own).map((one) => ({ id: one.name, label: one.name })) },
  ].filter((group) => group.options.length > 0),
)
const quantities = computed(() => [{ name: '', options: (catalogue.catalogue?.quantities ?? []).map(({ id, label }) => ({ id, label })) }])

function move(index: number, end: 'from' | 'to', by: number) {
  if (!set.value) return
  const band = set.value.bands[index]
  if (band) bands.set({ bands: limitMoved(set.value.bands, index, end, placeOf(band[end], range.value) + by, range.value) })
}
const press = (event: PointerEvent, index: number, end: 'from' | 'to') => followDrag(event, { move: (_, dy) => move(index, end, -dy / (bar.value?.clientHeight ?? 1)) })

function key(event: KeyboardEvent, index: number, end: 'from' | 'to') {
  const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key]
  if (!way) return
  move(index, end, way * 0.004 * fineness(event))
  event.preventDefault()
  event.stopPropagation()
}
/** A limit that is being typed. */
const typing = ref<string | null>(null)
const typed = ref<HTMLInputElement[]>()
/** Display luma is typed in the unit of the waveform, all else in its own. */
const inUnit = computed(() => set.value?.quantity === 'luma' && set.value.scale === 'absolute')
const typeable = (value: number) => (inUnit.value ? words(value).replace(/[^\d.−-]/g, '') : String(Number(value.toPrecision(4))))
type Limit = { index: number; end: 'from' | 'to'; value: number }
async function open(limit: Limit) {
  typing.value = `${limit.index}${limit.end}`
  await nextTick()
  typed.value?.[0]?.select()
}
function type(limit: Limit, text: string) {
  if (set.value) bands.set({ bands: limitTyped(set.value.bands, limit.index, limit.end, inUnit.value ? String(scopes.placeOf(text) ?? '') : text, range.value) })
  typing.value = null
}
/** Changes the chosen band alone. */
const band = (change: Partial<BandSet['bands'][number]>) => set.value && bands.set({ bands: set.value.bands.map((one, place) => (place === chosen.value ? { ...one, ...change } : one)) })
const meets = computed(() => set.value?.bands[chosen.value ?? -1]?.join ?? set.value?.join)
const colour = (index: number, value: string) => set.value && bands.set({ bands: set.value.bands.map((one, place) => (place === index ? { ...one, colour: value } : one)) })
const limits = computed(() => {
  const list = set.value?.bands ?? []
  return list.flatMap((band, index) => {
    const touched = index > 0 && Math.abs((list[index - 1]?.to ?? NaN) - band.from) < 1e-9
    return [...(touched ? [] : [{ index, end: 'from' as const, value: band.from }]), { index, end: 'to' as const, value: band.to }]
  })
})
const address = computed(() => `data:application/json,${encodeURIComponent(JSON.stringify(bands.wish, null, 2))}`)
async function bring() {
  const text = await file.value?.files?.[0]?.text()
  if (text) await bands.bring(text)
  if (file.value) file.value.value = ''
}
</script>

<template>
  <div
    v-if="set && bands.quantity"
    class="absolute top-10 bottom-4 left-4 z-[5] flex w-52 flex-col text-2xs"
    :class="bands.small ? 'pointer-events-none' : ''"
    role="group"
    aria-label="colour bands"
    @pointerdown.stop
    @dblclick.stop
    @wheel.stop
  >
    <div class="pointer-events-auto mb-1 flex items-baseline gap-2 bg-ground/75 px-1">
      <Popover class="relative min-w-0">
        <PopoverButton class="block max-w-24 truncate text-ink" title="sets, quantity and how they are painted">{{ set.name }}</PopoverButton>
        <PopoverPanel v-inside class="absolute left-0 z-30 mt-1 w-72 space-y-2.5 border border-line bg-raise p-3 text-ink shadow-lg shadow-black/50 outline-none">
          <ChoiceList label="set of bands" :groups="groups" :model-value="set.name" @update:model-value="$event && bands.choose($event)">{{ set.name }}</ChoiceList>
          <ChoiceList label="quantity" :groups="quantities" :model-value="set.quantity" @update:model-value="$event && bands.measure($event)">{{ bands.quantity.label }}</ChoiceList>
          <OptionRow
            label="scale of the bands"
            :options="[
              { id: 'absolute', label: 'absolute' },
              { id: 'relative', label: 'of the picture' },
            ]"
            :model-value="set.scale"
            @update:model-value="bands.set({ scale: $event as 'absolute' | 'relative' })"
          />
          <OptionRow
            label="how bands meet"
            :options="[
              { id: 'hard', label: 'hard' },
              { id: 'blended', label: 'blended' },
            ]"
            :model-value="set.join"
            @update:model-value="bands.set({ join: $event as 'hard' | 'blended' })"
          />
          <OptionRow
            label="the rest of the picture"
            :options="[
              { id: 'grey', label: 'rest in grey' },
              { id: 'picture', label: 'rest as it is' },
            ]"
            :model-value="set.rest"
            @update:model-value="bands.set({ rest: $event as 'grey' | 'picture' })"
          />
          <label v-for="one in ['opacity', 'softness'] as const" :key="one" class="block"
            ><span class="caption flex justify-between"
              >{{ one }} <span>{{ Math.round(set[one] * 100) }} %</span></span
            ><input type="range" min="0" max="1" step="0.01" class="w-full accent-weld" :aria-label="one" :value="set[one]" @input="bands.set({ [one]: Number(($event.target as HTMLInputElement).value) })"
          /></label>
          <p class="flex gap-1">
            <button v-for="count in [5, 10]" :key="count" class="control flex-1 px-1 py-0" @click="bands.set({ bands: equal(count, range) })">{{ count }} equal</button>
          </p>
          <form class="flex gap-1 border-t border-line pt-2.5" @submit.prevent="bands.keep(name || set.name)">
            <input v-model="name" class="field min-w-0 flex-1 py-0.5 text-xs select-text" placeholder="save as…" aria-label="name of the set" maxlength="60" @keydown.stop /><button class="control py-0">save</button>
          </form>
          <p class="flex gap-3 text-xs text-dim">
            <a class="hover:text-ink" :href="address" :download="`${set.name}.json`">export</a><button class="hover:text-ink" @click="file?.click()">import…</button>
            <button v-if="bands.sets.some((one) => one.own && one.name === set?.name)" class="hover:text-ink" @click="bands.drop(set.name)">delete</button>
          </p>
          <input ref="file" type="file" accept=".json" class="hidden" aria-label="file of bands" @change="bring" />
        </PopoverPanel>
      </Popover>
      <span class="truncate text-faint">{{ scopes.tapLabel }}</span>
      <button class="text-dim hover:text-ink" :aria-expanded="!bands.small" @click="bands.small = !bands.small">{{ bands.small ? 'scale' : 'shrink' }}</button>
      <button class="text-dim hover:text-ink" @click="bands.flip()">off</button>
    </div>
    <div v-if="!bands.small" ref="bar" class="relative mt-1.5 mb-1 min-h-0 w-4 flex-1 bg-ground/75">
      <button
        v-for="(one, index) in set.bands"
        :key="index"
        class="absolute inset-x-0"
        :class="chosen === index ? 'outline outline-ink' : ''"
        :style="{ bottom: at(one.from), height: `calc(${at(one.to)} - ${at(one.from)})`, background: one.colour }"
        :aria-label="`band ${index + 1}: ${words(one.from)} to ${words(one.to)}`"
        @click="chosen = chosen === index ? null : index"
      />
      <div
        v-for="limit in limits"
        :key="`${limit.index}${limit.end}`"
        class="absolute left-0 h-0 w-24 cursor-ns-resize touch-none outline-none"
        :style="{ bottom: at(limit.value) }"
        role="slider"
        tabindex="0"
        :aria-label="`limit ${words(limit.value)}`"
        :aria-valuenow="limit.value"
        :aria-valuetext="words(limit.value)"
        @pointerdown="press($event, limit.index, limit.end)"
        @keydown="key($event, limit.index, limit.end)"
        @keydown.enter.self="open(limit)"
      >
        <i class="absolute -top-1.5 left-0 h-3 w-full" /><i class="absolute left-0 w-5 border-t border-ink" /><input
          v-if="typing === `${limit.index}${limit.end}`"
          ref="typed"
          class="field absolute left-6 w-20 -translate-y-1/2 px-1 py-0 text-2xs select-text"
          :value="typeable(limit.value)"
          :aria-label="`limit ${words(limit.value)}, typed`"
          @keydown.stop
          @keydown.enter="type(limit, ($event.target as HTMLInputElement).value)"
          @keydown.esc="typing = null"
          @blur="typing = null"
        /><button v-else class="absolute left-6 -translate-y-1/2 bg-ground/70 px-0.5 whitespace-nowrap text-ink" tabindex="-1" title="click to type it" @pointerdown.stop @click="open(limit)">{{ words(limit.value) }}</button>
      </div>
      <div v-if="chosen !== null && set.bands[chosen]" class="absolute top-0 left-28 flex flex-col gap-1 border border-line bg-raise p-2">
        <input type="color" class="h-6 w-12" :value="set.bands[chosen]?.colour" :aria-label="`colour of band ${chosen + 1}`" @input="colour(chosen, ($event.target as HTMLInputElement).value)" />
        <label class="flex items-center gap-1 text-dim"
          >opacity<input
            type="number"
            min="0"
            max="100"
            step="5"
            class="field w-14 px-1 py-0 text-2xs"
            :value="Math.round((set.bands[chosen]?.opacity ?? set.opacity) * 100)"
            :aria-label="`opacity of band ${chosen + 1}, per cent`"
            @keydown.stop
            @change="band({ opacity: Math.min(100, Math.max(0, Number(($event.target as HTMLInputElement).value))) / 100 })"
          />%</label
        >
        <button v-if="set.bands[chosen + 1]" class="control px-1 py-0" :title="`how it meets the band above it; the set's own is ${set.join}`" @click="band({ join: meets === 'hard' ? 'blended' : 'hard' })">{{ meets }} above</button>
        <button class="control px-1 py-0" @click="bands.set({ bands: parted(set.bands, chosen, range) })">part</button>
        <button class="control px-1 py-0" @click="(bands.set({ bands: without(set.bands, chosen) }), (chosen = null))">remove</button>
      </div>
    </div>
  </div>
</template>
