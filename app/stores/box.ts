import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { isStock, type ShelfItem } from '#core/shelf/shelf'
import type { Box, BoxItem, Holding } from '#core/supply/box'
import { holdingsAnswer } from '#core/contract/shelf'
import { api } from '../composables/api'
import { useAccount } from './account'
import { useShelf } from './shelf'

/**
 * The box as the core reckons with it: what lies on the shelf that can be used up, and which pieces hold what of it.
 */
export const useBox = defineStore('box', () => {
  const shelf = useShelf()
  const holdings = shallowRef<readonly Holding[]>([])
  const known = shallowRef(false)
  const box = computed<Box>(() => ({
    items: shelf.items.filter((i): i is ShelfItem & BoxItem => isStock(i.value)),
    holdings: holdings.value,
  }))

  const account = useAccount()
  watch(
    () => account.account?.id,
    () => {
      holdings.value = []
      known.value = false
    },
  )

  /** Fetches shelf and holdings; holdings anew each time, since other pieces change them. */
  async function fetch(): Promise<void> {
    const [answer] = await Promise.all([api(holdingsAnswer, 'holding'), shelf.fetch()])
    holdings.value = answer.holdings
    known.value = true
  }

  async function change(
    pieceId: string,
    what: 'reserve' | 'release' | 'take' | 'back',
    asks: readonly { shelfId: string; amount: number }[] = [],
  ): Promise<void> {
    holdings.value = (
      await api(holdingsAnswer, `piece/${pieceId}/holding`, { method: 'POST', body: { what, asks } })
    ).holdings
    if (what === 'take' || what === 'back') await shelf.again()
  }

  return { box, holdings, known, fetch, change }
})
