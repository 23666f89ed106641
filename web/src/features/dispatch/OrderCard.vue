<script setup lang="ts">
import type { Order } from '@/api/delivery'
import { computed } from 'vue'
import OutputRow from './OutputRow.vue'

/** One order of the queue with its outputs. */
const props = defineProps<{ order: Order }>()
defineEmits<{ cancel: [id: number]; retry: [id: number]; pause: []; first: [] }>()
const going = computed(() => props.order.outputs.some((output) => output.status === 'waiting' || output.status === 'running'))
const written = computed(() => props.order.outputs.some((output) => output.status === 'done'))
const at = computed(() => new Date(props.order.created).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }))
</script>

<template>
  <section class="border-t border-line/60" :aria-label="`order ${order.id}`">
    <header class="flex items-baseline gap-3 px-4 pt-2 text-2xs text-dim">
      <span
        >order {{ order.id }} · {{ at }} · {{ order.outputs.length }} {{ order.outputs.length === 1 ? 'output' : 'outputs' }}<template v-if="order.handles"> · handles of {{ order.handles }}</template></span
      >
      <span class="flex-1" />
      <template v-if="going">
        <button class="hover:text-ink" @click="$emit('first')">{{ order.priority < 100 ? 'goes first' : 'let it go first' }}</button>
        <button class="hover:text-ink" @click="$emit('pause')">{{ order.paused ? 'go on' : 'pause' }}</button>
      </template>
      <template v-if="written">
        <span>cut list of it:</span>
        <a class="hover:text-ink" :href="`/api/orders/${order.id}/list.edl`" download>EDL</a>
        <a class="hover:text-ink" :href="`/api/orders/${order.id}/list.otio`" download>OpenTimelineIO</a>
      </template>
    </header>
    <ul>
      <OutputRow v-for="output in order.outputs" :key="output.id" :output="output" :paused="order.paused" @cancel="$emit('cancel', output.id)" @retry="$emit('retry', output.id)" />
    </ul>
  </section>
</template>
