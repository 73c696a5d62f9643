import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, part, piece } from '../../tests/fixture/piece'
import { supplySchema } from '../piece/schema'
import { setStep } from '../piece/edit'
import type { Part } from '../piece/piece'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { coverOf, pathOf, threadCuts } from '../supply/thread'
import { closureOf } from '../wear/closure'
import { rowListOf } from './agenda'
import { joinRows } from './join'

const anySupply = fc
  .record({
    workingLengthMm: fc.integer({ min: 10, max: 300 }),
    tailMm: fc.integer({ min: 1, max: 8 }),
    claspTailMm: fc.integer({ min: 5, max: 40 }),
  })
  // Far shorter than anyone cuts it, so that small pieces need many.
  .map((own) => ({ ...supplySchema.parse({}), ...own }))

describe('joins of thread, foretold', () => {
  it('come where a thread does not reach the end of the next row, in any technique, however it was joined', () => {
    fc.assert(
      fc.property(
        anyPiece,
        anySupply,
        fc.array(fc.tuple(fc.nat(20), fc.boolean()), { maxLength: 3 }),
        (p, supply, said) => {
          const own = { ...p, supply }
          const part = own.parts[0]!
          const rows = rowListOf(own, part)
          const joins = new Map(said)
          const foretold = joinRows(own, part, rows, joins)
          const lengthMm = Math.max(0, ...pathOf(part, own).runs.map((r) => (r.joined ? r.lengthMm : 0)))
          if (lengthMm === 0 || rows.beadsBefore(rows.count) === 0) {
            expect(foretold).toEqual([])
            return
          }
          const perBead = lengthMm / rows.beadsBefore(rows.count)
          const { first, next, sewing } = coverOf(supply, closureOf(own.fit.closure.kind).sewingMm)
          const inside = foretold.filter((k) => k < rows.count)
          const starts = [0, ...inside]
          for (const [k, from] of starts.entries()) {
            const to = starts[k + 1] ?? rows.count
            const cover = k === 0 ? first : next
            const used = (upto: number) => (rows.beadsBefore(upto) - rows.beadsBefore(from)) * perBead
            expect(to).toBeGreaterThan(from)
            // Enough for these rows, if it is enough for one at all, unless somebody said that it was.
            const last = to - 1
            if (to > from + 1 && joins.get(last) !== false) expect(used(to)).toBeLessThanOrEqual(cover)
            // And not for one more, unless it was joined earlier.
            if (to < rows.count && joins.get(to) !== true) expect(used(to + 1)).toBeGreaterThan(cover)
            if (to === rows.count && joins.size === 0)
              expect(foretold.includes(rows.count)).toBe(cover - used(to) < sewing)
          }
          for (const [k, joined] of joins) {
            if (joined && k > 0 && k < rows.count) expect(foretold).toContain(k)
            if (!joined && k < rows.count) expect(foretold).not.toContain(k)
          }
        },
      ),
    )
  })
  it('are as many as the cut list says, or one more where rows are not broken off', () => {
    const p = piece({ supply: supplySchema.parse({ workingLengthMm: 500, tailMm: 50, claspTailMm: 50 }) })
    for (const times of [20, 60, 200, 700]) {
      const long = valueOf(applySteps(p, [setStep(p, ['parts', 'band', 'times'], times)]))
      const foretold = joinRows(long, long.parts[0]!, rowListOf(long, long.parts[0]!)).length
      const { joins } = threadCuts(long, long.parts[0]!)[0]!
      expect(foretold - joins).toBeGreaterThanOrEqual(0)
      expect(foretold - joins).toBeLessThanOrEqual(1)
    }
  })
  it('keep thread for a closure where it is sewn on: on the part that is fitted alone', () => {
    const p = piece({
      parts: [part({ id: 'band' }), part({ id: 'drop' })],
      supply: { ...supplySchema.parse({}), workingLengthMm: 1, tailMm: 0, claspTailMm: 0 },
    })
    const [band, drop] = p.parts as [Part, Part]
    const all = pathOf(band, p).runs[0]!.lengthMm
    // As long as the way of the part, and no more: too short to sew a closure on with.
    const short = { ...p, supply: { ...p.supply, workingLengthMm: all * 1.05 + 1 } }
    const count = (one: Part) => joinRows(short, one, rowListOf(short, one))
    expect(count(band)).toEqual([rowListOf(short, band).count])
    expect(count(drop)).toEqual([])
  })
  it('go on from where it was joined, and come a row later where the thread still lasts', () => {
    const p = piece({ supply: supplySchema.parse({ workingLengthMm: 500, tailMm: 50, claspTailMm: 50 }) })
    const long = valueOf(applySteps(p, [setStep(p, ['parts', 'band', 'times'], 100)]))
    const rows = rowListOf(long, long.parts[0]!)
    const plain = joinRows(long, long.parts[0]!, rows)
    const early = joinRows(long, long.parts[0]!, rows, new Map([[10, true]]))
    expect(early[0]).toBe(10)
    // With a clasp tail as long as any, a thread that is joined on covers what the first one does.
    expect(early[1]! - 10).toBe(plain[1]! - plain[0]!)
    // Told in any order; what lies outside the rows is none.
    const told = new Map([
      [30, true],
      [10, true],
      [0, true],
      [rows.count + 5, true],
    ])
    expect(joinRows(long, long.parts[0]!, rows, told).slice(0, 2)).toEqual([10, 30])
    const later = joinRows(long, long.parts[0]!, rows, new Map([[plain[0]!, false]]))
    expect(later[0]).toBe(plain[0]! + 1)
  })
})
