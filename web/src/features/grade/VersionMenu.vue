<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { useCut } from '../cut/useCut'
import { smallPictureOfVersion } from '../cut/smallPicture'
import { useKeys } from '../shell/useKeys'
import { useNotices } from '../shell/useNotices'
import { useComparedVersion } from './useComparedVersion'
import { useVersions } from './useVersions'

defineProps<{ shot: Shot }>()
const cut = useCut()
const notices = useNotices()
const versions = useVersions()
const compared = useComparedVersion()

async function hold() {
  if (!(await compared.hold())) notices.news('The shot has one version only; there is nothing to compare it with.')
}
useKeys('versions', [
  { key: 'c', words: 'next version of the shot', press: versions.next },
  { key: 's', words: 'held: the version compared with', press: () => void hold(), release: () => compared.release() },
])
</script>

<template>
  <Menu as="span" class="relative">
    <MenuButton class="text-dim hover:text-ink" title="versions of this shot's grade; C goes to the next, S held shows the one compared with"
      >{{ shot.recipe.name }}<span v-if="shot.versions.length > 1" class="ml-1 text-xs">of {{ shot.versions.length }}</span></MenuButton
    >
    <MenuItems v-inside class="absolute left-0 z-20 mt-1 w-60 border border-line bg-raise py-1 text-ink shadow-lg shadow-black/50 outline-none">
      <div v-for="one in shot.versions" :key="one.id" class="flex items-center pr-3">
        <MenuItem v-slot="{ active }">
          <button class="flex min-w-0 flex-1 items-center gap-2 px-3 py-1 text-left text-sm" :class="[{ 'bg-line': active }, one.id === shot.recipe.id ? 'text-weld' : '']" @click="versions.use(shot, one.id)">
            <img v-if="cut.project" :src="smallPictureOfVersion(cut.project, shot, one)" alt="" class="aspect-video w-14 bg-ground object-cover" /><span class="truncate">{{ one.name }}</span>
          </button>
        </MenuItem>
        <button
          v-if="one.id !== shot.recipe.id"
          class="border-b text-2xs"
          :class="one.id === compared.candidate?.id ? 'border-weld text-ink' : 'border-transparent text-dim hover:text-ink'"
          :aria-pressed="one.id === compared.candidate?.id"
          :aria-label="`compare with ${one.name}`"
          @click.stop="compared.choose(shot, one.id)"
        >
          compare
        </button>
      </div>
      <MenuItem v-slot="{ active }">
        <button class="mt-1 block w-full border-t border-line px-3 pt-1.5 pb-1 text-left text-sm whitespace-nowrap" :class="{ 'bg-line': active }" @click="versions.branch(shot)">+ version from this one</button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
