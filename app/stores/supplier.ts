import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { keyOfWanted, type Offer, type Wanted } from '#core/supply/price-list'
import { offersAnswer } from '#core/contract/shelf'
import { api, ApiError } from '../composables/api'
import { useAccount } from './account'

/** How long an answer is waited for, ms: then the list goes on without prices. */
const PATIENCE_MS = 8000

/** Prices that the supplier has given in this sitting. Without them every list works. */
export const useSupplier = defineStore('supplier', () => {
  const offers = shallowRef<ReadonlyMap<string, Offer>>(new Map())
  const currency = ref('')
  const asking = ref(false)
  const says = ref('')
  const account = useAccount()
  watch(
    [() => account.account?.id, () => account.account?.settings.currency, () => account.account?.settings.supplier],
    () => {
      offers.value = new Map()
      says.value = ''
    },
  )

  async function ask(wanted: readonly Wanted[]): Promise<void> {
    asking.value = true
    says.value = ''
    let clock: ReturnType<typeof setTimeout> | undefined
    try {
      const late = new Promise<never>((_, fail) => {
        clock = setTimeout(() => {
          fail(
            new ApiError(
              0,
              'supplier-slow',
              'The supplier takes too long. The list works without its prices; ask again later.',
            ),
          )
        }, PATIENCE_MS)
      })
      const asked = [
        ...new Map(wanted.map((w) => [keyOfWanted(w), { spec: w.spec, colour: w.colour, finish: w.finish }])).values(),
      ]
      const { list } = await Promise.race([
        api(offersAnswer, 'supplier/offers', { method: 'POST', body: { wanted: asked } }),
        late,
      ])
      offers.value = new Map([...offers.value, ...list.offers.map((o) => [keyOfWanted(o.wanted), o] as const)])
      currency.value = list.currency
      const none = list.offers.filter((o) => o.packs.length === 0).length
      const gone = list.offers.filter((o) => o.packs.length > 0 && o.packs.every((p) => p.stock === 0)).length
      const few = [none > 0 ? `${none} not sold here` : '', gone > 0 ? `${gone} out of stock` : '']
        .filter(Boolean)
        .join(', ')
      says.value = `Prices of ${list.offers.length - none} of ${list.offers.length} beads${few ? `; ${few}` : ''}.`
    } catch (error) {
      says.value = error instanceof ApiError ? error.says : 'The supplier could not be asked. The list works without.'
    } finally {
      clearTimeout(clock)
      asking.value = false
    }
  }

  return { offers, currency, asking, says, ask }
})
