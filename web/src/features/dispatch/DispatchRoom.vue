<script setup lang="ts">
import { getJson, sendJson } from '@/api/client'
import type { OrderPreset } from '@/api/delivery'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import CutCorrections from '../grade/CutCorrections.vue'
import { smallPictureOf } from '../cut/smallPicture'
import { useCut } from '../cut/useCut'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import { counted } from '../shell/counted'
import LooksPanel from './LooksPanel.vue'
import OrderCard from './OrderCard.vue'
import SheetCard from './SheetCard.vue'
import { useOrders } from './useOrders'
import { useSheets } from './useSheets'

const FIRST = 10 // priority of an order that is let go first
const USUAL = 100

const route = useRoute()
const cut = useCut()
const catalogue = useCatalogue()
const notices = useNotices()
const project = computed(() => route.params.project as string | undefined)
const cutId = computed(() => route.params.cut as string | undefined)
const orders = useOrders(project, cutId, notices.trouble)

const chosen = ref<number[]>([])
const whole = ref(true)
const {
  sheets,
  template,
  looks,
  refusal: fault,
  change,
  add,
  remove,
  take,
} = useSheets(
  cutId,
  computed(() => (whole.value || chosen.value.length === 0 ? null : chosen.value)),
  computed(() => (String(cut.cut?.id) === cutId.value ? (cut.project?.targets ?? []).map(({ id }) => id) : [])),
)
const handles = ref(0)
const skip = ref(false)
const baked = ref(false)
const presets = ref<OrderPreset[]>([])
const refusal = ref<string | null>(null)
const placing = ref(false)
/** Name these outputs are saved under. */
const naming = ref('')

const tokens = computed(() => (catalogue.catalogue?.tokens ?? []).map((token) => `{${token}}`))
const unassigned = computed(() => cut.shots.filter((shot) => (whole.value || chosen.value.includes(shot.id)) && !shot.clip.encoding))
const pictured = computed(() => cut.shots.filter((shot) => shot.clip.status !== 'black'))
const slates = computed(() => cut.shots.filter((shot) => (whole.value || chosen.value.includes(shot.id)) && shot.clip.status === 'missing'))
const count = computed(() => sheets.value.length * (whole.value ? 1 : chosen.value.length))
const ready = computed(() => count.value > 0 && template.value.trim() !== '' && !fault.value && !looks.value.some((one) => one.refusal) && !placing.value)
const from = computed(() => {
  const encodings = [...new Set(cut.shots.filter((shot) => whole.value || chosen.value.includes(shot.id)).map((shot) => catalogue.encodingLabel(shot.clip.encoding) || 'not assigned'))]
  return encodings.length > 2 ? `${encodings.length} encodings` : encodings.join(', ')
})

async function open() {
  try {
    await Promise.all([catalogue.load(), cutId.value && cut.open(cutId.value)])
    presets.value = await getJson<OrderPreset[]>('/presets')
    await orders.load()
  } catch (error) {
    notices.trouble(error)
  }
}
onMounted(open)

const toggled = (id: number) => (chosen.value = chosen.value.includes(id) ? chosen.value.filter((one) => one !== id) : [...chosen.value, id])
function begin(preset: OrderPreset) {
  take(preset)
  if (preset.per_shot !== undefined) whole.value = !preset.per_shot
  if (preset.per_shot && chosen.value.length === 0) chosen.value = cut.shots.map((shot) => shot.id)
  handles.value = preset.handles ?? 0
}
async function keep() {
  if (!naming.value.trim()) return
  try {
    presets.value = await sendJson<OrderPreset[]>('PUT', `/projects/${project.value}/presets`, { name: naming.value, outputs: sheets.value })
    naming.value = ''
    notices.news('saved among the presets')
  } catch (error) {
    notices.trouble(error)
  }
}

async function forget(preset: OrderPreset) {
  try {
    presets.value = await sendJson<OrderPreset[]>('DELETE', `/presets/${preset.own}`)
  } catch (error) {
    notices.trouble(error)
  }
}

async function place() {
  placing.value = true
  refusal.value = await orders.place({ outputs: sheets.value, shots: whole.value ? null : chosen.value, template: template.value, handles: whole.value ? 0 : handles.value, skip: skip.value, baked: !whole.value && baked.value })
  placing.value = false
}
</script>

<template>
  <div v-if="cut.cut" class="grid h-full grid-cols-[440px_minmax(0,1fr)]">
    <form class="flex min-h-0 flex-col border-r border-line bg-pane" aria-label="order" @submit.prevent="place">
      <div class="min-h-0 flex-1 space-y-5 overflow-y-auto px-4 py-4">
        <section>
          <div class="flex gap-1" role="radiogroup" aria-label="what to deliver">
            <button type="button" role="radio" :aria-checked="whole" class="control flex-1" :class="{ 'border-weld/70 bg-weld/15': whole }" @click="whole = true">the whole cut</button>
            <button type="button" role="radio" :aria-checked="!whole" class="control flex-1" :class="{ 'border-weld/70 bg-weld/15': !whole }" @click="whole = false">shots by themselves</button>
          </div>
          <p v-if="whole" class="mt-2 text-xs text-dim">{{ cut.cut.name }}: {{ counted(cut.shots.length, 'shot') }}, {{ counted(cut.length, 'frame') }} at {{ cut.rate }} f/s, one file or sequence of each output.</p>
          <template v-else>
            <div class="mt-2 grid max-h-44 grid-cols-6 gap-1 overflow-y-auto">
              <button
                v-for="shot in pictured"
                :key="shot.id"
                type="button"
                class="p-0.5 text-left outline-1"
                :class="chosen.includes(shot.id) ? 'bg-raise outline-weld' : 'outline-line'"
                :aria-pressed="chosen.includes(shot.id)"
                @click="toggled(shot.id)"
              >
                <img :src="smallPictureOf(cut.cut.project, shot)" :alt="`shot ${shot.name}`" class="aspect-video w-full object-cover" loading="lazy" />
                <span class="block truncate px-0.5 text-2xs" :class="chosen.includes(shot.id) ? 'text-ink' : 'text-dim'">{{ shot.name }}<span v-if="!shot.clip.encoding" class="text-madder"> no encoding</span></span>
              </button>
            </div>
            <p class="mt-2 flex items-center gap-2 text-xs text-dim">
              <button type="button" class="hover:text-ink" @click="chosen = pictured.map((shot) => shot.id)">all</button><button type="button" class="hover:text-ink" @click="chosen = []">none</button> <span class="flex-1" />handles
              <input v-model.number="handles" class="field w-14 py-0 text-xs select-text" type="number" min="0" max="240" aria-label="handles" /> frames, as far as clips go; source timecode and reel
            </p>
            <p v-if="cut.shots.some((shot) => shot.dissolve)" class="mt-1.5 flex items-center gap-2 text-xs text-dim">
              <span class="flex-1">transitions</span><button type="button" :class="baked ? 'hover:text-ink' : 'text-weld'" :aria-pressed="!baked" @click="baked = false">in the list, out of the handles</button
              ><button type="button" :class="baked ? 'text-weld' : 'hover:text-ink'" :aria-pressed="baked" @click="baked = true">baked into the shots</button>
            </p>
          </template>
        </section>

        <section class="space-y-1.5">
          <div class="flex items-baseline gap-3">
            <h2 class="text-base font-semibold">Outputs</h2>
            <span class="flex-1 text-2xs text-faint">all from one pass</span>
            <Menu as="div" class="relative">
              <MenuButton class="text-xs text-dim hover:text-ink">presets</MenuButton>
              <MenuItems v-inside class="absolute right-0 z-30 mt-1 w-72 border border-line bg-raise py-1 shadow-lg shadow-black/50 outline-none">
                <MenuItem v-for="preset in presets" :key="preset.id" v-slot="{ active }">
                  <button type="button" class="block w-full px-3 py-1 text-left" :class="{ 'bg-line': active }" @click="begin(preset)">
                    <span class="block text-sm">{{ preset.label }}</span><span class="block text-2xs text-dim"
                      >{{ preset.about }}<span v-if="preset.own" class="float-right hover:text-madder" role="button" :aria-label="`delete ${preset.label}`" @click.stop="forget(preset)">delete</span></span
                    >
                  </button>
                </MenuItem>
              </MenuItems>
            </Menu>
          </div>
          <SheetCard
            v-for="(sheet, index) in sheets"
            :key="index"
            :sheet="sheet"
            :project="cut.cut.project"
            :cut="String(cut.cut.id)"
            :statement="looks[index]?.statement ?? ''"
            :warnings="looks[index]?.warnings ?? []"
            :refusal="looks[index]?.refusal ?? null"
            :from="from"
            :alone="sheets.length === 1"
            @change="change(index, $event)"
            @remove="remove(index)"
          />
          <p class="flex gap-1">
            <button type="button" class="control flex-1" :disabled="sheets.length >= 12" @click="add">+ output</button>
            <input v-model="naming" class="field w-36 py-0 text-xs select-text" placeholder="save as a preset…" maxlength="60" aria-label="name of the preset" @keydown.enter.prevent="keep" />
          </p>
        </section>

        <section>
          <h2 class="mb-1.5 text-base font-semibold">Named</h2>
          <input v-model="template" class="field w-full select-text" aria-label="name" spellcheck="false" maxlength="300" />
          <p class="mt-1.5 flex flex-wrap gap-x-2 gap-y-0.5 text-2xs text-dim">
            <button v-for="token in tokens" :key="token" type="button" class="hover:text-ink" :title="`add ${token}`" @click="template += token">{{ token }}</button>
          </p>
        </section>
        <label class="flex items-center gap-1.5 text-xs text-dim"><input v-model="skip" type="checkbox" class="accent-weld" />leave out frames that cannot be decoded, and list them</label>
        <LooksPanel :cut="cut.cut.id" :project="cut.cut.project" />
        <CutCorrections :cut="cut.cut" />
      </div>
      <footer class="border-t border-line px-4 py-3">
        <p v-if="unassigned.length" class="mb-2 text-xs text-madder">No encoding is assigned to {{ unassigned.map((shot) => shot.name).join(', ') }}; assign one in the Intake room.</p>
        <p v-if="slates.length" class="mb-2 text-xs text-weld">{{ slates.map((shot) => shot.name).join(', ') }} {{ slates.length === 1 ? 'stands as a slate; its footage is' : 'stand as slates; their footage is' }} not there yet.</p>
        <p v-if="refusal ?? fault" class="mb-2 text-xs text-madder select-text" role="alert">{{ refusal ?? fault }}</p>
        <button class="control-main w-full" :disabled="!ready">Order {{ count || '' }} output{{ count === 1 ? '' : 's' }}</button>
      </footer>
    </form>
    <section class="flex min-h-0 flex-col" aria-label="queue">
      <header class="flex items-baseline gap-3 px-4 pt-4 pb-2">
        <h2 class="text-base font-semibold">Queue</h2>
        <span class="truncate text-2xs text-faint select-text">written below {{ catalogue.catalogue?.delivery }}</span>
      </header>
      <div class="min-h-0 flex-1 overflow-y-auto">
        <OrderCard
          v-for="order in orders.orders.value"
          :key="order.id"
          :order="order"
          @cancel="orders.cancel"
          @retry="orders.retry"
          @pause="orders.change(order, { paused: !order.paused })"
          @first="orders.change(order, { priority: order.priority < USUAL ? USUAL : FIRST })"
        />
        <p v-if="orders.orders.value.length === 0" class="px-4 py-2 text-dim">
          Nothing has been ordered of this cut. What is written appears here with its progress, then its check, and below the delivery folder with a report and checksums.
        </p>
      </div>
    </section>
  </div>
</template>
