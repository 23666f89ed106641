<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { useRecipes } from './useRecipes'

const recipes = useRecipes()
</script>

<template>
  <Dialog :open="recipes.conflict !== null" class="relative z-40" @close="recipes.settle(false)">
    <div class="fixed inset-0 bg-black/60" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-6">
      <DialogPanel class="w-[440px] rounded-sm border border-line bg-pane p-5">
        <DialogTitle class="text-base font-semibold">This grade was changed elsewhere</DialogTitle>
        <p class="mt-2 text-dim">Somebody else, or another window of yours, changed this recipe after you last saw it. Yours: “{{ recipes.conflict?.mine.words }}”. Whichever you take, undo and redo lead to the other.</p>
        <div class="mt-4 flex gap-2">
          <button class="control-main" @click="recipes.settle(true)">Put mine on top</button>
          <button class="control" @click="recipes.settle(false)">Take the other</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
