<script setup lang="ts">
import { useKeys } from '../shell/useKeys'
import { useBorrow } from './useBorrow'

/** Stands above the picture while a borrowed grade is on trial; its keys live as long. */
const borrow = useBorrow()
useKeys('comparing', [
  { key: 'enter', words: 'keep what is borrowed', press: () => borrow.keep() },
  { key: 'escape', words: 'drop what is borrowed', press: () => borrow.drop() },
])
</script>

<template>
  <span class="mr-2 border border-weld px-1.5 text-weld">grade of {{ borrow.from?.name }} on trial · Enter keeps, Esc drops, B further back</span>
</template>
