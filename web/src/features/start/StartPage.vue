<script setup lang="ts">
import { getJson, sendJson } from '@/api/client'
import type { Project, ProjectSummary } from '@/api/types'
import { onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { smallPicture } from '../bench/smallPicture'
import { useNotices } from '../shell/useNotices'

const router = useRouter()
const notices = useNotices()
const projects = ref<ProjectSummary[] | null>(null)
const name = ref('')

onMounted(async () => {
  try {
    projects.value = await getJson<ProjectSummary[]>('/projects')
  } catch (error) {
    notices.trouble(error)
  }
})

const rate = (text: string) => {
  const [over, under] = text.split('/').map(Number)
  return Number(((over ?? 24) / (under ?? 1)).toFixed(3))
}

const without = (shots: { encoding: string | null }[]) => shots.filter((shot) => !shot.encoding).length

async function create() {
  try {
    const project = await sendJson<Project>('POST', '/projects', { name: name.value })
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
          <RouterLink class="control" :to="{ name: 'intake', params: { project: project.id } }">Intake</RouterLink>
        </div>
        <RouterLink
          v-for="cut in project.cuts"
          :key="cut.id"
          :to="{ name: 'bench', params: { project: project.id, cut: cut.id } }"
          class="group block border-t border-line px-4 py-3 hover:bg-raise"
          :aria-label="`Grade ${cut.name}`"
        >
          <span class="flex items-baseline justify-between text-sm"><span>{{ cut.name }} <span class="ml-1 text-xs text-dim">{{ cut.shots.length }} shots<span v-if="without(cut.shots)" class="text-madder">, {{ without(cut.shots) }} without encoding</span></span></span><span class="text-xs text-dim group-hover:text-weld">grade →</span></span>
          <span class="mt-2 flex gap-1 overflow-hidden">
            <img v-for="shot in cut.shots.slice(0, 12)" :key="shot.id" :src="smallPicture(project, shot)" alt="" class="aspect-video w-[68px] min-w-0 bg-ground object-cover" :class="{ 'outline outline-madder': !shot.encoding }" loading="lazy" />
          </span>
        </RouterLink>
        <p v-if="project.cuts.length === 0" class="border-t border-line px-4 py-3 text-xs text-dim">No cut yet: take footage in and make one.</p>
      </li>
    </ul>
    <p v-if="projects?.length === 0" class="mt-6 text-dim">There is no project yet. Name one and take a folder of footage in.</p>
    <form class="mt-8 flex max-w-md gap-2" @submit.prevent="create">
      <input v-model="name" class="field flex-1" placeholder="name of a new project" aria-label="name of a new project" maxlength="80" />
      <button class="control" :disabled="!name.trim()">New project</button>
    </form>
  </div>
</template>
