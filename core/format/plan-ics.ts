import ical, { ICalCalendarMethod } from 'ical-generator'
import { dayNumber } from '../making/schedule'

/** What is worked on one day, or is due on it. */
export interface PlanEntry {
  /** The same for the same entry, however often it is exported. */
  readonly id: string
  /** ISO 8601. */
  readonly day: string
  readonly title: string
  readonly text: string
}

/** Days of work and days that are due as an iCalendar file (RFC 5545), each as a whole day. `now`: ms since 1970. */
export function planIcs(entries: readonly PlanEntry[], now: number): string {
  const calendar = ical({
    name: 'Weben',
    prodId: { company: 'Weben', product: 'Ready by', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  })
  const date = (number: number) => new Date(number * 86_400_000)
  for (const { id, day, title, text } of entries)
    calendar.createEvent({
      id,
      stamp: new Date(now),
      // Whole days have no zone; the end is the day after (RFC 5545, 3.6.1).
      start: date(dayNumber(day)),
      end: date(dayNumber(day) + 1),
      allDay: true,
      timezone: 'UTC',
      summary: title,
      description: text,
    })
  return calendar.toString()
}
