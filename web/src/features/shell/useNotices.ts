import { defineStore } from 'pinia'
import { ref } from 'vue'

export interface Notice {
  id: number
  words: string
  kind: 'trouble' | 'news'
}

const SHOWN_FOR = 9000 // ms; trouble stays until it is dismissed

/** What a person should know of. */
export const useNotices = defineStore('notices', () => {
  const notices = ref<Notice[]>([])
  let last = 0

  function dismiss(id: number) {
    notices.value = notices.value.filter((notice) => notice.id !== id)
  }

  function add(words: string, kind: Notice['kind']) {
    if (notices.value.some((notice) => notice.words === words)) return
    const id = ++last
    notices.value.push({ id, words, kind })
    if (kind === 'news') setTimeout(() => dismiss(id), SHOWN_FOR)
  }

  return {
    notices,
    dismiss,
    news: (words: string) => add(words, 'news'),
    trouble: (error: unknown) => add(error instanceof Error ? error.message : String(error), 'trouble'),
  }
})
