<script setup lang="ts">
import type { Difference } from '@/api/list'
import { computed, ref } from 'vue'
import { useCut } from '../cut/useCut'

/** What a list would change, shot by shot, in its order. */
const props = defineProps<{ differences: Difference[] }>()
const cut = useCut()
const all = ref(false)

const KINDS: { id: Difference['kind']; label: string; look: string }[] = [
  { id: 'new', label: 'new', look: 'text-leaf' },
  { id: 'trimmed', label: 'changed', look: 'text-weld' },
  { id: 'moved', label: 'moved', look: 'text-woad' },
  { id: 'gone', label: 'gone', look: 'text-madder' },
  { id: 'kept', label: 'unchanged', look: 'text-dim' },
]
const kinds = computed(() => KINDS.map((kind) => ({ ...kind, count: props.differences.filter((one) => one.kind === kind.id).length })).filter(({ count }) => count > 0))
const shown = computed(() => (all.value ? props.differences : props.differences.filter((one) => one.kind !== 'kept')))
const look = (one: Difference) => KINDS.find((kind) => kind.id === one.kind)?.look ?? ''
const place = (one: Difference) => (one.record && one.was_at && one.record !== one.was_at ? `${one.was_at} → ${one.record}` : (one.record ?? one.was_at ?? ''))
function go(one: Difference) {
  const shot = cut.shots.find((other) => other.id === one.shot)
  if (shot) cut.go(shot.record_in)
}
</script>

<template>
  <section class="space-y-2" aria-label="differences">
    <p class="flex flex-wrap gap-x-3 text-dim" data-test="counts">
      <span v-for="kind in kinds" :key="kind.id"
        ><b class="font-medium" :class="kind.look">{{ kind.count }}</b> {{ kind.label }}</span
      >
    </p>
    <p v-if="shown.length === 0" class="text-dim">The list says what the cut is already.</p>
    <ul class="divide-y divide-line">
      <li v-for="(one, index) in shown" :key="index" class="cursor-default py-1 hover:bg-raise" :data-difference="one.kind" @click="go(one)">
        <p class="flex gap-2">
          <b class="min-w-0 truncate font-medium text-ink">{{ one.name }}</b><span v-if="one.graded" class="text-faint" title="has steps; they go along">graded</span><span class="flex-1" /><span
            class="text-2xs whitespace-nowrap text-faint"
            >{{ place(one) }}</span
          >
        </p>
        <p :class="look(one)">{{ one.words }}</p>
      </li>
    </ul>
    <label class="flex items-center gap-2 text-dim"><input v-model="all" type="checkbox" class="accent-weld" />unchanged ones too</label>
  </section>
</template>
