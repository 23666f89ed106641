<script setup lang="ts">
import type { Clip } from '@/api/media'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed, ref } from 'vue'
import OptionRow from '../shell/OptionRow.vue'

/** What else is said of the clips that are picked. */
const props = defineProps<{ clips: Clip[] }>()
const emit = defineEmits<{ set: [change: Record<string, unknown>]; remove: [] }>()
const rate = ref('')
const sure = ref(false)

/** What all of them have; null where they differ. */
const common = <T,>(of: (clip: Clip) => T): T | null => {
  const values = new Set(props.clips.map(of))
  return values.size === 1 ? ([...values][0] as T) : null
}
const runs = computed(() => props.clips.length > 0 && props.clips.every((clip) => clip.run))
const shapes = computed(() => props.clips.some((clip) => clip.other_shape))
const others = computed(() => props.clips.some((clip) => clip.other_rate && !clip.variable))
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="control disabled:text-faint" :disabled="clips.length === 0" @click="sure = false">{{ clips.length ? `${clips.length} picked…` : 'picked…' }}</PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 z-30 mt-1 w-80 space-y-3 border border-line bg-raise p-3 shadow-lg shadow-black/50 outline-none">
      <div>
        <p class="caption mb-1">range of their codes</p>
        <OptionRow
          label="range of the codes"
          :options="[
            { id: 'legal', label: 'legal' },
            { id: 'full', label: 'full' },
          ]"
          :model-value="common((clip) => clip.range) ?? ''"
          @update:model-value="emit('set', { range: $event })"
        />
      </div>
      <div v-if="others">
        <p class="caption mb-1">their rate is not the project's; they are taken</p>
        <OptionRow
          label="how another rate is taken"
          :options="[
            { id: 'frames', label: 'frame for frame' },
            { id: 'time', label: 'by time' },
          ]"
          :model-value="common((clip) => clip.pace) ?? ''"
          @update:model-value="emit('set', { pace: $event })"
        />
      </div>
      <div v-if="shapes">
        <p class="caption mb-1">their shape is not the project's; they are</p>
        <OptionRow
          label="how another shape is shown"
          :options="[
            { id: 'inside', label: 'whole, with bars' },
            { id: 'fill', label: 'filled' },
            { id: 'stretch', label: 'stretched' },
          ]"
          :model-value="common((clip) => clip.fit) ?? ''"
          @update:model-value="emit('set', { fit: $event })"
        />
      </div>
      <form v-if="runs" class="flex items-end gap-2" @submit.prevent="emit('set', { rate })">
        <label class="caption flex-1">rate of the run, frames a second<input v-model="rate" class="field mt-1 w-full select-text" :placeholder="common((clip) => clip.rate) ?? ''" aria-label="rate of the run" @keydown.stop /></label
        ><button class="control" :disabled="!rate.trim()">set</button>
      </form>
      <div>
        <p class="caption mb-1" title="a small copy for playing; what stands still and what is delivered comes from the original">working copy</p>
        <OptionRow
          label="working copy"
          :options="[
            { id: 'auto', label: 'where needed' },
            { id: 'always', label: 'always' },
            { id: 'never', label: 'never' },
          ]"
          :model-value="common((clip) => clip.copy.wanted) ?? ''"
          @update:model-value="emit('set', { copying: $event })"
        />
      </div>
      <p class="border-t border-line pt-2.5 text-xs">
        <button v-if="!sure" class="text-dim hover:text-madder" @click="sure = true">take {{ clips.length === 1 ? 'it' : 'them' }} out of the project…</button>
        <span v-else class="flex items-center gap-2"><span class="flex-1 text-dim">The files stay where they are.</span><button class="control border-madder" @click="emit('remove')">take out</button></span>
      </p>
    </PopoverPanel>
  </Popover>
</template>
