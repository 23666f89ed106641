<script setup lang="ts">
import { ref } from 'vue'
import { useHere } from './useHere'

const here = useHere()
const name = ref('')
const password = ref('')
const words = ref('')
const busy = ref(false)

async function enter() {
  busy.value = true
  words.value = ''
  try {
    await here.signIn(name.value, password.value)
  } catch (error) {
    words.value = error instanceof Error ? error.message : String(error)
  }
  password.value = ''
  busy.value = false
}
</script>

<template>
  <div class="flex h-full items-center justify-center bg-ground">
    <form class="w-72" aria-label="sign in" @submit.prevent="enter">
      <p class="flex items-center gap-2 text-base font-semibold"><img src="/mark.svg" alt="" class="size-5" />Mordant</p>
      <p v-if="here.opened" class="mt-3 text-sm text-dim">You were signed out. What you did last is kept here until you are back.</p>
      <label class="caption mt-4 block">name<input v-model="name" class="field mt-1 w-full" autocomplete="username" required autofocus /></label>
      <label class="caption mt-3 block">password<input v-model="password" class="field mt-1 w-full" type="password" autocomplete="current-password" required /></label>
      <p v-if="words" role="alert" class="mt-3 text-sm text-madder">{{ words }}</p>
      <button class="control-main mt-4 w-full" :disabled="busy || !name || !password">{{ busy ? 'looking…' : 'Sign in' }}</button>
    </form>
  </div>
</template>
