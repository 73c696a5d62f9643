import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { part, piece } from '../../tests/fixture/piece'
import { requireTechnique } from '../technique/registry'
import { agendaOf, beadsAt } from './agenda'
import { courseOf } from './chore'
import { dayNumber, dayOf, helpFor, hoursFrom, rowsByDay, scheduleOf, weekdayOf, type Job } from './schedule'

const MONDAY = '2026-11-30'
const job = (id: string, hours: number, due: string | null, waitDays = 0): Job => ({ id, hours, due, waitDays })
const plus = (days: number) => dayOf(dayNumber(MONDAY) + days)

describe('days', () => {
  it('are counted over months and leap years, and know their weekday', () => {
    expect(dayOf(dayNumber('2028-02-28') + 1)).toBe('2028-02-29')
    expect(dayNumber('2026-03-01') - dayNumber('2026-02-28')).toBe(1)
    // As Date has it, for a few thousand days; Monday is 0 here.
    for (let n = 0; n < 5000; n += 13) expect(weekdayOf(n)).toBe((new Date(n * 86_400_000).getUTCDay() + 6) % 7)
    expect(weekdayOf(dayNumber(MONDAY))).toBe(0)
  })
})

/** Whether hours of jobs can be laid on days so that each is done in time: every way is tried. */
function canBeDone(jobs: readonly { hours: number; last: number }[], capacity: readonly number[]): boolean {
  const slots = capacity.flatMap((hours, day) => Array<number>(hours).fill(day))
  const tried = new Set<string>()
  const go = (slot: number, left: readonly number[]): boolean => {
    if (left.every((h) => h === 0)) return true
    if (slot >= slots.length) return false
    const key = `${slot} ${left.join()}`
    if (tried.has(key)) return false
    tried.add(key)
    return (
      left.some(
        (h, k) =>
          h > 0 &&
          slots[slot]! <= jobs[k]!.last &&
          go(
            slot + 1,
            left.map((x, i) => (i === k ? x - 1 : x)),
          ),
      ) || go(slot + 1, left)
    )
  }
  return go(
    0,
    jobs.map((j) => j.hours),
  )
}

describe('a schedule', () => {
  it('is in time whenever any order is: held against a search of all of them', () => {
    const anyJob = fc.record({
      hours: fc.integer({ min: 0, max: 4 }),
      due: fc.integer({ min: 0, max: 9 }),
      wait: fc.integer({ min: 0, max: 1 }),
    })
    let inTime = 0
    let late = 0
    fc.assert(
      fc.property(
        fc.array(anyJob, { minLength: 1, maxLength: 4 }),
        fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 7, maxLength: 7 }),
        (jobs, weekday) => {
          const plan = scheduleOf(
            jobs.map((j, k) => job(`job-${k}`, j.hours, plus(j.due), j.wait)),
            { from: MONDAY, weekday },
          )
          // A wait of a day ends the work a day earlier; what needs no work at all can only lack the wait.
          const asked = jobs.map((j) => ({ hours: j.hours, last: j.due - j.wait }))
          const could = canBeDone(
            asked.filter((j) => j.hours > 0),
            Array.from({ length: 10 }, (_, n) => weekday[n % 7]!),
          )
          const busy = plan.ends.filter((_, k) => jobs[k]!.hours > 0)
          expect(busy.every((e) => !e.late)).toBe(could)
          if (could) inTime++
          else late++
        },
      ),
      { numRuns: 300 },
    )
    expect(Math.min(inTime, late)).toBeGreaterThan(30)
  })
  it('works off every hour, no day longer than it is', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 12, noNaN: true }), { minLength: 1, maxLength: 5 }),
        fc.array(fc.double({ min: 0, max: 5, noNaN: true }), { minLength: 7, maxLength: 7 }),
        (hours, weekday) => {
          const plan = scheduleOf(
            hours.map((h, k) => job(`job-${k}`, h, k % 2 ? plus(k * 3) : null)),
            { from: MONDAY, weekday },
          )
          for (const { day, stints } of plan.days)
            expect(stints.reduce((sum, s) => sum + s.hours, 0)).toBeLessThanOrEqual(
              weekday[weekdayOf(dayNumber(day))]! + 1e-9,
            )
          for (const [k, end] of plan.ends.entries()) {
            const worked = plan.days.flatMap((d) => d.stints).filter((s) => s.job === `job-${k}`)
            const sum = worked.reduce((all, s) => all + s.hours, 0)
            if (end.worked) expect(sum).toBeCloseTo(hours[k]!, 6)
            else expect(sum).toBeLessThan(hours[k]!)
          }
        },
      ),
    )
  })
  const EVENINGS = [2, 0, 2, 0, 0, 3, 0]
  it('says which day each is ready, the wait for glue counted in, and follows what is due first', () => {
    const plan = scheduleOf([job('later', 3, plus(30)), job('first', 3, plus(3), 1)], {
      from: MONDAY,
      weekday: EVENINGS,
    })
    expect(plan.days).toEqual([
      { day: MONDAY, stints: [{ job: 'first', hours: 2 }] },
      {
        day: plus(2),
        stints: [
          { job: 'first', hours: 1 },
          { job: 'later', hours: 1 },
        ],
      },
      { day: plus(5), stints: [{ job: 'later', hours: 2 }] },
    ])
    expect(plan.ends.map((e) => [e.job, e.worked, e.ready, e.late])).toEqual([
      ['later', plus(5), plus(5), false],
      ['first', plus(2), plus(3), false],
    ])
    expect(plan.ends.map(helpFor)).toEqual([null, null])
  })
  it('takes the shorter first of what is wanted on one day, or whenever', () => {
    const plan = scheduleOf([job('long', 4, null), job('short', 1, null), job('due', 1, plus(90))], {
      from: MONDAY,
      weekday: EVENINGS,
    })
    expect(plan.days.flatMap((d) => d.stints.map((s) => s.job))).toEqual(['due', 'short', 'long', 'long'])
  })
  it('says when it cannot be done: hours that are missing, how much more a day, the day that could be kept', () => {
    const { ends } = scheduleOf([job('fair', 10, plus(5)), job('small', 1, plus(2))], {
      from: MONDAY,
      weekday: EVENINGS,
    })
    // Seven hours until Saturday, of eleven; three days of work.
    expect(ends[0]).toMatchObject({ late: true, shortHours: 4, daysThere: 3, ready: plus(9) })
    expect(helpFor(ends[0]!)).toEqual({ moreADay: 4 / 3, day: plus(9) })
    const never = scheduleOf([job('fair', 10, plus(5))], { from: MONDAY, weekday: [0, 0, 0, 0, 0, 0, 0] }).ends[0]!
    expect([never.ready, helpFor(never)]).toEqual([null, { moreADay: null, day: null }])
    const over = scheduleOf([job('done', 0, plus(-3))], { from: MONDAY, weekday: EVENINGS }).ends[0]!
    expect([over.late, over.ready]).toEqual([true, MONDAY])
  })
})

describe('rows by day', () => {
  const p = piece({
    parts: [part({ technique: 'loom', settings: requireTechnique('loom').settings.parse({}), times: 19 })],
  })
  it('are as many beads as the hours give, one after the other, to the last', () => {
    const agenda = agendaOf(p, { copies: 1, copyOrder: 'in turn' })
    // Forty rows of four beads, eighty beads an hour: twenty rows an hour.
    const days = rowsByDay(agenda, 0, 80, [
      { day: MONDAY, hours: 0.5 },
      { day: plus(1), hours: 1 },
      { day: plus(2), hours: 0.5 },
    ])
    expect(days.map((d) => [d.from, d.to, d.says])).toEqual([
      [0, 10, 'Row 1 – Row 10'],
      [10, 30, 'Row 11 – Row 30'],
      [30, 40, 'Row 31 – Row 40'],
    ])
  })
  it('count what is done besides beads, wherever one begins, and end where the work ends', () => {
    const agenda = courseOf(p, { copies: 2, copyOrder: 'side by side' })
    fc.assert(
      fc.property(fc.nat(agenda.count), fc.integer({ min: 1, max: 6 }), (index, parts) => {
        const all = hoursFrom(agenda, index, 100)
        const days = rowsByDay(
          agenda,
          index,
          100,
          Array.from({ length: parts }, (_, k) => ({ day: plus(k), hours: all / parts })),
        )
        expect(days[0]!.from).toBe(index)
        expect(days.at(-1)!.to).toBe(agenda.count)
        for (let k = 1; k < days.length; k++) expect(days[k]!.from).toBe(days[k - 1]!.to)
      }),
    )
    expect(hoursFrom(agenda, agenda.count, 100)).toBe(0)
    expect(hoursFrom(agenda, 0, 100)).toBeGreaterThan(beadsAt(agenda, { index: agenda.count, bite: 0 }) / 100)
  })
})
