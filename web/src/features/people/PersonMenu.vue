<script setup lang="ts">
import { getJson, sendJson } from '@/api/client'
import type { SignIn } from '@/api/people'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref } from 'vue'
import { RouterLink } from 'vue-router'
import { useKeys } from '../shell/useKeys'
import { useNotices } from '../shell/useNotices'
import { useHere } from './useHere'
import { browserWords, ROLE_WORDS, shortTime } from './words'

/** Who is signed in here, with which other browsers, and out again. */
const here = useHere()
const notices = useNotices()
const list = ref<SignIn[]>([])
const present = ref('')
const next = ref('')
useKeys('everywhere', [{ key: '', words: 'sign out', press: () => here.person && void attempt(here.signOut) }])

async function attempt(work: () => Promise<unknown>) {
  try {
    await work()
  } catch (error) {
    notices.trouble(error)
  }
}
const load = () => attempt(async () => (list.value = (await getJson<SignIn[]>('/sign_ins')).filter((one) => one.person === here.person?.id)))
const end = (id: number) => attempt(async () => (await sendJson('DELETE', `/sign_ins/${id}`), await load()))
const endAll = () => attempt(async () => (await sendJson('DELETE', '/sign_ins'), await here.look()))
const change = () =>
  attempt(async () => {
    await sendJson('PUT', '/own_password', { present: present.value, password: next.value })
    ;[present.value, next.value] = ['', '']
    notices.news('Your password is changed; your other browsers are signed out.')
    await load()
  })
</script>

<template>
  <Popover v-if="here.person" class="relative">
    <PopoverButton class="border border-line px-1.5 text-ink" :title="`${here.person.name}, who ${ROLE_WORDS[here.person.role]}`" data-test="person" @click="load">{{ here.person.initials }}</PopoverButton>
    <PopoverPanel v-inside class="absolute right-0 z-30 mt-1 w-[350px] border border-line bg-raise p-3 shadow-lg shadow-black/50 outline-none">
      <p class="text-sm text-ink">
        {{ here.person.name }} <span class="text-dim">{{ ROLE_WORDS[here.person.role] }}</span>
      </p>
      <h3 class="caption mt-3">signed in with</h3>
      <ul class="mt-1 grid gap-1" aria-label="browsers you are signed in with">
        <li v-for="one in list" :key="one.id" class="flex items-baseline justify-between gap-2 text-xs">
          <span class="min-w-0 truncate" :title="one.browser"
            >{{ browserWords(one.browser) }} <span class="text-dim">{{ one.address }}, {{ shortTime(one.seen) }}</span></span
          >
          <span v-if="one.here" class="text-dim">this one</span><button v-else class="text-dim hover:text-ink" @click="end(one.id)">sign out</button>
        </li>
      </ul>
      <form class="mt-3 grid grid-cols-[1fr_1fr_auto] gap-1" aria-label="another password" @submit.prevent="change">
        <input v-model="present" class="field min-w-0" type="password" placeholder="password now" aria-label="password now" autocomplete="current-password" />
        <input v-model="next" class="field min-w-0" type="password" placeholder="new one" aria-label="new password" autocomplete="new-password" />
        <button class="control" :disabled="!present || next.length < 10">change</button>
      </form>
      <div class="mt-3 flex gap-2 border-t border-line pt-3">
        <RouterLink v-if="here.may('administer')" class="control" :to="{ name: 'people' }">People…</RouterLink>
        <span class="flex-1" />
        <button class="control" @click="endAll">sign out everywhere</button>
        <button class="control" @click="attempt(here.signOut)">sign out</button>
      </div>
    </PopoverPanel>
  </Popover>
</template>
