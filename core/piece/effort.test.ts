import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece } from '../../tests/fixture/piece'
import { anyWish, play } from '../../tests/fixture/step'
import { emptyCells } from '../grid/cells'
import { linesOf } from '../grid/lines'
import { partToFile } from './codec'
import { insertColumnsStep, insertRowsStep, setStep } from './edit'
import { checkEffort, effortOf, effortsOf, MOST_EFFORT, sentTogether } from './effort'
import { SECTIONS, type Piece } from './piece'
import { LIMITS } from './schema'
import { applySteps, type Step } from './step'

/** Cells that are not the same before and after, where both have the part in the same size. */
function changedCells(before: Piece, after: Piece): number {
  let count = 0
  for (const was of before.parts) {
    const now = after.parts.find((p) => p.id === was.id)
    for (const name of SECTIONS) {
      if (!now || now[name].columns !== was[name].columns || now[name].rows !== was[name].rows) continue
      const [a, b] = [was[name], now[name]].map((cells) => linesOf(cells).flatMap((line) => [...line])) as [
        number[],
        number[],
      ]
      count += a.reduce((sum, number, i) => sum + (number === b[i] ? 0 : 1), 0)
    }
  }
  return count
}

const large = (columns: number, rows: number): Piece =>
  piece({
    parts: [
      part({
        start: emptyCells(columns, 0),
        repeat: emptyCells(columns, rows, 1),
        end: emptyCells(columns, 0),
        times: 1,
      }),
    ],
  })
const paint = (index: number, length: number): Step => ({
  type: 'cells',
  part: 'band',
  section: 'repeat',
  patches: [[index, length, 1, 2]],
})

describe('what steps cost', () => {
  it('is never less than the cells that they change, and is known of all without applying any', () => {
    fc.assert(
      fc.property(anyPiece, fc.array(anyWish, { minLength: 1, maxLength: 8 }), (from, wishes) => {
        const played = play(from, wishes)
        const efforts = effortsOf(
          from,
          played.map((p) => p.steps),
        )
        for (const [k, { steps, before, after }] of played.entries()) {
          expect(efforts[k]).toBe(effortOf(before, steps))
          expect(efforts[k]).toBeGreaterThanOrEqual(changedCells(before, after))
        }
      }),
    )
  })
  it('follows what is asked for, not how long the message is', () => {
    const million = large(500, 2000)
    expect(effortOf(million, [paint(0, 1_000_000)])).toBeGreaterThanOrEqual(2_000_000)
    expect(effortOf(million, [paint(7, 1)])).toBeLessThan(1000)
    expect(effortOf(million, [insertRowsStep(million.parts[0]!, 'repeat', 0, 1, 1)])).toBeGreaterThan(1_000_000)
    expect(effortOf(million, [insertColumnsStep(million.parts[0]!, 0, 2, 1)])).toBeGreaterThan(1_000_000)
    expect(effortOf(million, [{ type: 'tray', do: 'remove', at: 2, bead: bead(3) }])).toBeGreaterThan(1_000_000)
    const value = partToFile(million.parts[0]!)
    expect(effortOf(piece(), [{ type: 'part', do: 'insert', at: 0, value }])).toBeGreaterThan(1_000_000)
    const list = Array.from({ length: 5000 }, (_, k) => k)
    const set: Step = { type: 'set', path: ['fit'], before: list, after: null }
    expect(effortOf(piece(), [set])).toBeGreaterThan(5000)
    expect(effortOf(piece(), [{ ...set, before: null, after: list }])).toBeGreaterThan(5000)
  })
  it('is bounded by what a hand could do: a hundred whole pieces and rows by the million are refused', () => {
    const million = large(500, 2000)
    const hundred = Array.from({ length: 100 }, () => paint(0, 1_000_000))
    expect(checkEffort(effortOf(million, hundred)).ok).toBe(false)
    const rows: Step = {
      type: 'rows',
      do: 'insert',
      part: 'band',
      section: 'repeat',
      at: 0,
      count: 3_000_000,
      cells: [12_000_000, 1],
    }
    expect(checkEffort(effortOf(piece(), [rows])).ok).toBe(false)
    // Steps that could never fit take nothing off the cost of those before them.
    const empty = partToFile(
      part({ id: 'empty', start: emptyCells(2, 0), repeat: emptyCells(2, 0), end: emptyCells(2, 0) }),
    )
    const none = { start: [], repeat: [], end: [] }
    const tricks: Step[] = [
      { type: 'part', do: 'insert', at: 0, value: empty },
      { type: 'columns', do: 'remove', part: 'empty', at: 0, count: 1_000_000_000, cells: none },
      { type: 'rows', do: 'insert', part: 'empty', section: 'end', at: 0, count: 1000, cells: [] },
      { type: 'rows', do: 'remove', part: 'empty', section: 'end', at: 0, count: 2000, cells: [] },
      { type: 'columns', do: 'insert', part: 'empty', at: 0, count: 1_000_000, cells: none },
    ]
    for (const [k, cost] of effortsOf(
      million,
      tricks.map((step) => [step]),
    ).entries())
      expect([k, cost >= 0]).toEqual([k, true])
    // The largest piece can be filled in one gesture.
    expect(checkEffort(effortOf(large(500, 8000), [paint(0, LIMITS.cells)])).ok).toBe(true)
    expect([checkEffort(MOST_EFFORT).ok, checkEffort(MOST_EFFORT + 1).ok]).toEqual([true, false])
  })
})

describe('sent together', () => {
  const sent = (most: number, ...lists: Step[][]) =>
    sentTogether(
      large(500, 2000),
      lists.map((steps, k) => ({ id: `together-${k}`, label: 'x', steps })),
      most,
    )
  it('are as many as cost little enough, in order, one at least', () => {
    const small = [paint(0, 1)]
    const one = effortOf(large(500, 2000), small)
    expect(sent(3 * one, small, small, small, small)).toBe(3)
    expect(sent(4 * one, small, small, small, small)).toBe(4)
    expect(sent(one, [paint(0, 1_000_000)], small)).toBe(1)
    expect(sent(2 * one, small, [paint(0, 1_000_000)], small)).toBe(1)
  })
})

describe('a piece', () => {
  const rowsInserted = (count: number) => [insertRowsStep(part({ times: 0 }), 'repeat', 0, count, 1)]
  const codes = (of: Piece, steps: Step[]) => {
    const next = applySteps(of, steps)
    return next.ok ? [] : next.problems.map((p) => p.code)
  }
  it('holds no more rows and beads than it may, whether they are worked or not', () => {
    const unworked = piece({ parts: [part({ times: 0 })] })
    expect(codes(unworked, rowsInserted(LIMITS.rows - 2))).toEqual([])
    expect(codes(unworked, rowsInserted(LIMITS.rows - 1))).toContain('rows-many')
    const wide = large(500, 8000)
    expect(codes(wide, [insertRowsStep(wide.parts[0]!, 'repeat', 0, 1, 1)])).toContain('cells-many')
    expect(
      codes({ ...wide, parts: wide.parts.map((p) => ({ ...p, times: 0 })) }, [
        insertRowsStep(wide.parts[0]!, 'end', 0, 1, 1),
      ]),
    ).toContain('cells-many')
    // Two parts share the room of one piece.
    const value = partToFile(part({ id: 'more' }))
    expect(codes(wide, [{ type: 'part', do: 'insert', at: 1, value }])).toContain('cells-many')
    expect(codes(wide, [setStep(wide, ['name'], 'Full')])).toEqual([])
  })
})
