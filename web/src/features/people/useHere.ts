import { getJson, sendJson, whenShut } from '@/api/client'
import type { Here, Person, Role } from '@/api/people'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

const ROLES: Role[] = ['look', 'grade', 'deliver', 'administer']

/** Who is at this browser. Where there is no account nobody is asked, and everything may be done. */
export const useHere = defineStore('here', () => {
  const asked = ref<boolean | null>(null)
  const person = ref<Person | null>(null)
  const failed = ref<string | null>(null)
  /** Somebody has been let in since the page was loaded; what they do not see stays as it is when they are signed out. */
  const opened = ref(false)
  let last: number | null = null

  function take(here: Here) {
    asked.value = here.asked
    person.value = here.person
    if (here.asked && !here.person) return
    if (opened.value && here.person && here.person.id !== last) return location.reload() // another's work is not shown through
    last = here.person?.id ?? null
    opened.value = true
  }

  async function look() {
    try {
      take(await getJson<Here>('/here'))
      failed.value = null
    } catch (error) {
      failed.value = error instanceof Error ? error.message : String(error)
    }
  }

  async function signIn(name: string, password: string) {
    take(await sendJson<Here>('POST', '/sign_in', { name, password }))
  }

  async function signOut() {
    take(await sendJson<Here>('POST', '/sign_out'))
  }

  whenShut(() => {
    asked.value = true
    person.value = null
  })

  return {
    asked,
    person,
    failed,
    opened,
    shut: computed(() => asked.value === true && !person.value),
    may: (role: Role) => asked.value === false || (person.value !== null && ROLES.indexOf(person.value.role) >= ROLES.indexOf(role)),
    look,
    signIn,
    signOut,
  }
})
