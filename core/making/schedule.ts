import { modulo } from '../modulo'
import { beadsAt, choreMinutesFrom, taskAt, type Agenda } from './agenda'
import { titleOf } from './say'

/**
 * Ready by a day: what is worked on which day, so that all is ready in time if it can be. What is due first comes
 * first (earliest due date first: if any order is in time, this one is; Jackson 1955).
 */

const DAY_MS = 24 * 3_600_000

/** A day of the calendar (ISO 8601) as a count of days, and back. */
export const dayNumber = (day: string): number => Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS)
export const dayOf = (number: number): string => new Date(number * DAY_MS).toISOString().slice(0, 10)

/** Day of the week, Monday 0: the first of January 1970 was a Thursday. */
export const weekdayOf = (number: number): number => modulo(number + 3, 7)

export interface Job {
  readonly id: string
  /** Hours of work that are left. */
  readonly hours: number
  /** Day by whose end it must be ready; null for whenever. */
  readonly due: string | null
  /** Whole days that must go by between the last work and being ready: glue. */
  readonly waitDays: number
}

export interface Hours {
  /** The first day. */
  readonly from: string
  /** Hours at the bench, Monday to Sunday. */
  readonly weekday: readonly number[]
}

/** Work of one day on one job. */
interface Stint {
  readonly job: string
  readonly hours: number
}

interface JobEnd {
  readonly job: string
  /** Day of the last work, and day on which it is ready; null if that is further than two years. */
  readonly worked: string | null
  readonly ready: string | null
  readonly late: boolean
  /** What is missing until the last day on which it could be worked: hours, and days on which one works until then. */
  readonly shortHours: number
  readonly daysThere: number
}

export interface Schedule {
  readonly days: readonly { readonly day: string; readonly stints: readonly Stint[] }[]
  readonly ends: readonly JobEnd[]
}

/** Further than this nothing is planned, days. */
const HORIZON = 731

/** Less than this is nothing, hours. */
const NEAR = 1e-9

export function scheduleOf(jobs: readonly Job[], { from, weekday }: Hours): Schedule {
  const first = dayNumber(from)
  const deadline = ({ due, waitDays }: Job): number => (due === null ? Infinity : dayNumber(due) - waitDays)
  const queue = jobs.map((job) => ({
    job,
    left: job.hours,
    worked: job.hours <= NEAR ? first - 1 : (null as number | null),
  }))
  // What is wanted on one day, or whenever: the shorter first, so that it is out of hand.
  queue.sort((a, b) => {
    const [x, y] = [deadline(a.job), deadline(b.job)]
    return x === y ? a.job.hours - b.job.hours : x - y
  })
  const days: { day: string; stints: Stint[] }[] = []
  for (let n = first; n < first + HORIZON && queue.some((q) => q.left > NEAR); n++) {
    let hours = weekday[weekdayOf(n)] ?? 0
    const stints: Stint[] = []
    for (const q of queue) {
      if (hours <= NEAR) break
      if (q.left <= NEAR) continue
      const worked = Math.min(hours, q.left)
      hours -= worked
      q.left -= worked
      q.worked = q.left <= NEAR ? n : null
      stints.push({ job: q.job.id, hours: worked })
    }
    if (stints.length > 0) days.push({ day: dayOf(n), stints })
  }
  const ends = queue.map(({ job, worked }): JobEnd => {
    const last = deadline(job)
    const ready = worked === null ? null : Math.max(first, worked + job.waitDays)
    const late = job.due !== null && (ready === null || ready > dayNumber(job.due))
    const demand = jobs.filter((j) => deadline(j) <= last).reduce((sum, j) => sum + j.hours, 0)
    let [there, daysThere] = [0, 0]
    for (let n = first; late && n <= last; n++) {
      const hours = weekday[weekdayOf(n)] ?? 0
      there += hours
      if (hours > 0) daysThere++
    }
    return {
      job: job.id,
      worked: worked === null ? null : dayOf(Math.max(first, worked)),
      ready: ready === null ? null : dayOf(ready),
      late,
      shortHours: late ? Math.max(0, demand - there) : 0,
      daysThere,
    }
  })
  return { days, ends: jobs.map((job) => ends.find((e) => e.job === job.id)!) }
}

/** What would help a job that is late. */
export interface Help {
  /** Hours more on each day on which one works; null where there is none before it is due. */
  readonly moreADay: number | null
  /** Day that could be kept; null if none within two years. */
  readonly day: string | null
}

export const helpFor = ({ late, shortHours, daysThere, ready }: JobEnd): Help | null =>
  late ? { moreADay: daysThere > 0 ? shortHours / daysThere : null, day: ready } : null

/** Hours that are left from a place of an agenda on. */
export const hoursFrom = (agenda: Agenda, index: number, perHour: number): number =>
  (agenda.beads - beadsAt(agenda, { index, bite: 0 })) / perHour + choreMinutesFrom(agenda, index) / 60

/** Steps of one day. */
export interface DayRows {
  readonly day: string
  readonly hours: number
  /** Places in the agenda: from the first, up to and without the second. */
  readonly from: number
  readonly to: number
  /** “Row 41 – Row 60”. */
  readonly says: string
}

/** Which steps of an agenda come on which day, from where the hands are. */
export function rowsByDay(
  agenda: Agenda,
  index: number,
  perHour: number,
  stints: readonly { readonly day: string; readonly hours: number }[],
): DayRows[] {
  let from = index
  let left = hoursFrom(agenda, index, perHour)
  return stints.map(({ day, hours }) => {
    left -= hours
    // The first place from which on no more is left than should be by then.
    let [low, high] = [from, agenda.count]
    while (low < high) {
      const middle = (low + high) >> 1
      if (hoursFrom(agenda, middle, perHour) <= left + NEAR) high = middle
      else low = middle + 1
    }
    const to = Math.max(from, Math.min(agenda.count, low))
    const [a, b] = [taskAt(agenda, from), taskAt(agenda, Math.max(from, to - 1))]
    const one = a ? titleOf(a) : ''
    const other = b ? titleOf(b) : ''
    const out = { day, hours, from, to, says: one === other ? one : `${one} – ${other}` }
    from = to
    return out
  })
}
