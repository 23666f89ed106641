<script setup lang="ts">
import { getJson, sendJson } from '@/api/client'
import type { Project, ProjectSummary } from '@/api/types'
import { onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
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
      <li v-for="project in projects" :key="project.id" class="flex items-stretch gap-5 border border-line bg-pane p-3">
        <RouterLink v-if="project.cuts[0]" :to="{ name: 'bench', params: { project: project.id, cut: project.cuts[0].id } }" tabindex="-1" aria-hidden="true">
          <img :src="`/api/cuts/${project.cuts[0].id}/small.png`" alt="" class="h-[90px] w-40 bg-ground object-cover" />
        </RouterLink>
        <div v-else class="flex h-[90px] w-40 items-center justify-center bg-ground text-xs text-faint">no cut yet</div>
        <div class="flex min-w-0 flex-1 flex-col py-1">
          <h2 class="text-base font-semibold">{{ project.name }}</h2>
          <p class="mt-0.5 text-xs text-dim">{{ project.width }}×{{ project.height }} · {{ Number(project.rate.split('/')[0]) / Number(project.rate.split('/')[1] ?? 1) }} f/s · {{ project.view.label }}</p>
          <div class="mt-auto flex flex-wrap gap-2">
            <RouterLink v-for="cut in project.cuts" :key="cut.id" class="control-main" :to="{ name: 'bench', params: { project: project.id, cut: cut.id } }">Grade {{ cut.name }}</RouterLink>
            <RouterLink class="control" :to="{ name: 'intake', params: { project: project.id } }">Intake</RouterLink>
          </div>
        </div>
      </li>
    </ul>
    <p v-if="projects?.length === 0" class="mt-6 text-dim">There is no project yet. Name one and take a folder of footage in.</p>
    <form class="mt-8 flex max-w-md gap-2" @submit.prevent="create">
      <input v-model="name" class="field flex-1" placeholder="name of a new project" aria-label="name of a new project" maxlength="80" />
      <button class="control" :disabled="!name.trim()">New project</button>
    </form>
  </div>
</template>
