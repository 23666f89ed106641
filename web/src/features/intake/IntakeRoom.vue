<script setup lang="ts">
import { sendJson } from '@/api/client'
import type { Cut } from '@/api/cut'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useCut } from '../cut/useCut'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import ClipActions from './ClipActions.vue'
import ClipTable from './ClipTable.vue'
import EncodingChoice from './EncodingChoice.vue'
import FolderPane from './FolderPane.vue'
import { useIntake } from './useIntake'

const route = useRoute()
const router = useRouter()
const cut = useCut()
const catalogue = useCatalogue()
const notices = useNotices()
const project = computed(() => route.params.project as string | undefined)
const intake = useIntake(project, notices.trouble)
const { roots, root, path, entries, clips, latest } = intake
const selected = ref<number[]>([])
const name = ref('')

const ready = computed(() => clips.value.filter((clip) => clip.status === 'ready'))
const picked = computed(() => ready.value.filter((clip) => selected.value.includes(clip.id)))
/** Clips whose rate is not the project's. */
const others = computed(() => ready.value.filter((clip) => clip.other_rate).length)
const unassigned = computed(() => ready.value.filter((clip) => !clip.encoding).length)

onMounted(async () => {
  try {
    if (project.value) await Promise.all([catalogue.load(), cut.openProject(project.value)])
  } catch (error) {
    notices.trouble(error)
  }
  await intake.load()
})
watch(clips, (now) => (selected.value = selected.value.filter((id) => now.some((clip) => clip.id === id))))

async function makeCut() {
  const chosen = selected.value.length ? selected.value : ready.value.map((clip) => clip.id)
  try {
    const made = await sendJson<Cut>('POST', `/projects/${project.value}/cuts`, { name: name.value, clips: chosen })
    await router.push({ name: 'bench', params: { project: project.value, cut: made.id } })
  } catch (error) {
    notices.trouble(error)
  }
}
</script>

<template>
  <div class="grid h-full grid-cols-[280px_minmax(0,1fr)]">
    <FolderPane :roots="roots" :root="root" :path="path" :entries="entries" :latest="latest" @browse="intake.browse" @take="intake.takeIn" />
    <section class="flex min-h-0 min-w-0 flex-col bg-pane" aria-label="clips">
      <header class="flex items-center gap-3 border-b border-line px-3 py-2">
        <h2 class="text-base font-semibold">Clips</h2>
        <span class="text-xs text-dim"
          >{{ ready.length
          }}<template v-if="unassigned"
            >, <span class="text-madder">{{ unassigned }} without encoding</span></template
          ><template v-if="others"
            >, <span class="text-weld">{{ others }} of another rate</span></template
          ></span
        >
        <span class="flex-1" />
        <EncodingChoice :disabled="selected.length === 0" :label="selected.length ? `Assign an encoding to ${selected.length}` : 'Assign an encoding'" @choose="intake.assign(selected, $event)" />
        <ClipActions :clips="picked" @set="intake.change(selected, $event)" @remove="intake.remove(selected)" />
        <form class="flex gap-2" @submit.prevent="makeCut">
          <input v-model="name" class="field w-36" placeholder="name of a new cut" aria-label="name of a new cut" maxlength="80" />
          <button class="control-main" :disabled="!name.trim() || ready.length === 0">Make a cut of {{ selected.length || 'all' }}</button>
        </form>
      </header>
      <ClipTable v-if="clips.length" v-model="selected" :clips="clips" :project="cut.project" />
      <div v-else class="flex flex-1 items-center justify-center px-16 text-center text-dim">Nothing has been taken in yet. Open a folder at the left and take in everything beneath it; files are only read, never changed.</div>
    </section>
  </div>
</template>
