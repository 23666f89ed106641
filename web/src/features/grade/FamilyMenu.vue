<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { useCut } from '../cut/useCut'
import { counted } from '../shell/counted'
import { useCopies } from './useCopies'
import { useFamilies } from './useFamilies'

/** Which family a shot belongs to, and forming one of what is picked, of its scene or of its camera. */
const props = defineProps<{ shot: Shot }>()
const cut = useCut()
const copies = useCopies()
const families = useFamilies()

const family = computed(() => cut.familyOf(props.shot))
const ways = computed(() => {
  const picked = cut.shots.filter((one) => copies.shots.includes(one.id))
  const scene = cut.shots.filter((one) => one.scene === props.shot.scene)
  const camera = cut.shots.filter((one) => one.clip.camera && one.clip.camera === props.shot.clip.camera)
  return [
    { words: `of the ${picked.length} picked shots`, name: picked.map((one) => one.name).join(' '), shots: picked },
    { words: `of the scene, ${counted(scene.length, 'shot')}`, name: props.shot.scene, shots: scene },
    { words: `of the camera, ${counted(camera.length, 'shot')}`, name: props.shot.clip.camera ?? '', shots: camera },
  ].filter((way) => way.shots.length > 1)
})
/** This shot leads what it forms. */
const form = (name: string, shots: Shot[]) => families.form(name, [props.shot, ...shots.filter((one) => one.id !== props.shot.id)])
function rename(event: Event) {
  const name = (event.target as HTMLInputElement).value.trim()
  if (family.value && name && name !== family.value.name) void families.rename(family.value, name)
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="text-2xs text-dim hover:text-ink" title="the family this shot shares steps with">{{ family ? `family ${family.name} · ${family.shots.length}` : 'no family' }}</PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 z-30 mt-1 w-60 border border-line bg-raise p-3 text-sm text-ink shadow-lg shadow-black/50 outline-none">
      <template v-if="family">
        <input class="field w-full select-text" :value="family.name" maxlength="60" aria-label="name of the family" @keydown.enter="($event.target as HTMLInputElement).blur()" @keydown.stop @blur="rename" />
        <p class="mt-2 text-2xs text-dim">
          {{
            cut.shots
              .filter((one) => family?.shots.includes(one.id))
              .map((one) => (one.id === family?.hero ? `${one.name} (hero)` : one.name))
              .join(', ')
          }}
        </p>
        <button v-if="family.hero !== shot.id" class="mt-2 block text-xs text-dim hover:text-ink" @click="families.lead(family, shot)">make {{ shot.name }} its hero</button>
        <RouterLink v-if="cut.project && cut.cut" class="mt-1 block text-xs text-dim hover:text-ink" :to="{ name: 'pairing', params: { project: cut.project.id, cut: cut.cut.id } }">match its members in Pairing →</RouterLink>
        <button class="mt-1 block text-xs text-dim hover:text-ink" @click="families.join(shot, null)">{{ shot.name }} leaves it</button>
      </template>
      <template v-for="other in cut.families" :key="other.id">
        <button v-if="other.id !== shot.family" class="mt-1 block text-xs text-dim hover:text-ink" @click="families.join(shot, other.id)">join {{ other.name }}</button>
      </template>
      <h3 class="caption mt-3 mb-1 border-t border-line pt-2">form a family</h3>
      <button v-for="way in ways" :key="way.words" class="block py-0.5 text-left text-xs text-dim hover:text-ink" @click="form(way.name, way.shots)">{{ way.words }}</button>
      <p v-if="ways.length === 0" class="text-xs text-dim">Pick shots in the ribbon with Ctrl and a click.</p>
    </PopoverPanel>
  </Popover>
</template>
