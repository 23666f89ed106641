import { sendJson } from '@/api/client'
import type { OrderPreset, OutputSheet } from '@/api/delivery'
import { useStorage, watchDebounced } from '@vueuse/core'
import { ref, watch, type Ref } from 'vue'

interface Look {
  statement: string
  warnings: string[]
  /** Why it cannot be ordered as it is. */
  refusal?: string
}

const BASE: OutputSheet[] = [{ format: 'h264', target: 'television' }]
/** What every project can be delivered for besides its own targets. */
export const MASTERS = [
  { id: 'aces2065-1', label: 'ACES2065-1' },
  { id: 'acescg', label: 'ACEScg' },
]
const WAIT = 250 // ms after the last change before it is looked at

const copied = (sheet: OutputSheet) => JSON.parse(JSON.stringify(sheet)) as OutputSheet

/**
 * The outputs of an order that is being made, and what each would be.
 *
 * @param targets ids of the project's, the leading one first; empty until they are known. What was made for a target of another
 * project is made for the leading one here.
 */
export function useSheets(cut: Ref<string | undefined>, shots: Ref<number[] | null>, targets: Ref<string[]>) {
  const sheets = useStorage<OutputSheet[]>('mordant.order.outputs', structuredClone(BASE))
  const template = useStorage('mordant.order.template', '{project}/{cut}/{cut}_{format}')
  const looks = ref<Look[]>([])
  const refusal = ref<string | null>(null)

  const known = (sheet: OutputSheet) => !sheet.target || [...targets.value, ...MASTERS.map(({ id }) => id)].includes(sheet.target)
  watch(
    () => targets.value.join(),
    () => {
      if (targets.value.length && !sheets.value.every(known)) sheets.value = sheets.value.map((sheet) => (known(sheet) ? sheet : { ...sheet, target: targets.value[0] }))
    },
    { immediate: true },
  )

  async function look() {
    if (!cut.value || !targets.value.length) return
    try {
      looks.value = await sendJson<Look[]>('POST', `/cuts/${cut.value}/orders/look`, { outputs: sheets.value, template: template.value, shots: shots.value })
      refusal.value = null
    } catch (error) {
      looks.value = []
      refusal.value = error instanceof Error ? error.message : String(error)
    }
  }
  watchDebounced([sheets, template, cut, shots, targets], look, { debounce: WAIT, deep: true, immediate: true })

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
