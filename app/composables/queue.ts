import { openedAnswer } from '#core/contract/piece'
import { syncedAnswer, type MakingListing } from '#core/contract/making'
import { courseOf } from '#core/making/chore'
import { stateOf, type KeptEvent } from '#core/making/event'
import { markOf, placeOf, type Agenda } from '#core/making/agenda'
import { leftOf } from '#core/making/left'
import { hoursFrom, type Job } from '#core/making/schedule'
import type { Piece } from '#core/piece/piece'
import { api } from './api'

/** A making that is under way or to come, with all that its time follows from. */
export interface Queued {
  readonly making: MakingListing
  readonly name: string
  readonly agenda: Agenda
  /** Where the hands are. */
  readonly index: number
  /** Beads an hour: the middle of what is reckoned with. */
  readonly perHour: number
  readonly job: Job
}

async function eventsOf(piece: string, making: string): Promise<KeptEvent[]> {
  const events: KeptEvent[] = []
  for (let after = 0; ;) {
    const answer = await api(syncedAnswer, `piece/${piece}/making/${making}?after=${after}`)
    events.push(...answer.events)
    if (!answer.more) return events
    after = answer.seq
  }
}

/** A making as it stands in the queue, by its own pace, or by what the hand has taught. */
export async function queued(making: MakingListing, reckoned: (piece: Piece) => Piece): Promise<Queued> {
  const [opened, events] = await Promise.all([
    api(openedAnswer, `piece/${making.piece}`),
    eventsOf(making.piece, making.id),
  ])
  const piece = reckoned(opened.piece)
  const state = stateOf(events)
  const agenda = courseOf(piece, making, { joined: state.joined, measured: state.measures.map((m) => m.task) })
  const { index, bite } = placeOf(agenda, markOf(agenda, state))
  const { perHour } = leftOf(agenda, { index, bite }, state.presses, piece.cost)
  const middle = (perHour.least + perHour.most) / 2
  return {
    making,
    name: piece.name,
    agenda,
    index,
    perHour: middle,
    job: {
      id: making.id,
      hours: hoursFrom(agenda, index, middle),
      due: making.due,
      // Glue sets for a day before it is worn.
      waitDays: agenda.stretches.some((s) => s.chores.some((c) => c.chore.kind === 'rest')) ? 1 : 0,
    },
  }
}
