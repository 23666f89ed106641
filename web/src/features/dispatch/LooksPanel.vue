<script setup lang="ts">
import type { Project } from '@/api/project'
import { computed, ref } from 'vue'
import ProgressBar from '../shell/ProgressBar.vue'
import { useErrands } from '../shell/useErrands'
import { useNotices } from '../shell/useNotices'
import { counted } from '../shell/counted'

/** The grades of the cut as look-up tables and CDLs, packed by a worker into one file. */
const props = defineProps<{ cut: number; project: Project }>()
const LAYERS = ['ground', 'own', 'finish', 'washes']
const size = ref(33)
const layers = ref([...LAYERS])
const per = ref('shot')
const view = ref(false)
const notices = useNotices()
const errands = useErrands(computed(() => String(props.project.id)))
const made = errands.latest(
  'package',
  computed(() => props.cut),
)
const running = computed(() => ['waiting', 'running'].includes(made.value?.status ?? ''))
const wish = () => ({ size: size.value, per: per.value, layers: layers.value, target: view.value ? props.project.targets[0]?.id : undefined })
const make = () => errands.place(`/cuts/${props.cut}/packages`, wish()).catch(notices.trouble)
const cancel = () => made.value && errands.cancel(made.value).catch(notices.trouble)
const flip = (layer: string) => (layers.value = layers.value.includes(layer) ? layers.value.filter((one) => one !== layer) : LAYERS.filter((one) => one === layer || layers.value.includes(one)))
</script>

<template>
  <section class="space-y-1.5 text-xs text-dim" aria-label="looks">
    <h2 class="text-base font-semibold text-ink">Looks for the set</h2>
    <p class="flex items-center gap-1.5">
      tables of
      <button v-for="nodes in [17, 33, 65]" :key="nodes" type="button" class="control px-1.5 py-0" :class="{ 'border-weld/70 bg-weld/15': size === nodes }" :aria-pressed="size === nodes" @click="size = nodes">{{ nodes }}</button>
      nodes, one a
      <button v-for="of in ['shot', 'family']" :key="of" type="button" class="control px-1.5 py-0" :class="{ 'border-weld/70 bg-weld/15': per === of }" :aria-pressed="per === of" @click="per = of">{{ of }}</button>
    </p>
    <p class="flex items-center gap-2.5">
      steps:
      <label v-for="layer in LAYERS" :key="layer" class="flex items-center gap-1"><input type="checkbox" class="accent-weld" :checked="layers.includes(layer)" @change="flip(layer)" />{{ layer === 'own' ? "the shot's own" : layer }}</label>
    </p>
    <p class="flex items-center justify-between">
      <label class="flex items-center gap-1"><input v-model="view" type="checkbox" class="accent-weld" />with the view to {{ project.targets[0]?.name }}</label>
      <button v-if="running" type="button" class="control" @click="cancel">cancel</button>
      <button v-else type="button" class="control" title=".cube and CLF of each, an ASC CDL collection, and a listing of what neither holds" @click="make">pack tables and CDLs</button>
    </p>
    <div v-if="made" class="flex items-center justify-between gap-3" data-test="package">
      <template v-if="running">
        <ProgressBar class="flex-1" :done="made.done" :of="made.count" label="looks packed" />
        <span>{{ made.done }} of {{ made.count }} shots</span>
      </template>
      <template v-else-if="made.status === 'done'">
        <span>packed, {{ counted(made.count, 'shot') }}</span>
        <a class="text-weld hover:underline" :href="`/api/errands/${made.id}/file`" download>download</a>
      </template>
      <span v-else :class="{ 'text-madder': made.status === 'failed' }">{{ made.message ?? 'cancelled' }}</span>
    </div>
  </section>
</template>
