import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import type { ShelfItem, ShelfValue } from '#core/shelf/shelf'
import { api } from '../composables/api'
import { useAccount } from './account'

/** The account's shelf: beads of the box, own sizes, stamps. Fetched once, when first asked for. */
export const useShelf = defineStore('shelf', () => {
  const items = shallowRef<readonly ShelfItem[]>([])
  let fetched: Promise<void> | null = null

  function fetch(): Promise<void> {
    fetched ??= api<{ items: ShelfItem[] }>('shelf').then((answer) => { items.value = answer.items }).catch((error: unknown) => {
      fetched = null
      throw error
    })
    return fetched
  }

  // Another person's shelf is another shelf.
  const account = useAccount()
  watch(() => account.account?.id, () => { fetched = null; items.value = [] })

  async function keep(values: readonly ShelfValue[]): Promise<void> {
    const answer = await api<{ items: ShelfItem[] }>('shelf', { method: 'POST', body: { values } })
    items.value = [...items.value, ...answer.items]
  }

  async function takeOff(id: string): Promise<void> {
    await api(`shelf/${id}`, { method: 'DELETE' })
    items.value = items.value.filter(i => i.id !== id)
  }

  const of = <K extends ShelfValue['kind']>(kind: K) => computed(() => items.value.filter((i): i is ShelfItem & { value: Extract<ShelfValue, { kind: K }> } => i.value.kind === kind))
  const beads = of('bead')
  const specs = of('spec')
  const stamps = of('stamp')
  return { items, beads, specs, stamps, fetch, keep, takeOff }
})
