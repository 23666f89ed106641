import { getJson, sendJson } from '@/api/client'
import type { Order, Output } from '@/api/types'
import { computed, ref, type Ref } from 'vue'
import { useEvents } from '../shell/useEvents'

/** Orders of a cut and how far their outputs are. */
export function useOrders(project: Ref<string | undefined>, cut: Ref<string | undefined>, trouble: (error: unknown) => void) {
  const outputs = ref(new Map<number, Output>())

  function take(found: Output) {
    const before = outputs.value.get(found.id)
    outputs.value.set(found.id, { ...before, ...found })
  }

  async function load() {
    try {
      const orders = await getJson<Order[]>(`/cuts/${cut.value}/orders`)
      outputs.value = new Map(orders.flatMap((order) => order.outputs.map((output) => [output.id, output] as const)))
    } catch (error) {
      trouble(error)
    }
  }

  /** @returns the refusal in words, or null when it was taken */
  async function place(kinds: string[], shots: number[] | null, template: string): Promise<string | null> {
    try {
      const order = await sendJson<Order>('POST', `/cuts/${cut.value}/orders`, { kinds, shots, template })
      order.outputs.forEach(take)
      return null
    } catch (error) {
      return error instanceof Error ? error.message : String(error)
    }
  }

  async function cancel(id: number) {
    try {
      take(await sendJson<Output>('POST', `/outputs/${id}/cancel`))
    } catch (error) {
      trouble(error)
    }
  }

  useEvents(project, {
    output: (found: Output) => {
      // other cuts of the project are told of too
      if (outputs.value.has(found.id)) take(found)
    },
  })

  return { outputs: computed(() => [...outputs.value.values()].sort((a, b) => b.id - a.id)), load, place, cancel }
}
