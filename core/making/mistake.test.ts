import fc from 'fast-check'
import { distance } from 'fastest-levenshtein'
import { describe, expect, it } from 'vitest'
import { anyPiece, part, piece, rows } from '../../tests/fixture/piece'
import { partRow, rowsOf, type Part, type Piece } from '../piece/piece'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { requireTechnique } from '../technique/registry'
import { agendaOf, goneTo, placeOf, rowListOf } from './agenda'
import {
  beadsWords,
  differencesOf,
  differenceWords,
  firstFound,
  followSteps,
  foundIn,
  markOfFound,
  plannedRow,
  plannedStrand,
  unpickCost,
  type Difference,
} from './mistake'

const list = fc.array(fc.integer({ min: 1, max: 4 }), { maxLength: 24 })
/** The planned list as the differences say that it was strung. */
function applied(planned: readonly number[], differences: readonly Difference[]): number[] {
  const out: number[] = []
  let at = 0
  for (const d of differences) {
    out.push(...planned.slice(at, d.at), ...d.strung)
    at = d.at + d.planned.length
  }
  return [...out, ...planned.slice(at)]
}
const countOf = (differences: readonly Difference[]) => differences.reduce((sum, d) => sum + d.count, 0)
const said = (numbers: readonly number[]) => String.fromCharCode(...numbers.map((n) => 64 + n))

describe('where two lists differ', () => {
  it('is told by as few beads as an independent alignment finds (edit distance, Levenshtein 1965)', () => {
    fc.assert(
      fc.property(list, list, (planned, strung) => {
        const differences = differencesOf(planned, strung)
        expect(countOf(differences)).toBe(distance(said(planned), said(strung)))
        expect(applied(planned, differences)).toEqual(strung)
      }),
      { numRuns: 500 },
    )
  })
  it('of what was looked at only so far is told against the beginning of the plan that is nearest', () => {
    fc.assert(
      fc.property(list, list, (planned, strung) => {
        const differences = differencesOf(planned, strung, { open: true })
        const best = Math.min(
          ...Array.from({ length: planned.length + 1 }, (_, n) => distance(said(planned.slice(0, n)), said(strung))),
        )
        expect(countOf(differences)).toBe(strung.length === 0 ? 0 : best)
      }),
      { numRuns: 500 },
    )
  })
  it('is found in lists that are too long to align bead by bead, from where they part', () => {
    const planned = Array.from({ length: 5000 }, (_, k) => 1 + (k % 3))
    const strung = planned.map((n, k) => (k === 17 || k > 4000 ? 4 : n))
    const [first] = differencesOf(planned, strung)
    expect(first).toMatchObject({ kind: 'other', at: 17 })
    expect(applied(planned, differencesOf(planned, [...strung, 1, 2]))).toEqual([...strung, 1, 2])
    expect(differencesOf(planned, planned)).toEqual([])
  })
  it('is said bead by bead', () => {
    const { tray } = piece()
    const words = (planned: number[], strung: number[]) =>
      differencesOf(planned, strung).map((d) => differenceWords(d, tray))
    expect(words([1, 1, 2, 3], [1, 2, 2, 3])).toEqual(['bead 2: 1B instead of 1A'])
    expect(words([1, 1, 1, 3], [1, 2, 2, 3])).toEqual(['from bead 2: 2B instead of 2A'])
    expect(words([1, 2, 3], [1, 2, 2, 2, 3])).toEqual(['after bead 2: 2B too many'])
    expect(words([1, 2, 3], [2, 3])).toEqual(['from bead 1: 1A missing'])
    expect(words([2, 3], [1, 2, 3])).toEqual(['at the beginning: 1A too many'])
    expect(beadsWords([1, 1, 2, 9], tray)).toBe('2A 1B 1?')
  })
})

const loom = (over: Partial<Part> = {}): Piece =>
  piece({
    parts: [part({ technique: 'loom', settings: requireTechnique('loom').settings.parse({}), times: 5, ...over })],
  })
const gridOf = (p: Piece) => Array.from({ length: rowsOf(p.parts[0]!) }, (_, r) => [...partRow(p.parts[0]!, r)])

describe('the plan follows', () => {
  it('bead for bead what was strung, and nothing else, in any technique', () => {
    let followed = 0
    fc.assert(
      fc.property(anyPiece, fc.nat(500), fc.nat(500), (p, whichRow, whichBead) => {
        const one = p.parts[0]!
        const list = rowListOf(p, one)
        if (list.count === 0) return
        const row = list.rowOf(whichRow % list.count)
        if (row >= list.rowOf(list.count - 1)) return
        const planned = plannedRow(one, row)
        if (planned.length === 0) return
        const strung = planned.map((n, k) => (k === whichBead % planned.length ? (n % 3) + 1 : n))
        const steps = followSteps(p, one, [{ row, beads: strung }], { mirror: false })
        const next = valueOf(applySteps(p, valueOf(steps)))
        expect(plannedRow(next.parts[0]!, row)).toEqual(strung)
        expect(rowsOf(next.parts[0]!)).toBe(rowsOf(one))
        const [before, after] = [gridOf(p), gridOf(next)]
        const changed = before.flatMap((line, r) => line.map((n, c) => (n === after[r]![c] ? 0 : 1)))
        expect(changed.reduce<number>((sum, n) => sum + n, 0)).toBe(1)
        followed++
      }),
    )
    expect(followed).toBeGreaterThan(20)
  })
  it('in one copy of the repeat alone, which comes out of it', () => {
    const p = loom()
    // AAAA, five times ABBA BAAB, AAAA: row 3 is the first of the second copy.
    const steps = valueOf(followSteps(p, p.parts[0]!, [{ row: 3, beads: [1, 2, 3, 1] }], { mirror: false }))
    const next = valueOf(applySteps(p, steps))
    const want = gridOf(p)
    want[3] = [1, 2, 3, 1]
    expect(gridOf(next)).toEqual(want)
    expect(next.parts[0]!).toMatchObject({ times: 3, start: { rows: 5 }, end: { rows: 1 } })
  })
  it('mirrored on the other half where that is wanted', () => {
    const p = loom()
    const steps = valueOf(followSteps(p, p.parts[0]!, [{ row: 3, beads: [1, 2, 3, 1] }], { mirror: true }))
    const next = valueOf(applySteps(p, steps))
    const want = gridOf(p)
    want[3] = [1, 2, 3, 1]
    want[8]![2] = 3
    expect(gridOf(next)).toEqual(want)
    // The copy in the middle stays a repeat.
    expect(next.parts[0]!.times).toBe(1)
  })
  it('not where a count differs, nor where the plan would grow out of its bounds', () => {
    const p = loom()
    const fewer = followSteps(p, p.parts[0]!, [{ row: 3, beads: [1, 2, 1] }], { mirror: false })
    expect(fewer).toMatchObject({ ok: false, problems: [{ code: 'count-differs' }] })
    const long = loom({ times: 2000, repeat: rows(...Array.from({ length: 30 }, () => 'ABBA')) })
    const middle = followSteps(long, long.parts[0]!, [{ row: 30_000, beads: [1, 1, 1, 1] }], { mirror: false })
    expect(middle).toMatchObject({ ok: false, problems: [{ code: 'section-long' }] })
  })
})

describe('what unpicking costs', () => {
  it('is the beads since then, taken off in half the time and laid again', () => {
    const agenda = agendaOf(loom(), { copies: 1, copyOrder: 'in turn' })
    const at = (index: number) => placeOf(agenda, goneTo(agenda, index))
    const cost = unpickCost(agenda, at(8), at(3), { least: 60, most: 120 })
    expect(cost).toEqual({ beads: 20, minutes: { least: 15, most: 30 } })
    expect(unpickCost(agenda, at(3), at(8), { least: 60, most: 120 }).beads).toBe(0)
  })
})

describe('a strand of a braid', () => {
  it('is planned from the middle of the disc on', () => {
    const settings = requireTechnique('braid-8').settings.parse({})
    const braid = part({
      technique: 'braid-8',
      settings,
      times: 2,
      start: rows('ABCABCAB'),
      repeat: rows('BBBBBBBB'),
      end: rows('C.......'),
    })
    expect(plannedStrand(braid, 0)).toEqual([1, 2, 2, 3])
    expect(plannedStrand(braid, 2)).toEqual([3, 2, 2])
  })
  it('differs where it was strung otherwise so far, and the plan follows it', () => {
    const settings = requireTechnique('braid-8').settings.parse({})
    const braid = part({
      technique: 'braid-8',
      settings,
      times: 6,
      start: rows('AAAAAAAA'),
      repeat: rows('BBBBBBBB'),
      end: rows('CCCCCCCC'),
    })
    const own = piece({ parts: [braid] })
    const strung = [{ strand: 3, beads: [1, 2, 3, 2] }]
    const found = foundIn(braid, strung)
    expect(found[0]!.differences).toEqual([{ kind: 'other', at: 2, count: 1, planned: [2], strung: [3] }])
    expect(firstFound(braid, found)).toEqual({ row: 2, bead: 0 })
    const next = valueOf(applySteps(own, valueOf(followSteps(own, braid, strung, { mirror: false }))))
    expect(plannedStrand(next.parts[0]!, 3)).toEqual([1, 2, 3, 2, 2, 2, 2, 3])
    expect(plannedStrand(next.parts[0]!, 4)).toEqual(plannedStrand(braid, 4))
    const long = [{ strand: 3, beads: Array<number>(9).fill(1) }]
    expect(followSteps(own, braid, long, { mirror: false }).ok).toBe(false)
  })
  it('is passed over where it is as planned; of several the first place counts', () => {
    const p = loom()
    const one = p.parts[0]!
    expect(foundIn(one, [{ row: 3, beads: plannedRow(one, 3) }])).toEqual([])
    expect(firstFound(one, [])).toBeNull()
    const found = foundIn(one, [
      { row: 5, beads: [2, 2, 2, 1] },
      { row: 3, beads: [1, 2, 1] },
    ])
    expect(found.map((f) => f.differences[0]!.kind)).toEqual(['other', 'fewer'])
    expect(firstFound(one, found)).toMatchObject({ row: 3 })
  })
  it('is gone back to at the run in which it lies', () => {
    const agenda = agendaOf(loom(), { copies: 1, copyOrder: 'in turn' })
    const hands = { part: agenda.piece.parts[0]!, copy: 1 }
    const to = (bead: number) => markOfFound(agenda, hands, { row: 3, bead })
    // Row 4 of the band is ABBA: runs of one, two and one.
    expect([0, 1, 2, 3].map((bead) => to(bead).bite)).toEqual([0, 1, 1, 2])
    expect(to(0).task).toBe('band/1/3')
  })
})
