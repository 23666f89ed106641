import { getJson, send } from '@/api/client'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { ChoiceGroup } from '../shell/ChoiceList.vue'

/** The LUT library, by folder. */
export const useLuts = defineStore('luts', () => {
  const paths = ref<string[]>([])
  const loaded = ref(false)

  async function load() {
    paths.value = await getJson<string[]>('/luts')
    loaded.value = true
  }

  /**
   * Copies a file into the library.
   *
   * @returns its path there
   * @throws ApiError of a faulty file, or of a name that is taken
   */
  async function put(path: string, file: Blob): Promise<string> {
    const answer = (await (await send('POST', `/luts?path=${encodeURIComponent(path)}`, file)).json()) as { path: string; luts: string[] }
    paths.value = answer.luts
    return answer.path
  }

  const folders = computed<ChoiceGroup[]>(() => {
    const groups = new Map<string, ChoiceGroup>([['', { name: '', options: [{ id: '', label: 'none' }] }]])
    for (const path of paths.value) {
      const cut = path.lastIndexOf('/')
      const folder = path.slice(0, Math.max(0, cut))
      const group = groups.get(folder) ?? { name: folder, options: [] }
      group.options.push({ id: path, label: path.slice(cut + 1) })
      groups.set(folder, group)
    }
    return [...groups.values()]
  })

  return { paths, loaded, folders, load, put }
})
