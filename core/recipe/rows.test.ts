import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec } from '../bead/spec'
import {
  crossed,
  groupsBetween,
  mirroredRows,
  pinned,
  ribbed,
  rungOf,
  runRows,
  stepBreaks,
  unequalRows,
  wrapped,
  type Row,
  type RowProgram,
} from './rows'
import { hung, keptOf, type HungStrand } from './hung'
import { recipeWords } from './words'

const SMALL = requireSpec('round-11')
const LARGE = requireSpec('round-8')
const TILE = requireSpec('tile-5-mm')
const HEXAGON = requireSpec('hexagon-6-mm')
const row = (count: number, bead = SMALL): Row => Array.from({ length: count }, () => bead)
const anyRows = fc.array(fc.array(fc.constantFrom(SMALL, LARGE, TILE), { maxLength: 7 }), {
  minLength: 1,
  maxLength: 7,
})

/** Places that a program picks up, by row: each of them once. */
function placesOf(program: RowProgram): Map<number, number[]> {
  const places = new Map<number, number[]>()
  for (const node of runRows(program).nodes)
    if (!node.isFixture && node.motif >= 0 && node.name !== 'top')
      places.set(node.motif, [...(places.get(node.motif) ?? []), program.placeOf(node)])
  return places
}
const passes = (program: RowProgram, motif: number): number[][] =>
  runRows(program).nodes.flatMap((n) => (!n.isFixture && n.motif === motif ? [n.passes] : []))
const codes = (program: RowProgram): string[] => runRows(program).faults.map((f) => f.code)
const turnsIn = (program: RowProgram): number =>
  runRows(program).done.reduce((sum, d) => sum + (d.act === 'wrap' ? (d.amount ?? 0) : 0), 0)

describe('rows compiled to steps', () => {
  it('pick every place of every row up once, whatever the scheme', () => {
    const clasp = { fixtures: { clasp: { name: 'clasp', d: 4, holes: 1, pitch: 0 } }, end: 'clasp' }
    const rungs = (rows: Row[]) => rows.map((r, k) => rungOf(r, 2, k === rows.length - 1 ? 1 : 0))
    const schemes: ((rows: Row[]) => RowProgram)[] = [
      (rows) => crossed(rungs(rows), { needles: 2, ...clasp }),
      (rows) => crossed(rungs(rows), { needles: 1, ...clasp }),
      (rows) => wrapped(rows, { cordMm: 1.5, bindTurns: 10 }),
      (rows) => pinned(rows, { alternating: true }),
      (rows) => ribbed(rows, { wireMm: 0.32, widthMm: 12, thickMm: 1, turns: 0, endTurns: 3, shared: true }),
    ]
    fc.assert(
      fc.property(anyRows, fc.constantFrom(...schemes), (rows, scheme) => {
        const places = placesOf(scheme(rows))
        for (const [r, one] of rows.entries())
          expect((places.get(r) ?? []).sort((a, b) => a - b)).toEqual(one.map((_, c) => c))
      }),
      { numRuns: 300 },
    )
  })
  it('of a rung: sides first, then what leads away, the rest in the rung; fewer are shared (by hand)', () => {
    const counts = (length: number, side: number, tail: number) => {
      const { down, up, rung, tailDown, tailUp } = rungOf(
        Array.from({ length }, (_, k) => k),
        side,
        tail,
      )
      return [down, up, rung, tailDown, tailUp].map((list) => list.length)
    }
    expect(counts(13, 5, 0)).toEqual([5, 5, 3, 0, 0])
    expect(counts(19, 3, 5)).toEqual([3, 3, 3, 5, 5])
    expect(counts(5, 3, 0)).toEqual([3, 2, 0, 0, 0])
    expect(counts(9, 3, 5)).toEqual([3, 3, 0, 2, 1])
    expect(counts(0, 3, 5)).toEqual([0, 0, 0, 0, 0])
  })
})

describe('rows between cords', () => {
  it('go out and back through every bead, half a turn round each cord, bound at both ends', () => {
    const program = wrapped([row(1), [SMALL, LARGE, SMALL], row(1)], { cordMm: 1.5, bindTurns: 10 })
    expect(codes(program)).toEqual([])
    expect([0, 1, 2].flatMap((r) => passes(program, r))).toEqual([[2], [2], [2], [2], [2]])
    expect(turnsIn(program)).toBe(10 + 3 + 10)
    expect(recipeWords(runRows(program)).slice(1, 5)).toEqual([
      'pick up 1 bead — under both cords, up between them',
      'wind half a turn round the far cord',
      'back through the bead — above the cords',
      'wind half a turn round the near cord',
    ])
  })
  it('take a tile as two rows: a turn leads on to its second hole', () => {
    const program = wrapped([[TILE, TILE]], { cordMm: 1.5, bindTurns: 0 })
    expect(passes(program, 0)).toEqual([
      [2, 2],
      [2, 2],
    ])
    expect(turnsIn(program)).toBe(3)
    expect(codes(program)).toEqual([])
  })
})

describe('rows on pins', () => {
  it('go through each bead once, every other pin turned about where heads and feet alternate', () => {
    const program = pinned([[SMALL, LARGE], [SMALL, LARGE], row(2)], { alternating: true })
    expect([0, 1].flatMap((r) => passes(program, r))).toEqual([[1], [1], [1], [1]])
    expect([...placesOf(program).values()]).toEqual([
      [0, 1],
      [1, 0],
      [0, 1],
    ])
    expect(recipeWords(runRows(program))[1]).toBe('pick up 2 beads — turned about: its head lies at the other side')
    // A pin is a new length: nothing leads from one to the next.
    expect(runRows(program).done.flatMap((d) => d.spans.filter((s) => s.kind === 'bridge'))).toHaveLength(3)
    expect(placesOf(pinned([row(2), row(2)], { alternating: false })).get(1)).toEqual([0, 1])
  })
})

describe('ribs on a cuff', () => {
  const cuff = { wireMm: 0.4, widthMm: 12, thickMm: 1, turns: 0, endTurns: 3, shared: false }
  it('are wound behind it, so that a turn goes once round: 2 × (width + thickness) and the wire', () => {
    const program = ribbed([row(5), row(5), row(5)], cuff)
    // Three turns at each end, half a turn behind the cuff between one rib and the next.
    expect(turnsIn(program)).toBe(3 + 0.5 + 0.5 + 3)
    const extra = runRows(program).done.flatMap((d) => d.spans.flatMap((s) => (s.kind === 'extra' ? [s.mm] : [])))
    expect(extra[0]).toBeCloseTo(3 * (2 * 13 + Math.PI * 0.4), 9)
    expect(turnsIn(ribbed([row(5), row(5)], { ...cuff, turns: 2 }))).toBe(3 + 2.5 + 3)
  })
  it('share hexagons: up through the first hole, down the next rib through the second', () => {
    const up = [SMALL, HEXAGON, SMALL, HEXAGON, SMALL]
    const program = ribbed([up, row(3), up, row(3)], { ...cuff, shared: true, turns: 1 })
    expect(codes(program)).toEqual([])
    expect(passes(program, 0)).toEqual([[1], [1, 1], [1], [1, 1], [1]])
    // The wire turns at the far edge: a bare turn leads only from one pair to the next.
    expect(turnsIn(program)).toBe(3 + 1 + 3)
    expect(recipeWords(runRows(program)).slice(2, 7)).toEqual([
      'pick up 1 bead',
      'back through the 4th bead of the rib before, second hole',
      'pick up 1 bead',
      'back through the 2nd bead of the rib before, second hole',
      'pick up 1 bead',
    ])
    // Without a rib that goes back, the second holes stay empty, and that is said.
    expect(codes(ribbed([up], { ...cuff, shared: true }))).toEqual(['hole-unused'])
  })
  it('that go back stand in the groups of the rib before, the last takes the rest', () => {
    const before = [SMALL, SMALL, HEXAGON, SMALL, HEXAGON]
    const lengths = (count: number) => groupsBetween(before, row(count)).map((g) => g.length)
    expect(lengths(3)).toEqual([0, 1, 2])
    expect(lengths(5)).toEqual([0, 1, 4])
    expect(lengths(1)).toEqual([0, 1, 0])
  })
})

describe('strands that hang', () => {
  const top = { places: 3, pitchMm: 2, place: 'top bead', hitchMm: 0 }
  const strand = (count: number, at: number, more: Partial<HungStrand> = {}): HungStrand => ({
    ...{ row: row(count), at, to: null, turning: 1 },
    ...more,
  })
  it('go down their top bead, back through all but what they turn round, and up again', () => {
    const program = hung([strand(2, 0), strand(3, 1), strand(1, 2)], top)
    expect(codes(program)).toEqual([])
    expect([0, 1, 2].map((r) => passes(program, r))).toEqual([[[2], [1]], [[2], [2], [1]], [[1]]])
    expect(recipeWords(runRows(program)).slice(5, 10)).toEqual([
      'through the top bead — number 2',
      'pick up 3 beads',
      'back through beads 2 to 1 — all but the last, which it turns round',
      'count them before going on: 3',
      'through the top bead — number 2',
    ])
  })
  it('as swags lead from one top bead to another, each bead passed once; a picot is turned round whole', () => {
    const program = hung([strand(9, 0, { to: 2 }), strand(6, 1, { turning: 3 })], { ...top, hitchMm: 3 })
    expect(codes(program)).toEqual([])
    expect(passes(program, 0)).toEqual(Array.from({ length: 9 }, () => [1]))
    expect(passes(program, 1)).toEqual([[2], [2], [2], [1], [1], [1]])
    expect(recipeWords(runRows(program)).filter((text) => text.startsWith('knot'))).toHaveLength(2)
    expect(keptOf(strand(9, 0, { to: 2 }))).toBe(9)
    expect(keptOf(strand(2, 0, { turning: 3 }))).toBe(0)
  })
  it('without beads nothing is done', () => {
    expect(runRows(hung([strand(0, 0)], top)).done).toEqual([])
  })
})

describe('lists of rows', () => {
  it('are mirrored about the middle, which stands once', () => {
    expect(mirroredRows(['a', 'b', 'c'], 5)).toEqual(['a', 'b', 'c', 'b', 'a'])
    expect(mirroredRows(['a', 'b', 'c'], 6)).toEqual(['a', 'b', 'c', 'c', 'b', 'a'])
  })
  it('name the row that breaks the step, and the one that is unequal', () => {
    expect(stepBreaks([3, 5, 7, 9, 11])).toEqual([])
    expect(stepBreaks([3, 5, 8, 10, 12])).toEqual([2])
    expect(stepBreaks([4])).toEqual([])
    expect(unequalRows([9, 9, 8, 9])).toEqual([2])
    expect(unequalRows([])).toEqual([])
  })
})
