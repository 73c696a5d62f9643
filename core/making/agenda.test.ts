import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { joinNumbers } from '../piece/join'
import type { Piece } from '../piece/piece'
import { setStep } from '../piece/edit'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { tallyPart, totalOf } from '../tally/tally'
import { requireTechnique } from '../technique/registry'
import {
  agendaOf,
  backward,
  beadsAt,
  bitesOf,
  CHORE_KINDS,
  choreMinutesFrom,
  COPY_ORDERS,
  DONE,
  goneTo,
  markOf,
  nextChore,
  onward,
  placeOf,
  taskAt,
  type Agenda,
  type Mark,
  type PlacedChore,
  type Stride,
} from './agenda'

/** With and without what is done besides beads, at any places. */
const anyAgenda = fc
  .record({
    p: anyPiece,
    copies: fc.integer({ min: 1, max: 3 }),
    copyOrder: fc.constantFrom(...COPY_ORDERS),
    chores: fc.uniqueArray(
      fc.record({
        copy: fc.integer({ min: 1, max: 3 }),
        at: fc.nat(1000),
        kind: fc.constantFrom(...CHORE_KINDS),
      }),
      { selector: ({ copy, at, kind }) => `${copy} ${at} ${kind}`, maxLength: 12 },
    ),
  })
  .map(({ p, chores, ...order }) => {
    const { rows: list, part: one } = agendaOf(p, order).stretches[0]!
    const placed = chores
      .filter((c) => c.copy <= order.copies)
      .map(({ copy, at, kind }): PlacedChore => ({
        part: one.id,
        copy,
        k: at % (list.count + 1),
        chore: { kind, title: kind, says: [], items: [], minutes: 1, cautions: [], waits: [] },
      }))
    // One of a kind at a place.
    const unique = new Map(placed.map((c) => [`${c.copy} ${c.k} ${c.chore.kind}`, c]))
    return agendaOf(p, order, [...unique.values()])
  })
const anyStride = fc.constantFrom<Stride>('row', 'bite')

const NOTHING = { presses: [], moved: {} }
/** Every mark that presses lead through, the last one included. */
function walk(agenda: Agenda, stride: Stride): Mark[] {
  const marks = [markOf(agenda, NOTHING)]
  while (marks.at(-1)!.task !== DONE.task && marks.length < 100_000) marks.push(onward(agenda, marks.at(-1)!, stride))
  return marks
}
/** Beads that one copy of a piece takes, what joins its ends among them: by the tally, not by the steps. */
const beadsOf = (p: Piece): number =>
  p.parts.reduce((sum, one) => sum + totalOf(tallyPart(one)) + joinNumbers(p, one).filter((n) => n > 0).length, 0)

describe('the agenda of a piece', () => {
  it('lays every bead of every copy once, in any technique, however one presses', () => {
    fc.assert(
      fc.property(anyAgenda, anyStride, (agenda, stride) => {
        const marks = walk(agenda, stride)
        const laid = marks.map((mark) => beadsAt(agenda, placeOf(agenda, mark)))
        expect(laid[0]).toBe(0)
        expect(laid.at(-1)).toBe(agenda.order.copies * beadsOf(agenda.piece))
        expect(agenda.beads).toBe(laid.at(-1))
        for (let k = 1; k < laid.length; k++) expect(laid[k]).toBeGreaterThanOrEqual(laid[k - 1]!)
        const told = Array.from({ length: agenda.count }, (_, k) => bitesOf(taskAt(agenda, k)!)).flat()
        expect(told.reduce((sum, b) => sum + (b.number === 0 ? 0 : b.count), 0)).toBe(agenda.beads)
      }),
    )
  })
  it('goes back the way it came, press by press', () => {
    fc.assert(
      fc.property(anyAgenda, anyStride, (agenda, stride) => {
        const marks = walk(agenda, stride)
        for (let k = 1; k < marks.length; k++) expect(backward(agenda, marks[k]!, stride)).toEqual(marks[k - 1])
        expect(backward(agenda, marks[0]!, stride)).toEqual(marks[0])
      }),
    )
  })
  it('finds each task by its number and by its name, and makes each copy of each row once', () => {
    fc.assert(
      fc.property(anyAgenda, (agenda) => {
        const keys = Array.from({ length: agenda.count }, (_, k) => taskAt(agenda, k)!.key)
        expect(new Set(keys).size).toBe(keys.length)
        for (const [k, key] of keys.entries()) {
          expect(placeOf(agenda, { task: key, bite: 0 })).toEqual({ index: k, bite: 0 })
          expect(goneTo(agenda, k).task).toBe(key)
        }
        expect([taskAt(agenda, -1), taskAt(agenda, agenda.count)]).toEqual([null, null])
        expect([goneTo(agenda, -5), goneTo(agenda, 1e9)]).toEqual([goneTo(agenda, 0), DONE])
        expect(placeOf(agenda, DONE)).toEqual({ index: agenda.count, bite: 0 })
      }),
    )
  })
})

const pair = piece({
  parts: [part({ id: 'top', name: 'Top', times: 1 }), part({ id: 'drop', name: 'Drop', times: 1 })],
})

describe('what is done besides beads', () => {
  const chore = (kind: PlacedChore['chore']['kind'], copy: number, k: number): PlacedChore => ({
    part: 'top',
    copy,
    k,
    chore: { kind, title: kind, says: [], items: [], minutes: 2, cautions: [], waits: [] },
  })
  const chores = [chore('join', 2, 3), chore('prepare', 1, 0), chore('glue', 1, 7), chore('join', 1, 3)]
  it('comes before its row, copy by copy, and behind the last', () => {
    const two = agendaOf(pair, { copies: 2, copyOrder: 'side by side' }, chores)
    const said = Array.from({ length: two.count }, (_, k) => {
      const { copy, chore: c, words } = taskAt(two, k)!
      return `${copy} ${c ? c.kind : words!.from}`
    })
    expect(said.slice(0, 19)).toEqual([
      ...['1 prepare', '1 1', '2 1', '1 3', '2 3', '1 4', '2 4'],
      ...['1 join', '2 join', '1 5', '2 5', '1 6', '2 6', '1 7', '2 7', '1 8', '2 8', '1 glue', '1 1'],
    ])
    expect(taskAt(two, 17)!.key).toBe('top/1/end/glue')
    expect(taskAt(two, 8)!.key).toBe('top/2/3/join')
    expect([0, 1, 8, 9, 18].map((k) => choreMinutesFrom(two, k))).toEqual([8, 6, 4, 2, 0])
  })
  it('is found again where it moved, by the row before which it was', () => {
    const one = { copies: 1, copyOrder: 'in turn' as const }
    const mark = { task: 'top/1/3/join', bite: 0 }
    expect(taskAt(agendaOf(pair, one, chores), placeOf(agendaOf(pair, one, chores), mark).index)!.key).toBe(mark.task)
    const without = agendaOf(pair, one, [chores[1]!])
    expect(taskAt(without, placeOf(without, mark).index)!.key).toBe('top/1/3')
    const behind = agendaOf(pair, one, [chore('trim', 1, 7)])
    expect(taskAt(behind, placeOf(behind, { task: 'top/1/end/glue', bite: 0 }).index)!.key).toBe('top/1/end/trim')
  })
  it('is told beforehand, of the copy in hand', () => {
    const two = agendaOf(pair, { copies: 2, copyOrder: 'side by side' }, chores)
    expect(nextChore(two, taskAt(two, 1)!, 'join')).toMatchObject({ index: 7, rows: 3, before: { from: 5 } })
    expect(nextChore(two, taskAt(two, 2)!, 'join')).toMatchObject({ index: 8, rows: 3 })
    expect(nextChore(two, taskAt(two, 8)!, 'join')).toMatchObject({ index: 8, rows: 0 })
    expect(nextChore(two, taskAt(two, 9)!, 'join')).toBeNull()
    expect(nextChore(two, taskAt(two, 2)!, 'glue')).toBeNull()
    expect(nextChore(two, taskAt(two, 1)!, 'glue')).toMatchObject({ before: null, rows: 7 })
  })
})

describe('copies', () => {
  it('in turn are whole ones after each other, side by side a row of each', () => {
    const said = (copyOrder: (typeof COPY_ORDERS)[number], ...at: number[]) => {
      const agenda = agendaOf(pair, { copies: 2, copyOrder })
      return at.map((k) => {
        const { part: one, copy, words } = taskAt(agenda, k)!
        return `${one.id} ${copy} ${words!.from}`
      })
    }
    // Seven steps a part: the first string of peyote makes rows 1 and 2 of eight.
    expect(said('in turn', 0, 1, 6, 7, 13, 14, 21, 27)).toEqual([
      ...['top 1 1', 'top 1 3', 'top 1 8', 'drop 1 1', 'drop 1 8'],
      ...['top 2 1', 'drop 2 1', 'drop 2 8'],
    ])
    expect(said('side by side', 0, 1, 2, 3, 13, 14, 15)).toEqual([
      ...['top 1 1', 'top 2 1', 'top 1 3', 'top 2 3', 'top 2 8'],
      ...['drop 1 1', 'drop 2 1'],
    ])
  })
})

describe('where the hands are', () => {
  const agenda = agendaOf(piece(), { copies: 1, copyOrder: 'in turn' })
  it('within a row is a run; a row of one run is one press either way', () => {
    const at = goneTo(agenda, 2)
    const runs = bitesOf(taskAt(agenda, 2)!)
    expect(runs.map((b) => [b.count, b.number, b.before])).toEqual([
      [1, 1, 0],
      [1, 2, 1],
    ])
    expect(onward(agenda, at, 'bite')).toEqual({ task: at.task, bite: 1 })
    expect(onward(agenda, onward(agenda, at, 'bite'), 'row')).toEqual(goneTo(agenda, 3))
    expect(backward(agenda, { task: at.task, bite: 1 }, 'row')).toEqual(at)
  })
  it('outlives rows and parts that go: the next row of the part, or the last press that still says something', () => {
    const was = [goneTo(agenda, 3), goneTo(agenda, 5)]
    const shorter = agendaOf(piece({ parts: [part({ times: 0, end: rows('AAAA') })] }), agenda.order)
    expect(placeOf(shorter, markOf(shorter, { presses: was, moved: {} })).index).toBe(shorter.count)
    const other = agendaOf(piece({ parts: [part({ id: 'new' })] }), agenda.order)
    expect(markOf(other, { presses: was, moved: {} })).toEqual(goneTo(other, 0))
    const both = agendaOf(pair, agenda.order)
    const gone: Mark = { task: 'gone/1/7', bite: 0 }
    expect(markOf(both, { presses: [goneTo(both, 2), gone], moved: {} })).toEqual(goneTo(both, 2))
    expect(placeOf(agenda, gone)).toEqual({ index: 0, bite: 0 })
    // a copy that is not made any more
    expect(markOf(agenda, { presses: [{ task: 'band/2/3', bite: 0 }], moved: {} })).toEqual(goneTo(agenda, 0))
  })
  it('of a bite that is not there any more is the last of its row', () => {
    const at = goneTo(agenda, 2)
    expect(placeOf(agenda, { ...at, bite: 99 })).toEqual({ index: 2, bite: 1 })
  })
  it('as moves on a disc, as it was kept before, is the row and the move', () => {
    const braid = piece({
      tray: [bead(1, { spec: 'round-8' })],
      parts: [
        part({
          technique: 'braid-8',
          settings: requireTechnique('braid-8').settings.parse({}),
          spec: 'round-8',
          start: rows('AAAAAAAA'),
          repeat: rows('AAAAAAAA'),
          end: rows('AAAAAAAA'),
        }),
      ],
    })
    const round = agendaOf(braid, agenda.order)
    expect(markOf(round, { presses: [], moved: { band: 19 } })).toEqual({ task: 'band/1/2', bite: 3 })
    expect(beadsAt(round, placeOf(round, { task: 'band/1/2', bite: 3 }))).toBe(19)
    expect(bitesOf(taskAt(round, 0)!)[0]).toMatchObject({ count: 1, says: expect.stringContaining('bottom left') })
    // What was pressed since counts for more.
    expect(markOf(round, { presses: [{ task: 'band/1/1', bite: 1 }], moved: { band: 19 } })).toEqual({
      task: 'band/1/1',
      bite: 1,
    })
    expect(markOf(agenda, { presses: [], moved: { band: 19 } })).toEqual(goneTo(agenda, 0))
  })
  it('keeps its row while the plan grows behind it', () => {
    const p = piece()
    const now = valueOf(applySteps(p, [setStep(p, ['parts', 'band', 'times'], 9)]))
    const longer = agendaOf(now, agenda.order)
    const at = goneTo(agenda, 4)
    expect(placeOf(longer, markOf(longer, { presses: [at], moved: {} }))).toEqual(placeOf(agenda, at))
  })
})
