<script setup lang="ts">
import { sendJson } from '@/api/client'
import type { Project } from '@/api/project'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { ref } from 'vue'
import { useCut } from '../cut/useCut'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from '../shell/useNotices'
import { useRenditions } from './useRenditions'

/** Levels and corrections as a file, and back. */
const cut = useCut()
const recipes = useRecipes()
const notices = useNotices()
const renditions = useRenditions()
const file = ref<HTMLInputElement>()

async function read() {
  const found = file.value?.files?.[0]
  if (!found || !cut.cut) return
  try {
    const data: unknown = JSON.parse(await found.text())
    const answer = await sendJson<{ shots: number; project: Project }>('POST', `/cuts/${cut.cut.id}/renditions`, { data })
    recipes.kept(answer.project)
    await renditions.load()
    recipes.generation++
    notices.news(`${found.name}: levels and corrections of ${answer.shots} ${answer.shots === 1 ? 'shot' : 'shots'} read`)
  } catch (error) {
    notices.trouble(error instanceof SyntaxError ? new Error(`${found.name} is no JSON: ${error.message}`) : error)
  } finally {
    if (file.value) file.value.value = ''
  }
}
</script>

<template>
  <Menu as="span" class="relative">
    <MenuButton class="hover:text-ink">data…</MenuButton>
    <MenuItems v-inside class="absolute right-0 bottom-full z-30 mb-1 w-52 border border-line bg-raise py-1 text-ink shadow-lg shadow-black/50 outline-none">
      <MenuItem v-for="kind in ['json', 'csv']" :key="kind" v-slot="{ active }"
        ><a class="block px-3 py-1 text-sm" :class="{ 'bg-line': active }" :href="`/api/cuts/${cut.cut?.id}/renditions.${kind}`" download>{{ kind === 'json' ? 'all of it, JSON' : 'a table to read, CSV' }}</a></MenuItem
      >
      <MenuItem v-slot="{ active }"><button class="mt-1 block w-full border-t border-line px-3 py-1 text-left text-sm" :class="{ 'bg-line': active }" @click="file?.click()">read a JSON back…</button></MenuItem>
    </MenuItems>
    <input ref="file" type="file" accept=".json" class="hidden" aria-label="data of renditions" @change="read" />
  </Menu>
</template>
