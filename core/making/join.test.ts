import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, piece } from '../../tests/fixture/piece'
import { supplySchema } from '../piece/schema'
import { setStep } from '../piece/edit'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { coverOf, pathOf, threadCuts } from '../supply/thread'
import { agendaOf, goneTo, placeOf, rowsIn, taskAt } from './agenda'
import { joinRows, nextJoin } from './join'

const ORDER = { copies: 1, copyOrder: 'in turn' as const }
const anySupply = fc
  .record({ workingLengthMm: fc.integer({ min: 10, max: 300 }), tailMm: fc.integer({ min: 1, max: 8 }) })
  // Far shorter than anyone cuts it, so that small pieces need many.
  .map((own) => ({ ...supplySchema.parse({}), ...own, claspTailMm: 5 }))

describe('joins of thread, foretold', () => {
  it('come where a thread does not reach the end of the next row, in any technique', () => {
    fc.assert(
      fc.property(anyPiece, anySupply, fc.nat(3), ({ ...p }, supply, already) => {
        const own = { ...p, supply }
        const part = own.parts[0]!
        const rows = rowsIn(agendaOf(own, ORDER), part)
        const joined = already > 0 && already < rows.count ? [already] : []
        const foretold = joinRows(own, part, rows, joined)
        const lengthMm = Math.max(0, ...pathOf(part, own).runs.map((r) => (r.joined ? r.lengthMm : 0)))
        if (lengthMm === 0 || rows.beadsBefore(rows.count) === 0) {
          expect(foretold).toEqual([])
          return
        }
        const perBead = lengthMm / rows.beadsBefore(rows.count)
        const { first, next } = coverOf(supply)
        const starts = [joined[0] ?? 0, ...foretold]
        for (const [k, from] of starts.entries()) {
          const to = starts[k + 1] ?? rows.count
          const cover = k === 0 && joined.length === 0 ? first : next
          const used = (upto: number) => (rows.beadsBefore(upto) - rows.beadsBefore(from)) * perBead
          expect(to).toBeGreaterThan(from)
          // Enough for these rows, if it is enough for one at all; and not for one more.
          if (to > from + 1) expect(used(to)).toBeLessThanOrEqual(cover)
          if (to < rows.count) expect(used(to + 1)).toBeGreaterThan(cover)
        }
      }),
    )
  })
  it('are as many as the cut list says, or one more where rows are not broken off, and fewer by the sewing', () => {
    const p = piece({ supply: supplySchema.parse({ workingLengthMm: 500, tailMm: 50, claspTailMm: 50 }) })
    for (const times of [20, 60, 200, 700]) {
      const long = valueOf(applySteps(p, [setStep(p, ['parts', 'band', 'times'], times)]))
      const rows = rowsIn(agendaOf(long, ORDER), long.parts[0]!)
      const foretold = joinRows(long, long.parts[0]!, rows, []).length
      expect(Math.abs(foretold - threadCuts(long, long.parts[0]!)[0]!.joins)).toBeLessThanOrEqual(1)
    }
  })
})

describe('the next join', () => {
  const p = piece({ supply: supplySchema.parse({ workingLengthMm: 500, tailMm: 50, claspTailMm: 50 }) })
  const long = valueOf(applySteps(p, [setStep(p, ['parts', 'band', 'times'], 100)]))
  const agenda = agendaOf(long, ORDER)
  const at = (index: number) => taskAt(agenda, index)!
  const none = new Set<string>()
  const first = joinRows(long, long.parts[0]!, rowsIn(agenda, long.parts[0]!), [])[0]!

  it('is said before its row, on it, and is the one after once that is passed', () => {
    expect(nextJoin(agenda, at(first - 3), none)).toMatchObject({ now: false, rows: 3 })
    expect(nextJoin(agenda, at(first), none)).toMatchObject({ now: true, rows: 0 })
    expect(nextJoin(agenda, at(first - 3), none)!.before).toBe(`row ${at(first).words.from}`)
    expect(nextJoin(agenda, at(first + 1), none)!.now).toBe(false)
    expect(nextJoin(agenda, at(agenda.count - 1), none)).toBeNull()
  })
  it('moves on where one joins earlier, and is not moved by what was joined further on or in another copy', () => {
    const early = new Set([at(10).key])
    const next = nextJoin(agenda, at(10), early)!
    const plain = nextJoin(agenda, at(10), none)!
    expect(next.rows).toBeGreaterThan(plain.rows)
    expect(nextJoin(agenda, at(10), new Set([at(20).key, 'band/2/5']))).toEqual(plain)
    expect(placeOf(agenda, goneTo(agenda, 10)).index).toBe(10)
  })
})
