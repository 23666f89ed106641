<script lang="ts">
export type BundleAct = 'copy' | 'all' | 'up' | 'down' | 'apart' | 'remove'
</script>

<script setup lang="ts">
import type { BundleDocument, StepDocument } from '@/api/recipe'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { STRENGTH } from './edit'
import NumberField from './NumberField.vue'
import { useNaming } from './useNaming'
import { useGesture } from './useStepEditor'

/** The line of a bundle: its switch, name and strength, and what is done to all its parts. */
const props = defineProps<{ bundle: BundleDocument; parts: StepDocument[]; folded: boolean; first: boolean; last: boolean }>()
const emit = defineEmits<{ change: [change: Partial<BundleDocument>, gesture?: string]; act: [what: BundleAct]; fold: [] }>()
const gesture = useGesture()
const on = computed(() => props.parts.filter(({ enabled }) => enabled).length)
const said = computed(() => (on.value === 0 ? 'all off' : on.value === props.parts.length ? `${on.value} parts` : `${on.value} of ${props.parts.length} on`))
const acts = computed<{ what: BundleAct | 'rename'; words: string; off?: boolean }[]>(() => [
  { what: 'rename', words: 'rename' },
  { what: 'copy', words: 'copy for other shots' },
  { what: 'up', words: 'move up', off: props.first },
  { what: 'down', words: 'move down', off: props.last },
  { what: 'apart', words: 'take apart' },
  { what: 'remove', words: 'remove with its parts' },
])

const field = ref<HTMLInputElement>()
const { naming, rename, named } = useNaming(
  field,
  () => props.bundle.name,
  (name) => emit('change', { name }),
)
</script>

<template>
  <section class="flex items-center gap-2.5 border-b border-line bg-ground/60 px-3 py-1.5" :aria-label="`bundle ${bundle.name}`">
    <button
      class="relative size-3 shrink-0 border"
      :class="bundle.enabled ? 'border-dim' : 'border-faint'"
      role="switch"
      :aria-checked="bundle.enabled"
      :aria-label="`bundle ${bundle.name} on`"
      @click="emit('change', { enabled: !bundle.enabled })"
    >
      <i v-if="bundle.enabled" class="absolute inset-0.5 bg-ink" />
    </button>
    <input
      v-if="naming"
      ref="field"
      class="field min-w-0 flex-1 py-0 text-sm select-text"
      :value="bundle.name"
      :aria-label="`name of bundle ${bundle.name}`"
      maxlength="80"
      @keydown.stop
      @keydown.enter="($event.target as HTMLInputElement).blur()"
      @keydown.esc="naming = false"
      @blur="named(($event.target as HTMLInputElement).value)"
    />
    <button
      v-else
      class="min-w-0 flex-1 truncate text-left text-sm"
      :class="bundle.enabled ? 'text-ink' : 'text-faint'"
      :aria-expanded="!folded"
      :title="folded ? 'show its parts' : 'put its parts out of sight'"
      @click="emit('fold')"
      @dblclick.stop="rename"
    >
      {{ bundle.name }} <span class="text-2xs text-dim">{{ said }}</span>
    </button>
    <span class="flex items-center gap-2 text-2xs whitespace-nowrap text-dim">
      <span class="w-12"
        ><NumberField compact :spec="STRENGTH" :label="`strength of bundle ${bundle.name}`" :model-value="bundle.strength" @update:model-value="emit('change', { strength: $event }, gesture.id())" @begin="gesture.begin" @end="gesture.end"
      /></span>
      <button class="hover:text-ink" :aria-label="`all parts of ${bundle.name} ${on ? 'off' : 'on'}`" @click="emit('act', 'all')">{{ on ? 'all off' : 'all on' }}</button>
      <button class="hover:text-ink" :aria-label="`${folded ? 'unfold' : 'fold'} ${bundle.name}`" @click="emit('fold')">{{ folded ? 'unfold' : 'fold' }}</button>
      <Menu as="div" class="relative">
        <MenuButton class="px-1 text-sm leading-none hover:text-ink" :aria-label="`more for bundle ${bundle.name}`">···</MenuButton>
        <MenuItems v-inside class="absolute right-0 z-20 mt-1 min-w-40 border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none">
          <MenuItem v-for="{ what, words, off } in acts" :key="what" v-slot="{ active }" :disabled="off">
            <button class="block w-full px-3 py-1 text-left text-sm disabled:text-faint" :class="{ 'bg-line': active, 'text-faint': off }" @click="what === 'rename' ? rename() : emit('act', what)">{{ words }}</button>
          </MenuItem>
        </MenuItems>
      </Menu>
    </span>
  </section>
</template>
