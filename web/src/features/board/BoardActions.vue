<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { useCut } from '../cut/useCut'
import { useReference } from '../compare/useReference'
import { useCopies } from '../grade/useCopies'
import { useFamilies } from '../grade/useFamilies'
import ChoiceList from '../shell/ChoiceList.vue'
import { useCatalogue } from '../shell/useCatalogue'
import { useBoard } from './useBoard'
import { FLAG_FILL, useFlags } from './useFlags'

/** What is done with the shots that are picked. */
const board = useBoard()
const reference = useReference()
const cut = useCut()
const copies = useCopies()
const families = useFamilies()
const flags = useFlags()
const catalogue = useCatalogue()
const note = ref('')

const chosen = computed(() => board.chosen)
const who = computed(() => (copies.picked.length > 0 ? `${chosen.value.length} picked` : (chosen.value[0]?.name ?? '')))
watch(chosen, ([first, other]) => (note.value = first && !other ? first.note : ''), { immediate: true })

const groups = computed(() => [
  { name: '', options: chosen.value.length > 1 ? [{ id: 'new', label: `form one of ${chosen.value.length} shots` }] : [] },
  { name: 'join', options: cut.families.map(({ id, name }) => ({ id: String(id), label: name })) },
])
function family(id: string | null) {
  const other = cut.families.find((one) => String(one.id) === id)
  if (other) void families.takeIn(other, chosen.value)
  else if (id === 'new') void families.form([...new Set(chosen.value.map((shot) => shot.scene))].join(', '), chosen.value)
}
const copy = () => cut.shot && copies.copy(cut.shot.recipe.document.steps, true)
</script>

<template>
  <div class="flex items-center gap-3 border-t border-line bg-pane px-3 py-1.5 text-xs whitespace-nowrap text-dim" role="group" aria-label="what is done with picked shots">
    <span class="text-ink" data-test="chosen">{{ who }}</span>
    <span class="flex gap-2"><button class="hover:text-ink" @click="board.pickAll()">pick all shown</button><button v-if="copies.picked.length" class="hover:text-ink" @click="board.pickNone()">none</button></span>
    <span class="flex items-center gap-1 border-l border-line pl-3" role="group" aria-label="flags">
      flag
      <button v-for="colour in catalogue.catalogue?.flags" :key="colour" class="h-4 w-4" :aria-label="`flag ${colour}`" :title="colour" @click="flags.put(chosen, colour, note)">
        <svg viewBox="0 0 12 16" class="mx-auto h-4" :class="FLAG_FILL[colour]"><path d="M0 0H12V16L6 12L0 16Z" /></svg>
      </button>
      <button class="hover:text-ink" @click="flags.put(chosen, null, '')">off</button>
      <input v-model="note" class="field ml-1 w-44 py-0 text-xs select-text" maxlength="500" placeholder="note" aria-label="note of the flag" @keydown.stop @keydown.enter="flags.put(chosen, chosen[0]?.flag ?? 'madder', note)" />
    </span>
    <span class="flex items-center gap-2 border-l border-line pl-3">
      <button class="hover:text-ink disabled:text-faint" :disabled="!cut.shot?.recipe.document.steps.length" title="Ctrl C" @click="copy()">copy {{ cut.shot?.name }}'s recipe</button>
      <button v-if="copies.steps.length" class="text-weld hover:text-ink" title="Ctrl V" @click="copies.put(chosen.map((shot) => shot.id))">put {{ copies.words }} on {{ who }}</button>
    </span>
    <RouterLink
      v-if="chosen.length === 1 && chosen[0]?.id !== cut.shot?.id && cut.project && cut.cut"
      class="border-l border-line pl-3 hover:text-ink"
      :to="{ name: 'bench', params: { project: cut.project.id, cut: cut.cut.id } }"
      @click="reference.other === chosen[0]?.id && reference.on ? undefined : reference.withShot(chosen[0]?.id ?? 0)"
      >compare {{ cut.shot?.name }} with it</RouterLink
    >
    <span class="flex items-center gap-1 border-l border-line pl-3">
      <ChoiceList label="family of the picked shots" look="flat" opens="up" :groups="groups" :model-value="null" empty="pick several shots to form a family" @update:model-value="family">family…</ChoiceList>
    </span>
  </div>
</template>
