<script setup lang="ts">
import type { Project } from '@/api/types'
import { computed, ref } from 'vue'
import ProgressBar from '../shell/ProgressBar.vue'
import { useNotices } from '../shell/useNotices'
import { usePackages } from './usePackages'

/** The grades of the cut as look-up tables and CDLs, packed by a worker into one file. */
const props = defineProps<{ cut: number; project: Project }>()
const LAYERS = ['ground', 'own', 'finish', 'washes']
const size = ref(33)
const layers = ref([...LAYERS])
const per = ref('shot')
const view = ref(false)
const packages = usePackages(
  computed(() => String(props.project.id)),
  computed(() => props.cut),
  useNotices().trouble,
)
const make = () => packages.make({ size: size.value, per: per.value, layers: layers.value, target: view.value ? props.project.targets[0]?.id : undefined })
const flip = (layer: string) => (layers.value = layers.value.includes(layer) ? layers.value.filter((one) => one !== layer) : LAYERS.filter((one) => one === layer || layers.value.includes(one)))
</script>

<template>
  <section class="space-y-1.5 text-xs text-dim" aria-label="looks">
    <h2 class="text-base font-semibold text-ink">Looks to take along</h2>
    <p class="flex items-center gap-1.5">
      tables of
      <button v-for="nodes in [17, 33, 65]" :key="nodes" type="button" class="control px-1.5 py-0" :class="{ 'border-weld/70 bg-weld/15': size === nodes }" :aria-pressed="size === nodes" @click="size = nodes">{{ nodes }}</button>
      nodes, one a
      <button v-for="of in ['shot', 'family']" :key="of" type="button" class="control px-1.5 py-0" :class="{ 'border-weld/70 bg-weld/15': per === of }" :aria-pressed="per === of" @click="per = of">{{ of }}</button>
    </p>
    <p class="flex items-center gap-2.5">steps: <label v-for="layer in LAYERS" :key="layer" class="flex items-center gap-1"><input type="checkbox" class="accent-weld" :checked="layers.includes(layer)" @change="flip(layer)" />{{ layer === 'own' ? "the shot's own" : layer }}</label></p>
    <p class="flex items-center justify-between">
      <label class="flex items-center gap-1"><input v-model="view" type="checkbox" class="accent-weld" />with the view to {{ project.targets[0]?.name }}</label>
      <button v-if="packages.running.value" type="button" class="control" @click="packages.cancel">cancel</button>
      <button v-else type="button" class="control" title=".cube and CLF of each, an ASC CDL collection, and a listing of what neither holds" @click="make">pack tables and CDLs</button>
    </p>
    <div v-if="packages.latest.value" class="flex items-center justify-between gap-3" data-test="package">
      <template v-if="packages.running.value">
        <ProgressBar class="flex-1" :done="packages.latest.value.done" :of="packages.latest.value.count" label="looks packed" />
        <span>{{ packages.latest.value.done }} of {{ packages.latest.value.count }} shots</span>
      </template>
      <template v-else-if="packages.latest.value.status === 'done'">
        <span>packed, {{ packages.latest.value.count }} shots</span>
        <a class="text-weld hover:underline" :href="`/api/packages/${packages.latest.value.id}/file`" download>download</a>
      </template>
      <span v-else :class="{ 'text-madder': packages.latest.value.status === 'failed' }">{{ packages.latest.value.message ?? 'cancelled' }}</span>
    </div>
  </section>
</template>
