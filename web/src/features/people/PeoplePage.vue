<script setup lang="ts">
import { getJson, sendJson } from '@/api/client'
import type { Person, Role, SignIn } from '@/api/people'
import { onMounted, reactive, ref } from 'vue'
import ChoiceList from '../shell/ChoiceList.vue'
import { useNotices } from '../shell/useNotices'
import { useHere } from './useHere'
import { browserWords, ROLE_ABOUT, ROLE_WORDS, shortTime } from './words'

/** Accounts, and who is signed in with what. */
const here = useHere()
const notices = useNotices()
const people = ref<Person[]>([])
const roles = ref<Role[]>([])
const signIns = ref<SignIn[]>([])
const fresh = reactive({ name: '', initials: '', role: 'grade' as Role, password: '' })
/** Whose password is being given anew. */
const giving = ref<{ id: number; password: string } | null>(null)

async function attempt(work: () => Promise<unknown>) {
  try {
    await work()
    await load()
  } catch (error) {
    notices.trouble(error)
  }
}
async function load() {
  const told = await getJson<{ people: Person[]; roles: Role[] }>('/people')
  people.value = told.people
  roles.value = told.roles
  signIns.value = await getJson<SignIn[]>('/sign_ins')
}
onMounted(() => attempt(async () => undefined))

const add = () =>
  attempt(async () => {
    await sendJson('POST', '/people', { ...fresh, initials: fresh.initials || undefined })
    Object.assign(fresh, { name: '', initials: '', password: '' })
    await here.look() // with the first account everybody has to sign in
  })
const change = (id: number, values: Record<string, unknown>) => attempt(() => sendJson('PATCH', `/people/${id}`, values))
async function give() {
  const given = giving.value
  if (given) await change(given.id, { password: given.password })
  giving.value = null
}
const options = () => [{ name: '', options: roles.value.map((id) => ({ id, label: `${ROLE_WORDS[id]}: ${ROLE_ABOUT[id]}` })) }]
</script>

<template>
  <div class="h-full overflow-y-auto px-16 py-10">
    <h1 class="text-2xl font-semibold tracking-tight">People</h1>
    <p class="mt-1 max-w-2xl text-base text-dim">
      {{ people.length ? 'Everybody here signs in. Nobody’s work goes when an account ends; the history keeps their name.' : 'Nobody has to sign in yet. With the first account everybody has to, so make one for yourself that administers.' }}
    </p>
    <ul class="mt-6 grid max-w-4xl gap-px bg-line" aria-label="accounts">
      <li v-for="person in people" :key="person.id" class="bg-pane px-4 py-2.5">
        <div class="flex items-center gap-3 text-sm">
          <span class="w-9 border border-line text-center text-xs" :class="person.ended ? 'text-faint' : 'text-ink'">{{ person.initials }}</span>
          <span class="min-w-0 flex-1 truncate" :class="{ 'text-faint': person.ended }"
            >{{ person.name }}<span v-if="person.id === here.person?.id" class="text-dim">, you</span><span v-if="person.ended" class="text-dim">, ended</span></span
          >
          <ChoiceList class="w-48" :label="`role of ${person.name}`" :groups="options()" :model-value="person.role" @update:model-value="$event && change(person.id, { role: $event })">{{ ROLE_WORDS[person.role] }}</ChoiceList>
          <button class="text-xs text-dim hover:text-ink" @click="giving = { id: person.id, password: '' }">new password…</button>
          <button class="w-20 text-right text-xs text-dim hover:text-ink" @click="change(person.id, { ended: !person.ended })">{{ person.ended ? 'let back in' : 'end account' }}</button>
        </div>
        <form v-if="giving?.id === person.id" class="mt-2 flex justify-end gap-2" @submit.prevent="give">
          <input v-model="giving.password" class="field w-56" type="password" placeholder="10 characters or more" :aria-label="`new password of ${person.name}`" autocomplete="new-password" />
          <button class="control" :disabled="giving.password.length < 10">set it</button>
          <button type="button" class="control" @click="giving = null">cancel</button>
        </form>
        <p v-for="one in signIns.filter((sign) => sign.person === person.id)" :key="one.id" class="mt-1 flex gap-2 pl-12 text-xs text-dim">
          <span class="truncate" :title="one.browser">{{ browserWords(one.browser) }}, {{ one.address }}, seen {{ shortTime(one.seen) }}{{ one.here ? ', this one' : '' }}</span>
          <button v-if="!one.here" class="hover:text-ink" @click="attempt(() => sendJson('DELETE', `/sign_ins/${one.id}`))">sign out</button>
        </p>
      </li>
    </ul>
    <form class="mt-6 flex max-w-4xl items-center gap-2" aria-label="new account" @submit.prevent="add">
      <input v-model="fresh.name" class="field min-w-0 flex-1" placeholder="name" aria-label="name" maxlength="60" autocomplete="off" />
      <input v-model="fresh.initials" class="field w-20" placeholder="initials" aria-label="initials" maxlength="3" autocomplete="off" />
      <ChoiceList class="w-48" label="role of the new account" :groups="options()" :model-value="fresh.role" opens="up" @update:model-value="$event && (fresh.role = $event as Role)">{{ ROLE_WORDS[fresh.role] }}</ChoiceList>
      <input v-model="fresh.password" class="field w-52" type="password" placeholder="password, 10 characters" aria-label="password" autocomplete="new-password" />
      <button class="control-main" :disabled="!fresh.name.trim() || fresh.password.length < 10">Make account</button>
    </form>
  </div>
</template>
