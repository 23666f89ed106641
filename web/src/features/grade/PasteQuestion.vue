<script setup lang="ts">
import { useCut } from '../cut/useCut'
import { useKeys } from '../shell/useKeys'
import { useCopies } from './useCopies'

/** Asks, before a recipe goes on shots, whether it replaces their steps; says which of them have some. */
const copies = useCopies()
const cut = useCut()
const graded = () => cut.shots.filter((shot) => copies.asking?.includes(shot.id) && shot.recipe.document.steps.length > 0)

useKeys('copies', [
  { key: 'enter', words: 'the copied recipe in place of what is there', press: () => void copies.answer('replace') },
  { key: 'shift+enter', words: 'the copied recipe after what is there', press: () => void copies.answer('add') },
  { key: 'escape', words: 'cancel', press: () => void copies.answer('leave') },
])
</script>

<template>
  <div class="border-b border-weld bg-raise px-3 py-2.5 text-xs" role="group" aria-label="put a recipe on shots">
    <p class="text-ink">
      Put the {{ copies.words }} on <b class="font-medium">{{ copies.named(copies.asking ?? []) }}</b>
    </p>
    <p class="mt-0.5 text-dim">{{ graded().length ? `${copies.named(graded().map((shot) => shot.id))} ${graded().length === 1 ? 'has' : 'have'} steps already.` : 'Nothing is done to them yet.' }} One undo takes it back.</p>
    <p class="mt-2 flex gap-1.5">
      <button class="control-main px-2 py-0.5" @click="copies.answer('replace')">replace their steps</button>
      <button class="control px-2 py-0.5" title="Shift Enter" @click="copies.answer('add')">add after them</button>
      <button class="control px-2 py-0.5" title="Esc" @click="copies.answer('leave')">cancel</button>
    </p>
  </div>
</template>
