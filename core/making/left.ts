import type { Piece } from '../piece/piece'
import { beadsAt, choreMinutesFrom, type Agenda } from './agenda'
import { paceOf, sittingsOf } from './sitting'
import type { Press } from './event'

/** What is still to do, and how long it takes: by this making’s own pace once it is known, else by the plan’s. */
export interface Left {
  readonly done: number
  readonly of: number
  readonly tasks: number
  readonly hours: { readonly least: number; readonly most: number }
  /** Beads an hour of this making; null while that is not known. */
  readonly pace: number | null
  /** Beads an hour that are reckoned with. */
  readonly perHour: { readonly least: number; readonly most: number }
}

/** A pace that is known goes up and down by so much from one sitting to the next (common practice). */
const PACE_SPREAD = 0.15

export function leftOf(
  agenda: Agenda,
  place: { readonly index: number; readonly bite: number },
  presses: readonly Press[],
  { beadsPerHourLeast, beadsPerHourMost }: Piece['cost'],
): Left {
  const done = beadsAt(agenda, place)
  const pace = paceOf(sittingsOf(presses))
  const beads = agenda.beads - done
  const chores = choreMinutesFrom(agenda, place.index) / 60
  const [slow, quick] =
    pace === null
      ? [Math.min(beadsPerHourLeast, beadsPerHourMost), Math.max(beadsPerHourLeast, beadsPerHourMost)]
      : [pace * (1 - PACE_SPREAD), pace * (1 + PACE_SPREAD)]
  return {
    done,
    of: agenda.beads,
    tasks: agenda.count - place.index,
    hours: { least: beads / quick + chores, most: beads / slow + chores },
    pace,
    perHour: { least: slow, most: quick },
  }
}
