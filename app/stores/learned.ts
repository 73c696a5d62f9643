import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { recordsAnswer, type RecordListing } from '#core/contract/making'
import { learnedFrom, speedFor, withLearned, type Switches } from '#core/making/learned'
import type { Piece } from '#core/piece/piece'
import { api, ApiError } from '../composables/api'
import { useAccount } from './account'

const ALL: Switches = { learnSpeed: 'on', learnCull: 'on', learnThread: 'on' }

/** What finished makings taught, and pieces reckoned with it. */
export const useLearned = defineStore('learned', () => {
  const account = useAccount()
  const records = shallowRef<readonly RecordListing[]>([])
  watch(
    () => account.account?.id,
    () => {
      records.value = []
    },
  )

  /** Asks what was written down; without an answer what is known stays. */
  async function fetch(): Promise<void> {
    try {
      records.value = (await api(recordsAnswer, 'making/record')).records
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
    }
  }

  const learned = computed(() =>
    learnedFrom(
      records.value.flatMap(({ making, record: { facts, strange } }) => (facts ? [{ making, facts, strange }] : [])),
    ),
  )
  const switches = computed<Switches>(() => account.account?.settings ?? ALL)
  /** A piece as it is reckoned with; what is kept and edited stays the piece itself. */
  const reckoned = (piece: Piece): Piece => withLearned(piece, learned.value, switches.value)
  const speedOf = (piece: Piece) => speedFor(piece, learned.value, switches.value)

  return { records, learned, switches, fetch, reckoned, speedOf }
})
