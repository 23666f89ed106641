<script setup lang="ts">
import type { Project } from '@/api/types'
import { computed, ref } from 'vue'

/** The grades of the cut as look-up tables and CDLs, in one act. */
const props = defineProps<{ cut: number; project: Project }>()
const LAYERS = ['ground', 'own', 'finish', 'washes']
const size = ref(33)
const layers = ref([...LAYERS])
const per = ref('shot')
const view = ref(false)
const address = computed(() => `/api/cuts/${props.cut}/looks.tar?size=${size.value}&per=${per.value}&layers=${layers.value.join(',')}${view.value ? `&target=${props.project.targets[0]?.id}` : ''}`)
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
      <a class="control" :href="address" download title=".cube and CLF of each, an ASC CDL collection, and a listing of what neither holds">tables and CDLs</a>
    </p>
  </section>
</template>
