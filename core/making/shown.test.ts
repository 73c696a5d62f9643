import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { rgbOf } from '../colour/colour'
import { numberAt, partRow, rowsOf } from '../piece/piece'
import { costSchema } from '../piece/schema'
import { requireTechnique } from '../technique/registry'
import { workingRowCount } from '../tally/words'
import { courseOf } from './chore'
import { agendaOf, choreMinutesFrom, bitesOf, goneTo, placeOf, rowListOf, taskAt, type RowTask } from './agenda'
import { leftOf } from './left'
import { pauseOf, spokenBite, spokenTask } from './say'
import { benchTray, doneOf, soFarOf } from './sofar'

const ORDER = { copies: 1, copyOrder: 'in turn' as const }
const band = piece({ parts: [part({ technique: 'loom', settings: requireTechnique('loom').settings.parse({}) })] })
const agenda = agendaOf(band, ORDER)
const at = (index: number) => taskAt(agenda, index) as RowTask

describe('the work so far', () => {
  it('holds what is made, faded, and the row in hand, bright; nothing else', () => {
    // The band is AAAA, three times ABBA BAAB, AAAA; numbers of made beads are odd, of bright ones even.
    const { part: shown } = soFarOf(at(2), 0, band.tray)
    expect([0, 1, 2, 3].map((r) => [0, 1, 2, 3].map((c) => numberAt(shown, c, r)))).toEqual([
      [1, 1, 1, 1],
      [1, 3, 3, 1],
      [4, 2, 2, 4],
      [0, 0, 0, 0],
    ])
    const done = doneOf(band.parts[0]!, band.tray).part
    expect([0, 1, 2, 3].map((c) => numberAt(done, c, rowsOf(done) - 1))).toEqual([2, 2, 2, 2])
  })
  it('has as many beads as are laid and in hand, in any technique, as long as all of it is near', () => {
    fc.assert(
      fc.property(anyPiece, fc.nat(1000), (p, which) => {
        const own = agendaOf(p, ORDER)
        const task = own.count > 0 ? (taskAt(own, which % own.count) as RowTask) : null
        const rowsThere = task && rowListOf(p, task.part)
        // The row that joins ends has no places of its own; further back than 44 rows nothing is shown.
        if (!task || !rowsThere || rowsOf(task.part) > 44 || task.row >= workingRowCount(task.part)) return
        const { part: shown } = soFarOf(task, 0, p.tray)
        // What is still to come of lines has numbers of its own, behind the others.
        const numbers = Array.from({ length: rowsOf(shown) }, (_, r) => [...partRow(shown, r)])
          .flat()
          .filter((n) => n <= 2 * p.tray.length)
        expect(numbers.filter((n) => n % 2 === 1).length).toBe(rowsThere.beadsBefore(rowsThere.placeOf(task.row)))
        expect(numbers.filter((n) => n > 0 && n % 2 === 0).length).toBe(task.words.beads)
      }),
    )
  })
  it('has the needle at the bead that comes next, which moves as the row goes', () => {
    const runs = bitesOf(at(1))
    expect(runs.map((b) => b.count)).toEqual([1, 2, 1])
    const needles = [0, 1, 2].map((bites) => soFarOf(at(1), bites, band.tray).needle.x)
    const way = at(1).words.direction === '→' ? 1 : -1
    expect(Math.sign(needles[1]! - needles[0]!)).toBe(way)
    expect((needles[2]! - needles[1]!) / (needles[1]! - needles[0]!)).toBeCloseTo(2, 9)
  })
  it('is painted from a tray of both, each with a number of its own', () => {
    const tray = benchTray(band.tray, rgbOf('#cfc6b8'))
    expect(tray.map((b) => b.number).sort((a, b) => a - b)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9])
    expect(tray.find((b) => b.number === 2)!.colour).toBe(band.tray[0]!.colour)
    expect(tray.find((b) => b.number === 1)!.colour).not.toBe(band.tray[0]!.colour)
  })
})

describe('what is left', () => {
  const cost = costSchema.parse({ beadsPerHourLeast: 50, beadsPerHourMost: 100 })
  const press = (minutes: number, beads: number) => ({ at: minutes * 60_000, beads, task: 'band/1/1', bite: 0 })
  it('goes by the plan’s pace, and by the hand’s once that is known, 15 % either way', () => {
    // 32 beads in eight rows.
    const place = placeOf(agenda, goneTo(agenda, 3))
    expect(leftOf(agenda, place, [], cost)).toEqual({
      done: 12,
      of: 32,
      tasks: 5,
      hours: { least: 0.2, most: 0.4 },
      pace: null,
      perHour: { least: 50, most: 100 },
    })
    // And what else there is to do, in its minutes: 20 to prepare, 8 to sew the clasp on, 3 to knot, 3 to trim.
    const course = courseOf(band, ORDER)
    const all = leftOf(course, placeOf(course, goneTo(course, 0)), [], cost)
    const chores = choreMinutesFrom(course, 0) / 60
    expect(chores).toBeGreaterThan(0.5)
    expect(all.hours.least).toBeCloseTo(0.32 + chores, 9)
    expect(all.hours.most).toBeCloseTo(0.64 + chores, 9)
    const known = leftOf(agenda, place, [press(0, 0), press(5, 10), press(10, 20)], cost)
    expect(known.pace).toBe(120)
    expect(known.hours.least).toBeCloseTo(20 / 138, 9)
    expect(known.hours.most).toBeCloseTo(20 / 102, 9)
  })
})

describe('what is said', () => {
  const tray = [bead(1, { name: 'Fog' }), bead(2, { name: 'Sedge' })]
  it('names beads, sums and what else is done', () => {
    expect(spokenTask(at(0), tray)).toBe('Row 1. 4 Fog.')
    expect(spokenTask(at(1), tray)).toBe('Row 2. 1 Fog, 2 Sedge, 1 Fog. 4 in all.')
    expect([spokenBite({ count: 2, number: 0 }, tray), spokenBite({ count: 1, number: 9 }, tray)]).toEqual([
      '2 empty',
      '1 bead',
    ])
    expect(spokenTask({ ...at(0), words: { ...at(0).words, after: 'step up' } }, tray)).toBe('Row 1. 4 Fog. step up.')
  })
  it('of a pause is where the needle is, or how much of the row is strung; of a braid how the disc lies', () => {
    const side = (index: number) => (at(index).words.direction === '→' ? 'left' : 'right')
    expect(pauseOf(at(1), bitesOf(at(1)), 0)).toBe(`before row 2; the needle comes out at the ${side(1)}.`)
    expect(pauseOf(at(1), bitesOf(at(1)), 2)).toBe(`in row 2: 3 of its 4 beads are strung, from the ${side(1)}.`)
    // Every other row of peyote runs back.
    const peyote = agendaOf(piece(), ORDER)
    expect([1, 2].map((k) => pauseOf(taskAt(peyote, k)!, [], 0).split('at the ')[1])).toEqual(['left.', 'right.'])
    const settings = requireTechnique('braid-8').settings.parse({})
    const round = rows('AAAAAAAA')
    const braid = piece({
      parts: [part({ technique: 'braid-8', settings, spec: 'round-8', start: round, repeat: round, end: round })],
    })
    const first = taskAt(agendaOf(braid, ORDER), 0)!
    expect(pauseOf(first, bitesOf(first), 1)).toContain('Three strands at the top')
  })
})
