<script setup lang="ts">
import type { FullSession, JudgedPatch } from '@/api/screen'
import { computed } from 'vue'
import { colourOf } from './words'

/** dE of each patch: what it was as a line, what it is as a bar in the patch's own colour. */
const props = defineProps<{ session: FullSession | null }>()
const side = (name: 'before' | 'after') => props.session?.report[name]?.patches ?? []
const rows = computed(() => {
  const after = new Map(side('after').map((one) => [one.codes.join(), one]))
  const first = side('before').length ? side('before') : side('after')
  return first.map((one): { patch: JudgedPatch; before: number | null; after: number | null } => ({ patch: one, before: side('before').length ? one.de : null, after: after.get(one.codes.join())?.de ?? null }))
})
const most = computed(() => Math.max(2, Math.ceil(Math.max(0, ...rows.value.flatMap((one) => [one.before ?? 0, one.after ?? 0])))))
const share = (de: number | null) => `${((de ?? 0) / most.value) * 100}%`
const KINDS: Record<string, string> = { grey: 'greys', primary: 'R G B', secondary: 'C M Y', spread: 'spread over the gamut' }
const groups = computed(() => Object.entries(KINDS).map(([kind, label]) => ({ kind, label, rows: rows.value.filter((one) => one.patch.kind === kind) })))
const words = (one: (typeof rows.value)[number]) =>
  `${one.patch.codes.map((code) => Math.round(code * 100)).join(' ')} %: dE ${[one.before === null ? null : `${one.before.toFixed(2)} before`, one.after === null ? null : `${one.after.toFixed(2)} after`].filter(Boolean).join(', ')}`
</script>

<template>
  <figure class="flex min-h-0 min-w-0 flex-1 flex-col px-2 pt-1.5 pb-1" aria-label="error by patch">
    <figcaption class="mb-0.5 flex items-baseline gap-2 text-2xs whitespace-nowrap">
      <span class="font-medium text-dim">Error by patch</span><span class="text-faint">dE2000, up to {{ most }}; the line is before, the bar after</span>
    </figcaption>
    <div class="flex min-h-0 flex-1 gap-3 bg-[#131313] px-2 pt-2">
      <div v-for="group in groups" v-show="group.rows.length" :key="group.kind" class="flex min-w-0 flex-col" :style="{ flexGrow: group.rows.length, flexBasis: 0 }">
        <div class="flex min-h-0 flex-1 items-stretch gap-px border-b border-line">
          <div v-for="one in group.rows" :key="one.patch.codes.join()" class="relative min-w-0 flex-1" :title="words(one)" data-test="patch-error">
            <i v-if="one.after !== null" class="absolute inset-x-px bottom-0 block" :style="{ height: share(one.after), background: colourOf(one.patch.codes), outline: '1px solid #5c5c5c' }" />
            <i v-if="one.before !== null" class="absolute inset-x-0 block h-px bg-ink" :style="{ bottom: share(one.before) }" />
          </div>
        </div>
        <span class="truncate py-0.5 text-2xs text-faint">{{ group.label }}</span>
      </div>
      <p v-if="!rows.length" class="flex flex-1 items-center justify-center pb-4 text-dim">nothing has been measured yet</p>
    </div>
  </figure>
</template>
