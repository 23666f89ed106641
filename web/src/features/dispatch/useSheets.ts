import { sendJson } from '@/api/client'
import type { OrderPreset, OutputSheet } from '@/api/delivery'
import { useStorage, watchDebounced } from '@vueuse/core'
import { ref, type Ref } from 'vue'

interface Look {
  statement: string
  warnings: string[]
  /** Why it cannot be ordered as it is. */
  refusal?: string
}

const BASE: OutputSheet[] = [{ format: 'h264', target: 'television' }]
const WAIT = 250 // ms after the last change before it is looked at

const copied = (sheet: OutputSheet) => JSON.parse(JSON.stringify(sheet)) as OutputSheet

/** The outputs of an order that is being made, and what each would be. */
export function useSheets(cut: Ref<string | undefined>, shots: Ref<number[] | null>) {
  const sheets = useStorage<OutputSheet[]>('mordant.order.outputs', structuredClone(BASE))
  const template = useStorage('mordant.order.template', '{project}/{cut}/{cut}_{format}')
  const looks = ref<Look[]>([])
  const refusal = ref<string | null>(null)

  async function look() {
    if (!cut.value) return
    try {
      looks.value = await sendJson<Look[]>('POST', `/cuts/${cut.value}/orders/look`, { outputs: sheets.value, template: template.value, shots: shots.value })
      refusal.value = null
    } catch (error) {
      looks.value = []
      refusal.value = error instanceof Error ? error.message : String(error)
    }
  }
  watchDebounced([sheets, template, cut, shots], look, { debounce: WAIT, deep: true, immediate: true })

  return {
    sheets,
    template,
    looks,
    refusal,
    change: (index: number, change: Partial<OutputSheet>) => (sheets.value = sheets.value.map((sheet, at) => (at === index ? { ...sheet, ...change } : sheet))),
    /** One more, like the last. */
    add: () => (sheets.value = [...sheets.value, copied(sheets.value.at(-1) ?? (BASE[0] as OutputSheet))]),
    remove: (index: number) => (sheets.value = sheets.value.filter((_, at) => at !== index)),
    take(preset: OrderPreset) {
      sheets.value = preset.outputs.map(copied)
      if (preset.template) template.value = preset.template
    },
  }
}
