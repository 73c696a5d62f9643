import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { Mark } from '#core/making/agenda'
import { filledOf } from '#core/making/board'
import { changedMade, shiftedMark, type ChangedPart } from '#core/making/changed'
import type { MakingEvent } from '#core/making/event'
import type { Piece } from '#core/piece/piece'
import { pieceAt } from '../line/line'
import type { ShownMaking } from '../line/making'
import { ApiError, backOff } from './api'

interface Ground {
  readonly piece: () => Piece
  /** The last revision that the server acknowledged. */
  readonly revision: () => number
  readonly making: () => ShownMaking | null
  readonly mark: () => Mark
  readonly add: (event: MakingEvent) => void
}

/**
 * Whether rows that are made are otherwise in the plan now than when they were made: the piece as it was last seen at
 * the bench is fetched whenever it changed, and compared. Where nothing made differs, that is seen without a word.
 */
export function useChangedPlan(piece: string, ground: Ground) {
  const changed = shallowRef<readonly ChangedPart[]>([])
  /** A change of made rows that comes from the bench itself is no question. */
  const ours = ref(false)
  const base = computed(() => {
    const shown = ground.making()
    return shown ? Math.max(shown.head.revision, Math.min(shown.state.seen, ground.revision())) : -1
  })
  const see = (): void => {
    changed.value = []
    ours.value = false
    ground.add({ do: 'seen', revision: ground.revision() })
  }
  /** How often the piece as it was could not be fetched, and when it is asked for again. */
  const again = ref(0)
  let failures = 0
  let later: ReturnType<typeof setTimeout> | undefined
  onScopeDispose(() => {
    clearTimeout(later)
  })
  watch(
    [() => ground.making()?.head.id, ground.revision, base, again],
    async ([id, revision, from]) => {
      if (!id || from < 0 || revision <= from) {
        changed.value = []
        return
      }
      if (ours.value) {
        see()
        return
      }
      let before: Piece
      try {
        before = await pieceAt({ piece }, from)
      } catch (error) {
        if (!(error instanceof ApiError)) throw error
        // Too old to be told: it is asked when the piece changes next; away: a little later.
        if (error.isPassing) {
          clearTimeout(later)
          later = setTimeout(() => again.value++, backOff(failures++))
        }
        return
      }
      failures = 0
      const shown = ground.making()
      if (shown?.head.id !== id || ground.revision() !== revision) return
      const parts = changedMade(before, ground.piece(), shown.head, ground.mark(), filledOf(shown.state.ticks))
      if (parts.length === 0) see()
      else changed.value = parts
    },
    { immediate: true },
  )
  /** The mark after rows that were put in before what is made; null where nothing was. */
  const moved = computed(() => {
    const one = changed.value.find((c) => c.shift !== 0)
    return one ? shiftedMark(ground.piece(), one, ground.mark()) : null
  })
  return { changed, moved, see, ours }
}
