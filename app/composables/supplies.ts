import { computed, inject, provide, ref, type InjectionKey } from 'vue'
import { fitKindOf } from '#core/wear/kind'
import { showMoney } from '#core/money/money'
import { setStep } from '#core/piece/edit'
import { isCounted } from '#core/piece/nature'
import { linksNeeded } from '#core/supply/links'
import { beadsToBuy, timesMade } from '#core/supply/beads'
import { closureIn, spoolOf } from '#core/supply/box'
import { costOf } from '#core/supply/cost'
import { holesOf } from '#core/supply/holes'
import { cutList, lengthsOf, pathOf } from '#core/supply/thread'
import { wireList } from '#core/supply/wire-list'
import { boundEnd } from '#core/tally/cords'
import type { Cost, Supply } from '#core/piece/schema'
import { useAccount } from '../stores/account'
import { useBox } from '../stores/box'
import { useLearned } from '../stores/learned'
import { usePiece } from '../stores/piece'
import { useSupplier } from '../stores/supplier'

function reckonSupplies(id: string) {
  const store = usePiece()
  const learned = useLearned()
  const box = useBox()
  const supplier = useSupplier()
  const account = useAccount()
  const piece = computed(() => store.piece!)
  const supply = computed(() => piece.value.supply)
  const cost = computed(() => piece.value.cost)
  /** The piece as this hand makes it: what is bought, cut and paid follows from it. */
  const reckoned = computed(() => learned.reckoned(piece.value))
  const market = computed(() => ({
    box: box.box,
    pieceId: id,
    offers: supplier.offers,
    currency: account.account?.settings.currency,
  }))
  const made = computed(() => timesMade(piece.value))
  const lengths = computed(() => lengthsOf(reckoned.value, made.value))
  const wires = computed(() => wireList(reckoned.value, made.value))
  const threadMm = computed(() => lengths.value.find((l) => l.material === 'thread')?.totalMm ?? 0)
  /** Braids hang on cords of their own; thread and needle are not asked for then. */
  const cord = computed(() =>
    threadMm.value === 0 ? piece.value.parts.map((p) => pathOf(p).cord).find((c) => c !== undefined) : undefined,
  )
  /** Of work on wire alone how many lengths are cut; null where thread or cord carries beads. */
  const wiredOf = computed(() => {
    if (threadMm.value > 0 || wires.value.length === 0 || cord.value) return null
    const count = wires.value.flatMap((wire) => wire.cuts).reduce((sum, cut) => sum + cut.count, 0)
    return `${count} ${count === 1 ? 'length' : 'lengths'}`
  })
  const onlyCords = computed(() => piece.value.parts.every((p) => !isCounted(p)))
  const problem = ref('')
  function set<K extends keyof Supply>(field: K, value: Supply[K]) {
    if (JSON.stringify(supply.value[field]) !== JSON.stringify(value))
      problem.value = store.commit('Supplies', [setStep(piece.value, ['supply', field], value as never)]) ?? ''
  }
  function setCost<K extends keyof Cost>(field: K, value: Cost[K]) {
    if (JSON.stringify(cost.value[field]) !== JSON.stringify(value))
      problem.value = store.commit('Cost', [setStep(piece.value, ['cost', field], value as never)]) ?? ''
  }
  return {
    id,
    ...{ piece, supply, cost, reckoned, made, lengths, wires, threadMm, cord, wiredOf, onlyCords },
    kind: computed(() => fitKindOf(piece.value.fit.kind)),
    buy: computed(() => beadsToBuy(reckoned.value, market.value)),
    cuts: computed(() => cutList(reckoned.value)),
    rings: computed(() => linksNeeded(piece.value).filter((l) => l.kind === 'ring')),
    checks: computed(() => holesOf(piece.value).map(({ check }) => check)),
    /** Whether thread and needle are asked for. */
    sewn: computed(() => !cord.value && !onlyCords.value && !wiredOf.value),
    caps: computed(() =>
      piece.value.parts.flatMap((part) => {
        const end = boundEnd(part, piece.value.tray)
        return end ? [{ part, end }] : []
      }),
    ),
    spool: computed(() => spoolOf(box.box, supply.value.thread, id)),
    clasp: computed(() => closureIn(box.box, piece.value, id)),
    costing: computed(() => costOf(reckoned.value, market.value)),
    money: (minor: number) => showMoney(minor, cost.value.currency),
    /** What an answer could not be taken for. */
    problem,
    set,
    setCost,
  }
}

type Supplies = ReturnType<typeof reckonSupplies>
const SUPPLIES: InjectionKey<Supplies> = Symbol('supplies')

/** What a piece needs, reckoned once for all that shows it; and how its answers are changed. */
export function provideSupplies(id: string): Supplies {
  const supplies = reckonSupplies(id)
  provide(SUPPLIES, supplies)
  return supplies
}

/** The same, within the page that provides it. */
export function useSupplies(): Supplies {
  const supplies = inject(SUPPLIES)
  if (!supplies) throw new Error('Supplies are shown outside their page.')
  return supplies
}
