import { nextTick, ref, type Ref } from 'vue'

/**
 * A name that becomes a field when somebody wants another one.
 *
 * @param field while it is one
 */
export function useNaming(field: Ref<HTMLInputElement | undefined>, current: () => string, give: (name: string) => void) {
  const naming = ref(false)

  async function rename() {
    naming.value = true
    await nextTick()
    field.value?.select()
  }
  function named(name: string) {
    if (!naming.value) return
    naming.value = false
    if (name.trim() && name.trim() !== current()) give(name.trim())
  }

  return { naming, rename, named }
}
