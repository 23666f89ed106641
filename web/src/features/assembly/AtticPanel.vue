<script setup lang="ts">
import type { AtticShot } from '@/api/list'
import { smallPicture } from '../cut/smallPicture'
import { useCut } from '../cut/useCut'
import { useCopies } from '../grade/useCopies'
import { counted } from '../shell/counted'
import { useAssembly } from './useAssembly'

/** Shots that have left the cut, with their grades. */
const cut = useCut()
const assembly = useAssembly()
const copies = useCopies()

function putOn(one: AtticShot) {
  copies.copy(one.recipe.document.steps, true)
  void copies.put(assembly.chosen.map((shot) => shot.id))
}
</script>

<template>
  <div class="min-h-0 flex-1 overflow-y-auto p-3 text-xs" aria-label="attic">
    <p v-if="assembly.attic.length === 0" class="text-dim">Shots that leave the cut keep their grades here, and can be called back.</p>
    <ul class="space-y-3">
      <li v-for="one in assembly.attic" :key="one.id" class="flex gap-2" :data-attic="one.id">
        <img v-if="cut.project" :src="smallPicture(cut.project, one)" alt="" class="h-[50px] w-[89px] shrink-0 bg-ground object-cover" loading="lazy" draggable="false" />
        <div class="min-w-0 flex-1">
          <p class="truncate">
            <b class="font-medium text-ink">{{ one.name }}</b><span class="text-faint"> {{ one.length }} f</span>
          </p>
          <p class="truncate text-dim">{{ one.clip }} {{ one.source }}</p>
          <p class="text-dim">
            {{ counted(one.steps, 'step') }}<template v-if="one.versions > 1">, {{ one.versions }} versions</template><template v-if="one.note"> · {{ one.note }}</template>
          </p>
          <p class="flex gap-3">
            <button class="text-weld hover:text-ink" @click="assembly.callBack(one)">put it in before {{ cut.shot?.name }}</button
            ><button class="text-dim hover:text-ink" :disabled="!one.steps" @click="putOn(one)">its grade on {{ cut.shot?.name }}</button>
          </p>
        </div>
      </li>
    </ul>
  </div>
</template>
