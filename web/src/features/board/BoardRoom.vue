<script setup lang="ts">
import type { Shot } from '@/api/cut'
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useCut } from '../cut/useCut'
import { useOpenCut } from '../cut/useOpenCut'
import { useReference } from '../compare/useReference'
import { useCopies } from '../grade/useCopies'
import PasteQuestion from '../grade/PasteQuestion.vue'
import { useKeys } from '../shell/useKeys'
import BoardActions from './BoardActions.vue'
import BoardCard from './BoardCard.vue'
import BoardFilters from './BoardFilters.vue'
import { GAP, useBoard } from './useBoard'
import { useFlags } from './useFlags'

/** All shots of the cut as pictures. Only the rows that can be seen are there. */
const route = useRoute()
const router = useRouter()
const cut = useCut()
const copies = useCopies()
const reference = useReference()
const flags = useFlags()
const ready = useOpenCut()
const list = ref<HTMLElement>()
const { width, height } = useElementSize(list)
const board = useBoard()
watch([width, height], () => Object.assign(board.stage, { width: width.value, height: height.value }))
const second = computed(() => (reference.on ? reference.shot?.id : undefined))

/** Scrolls as little as shows the shot somebody is at. */
async function follow() {
  if (!board.look.follows || board.place < 0) return
  await nextTick()
  const top = Math.floor(board.place / board.columns) * board.rowHeight
  const box = list.value
  if (!box) return
  if (top < box.scrollTop) box.scrollTop = top
  else if (top + board.rowHeight + GAP > box.scrollTop + box.clientHeight) box.scrollTop = top + board.rowHeight + GAP - box.clientHeight
}
watch([() => board.place, () => board.columns, () => board.rowHeight, ready, height], follow)

/** Keys are the board's from then on. */
function click(shot: Shot, event: MouseEvent) {
  list.value?.focus({ preventScroll: true })
  board.click(shot, event)
}
const bench = () => void router.push({ name: 'bench', params: route.params })
const put = () => void copies.put(board.chosen.map((shot) => shot.id))
useKeys('the board', [
  { key: 'arrowleft', words: 'shot before', press: () => board.move(-1) },
  { key: 'arrowright', words: 'shot after', press: () => board.move(1) },
  { key: 'arrowup', words: 'row above', press: () => board.move(-board.columns) },
  { key: 'arrowdown', words: 'row below', press: () => board.move(board.columns) },
  { key: 'home', words: 'first shot', press: () => board.move(-cut.shots.length) },
  { key: 'end', words: 'last shot', press: () => board.move(cut.shots.length) },
  { key: 'space', words: 'pick the shot, or not', press: () => cut.shot && copies.pick(cut.shot.id) },
  { key: 'mod+a', words: 'pick all shown', press: () => board.pickAll() },
  { key: 'escape', words: 'clear the picks', press: () => board.pickNone() },
  { key: 'enter', words: 'to the Bench', press: bench },
  { key: 'shift+f', words: 'flag on and off', press: () => void flags.flip() },
  { key: 'shift+r', words: 'use this frame as the poster frame', press: () => void flags.standIn() },
  { key: 'mod+c', words: "copy the shot's recipe", press: () => cut.shot && copies.copy(cut.shot.recipe.document.steps, true) },
  { key: 'mod+v', words: 'put what was copied on what is picked', press: put },
])
</script>

<template>
  <section v-if="ready && cut.project" class="flex h-full min-h-0 flex-col" aria-label="board">
    <BoardFilters />
    <div ref="list" class="min-h-0 flex-1 overflow-y-auto outline-none" role="listbox" aria-label="shots" aria-multiselectable="true" tabindex="0" @scroll.passive="board.scroll = ($event.target as HTMLElement).scrollTop">
      <div class="relative" :style="{ height: `${board.height}px` }">
        <div
          class="absolute inset-x-0 grid justify-start"
          :style="{ top: `${board.seen.first * board.rowHeight + GAP}px`, left: `${GAP}px`, gap: `${GAP}px`, gridTemplateColumns: `repeat(${board.columns}, ${board.cardWidth}px)`, gridAutoRows: `${board.rowHeight - GAP}px` }"
        >
          <BoardCard
            v-for="shot in board.seen.shots"
            :key="shot.id"
            :project="cut.project"
            :shot="shot"
            :size="board.cardWidth"
            :details="board.look.details"
            :poster="board.look.poster"
            :current="shot.id === cut.shot?.id"
            :reference="shot.id === second"
            :picked="copies.picked.includes(shot.id)"
            @mousedown.prevent
            @click="click(shot, $event)"
            @dblclick="bench"
          />
        </div>
        <p v-if="board.shown.length === 0" class="pt-24 text-center text-dim">No shot of this cut is like that. <button class="text-weld hover:text-ink" @click="board.allOf()">Show all</button></p>
      </div>
    </div>
    <PasteQuestion v-if="copies.asking" />
    <BoardActions />
  </section>
  <div v-else class="flex h-full items-center justify-center text-dim">opening the cut…</div>
</template>
