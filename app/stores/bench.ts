import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { anyAnswer } from '#core/contract/answer'
import { begunAnswer, makingsAnswer, type MakingListing } from '#core/contract/making'
import type { MakingEvent, MakingHead } from '#core/making/event'
import { api, ApiError, reach } from '../composables/api'
import { knownMakings, MakingLine, type ShownMaking } from '../line/making'
import { useAccount } from './account'
import { useOutbox } from './outbox'

/** The bench is cleared after so long at the latest, ms, sent or not. */
const SETTLED_WITHIN_MS = 3000

/** The makings of the piece on the screen, and the one that is at hand. */
export const useBench = defineStore('bench', () => {
  const account = useAccount()
  const outbox = useOutbox()
  const piece = ref<string | null>(null)
  const makings = ref<readonly MakingListing[]>([])
  const shown = shallowRef<ShownMaking | null>(null)
  const problem = ref('')
  /** Whether it is known which makings there are. */
  const known = ref(false)
  let line: MakingLine | null = null
  let opening = 0

  const atHand = computed(() => shown.value?.head.id ?? null)

  async function list(which: string): Promise<void> {
    try {
      makings.value = (await api(makingsAnswer, `piece/${which}/making`)).makings
    } catch (error) {
      if (!(error instanceof ApiError) || !error.isPassing) throw error
      // The server is away: what this browser knows.
      makings.value = (await knownMakings(account.account!.id, which)).map((head) => ({
        ...head,
        piece: which,
        status: 'on the bench',
        at: 0,
        says: '',
        beads: 0,
        of: 0,
        due: null,
      }))
    }
  }

  /** Opens the bench of a piece: the making that was worked on last, if one is under way. */
  async function open(which: string): Promise<void> {
    close()
    piece.value = which
    const mine = ++opening
    try {
      await list(which)
      if (mine !== opening) return
      const last = makings.value.find((m) => m.status === 'on the bench' || m.status === 'planned')
      if (last) await take(last.id)
      problem.value = ''
    } catch (error) {
      problem.value = error instanceof ApiError ? error.says : 'The bench could not be opened. Try again in a moment.'
    }
    if (mine === opening) known.value = true
  }

  /** Takes a making in hand. */
  async function take(making: string): Promise<void> {
    const mine = opening
    line?.close()
    line = null
    const opened = await MakingLine.open({ account: account.account!.id, piece: piece.value!, making }, (now) => {
      if (mine === opening) shown.value = now
    })
    if (mine !== opening) {
      opened.close()
      return
    }
    line = opened
    shown.value = opened.shown
  }

  /** Begins a making of the piece as it is at a revision. */
  async function begin(revision: number, head: MakingHead): Promise<void> {
    const { making } = await api(begunAnswer, `piece/${piece.value!}/making`, {
      method: 'POST',
      body: { as: crypto.randomUUID(), revision, head },
    })
    await take(making.id)
    await list(piece.value!)
  }

  /** Lays the making at hand aside; the bench is free. */
  async function layAside(): Promise<void> {
    // What was pressed last is to stand in the list.
    await line?.settled(SETTLED_WITHIN_MS)
    letGo()
    shown.value = null
    if (piece.value) await list(piece.value)
  }

  /** Removes a making for good. */
  async function remove(making: string): Promise<void> {
    await api(anyAnswer, `piece/${piece.value!}/making/${making}`, { method: 'DELETE' })
    await list(piece.value!)
  }

  /** Settles the box from the making at hand: what it used goes out; with nothing, that is undone. */
  async function settle(uses: readonly { shelfId: string; amount: number }[]): Promise<void> {
    await line?.settled(SETTLED_WITHIN_MS)
    await api(anyAnswer, `piece/${piece.value!}/making/${atHand.value!}/settle`, {
      method: 'POST',
      body: { as: crypto.randomUUID(), uses },
    })
    line?.look()
  }

  /** Resolves when all that was pressed is sent, or after a while. */
  const sent = async (): Promise<void> => {
    await line?.settled(SETTLED_WITHIN_MS)
  }

  const add = (event: MakingEvent): void => line?.add(event)

  /** Lets the line go; what it has not sent is sent from wherever one goes. */
  function letGo(): void {
    if (!line) return
    line.close()
    line = null
    outbox.soon()
  }

  function close(): void {
    opening++
    letGo()
    piece.value = null
    shown.value = null
    makings.value = []
    known.value = false
  }

  // The server is back, or the person signed in again.
  watch([() => reach.away, () => reach.signedOut], () => {
    if (!reach.away && !reach.signedOut) line?.look()
  })

  return { makings, shown, atHand, problem, known, open, take, begin, layAside, remove, settle, sent, add, close }
})
