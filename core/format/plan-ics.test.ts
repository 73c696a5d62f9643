import fc from 'fast-check'
import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { dayOf } from '../making/schedule'
import { planIcs } from './plan-ics'

const NOW = Date.parse('2026-11-27T04:00:00Z')
/** Read back by an independent parser (RFC 5545). */
function read(text: string) {
  const calendar = new ICAL.Component(ICAL.parse(text) as unknown[])
  return {
    version: calendar.getFirstPropertyValue('version'),
    product: calendar.getFirstPropertyValue('prodid'),
    events: calendar.getAllSubcomponents('vevent').map((one) => {
      const event = new ICAL.Event(one)
      return {
        id: event.uid,
        start: event.startDate.toString(),
        end: event.endDate.toString(),
        whole: event.startDate.isDate,
        stamp: String(one.getFirstPropertyValue('dtstamp')),
        title: event.summary,
        text: event.description,
      }
    }),
  }
}

describe('the plan as iCalendar', () => {
  it('is read by an independent parser: whole days, each with what is worked', () => {
    const { events, version, product } = read(
      planIcs(
        [
          { id: 'making-1/2026-12-31', day: '2026-12-31', title: 'Reed bank cuff', text: 'Row 41 – Row 60, 1.5 h' },
          { id: 'making-1/due', day: '2028-02-29', title: 'Ready: Reed bank cuff', text: '' },
        ],
        NOW,
      ),
    )
    expect([version, product]).toEqual(['2.0', '-//Weben//Ready by//EN'])
    expect(events).toMatchObject([
      {
        id: 'making-1/2026-12-31',
        start: '2026-12-31',
        end: '2027-01-01',
        whole: true,
        stamp: '2026-11-27T04:00:00Z',
        title: 'Reed bank cuff',
        text: 'Row 41 – Row 60, 1.5 h',
      },
      { start: '2028-02-29', end: '2028-03-01', whole: true },
    ])
  })
  it('keeps any words, commas, semicolons, lines and other scripts among them, and folds long lines', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            day: fc.integer({ min: 18_000, max: 30_000 }).map(dayOf),
            title: fc
              .array(fc.constantFrom('Reed', ' ', ',', ';', '\\', ':', 'ß', '編', '🧵', '\n', '–'), {
                minLength: 1,
                maxLength: 60,
              })
              .map((parts) => `T${parts.join('')}x`),
          }),
          { maxLength: 4 },
        ),
        (entries) => {
          const text = planIcs(
            entries.map((e, k) => ({ ...e, id: `id-${k}`, text: e.title })),
            NOW,
          )
          const { events } = read(text)
          expect(events.map((e) => [e.start, e.title, e.text])).toEqual(entries.map((e) => [e.day, e.title, e.title]))
          // Lines are no longer than 75 octets (RFC 5545, 3.1).
          for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
        },
      ),
    )
  })
})
