<script setup lang="ts">
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { smallPictureOf } from '../cut/smallPicture'
import { useCut } from '../cut/useCut'
import { useOpenCut } from '../cut/useOpenCut'
import type { Measuring } from '../bench/usePicture'
import WhoIsAt from '../people/WhoIsAt.vue'
import BandLegend from '../scopes/BandLegend.vue'
import ScopeDock from '../scopes/ScopeDock.vue'
import { useBands } from '../scopes/useBands'
import { useScopes } from '../scopes/useScopes'
import ChoiceList from '../shell/ChoiceList.vue'
import { useKeys } from '../shell/useKeys'
import PairHand from './PairHand.vue'
import PairPicture from './PairPicture.vue'
import PairScrub from './PairScrub.vue'
import { usePairing } from './usePairing'

const cut = useCut()
const scopes = useScopes()
const bands = useBands()
const pairing = usePairing()
const ready = useOpenCut()
const source = ref(false)
const right = ref<InstanceType<typeof PairPicture>>()

/** What both sides share: the bands in the picture. */
const seen = computed<Measuring>(() => ({ scopes: {}, measure: 'final', region: null, light: null, bands: bands.wish, marks: false, beside: null }))
/** Instruments show the member, and the hero together with it. */
const measured = computed<Measuring>(() => ({
  ...seen.value,
  scopes: scopes.wanted,
  region: pairing.regions.member,
  beside: pairing.hero ? { frame: pairing.frameOf(pairing.hero) } : null,
}))
const held = (value: number, decimals: number, unit: string) => `${value > 0 ? '+' : ''}${value.toFixed(decimals)} ${unit}`.replace('-', '−')
const numbers = computed(() => {
  const found = pairing.found?.parameters
  return found
    ? [
        ['exposure', held(found.exposure, 2, 'st')],
        ['temperature', held(found.temperature, 1, 'pt')],
        ['tint', held(found.tint, 1, 'pt')],
      ]
    : []
})
const per = (share: number) => `${Math.round(share * 100)} %`

useKeys('the pair', [
  { key: 'q', words: 'previous member', press: () => pairing.step(-1) },
  { key: 'e', words: 'next member', press: () => pairing.step(1) },
  { key: 'y', words: 'propose a match', press: () => void pairing.propose() },
  { key: 'k', words: 'keep what is proposed', press: pairing.keep },
  { key: 'escape', words: 'drop what is proposed', press: pairing.drop },
  { key: 'c', words: "the hero's recipe on this member", press: () => void pairing.copy(false) },
  { key: 'w', words: 'held: the member as shot', press: () => (source.value = true), release: () => (source.value = false) },
  { key: 'j', words: 'colour bands', press: () => void bands.flip() },
])
</script>

<template>
  <div v-if="ready && pairing.family && pairing.hero && pairing.member && cut.project" class="grid h-full grid-cols-[156px_minmax(0,1fr)] grid-rows-1">
    <div class="flex min-h-0 flex-col border-r border-line">
      <div class="p-2">
        <ChoiceList
          label="family"
          look="control"
          :groups="[{ name: '', options: cut.families.map(({ id, name }) => ({ id: String(id), label: name })) }]"
          :model-value="String(pairing.family.id)"
          @update:model-value="$event && pairing.choose(Number($event))"
          >{{ pairing.family.name }}</ChoiceList
        >
      </div>
      <div class="min-h-0 flex-1 overflow-y-auto px-2" role="listbox" aria-label="members">
        <button
          v-for="shot in pairing.members"
          :key="shot.id"
          class="relative mb-1.5 block w-full p-[3px] text-left outline-1"
          :class="shot.id === pairing.member.id ? 'bg-raise outline-weld' : 'outline-transparent hover:outline-line'"
          role="option"
          :aria-selected="shot.id === pairing.member.id"
          @mousedown.prevent
          @click="pairing.go(shot.id)"
        >
          <img :src="smallPictureOf(cut.project, shot)" :alt="`shot ${shot.name}`" class="aspect-video w-full bg-ground object-cover" draggable="false" />
          <WhoIsAt :shot="shot.id" class="absolute top-1 left-1" />
          <span class="mt-0.5 flex justify-between text-2xs text-dim"
            ><b class="font-medium text-ink">{{ shot.name }}</b
            >{{ shot.clip.camera }}</span
          >
        </button>
      </div>
    </div>
    <section class="flex min-h-0 min-w-0 flex-col" aria-label="pair">
      <div class="relative grid min-h-0 flex-1 grid-cols-2 gap-px bg-line">
        <PairPicture v-model:part="pairing.regions.hero" :shot="pairing.hero" :frame="pairing.frameOf(pairing.hero)" :label="`hero ${pairing.hero.name}`" :measuring="seen"
          ><template #bar><PairScrub :shot="pairing.hero" :frame="pairing.frameOf(pairing.hero)" :label="pairing.hero.name" @look="pairing.look(pairing.hero, $event)" /></template>hero, stays as it is</PairPicture
        >
        <PairPicture
          ref="right"
          v-model:part="pairing.regions.member"
          graded
          :shot="pairing.member"
          :frame="pairing.frameOf(pairing.member)"
          :label="`member ${pairing.member.name}`"
          :trial="pairing.found?.document"
          :source="source"
          :measuring="measured"
        >
          <template #bar><PairScrub :shot="pairing.member" :frame="pairing.frameOf(pairing.member)" :label="pairing.member.name" @look="pairing.look(pairing.member, $event)" /></template>
          <span class="text-weld">{{ source ? 'as shot' : pairing.found ? 'as proposed' : 'is graded' }}</span>
        </PairPicture>
        <BandLegend v-if="bands.on" />
      </div>
      <div class="flex items-center gap-3 border-t border-line bg-pane px-3 py-2 text-sm">
        <button class="control-main" :disabled="pairing.looking" @click="pairing.propose()">{{ pairing.looking ? 'looking…' : `Match ${pairing.member.name} to ${pairing.hero.name}` }}</button>
        <label class="flex items-center gap-1.5 text-xs text-dim" title="the hero's steps are copied, and the shot is made like the hero before them; without it the shot's own steps stay"
          ><input v-model="pairing.along" type="checkbox" class="accent-weld" />with the hero's recipe</label
        >
        <label class="flex items-center gap-1.5 text-xs text-dim" title="how much more things coloured like skin count"
          >skin <input v-model.number="pairing.skin" type="range" min="0" max="1" step="0.1" class="w-20 accent-weld" aria-label="weight of skin"
        /></label>
        <template v-if="pairing.found">
          <span v-for="[name, value] in numbers" :key="name" class="whitespace-nowrap text-xs text-dim" :data-test="`match-${name}`"
            >{{ name }} <b class="font-medium text-ink">{{ value }}</b></span
          >
          <span class="whitespace-nowrap text-xs text-dim" data-test="alike"
            >alike {{ per(pairing.found.before) }} → <b class="font-medium text-ink">{{ per(pairing.found.after) }}</b></span
          >
          <button class="control" @click="pairing.keep()">keep</button>
          <button class="control" @click="pairing.drop()">drop</button>
        </template>
        <span class="flex-1" />
        <button class="text-xs text-dim hover:text-ink" @click="pairing.copy(true)">{{ pairing.hero.name }}'s recipe on all {{ pairing.members.length }}</button>
      </div>
      <div v-if="!pairing.found" class="flex items-end gap-3 border-t border-line bg-pane px-3 pt-1.5 pb-2"><PairHand :key="pairing.member.id" :shot="pairing.member" /></div>
      <ScopeDock :shown="right?.shown ?? null" :second="[pairing.member.name, pairing.hero.name]" />
    </section>
  </div>
  <div v-else class="flex h-full flex-col items-center justify-center gap-2 text-dim">
    <template v-if="ready">
      <p>No family has members to match yet.</p>
      <p class="text-sm">On the Bench, open <i>no family</i> beside a shot's name and form one of its scene, its camera or the shots you picked.</p>
      <RouterLink v-if="cut.project && cut.cut" class="control mt-2" :to="{ name: 'bench', params: { project: cut.project.id, cut: cut.cut.id } }">To the Bench</RouterLink>
    </template>
    <template v-else>opening the cut…</template>
  </div>
</template>
