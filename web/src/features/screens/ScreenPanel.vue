<script setup lang="ts">
import type { ScreenSettings } from '@/api/screen'
import { computed, ref } from 'vue'
import ChoiceList from '../shell/ChoiceList.vue'
import OptionRow from '../shell/OptionRow.vue'
import { useNotices } from '../shell/useNotices'
import SessionList from './SessionList.vue'
import { useScreens } from './useScreens'

/** The chosen screen: where it is, what it ought to show, and its sessions. */
const screens = useScreens()
const notices = useNotices()
const tried = (act: Promise<unknown>) => void act.catch((error: unknown) => notices.trouble(error))
const screen = computed(() => screens.chosen)
const KINDS = [
  { id: 'control', label: 'control' },
  { id: 'reference', label: 'reference' },
]
const WHITES = [
  { id: 'd65', label: 'D65' },
  { id: 'seen', label: 'as seen', about: 'the white of a patch that is matched by eye; the probe reads it' },
]
const set = (change: Partial<ScreenSettings>) => tried(screens.change({ settings: change }))
const answering = (device: 'screen' | 'probe') => screens.devices.filter((one) => one.device === device).map((one) => ({ id: one.address, label: `${one.name}, ${one.address}` }))
const CHANNELS = ['red', 'green', 'blue']
const seen = (channel: number, value: string) => tried(screens.change({ settings: (now) => ({ seen: now.seen.map((one, at) => (at === channel ? Number(value) / 100 : one)) as [number, number, number] }) }))
const asking = ref(false)
</script>

<template>
  <aside v-if="screen && screens.list" class="flex min-h-0 flex-col border-l border-line bg-pane" aria-label="screen">
    <div class="space-y-2.5 px-3 py-3 text-xs">
      <input
        class="w-full border-b border-transparent bg-transparent text-base font-semibold hover:border-line focus:border-weld focus:outline-none"
        :value="screen.name"
        aria-label="name of the screen"
        maxlength="80"
        @change="tried(screens.change({ name: ($event.target as HTMLInputElement).value }))"
      />
      <OptionRow label="kind of screen" :options="KINDS" :model-value="screen.kind" @update:model-value="tried(screens.change({ kind: $event }))" />
      <div v-for="device in ['screen', 'probe'] as const" :key="device" class="flex items-center gap-2">
        <span class="w-12 text-dim">{{ device }}</span>
        <input
          class="min-w-0 flex-1 border-b border-line bg-transparent py-0.5 focus:border-weld focus:outline-none"
          :value="screen[device]"
          :aria-label="`address of the ${device}`"
          placeholder="127.0.0.1:7311"
          @change="tried(screens.change({ [device]: ($event.target as HTMLInputElement).value }))"
        />
        <ChoiceList
          :label="`${device}s that answer`"
          look="flat"
          :groups="[{ name: '', options: answering(device) }]"
          :model-value="screen[device]"
          @click="tried(screens.find())"
          @update:model-value="$event && tried(screens.change({ [device]: $event }))"
          >find</ChoiceList
        >
      </div>
    </div>
    <div class="space-y-2.5 border-t border-line px-3 py-3 text-xs">
      <ChoiceList label="target of the screen" look="control" :groups="[{ name: '', options: screens.list.targets }]" :model-value="screen.settings.target" @update:model-value="$event && set({ target: $event })">{{
        screens.list.targets.find((one) => one.id === screen?.settings.target)?.label
      }}</ChoiceList>
      <div class="flex items-center gap-2">
        <span class="w-12 text-dim">white</span><OptionRow class="flex-1" label="white" :options="WHITES" :model-value="screen.settings.white" @update:model-value="set({ white: $event as 'd65' | 'seen' })" />
      </div>
      <div v-if="screen.settings.white === 'seen'" class="flex gap-2 text-2xs text-dim">
        <label v-for="(name, channel) in CHANNELS" :key="name" class="flex flex-1 flex-col"
          >{{ name }} %<input
            class="field w-full py-0.5"
            type="number"
            min="50"
            max="100"
            step="0.5"
            :aria-label="`${name} of the white`"
            :value="Math.round((screen.settings.seen[channel] ?? 1) * 1000) / 10"
            @change="seen(channel, ($event.target as HTMLInputElement).value)"
        /></label>
      </div>
      <div class="flex items-center gap-2">
        <span class="w-12 text-dim">signal</span
        ><OptionRow class="flex-1" label="range" :options="screens.list.ranges.map((id) => ({ id, label: `${id} range` }))" :model-value="screen.settings.range" @update:model-value="set({ range: $event })" />
      </div>
      <div class="flex items-center gap-2">
        <span class="w-12 text-dim">nodes</span
        ><OptionRow class="flex-1" label="nodes" :options="screens.list.sizes.map((size) => ({ id: String(size), label: String(size) }))" :model-value="String(screen.settings.size)" @update:model-value="set({ size: Number($event) })" />
      </div>
      <label class="flex items-center gap-1.5 text-dim"
        >verify again after
        <input
          class="field w-14 py-0.5 text-right"
          type="number"
          min="1"
          max="3650"
          :value="screen.days"
          aria-label="days until it is verified again"
          @change="tried(screens.change({ days: Number(($event.target as HTMLInputElement).value) }))"
        />
        days</label
      >
      <p class="flex gap-2 pt-1">
        <button class="control-main flex-1" :disabled="!!screens.live || !screen.screen || !screen.probe" @click="tried(screens.begin(false))">Measure and correct</button>
        <button class="control" :disabled="!!screens.live || !screen.loaded" title="the same patches through what is loaded" @click="tried(screens.begin(true))">Verify</button>
      </p>
    </div>
    <SessionList />
    <p class="border-t border-line px-3 py-2 text-right text-2xs text-dim">
      <template v-if="asking">its sessions go too. <button class="text-madder" @click="(tried(screens.drop()), (asking = false))">delete it</button> · <button class="hover:text-ink" @click="asking = false">keep it</button></template>
      <button v-else class="hover:text-ink" @click="asking = true">delete this screen…</button>
    </p>
  </aside>
</template>
