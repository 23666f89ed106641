import { getJson, sendJson } from '@/api/client'
import type { Order, Output, OutputSheet } from '@/api/delivery'
import { computed, ref, type Ref } from 'vue'
import { useEvents } from '../shell/useEvents'

export interface Wanted {
  outputs: OutputSheet[]
  shots: number[] | null
  template: string
  handles: number
  /** Frames that cannot be decoded are left out. */
  skip: boolean
  /** Transitions are in the files of shots, not in the list. */
  baked: boolean
}

/** Orders of a cut and how far their outputs are. */
export function useOrders(project: Ref<string | undefined>, cut: Ref<string | undefined>, trouble: (error: unknown) => void) {
  const orders = ref<Order[]>([])

  function take(found: Output) {
    const order = orders.value.find((one) => one.id === found.order)
    const before = order?.outputs.find((one) => one.id === found.id)
    if (before) Object.assign(before, found)
  }
  function takeOrder(found: Order) {
    orders.value = [found, ...orders.value.filter((one) => one.id !== found.id)].sort((a, b) => b.id - a.id)
  }
  async function attempt(work: () => Promise<void>) {
    try {
      await work()
    } catch (error) {
      trouble(error)
    }
  }

  /** @returns the refusal in words, or null when it was taken */
  async function place(wanted: Wanted): Promise<string | null> {
    try {
      takeOrder(await sendJson<Order>('POST', `/cuts/${cut.value}/orders`, wanted))
      return null
    } catch (error) {
      return error instanceof Error ? error.message : String(error)
    }
  }

  useEvents(project, { output: take })

  return {
    orders: computed(() => orders.value),
    load: () => attempt(async () => void (orders.value = await getJson<Order[]>(`/cuts/${cut.value}/orders`))),
    place,
    cancel: (id: number) => attempt(async () => take(await sendJson<Output>('POST', `/outputs/${id}/cancel`))),
    retry: (id: number) => attempt(async () => take(await sendJson<Output>('POST', `/outputs/${id}/retry`))),
    change: (order: Order, values: Partial<Pick<Order, 'paused' | 'priority'>>) => attempt(async () => takeOrder(await sendJson<Order>('PATCH', `/orders/${order.id}`, values))),
  }
}
