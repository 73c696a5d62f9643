import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rowPiece } from '../../tests/fixture/rows'
import { piece } from '../../tests/fixture/piece'
import { linesOf, raggedFrom } from '../grid/lines'
import { centreOf } from '../piece/drawing'
import { usualClosure } from '../wear/closure'
import {
  beadsAt,
  bitesOf,
  boardKey,
  keyOfTask,
  markOf,
  onward,
  placeOf,
  taskAt,
  type Agenda,
  type Mark,
} from './agenda'
import { alikeOn, boardOf, filledOf } from './board'
import { changedMade } from './changed'
import { courseOf } from './chore'
import { pauseOf } from './say'
import { doneOf, soFarOf } from './sofar'

const PINS = 8
/** Eight pins, every fourth alike, of three to six beads. */
const pins = rowPiece(
  'pins',
  ['round-11', 'round-11'],
  [
    [1, 1, 1],
    [1, 2, 1, 1],
    [1, 1, 2, 2, 1],
    [2, 2, 2, 1, 1, 1],
  ],
  {
    times: 2,
    settings: { stand: 'one way' },
    fit: { closure: usualClosure('elastic') },
  },
)
const course = (
  filled: readonly number[] = [],
  copies = 1,
  copyOrder: 'in turn' | 'side by side' = 'in turn',
): Agenda =>
  courseOf(
    pins,
    { copies, copyOrder },
    { joined: new Map(), measured: [], filled: new Map([[boardKey('rows', 1), filled]]) },
  )
const rowsIn = (agenda: Agenda): number[] =>
  Array.from({ length: agenda.count }, (_, k) => taskAt(agenda, k)!).flatMap((t) => (t.words ? [t.row] : []))
const markAtRow = (row: number): Mark => ({ task: keyOfTask('rows', 1, row), bite: 0 })

describe('a board of pins', () => {
  it('puts what is filled out of turn before the rest, and every pin stays once', () => {
    expect(rowsIn(course([5, 2]))).toEqual([5, 2, 0, 1, 3, 4, 6, 7])
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(PINS - 1)), fc.nat(PINS), (filled, made) => {
        const agenda = course(filled)
        expect(rowsIn(agenda).toSorted((a, b) => a - b)).toEqual(Array.from({ length: PINS }, (_, k) => k))
        // Beads made are those of the pins before the one in hand, whichever they are.
        const row = Array.from({ length: PINS }, (_, k) => k).filter((k) => !filled.includes(k))[made]
        if (row === undefined) return
        const at = placeOf(agenda, markAtRow(row))
        const task = taskAt(agenda, at.index)!
        const board = boardOf(agenda, task)!
        const beads = board.filter((l) => l.made).reduce((sum, l) => sum + l.words.beads, 0)
        expect(beadsAt(agenda, at)).toBe(beads)
        expect(board.filter((l) => l.early).map((l) => l.row)).toEqual(filled.toSorted((a, b) => a - b))
        expect(board.find((l) => l.now)!.row).toBe(row)
      }),
    )
  })
  it('goes on to the next that is empty, and ends when all are filled', () => {
    const agenda = course([1, 3])
    expect(onward(agenda, markAtRow(0), 'row').task).toBe('rows/1/2')
    expect(onward(agenda, markAtRow(2), 'row').task).toBe('rows/1/4')
    // Filled while it waits: what is in hand stays in hand.
    expect(markOf(agenda, { presses: [markAtRow(2)], moved: {} })).toEqual(markAtRow(2))
    expect(taskAt(agenda, placeOf(agenda, onward(agenda, markAtRow(7), 'row')).index)?.chore?.title).toBe(
      'String the pins',
    )
  })
  it('leaves what is done besides where it was, whichever pins are filled first', () => {
    const key = (agenda: Agenda) => taskAt(agenda, 0)!.key
    expect(key(course())).toBe('rows/1/0/prepare')
    expect(key(course([5]))).toBe('rows/1/0/prepare')
    expect(placeOf(course([5, 0]), { task: 'rows/1/0/prepare', bite: 0 }).index).toBe(0)
    const agenda = course([5])
    const last = taskAt(agenda, agenda.count - 1)!.key
    expect(placeOf(course(), { task: last, bite: 0 }).index).toBe(course().count - 1)
  })
  it('shows the work so far with just the pins that are filled', () => {
    const agenda = course([6])
    const task = taskAt(agenda, placeOf(agenda, markAtRow(1)).index)!
    const { part } = soFarOf(task, 0, pins.tray)
    const lines = part.repeat.blocks.flatMap((block) => Array.from(block))
    // Pins 7 and 1 are made, 2 is in hand: three, five and four beads are shown.
    expect(lines.filter((n) => n > 0 && n <= 2 * pins.tray.length)).toHaveLength(5 + 3 + 4)
  })
  it('shows beads of lines in their own sizes, where they will lie when all is made', () => {
    const p = rowPiece(
      'cuff-ribs',
      ['hexagon-6-mm', 'round-11'],
      [
        [2, 1, 2],
        [2, 2],
      ],
      {
        settings: { shared: true },
        times: 3,
      },
    )
    const [ribs] = p.parts
    const agenda = courseOf(p, { copies: 1, copyOrder: 'in turn' })
    const task = taskAt(agenda, placeOf(agenda, { task: keyOfTask('rows', 1, 2), bite: 0 }).index)!
    for (const { part } of [soFarOf(task, 0, p.tray), doneOf(ribs!, p.tray)])
      for (let r = 0; r < 6; r++)
        for (let c = 0; c < (r % 2 === 0 ? 3 : 2); c++) expect(centreOf(part, c, r)).toEqual(centreOf(ribs!, c, r))
  })
  it('names pins that are alike as they are strung from their heads', () => {
    const agenda = course()
    const board = boardOf(agenda, taskAt(agenda, placeOf(agenda, markAtRow(0)).index)!)!
    expect(alikeOn(board, board[1]!)).toEqual([1, 5])
    const turned = rowPiece('pins', ['round-11', 'round-11'], [[1, 2]], { times: 4 })
    const other = courseOf(turned, { copies: 1, copyOrder: 'in turn' })
    const all = boardOf(other, taskAt(other, placeOf(other, markAtRow(0)).index)!)!
    expect(alikeOn(all, all[0]!)).toEqual([0, 2])
  })
  it('tells of a changed plan what is filled, and leaves what is not', () => {
    const [part] = pins.parts
    const lines = linesOf(part!.repeat).map((line) => [...line])
    const changed = (r: number) => ({
      ...pins,
      parts: [
        {
          ...part!,
          repeat: raggedFrom(
            lines.with(
              r,
              [...lines[r]!].reverse().map((n) => 3 - n),
            ),
          ),
        },
      ],
    })
    const order = { copies: 1, copyOrder: 'in turn' as const }
    const told = (r: number, filled: number[]) =>
      changedMade(pins, changed(r), order, markAtRow(1), new Map([[boardKey('rows', 1), filled]])).map((c) => c.rows)
    // Pin 1 is made by turn, pin 7 out of turn; line 3 is pins 3 and 7.
    expect(told(0, [6])).toEqual([[0]])
    expect(told(2, [6])).toEqual([[6]])
    expect(told(2, [])).toEqual([])
    expect(told(3, [6])).toEqual([])
  })
  it('is paused without a needle to look for', () => {
    const agenda = course([3])
    const task = taskAt(agenda, placeOf(agenda, markAtRow(1)).index)!
    expect(pauseOf(task, bitesOf(task), 0)).toBe('before pin 2; what is filled stays filled, in any order.')
    expect(pauseOf(task, bitesOf(task), 2)).toBe('within pin 2: 2 are on.')
  })
  it('is read from what was ticked, in the order of time', () => {
    const ticks = new Map([
      [
        'rows/1/0/board',
        new Map([
          ['4', 20],
          ['2', 10],
          ['11', 20],
        ]),
      ],
      ['rows/1/0/prepare', new Map([['beads', 5]])],
    ])
    expect([...filledOf(ticks)]).toEqual([['rows/1/0/board', [2, 4, 11]]])
  })
  it('is there for work in any order only, and not where copies take turns', () => {
    const agenda = course([3], 2, 'side by side')
    expect(boardOf(agenda, taskAt(agenda, 4)!)).toBeNull()
    expect(rowsIn(agenda).slice(0, 4)).toEqual([0, 0, 1, 1])
    const grid = courseOf(piece(), { copies: 1, copyOrder: 'in turn' })
    expect(boardOf(grid, taskAt(grid, 1)!)).toBeNull()
  })
})
