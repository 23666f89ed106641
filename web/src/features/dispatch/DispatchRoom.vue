<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import CutCorrections from '../grade/CutCorrections.vue'
import { smallPictureOf } from '../bench/smallPicture'
import { useCut } from '../bench/useCut'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import OutputRow from './OutputRow.vue'
import { useOrders } from './useOrders'

const route = useRoute()
const cut = useCut()
const catalogue = useCatalogue()
const notices = useNotices()
const project = computed(() => route.params.project as string | undefined)
const cutId = computed(() => route.params.cut as string | undefined)
const orders = useOrders(project, cutId, notices.trouble)

const kinds = ref<string[]>(['review-h264'])
const chosen = ref<number[]>([])
const whole = ref(true)
const template = ref('{project}/{cut}/{cut}_{kind}')
const refusal = ref<string | null>(null)
const placing = ref(false)

const tokens = computed(() => (catalogue.catalogue?.tokens ?? []).map((token) => `{${token}}`))
const unassigned = computed(() => cut.shots.filter((shot) => (whole.value || chosen.value.includes(shot.id)) && !shot.clip.encoding))
const ready = computed(() => kinds.value.length > 0 && (whole.value || chosen.value.length > 0) && template.value.trim() !== '' && !placing.value)
const converted = computed(() => {
  const from = [...new Set(cut.shots.map((shot) => catalogue.encodingLabel(shot.clip.encoding) || 'not assigned'))]
  return from.join(', ')
})

async function open() {
  try {
    await Promise.all([catalogue.load(), cutId.value && cut.open(cutId.value)])
    await orders.load()
  } catch (error) {
    notices.trouble(error)
  }
}
onMounted(open)
watch(whole, (all) => (template.value = all ? '{project}/{cut}/{cut}_{kind}' : '{project}/{cut}/{shot}_{kind}'))

function toggled<T>(list: T[], value: T): T[] {
  return list.includes(value) ? list.filter((one) => one !== value) : [...list, value]
}

async function place() {
  placing.value = true
  refusal.value = await orders.place(kinds.value, whole.value ? null : chosen.value, template.value)
  placing.value = false
}
</script>

<template>
  <div v-if="cut.cut" class="grid h-full grid-cols-[380px_minmax(0,1fr)]">
    <form class="flex min-h-0 flex-col border-r border-line bg-pane" aria-label="order" @submit.prevent="place">
      <div class="min-h-0 flex-1 space-y-6 overflow-y-auto px-4 py-4">
        <section>
          <h2 class="mb-2 text-base font-semibold">What</h2>
          <div class="flex gap-1" role="radiogroup" aria-label="what to deliver">
            <button type="button" role="radio" :aria-checked="whole" class="control flex-1" :class="{ 'border-weld/70 bg-weld/15': whole }" @click="whole = true">the whole cut</button>
            <button type="button" role="radio" :aria-checked="!whole" class="control flex-1" :class="{ 'border-weld/70 bg-weld/15': !whole }" @click="whole = false">chosen shots</button>
          </div>
          <p v-if="whole" class="mt-2 text-xs text-dim">{{ cut.cut.name }}: {{ cut.shots.length }} shots, {{ cut.length }} frames at {{ cut.rate }} f/s, one file or sequence.</p>
          <template v-else>
            <div class="mt-2 grid grid-cols-4 gap-1.5">
              <button
                v-for="shot in cut.shots"
                :key="shot.id"
                type="button"
                class="p-0.5 text-left outline-1"
                :class="chosen.includes(shot.id) ? 'bg-raise outline-weld' : 'outline-line'"
                :aria-pressed="chosen.includes(shot.id)"
                @click="chosen = toggled(chosen, shot.id)"
              >
                <img :src="smallPictureOf(cut.cut.project, shot)" :alt="`shot ${shot.name}`" class="aspect-video w-full object-cover" />
                <span class="block px-0.5 text-2xs" :class="chosen.includes(shot.id) ? 'text-ink' : 'text-dim'">{{ shot.name }} <span v-if="!shot.clip.encoding" class="text-madder">no encoding</span></span>
              </button>
            </div>
            <p class="mt-2 text-xs text-dim">Each shot becomes a file or sequence of its own, without handles.</p>
          </template>
        </section>

        <section>
          <h2 class="mb-2 text-base font-semibold">As</h2>
          <div class="space-y-1.5">
            <button
              v-for="kind in catalogue.catalogue?.kinds"
              :key="kind.id"
              type="button"
              role="checkbox"
              :aria-checked="kinds.includes(kind.id)"
              class="flex w-full items-start gap-2.5 border px-3 py-2 text-left"
              :class="kinds.includes(kind.id) ? 'border-weld/70 bg-weld/10' : 'border-line'"
              @click="kinds = toggled(kinds, kind.id)"
            >
              <span class="relative mt-0.5 size-3 shrink-0 border border-dim"><i v-if="kinds.includes(kind.id)" class="absolute inset-0.5 bg-ink" /></span>
              <span><span class="block text-sm">{{ kind.label }}</span><span class="block text-2xs text-dim">{{ kind.about }}</span></span>
            </button>
          </div>
          <p class="mt-2 text-2xs text-dim">Converted from {{ converted }}.</p>
        </section>

        <section>
          <h2 class="mb-2 text-base font-semibold">Named</h2>
          <input v-model="template" class="field w-full" aria-label="name" spellcheck="false" maxlength="300" />
          <p class="mt-1.5 flex flex-wrap gap-x-2 gap-y-0.5 text-2xs text-dim">
            <button v-for="token in tokens" :key="token" type="button" class="hover:text-ink" :title="`add ${token}`" @click="template += token">{{ token }}</button>
          </p>
        </section>
        <CutCorrections :cut="cut.cut" />
      </div>
      <footer class="border-t border-line px-4 py-3">
        <p v-if="unassigned.length" class="mb-2 text-xs text-madder">No encoding is assigned to {{ unassigned.map((shot) => shot.name).join(', ') }}; assign one in the Intake room.</p>
        <p v-if="refusal" class="mb-2 text-xs text-madder select-text" role="alert">{{ refusal }}</p>
        <button class="control-main w-full" :disabled="!ready">Order {{ kinds.length * (whole ? 1 : chosen.length) || '' }} output{{ kinds.length * (whole ? 1 : chosen.length) === 1 ? '' : 's' }}</button>
      </footer>
    </form>
    <section class="flex min-h-0 flex-col" aria-label="queue">
      <header class="flex items-baseline gap-3 px-4 pt-4 pb-2">
        <h2 class="text-base font-semibold">Queue</h2>
        <span class="truncate text-2xs text-faint select-text">written below {{ catalogue.catalogue?.delivery }}</span>
      </header>
      <ul class="min-h-0 flex-1 overflow-y-auto">
        <OutputRow v-for="output in orders.outputs.value" :key="output.id" :output="output" @cancel="orders.cancel(output.id)" />
        <li v-if="orders.outputs.value.length === 0" class="px-4 py-2 text-dim">Nothing has been ordered of this cut. What is written appears here, with its progress, and below the delivery folder.</li>
      </ul>
    </section>
  </div>
</template>
