<script setup lang="ts">
import { getJson, sendJson } from '@/api/client'
import type { Project, ProjectSummary } from '@/api/project'
import { onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { smallPicture } from '../cut/smallPicture'
import { useHere } from '../people/useHere'
import ChoiceList from '../shell/ChoiceList.vue'
import { useNotices } from '../shell/useNotices'
import { counted } from '../shell/counted'

const router = useRouter()
const notices = useNotices()
const here = useHere()
const projects = ref<ProjectSummary[] | null>(null)
const name = ref('')
const raster = ref('')
const fps = ref('')
const RASTERS = [{ id: '', label: 'raster of the footage' }, ...['1920×1080', '3840×2160', '2048×1080', '4096×2160', '1280×720'].map((id) => ({ id, label: id }))]
const RATES = [{ id: '', label: 'rate of the footage' }, ...['23.976', '24', '25', '29.97', '30', '50', '59.94', '60'].map((id) => ({ id, label: `${id} f/s` }))]
/** A project that is about to be taken away, and what was typed to be sure. */
const leaving = ref<number | null>(null)
const typed = ref('')

async function load() {
  try {
    projects.value = await getJson<ProjectSummary[]>('/projects')
  } catch (error) {
    notices.trouble(error)
  }
}
onMounted(load)

async function remove(project: ProjectSummary) {
  try {
    await sendJson('DELETE', `/projects/${project.id}`, { name: typed.value })
    leaving.value = null
    await load()
  } catch (error) {
    notices.trouble(error)
  }
}

const rate = (text: string) => {
  const [over, under] = text.split('/').map(Number)
  return Number(((over ?? 24) / (under ?? 1)).toFixed(3))
}

const without = (shots: { encoding: string | null }[]) => shots.filter((shot) => !shot.encoding).length

/** Nothing is said where both are to come from the footage. */
function madeFor() {
  if (!raster.value && !fps.value) return {}
  const [width, height] = (raster.value || '1920×1080').split('×').map(Number)
  return { width, height, rate: fps.value || '24' }
}

async function create() {
  try {
    const project = await sendJson<Project>('POST', '/projects', { name: name.value, ...madeFor() })
    await router.push({ name: 'intake', params: { project: project.id } })
  } catch (error) {
    notices.trouble(error)
  }
}
</script>

<template>
  <div class="h-full overflow-y-auto px-16 py-14">
    <h1 class="text-2xl font-semibold tracking-tight">Projects</h1>
    <p class="mt-1 text-base text-dim">Open a cut to grade it, or take in new footage.</p>
    <ul class="mt-8 grid max-w-4xl gap-3" aria-label="projects">
      <li v-for="project in projects" :key="project.id" class="border border-line bg-pane">
        <div class="flex items-center gap-4 px-4 py-3">
          <div class="min-w-0 flex-1">
            <h2 class="text-base font-semibold">{{ project.name }}</h2>
            <p class="mt-0.5 truncate text-xs text-dim">{{ project.width }}×{{ project.height }} · {{ rate(project.rate) }} f/s · {{ project.targets.map((one) => one.name).join(', ') }}</p>
          </div>
          <button v-if="leaving !== project.id && here.may('administer')" class="text-xs text-faint hover:text-ink" @click="((leaving = project.id), (typed = ''))">delete…</button>
          <RouterLink v-if="here.may('grade')" class="control" :to="{ name: 'intake', params: { project: project.id } }">Intake</RouterLink>
        </div>
        <form v-if="leaving === project.id" class="flex items-center gap-3 border-t border-madder bg-raise px-4 py-2.5 text-xs" @submit.prevent="remove(project)">
          <span class="flex-1 text-dim"
            >Its cuts and grades go, for good; footage, swatches and deliveries stay. Type <b class="font-medium text-ink select-text">{{ project.name }}</b> to be sure.</span
          >
          <input v-model="typed" class="field w-44" aria-label="name of the project to delete" />
          <button class="control border-madder" :disabled="typed !== project.name">delete</button>
          <button type="button" class="control" @click="leaving = null">keep it</button>
        </form>
        <RouterLink v-for="cut in project.cuts" :key="cut.id" :to="{ name: 'bench', params: { project: project.id, cut: cut.id } }" class="group block border-t border-line px-4 py-3 hover:bg-raise" :aria-label="`Grade ${cut.name}`">
          <span class="flex items-baseline justify-between text-sm"
            ><span
              >{{ cut.name }}
              <span class="ml-1 text-xs text-dim"
                >{{ counted(cut.shots.length, 'shot') }}<span v-if="without(cut.shots)" class="text-madder">, {{ without(cut.shots) }} without encoding</span></span
              ></span
            ><span class="text-xs text-dim group-hover:text-weld">grade →</span></span
          >
          <span class="mt-2 flex gap-1 overflow-hidden">
            <img
              v-for="shot in cut.shots.slice(0, 12)"
              :key="shot.id"
              :src="smallPicture(project, shot)"
              alt=""
              class="aspect-video w-[68px] min-w-0 bg-ground object-cover"
              :class="{ 'outline outline-madder': !shot.encoding }"
              loading="lazy"
            />
          </span>
        </RouterLink>
        <p v-if="project.cuts.length === 0" class="border-t border-line px-4 py-3 text-xs text-dim">No cut yet: take footage in and make one.</p>
      </li>
    </ul>
    <p v-if="projects?.length === 0" class="mt-6 text-dim">There is no project yet. Name one and take a folder of footage in.</p>
    <form v-if="here.may('grade')" class="mt-8 flex max-w-2xl gap-2" @submit.prevent="create">
      <input v-model="name" class="field flex-1" placeholder="name of a new project" aria-label="name of a new project" maxlength="80" />
      <ChoiceList class="w-44" label="raster of the project" :groups="[{ name: '', options: RASTERS }]" :model-value="raster" opens="up" @update:model-value="raster = $event ?? ''">{{ raster || 'raster of the footage' }}</ChoiceList>
      <ChoiceList class="w-40" label="rate of the project" :groups="[{ name: '', options: RATES }]" :model-value="fps" opens="up" @update:model-value="fps = $event ?? ''">{{ fps ? `${fps} f/s` : 'rate of the footage' }}</ChoiceList>
      <button class="control" :disabled="!name.trim()">New project</button>
    </form>
  </div>
</template>
