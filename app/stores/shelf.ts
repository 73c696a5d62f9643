import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import type { ShelfInput, ShelfItem, ShelfKind, ShelfOf, ShelfValue } from '#core/shelf/shelf'
import { anyAnswer } from '#core/contract/answer'
import { shelfAnswer, shelfItemAnswer } from '#core/contract/shelf'
import { api } from '../composables/api'
import { useAccount } from './account'

/** The account's shelf: beads of the box, own sizes, stamps. Fetched once, when first asked for. */
export const useShelf = defineStore('shelf', () => {
  const items = shallowRef<readonly ShelfItem[]>([])
  let fetched: Promise<void> | null = null

  function fetch(): Promise<void> {
    fetched ??= api(shelfAnswer, 'shelf')
      .then((answer) => {
        items.value = answer.items
      })
      .catch((error: unknown) => {
        fetched = null
        throw error
      })
    return fetched
  }

  // Another person's shelf is another shelf.
  const account = useAccount()
  watch(
    () => account.account?.id,
    () => {
      fetched = null
      items.value = []
    },
  )

  async function keep(values: readonly ShelfInput[]): Promise<ShelfItem[]> {
    const answer = await api(shelfAnswer, 'shelf', { method: 'POST', body: { values } })
    items.value = [...items.value, ...answer.items]
    return answer.items
  }

  /** Puts another value in the place of what lies there as this tab knows it. */
  async function change<V extends ShelfValue>(
    item: { readonly id: string; readonly value: V },
    value: V,
  ): Promise<void> {
    const answer = await api(shelfItemAnswer, `shelf/${item.id}`, {
      method: 'PUT',
      body: { before: item.value, value },
    })
    items.value = items.value.map((i) => (i.id === item.id ? answer.item : i))
  }

  /** Fetches anew: something outside this store has changed the box. */
  async function again(): Promise<void> {
    fetched = null
    await fetch()
  }

  async function takeOff(id: string): Promise<void> {
    await api(anyAnswer, `shelf/${id}`, { method: 'DELETE' })
    items.value = items.value.filter((i) => i.id !== id)
  }

  const of = <K extends ShelfKind>(kind: K) =>
    computed(() => items.value.filter((i): i is ShelfItem & { value: ShelfOf<K> } => i.value.kind === kind))
  const beads = of('bead')
  const specs = of('spec')
  const stamps = of('stamp')
  const threads = of('thread')
  const findings = of('finding')
  const people = of('person')
  const gauges = of('gauge')
  const recipes = of('recipe')
  return {
    ...{ items, beads, threads, findings, specs, stamps, people, gauges, recipes },
    ...{ fetch, again, keep, change, takeOff },
  }
})
