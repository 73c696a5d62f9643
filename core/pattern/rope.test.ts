import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, part, piece } from '../../tests/fixture/piece'
import { requireSpec } from '../bead/spec'
import { cellsFrom, emptyCells } from '../grid/cells'
import { ropeBeads } from '../picture/rope'
import { ropeOf } from '../piece/nature'
import { columnsOf, numberAt, rowsOf, withPart, type Part, type Piece } from '../piece/piece'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { shapeNotes } from '../tally/strand'
import { tallyPart } from '../tally/tally'
import { beadAt, spotOf } from '../technique/braid/surface'
import { beadCentre, nearestPlace } from '../technique/lattice'
import { requireTechnique } from '../technique/registry'
import { LOADINGS } from './loading'
import { beside, rectangleBetween } from './place'
import { isScattered, latticeOf } from '../piece/drawing'
import { graduationSteps, loadingSteps, mirrorRopeSteps, ropeMoveSteps, spreadStrands, wristSideLaying } from './rope'

const ropePiece = (strands: number, school: 'A' | 'B', rounds: number, numbers: readonly number[], times = 2): Piece =>
  piece({
    tray: [1, 2, 3].map((n) => bead(n, { spec: 'round-8' })),
    parts: [
      part({
        technique: `braid-${strands}`,
        settings: requireTechnique(`braid-${strands}`).settings.parse({ school }),
        spec: 'round-8',
        times,
        start: emptyCells(strands, 0),
        repeat: cellsFrom(strands, rounds, numbers),
        end: emptyCells(strands, 0),
      }),
    ],
  })

const usualWind = (one: Part): number => ropeOf(one)!.wind(ropeOf(one)!.twist.usual)

const anyRope = fc
  .record({
    strands: fc.constantFrom(8, 12, 16),
    school: fc.constantFrom('A' as const, 'B' as const),
    rounds: fc.integer({ min: 1, max: 6 }),
  })
  .chain(({ strands, school, rounds }) =>
    fc
      .array(fc.integer({ min: 0, max: 3 }), { minLength: strands * rounds, maxLength: strands * rounds })
      .map((numbers) => ({ strands, school, p: ropePiece(strands, school, rounds, numbers) })),
  )

const after = (p: Piece, steps: Parameters<typeof applySteps>[1]): Piece => valueOf(applySteps(p, steps))
const cellsOf = (one: Part): number[] =>
  Array.from({ length: rowsOf(one) * columnsOf(one) }, (_, key) =>
    numberAt(one, key % columnsOf(one), Math.floor(key / columnsOf(one))),
  )

describe('a rope moved onto itself', () => {
  it('carries every colour to the bead that lies there, and keeps their counts', () => {
    fc.assert(
      fc.property(
        anyRope,
        fc.constantFrom('half turn' as const, 'along' as const, 'screw' as const),
        ({ strands, school, p }, move) => {
          const [was, now] = [p.parts[0]!, after(p, ropeMoveSteps(p.parts[0]!, move)).parts[0]!]
          const pairs = strands / 2
          const sign = school === 'A' ? 1 : -1
          const [dr, dc] = { 'half turn': [0, pairs / 2], 'along': [pairs, pairs / 2], 'screw': [1, sign] }[move] as [
            number,
            number,
          ]
          // inside the first copy, where nothing runs over an end
          for (let k = 0; k < was.repeat.rows; k++) {
            for (let s = 0; s < strands; s++) {
              const { row, col } = spotOf(s, k, strands, school)
              const to = beadAt({ row: row + dr, col: (((col + dc) % pairs) + pairs) % pairs }, strands, school)!
              expect(numberAt(now, to.s, to.k % was.repeat.rows)).toBe(numberAt(was, s, k))
            }
          }
          expect([...tallyPart(now)].sort()).toEqual([...tallyPart(was)].sort())
        },
      ),
    )
  })
  it('twice half round is as before, and so many screws are a round along and half round', () => {
    fc.assert(
      fc.property(anyRope, ({ strands, p }) => {
        const move = (q: Piece, m: Parameters<typeof ropeMoveSteps>[1]) => after(q, ropeMoveSteps(q.parts[0]!, m))
        expect(cellsOf(move(move(p, 'half turn'), 'half turn').parts[0]!)).toEqual(cellsOf(p.parts[0]!))
        let screwed = p
        for (let i = 0; i < strands / 2; i++) screwed = move(screwed, 'screw')
        expect(cellsOf(screwed.parts[0]!)).toEqual(cellsOf(move(move(p, 'along'), 'half turn').parts[0]!))
      }),
      { numRuns: 40 },
    )
  })
  it('mirrored, is worked by the other school and seen in a mirror; twice, is as before', () => {
    fc.assert(
      fc.property(anyRope, ({ strands, school, p }) => {
        const q = after(p, mirrorRopeSteps(p, p.parts[0]!))
        const [was, now] = [p.parts[0]!, q.parts[0]!]
        expect(now.settings.school).toBe(school === 'A' ? 'B' : 'A')
        const pairs = strands / 2
        for (let k = 0; k < rowsOf(was); k++) {
          for (let s = 0; s < strands; s++) {
            const { row, col } = spotOf(s, k, strands, school)
            const image = beadAt({ row, col: (pairs - col) % pairs }, strands, now.settings.school as 'A' | 'B')!
            expect(numberAt(now, image.s, image.k)).toBe(numberAt(was, s, k))
          }
        }
        expect(after(q, mirrorRopeSteps(q, now)).parts[0]).toEqual(was)
      }),
      { numRuns: 40 },
    )
  })
})

describe('the rope in space', () => {
  it('lays every bead on one cylinder, nearest last, and a whole turn changes nothing', () => {
    fc.assert(
      fc.property(anyRope, fc.double({ min: -6, max: 6, noNaN: true }), ({ p }, turn) => {
        const one = p.parts[0]!
        const look = { from: 0, to: rowsOf(one), turn, windDegrees: usualWind(one) }
        const beads = ropeBeads(one, look)
        expect(beads).toHaveLength(cellsOf(one).filter((n) => n > 0).length)
        const radius =
          requireTechnique(one.technique).extent({
            columns: columnsOf(one),
            rows: 1,
            bead: requireSpec('round-8'),
            settings: one.settings,
          }).thicknessMm /
            2 -
          1.5
        for (const b of beads) expect(Math.hypot(b.across, b.depth)).toBeCloseTo(radius, 9)
        for (let i = 1; i < beads.length; i++) expect(beads[i]!.depth).toBeGreaterThanOrEqual(beads[i - 1]!.depth)
        const again = ropeBeads(one, { ...look, turn: turn + 2 * Math.PI })
        const sum = (list: typeof beads) => list.reduce((total, b) => total + b.number * b.across, 0)
        expect(sum(again)).toBeCloseTo(sum(beads), 6)
      }),
      { numRuns: 40 },
    )
  })
  it('of the mirrored braid is the mirrored picture: both charts are seen from outside', () => {
    fc.assert(
      fc.property(anyRope, ({ p }) => {
        const one = p.parts[0]!
        const two = after(p, mirrorRopeSteps(p, one)).parts[0]!
        const seen = (q: Part, flip: 1 | -1) =>
          ropeBeads(q, { from: 0, to: rowsOf(q), turn: 0, windDegrees: usualWind(q) })
            .map((b) =>
              `${b.number} ${b.along.toFixed(4)} ${(flip * b.across + 0).toFixed(4)} ${b.depth.toFixed(4)}`.replaceAll(
                '-0.0000',
                '0.0000',
              ),
            )
            .sort()
        expect(seen(two, -1)).toEqual(seen(one, 1))
      }),
      { numRuns: 40 },
    )
  })
  it('twists eight strands so that their lines wind about 24° a round: −96° against the columns', () => {
    const one = ropePiece(8, 'A', 1, Array<number>(8).fill(1)).parts[0]!
    expect(usualWind(one)).toBeCloseTo(-24, 9)
    // θ = 90° col + τ row / 4: a column on and three steps along, on a line of the chart
    expect(90 + (-96 * 3) / 4).toBe(18)
    expect((ropeOf(one)!.wind(-96) * 3) / 4).toBeCloseTo(-18, 9)
  })
})

describe('other ways to unroll it', () => {
  it('hold every bead once, each under its own middle', () => {
    for (const strands of [8, 12, 16]) {
      for (const school of ['A', 'B'] as const) {
        for (const chart of requireTechnique(`braid-${strands}`).charts!) {
          const one = { ...ropePiece(strands, school, 1, Array<number>(strands).fill(1)).parts[0]!, chart: chart.id }
          const lattice = latticeOf(one)
          for (let r = 0; r < 12; r++)
            for (let c = 0; c < strands; c++)
              expect(nearestPlace(lattice, beadCentre(lattice, c, r))).toEqual({ c, r })
        }
      }
    }
    const strandLines = latticeOf({ ...ropePiece(8, 'A', 1, Array<number>(8).fill(1)).parts[0]!, chart: 'strands' })
    // one line a strand: it keeps its place across
    for (let s = 0; s < 8; s++)
      expect(new Set(Array.from({ length: 9 }, (_, k) => beadCentre(strandLines, s, k).x.toFixed(6))).size).toBe(1)
  })
})

describe('moving by key and by rectangle on a rope', () => {
  it('goes to a bead that touches, in the direction asked for, and stays inside', () => {
    fc.assert(
      fc.property(
        anyRope,
        fc.nat(),
        fc.nat(),
        fc.constantFrom([1, 0], [-1, 0], [0, 1], [0, -1]),
        ({ p }, c, r, [dx, dy]) => {
          const one = p.parts[0]!
          const from = { c: c % columnsOf(one), r: r % rowsOf(one) }
          const to = beside(one, from, dx!, dy!)
          expect(to.c >= 0 && to.c < columnsOf(one) && to.r >= 0 && to.r < rowsOf(one)).toBe(true)
          if (to.c === from.c && to.r === from.r) return
          const lattice = latticeOf(one)
          const [a, b] = [beadCentre(lattice, from.c, from.r), beadCentre(lattice, to.c, to.r)]
          const round = columnsOf(one) * lattice.pitchX
          const x = ((b.x - a.x + 1.5 * round) % round) - round / 2
          expect(x * dx! + (b.y - a.y) * dy!).toBeGreaterThan(0)
        },
      ),
    )
    expect(isScattered(ropePiece(8, 'A', 1, Array<number>(8).fill(1)).parts[0]!)).toBe(true)
    expect(isScattered(part())).toBe(false)
    expect(beside(part(), { c: 0, r: 0 }, -1, 0)).toEqual({ c: 0, r: 0 })
  })
  it('walks the whole length, and round and back to where it began', () => {
    const one = ropePiece(8, 'A', 6, Array<number>(48).fill(1), 3).parts[0]!
    let at = { c: 3, r: 0 }
    for (let i = 0; i < 60; i++) at = beside(one, at, 0, 1)
    expect(at.r).toBeGreaterThanOrEqual(rowsOf(one) - 2)
    const seen = new Set<number>()
    let here = { c: 2, r: 5 }
    const lines = new Set<string>()
    for (let i = 0; i < 12; i++) {
      here = beside(one, here, 1, 0)
      seen.add(here.c)
      lines.add(beadCentre(latticeOf(one), here.c, here.r).x.toFixed(3))
    }
    expect(lines.size).toBe(6)
  })
  it('takes the beads of a rectangle as it is seen, whatever strands they are of', () => {
    const one = ropePiece(8, 'A', 6, Array<number>(48).fill(1), 3).parts[0]!
    const lattice = latticeOf(one)
    const [from, to] = [
      { c: 1, r: 2 },
      { c: 6, r: 9 },
    ]
    const got = rectangleBetween(one, from, to)
    const all = Array.from({ length: 8 * rowsOf(one) }, (_, key) => ({ c: key % 8, r: Math.floor(key / 8) }))
    const [a, b] = [beadCentre(lattice, from.c, from.r), beadCentre(lattice, to.c, to.r)]
    const inside = all.filter((q) => {
      const m = beadCentre(lattice, q.c, q.r)
      return (m.x - a.x) * (m.x - b.x) <= 1e-9 && (m.y - a.y) * (m.y - b.y) <= 1e-9
    })
    expect(got).toEqual(expect.arrayContaining(inside))
    expect(got.length).toBe(inside.length)
  })
})

describe('patterns of the whole rope', () => {
  it('a graduation gives strand after strand the accent, the end in reverse, and equal counts', () => {
    const p = ropePiece(8, 'B', 2, Array<number>(16).fill(3))
    const one = after(p, graduationSteps(p.parts[0]!, { main: 1, accent: 2, plainRounds: 4, eachRounds: 3 })).parts[0]!
    expect(one.start.rows).toBe(4 + 8 * 3)
    const accents = (r: number) =>
      Array.from({ length: 8 }, (_, s) => numberAt(one, s, r)).filter((n) => n === 2).length
    expect(Array.from({ length: 28 }, (_, r) => accents(r))).toEqual([
      0, 0, 0, 0, 1, 1, 1, 2, 2, 2, 3, 3, 3, 4, 4, 4, 5, 5, 5, 6, 6, 6, 7, 7, 7, 8, 8, 8,
    ])
    for (let r = 0; r < 28; r++)
      for (let s = 0; s < 8; s++) expect(numberAt(one, s, rowsOf(one) - 1 - r)).toBe(numberAt(one, s, r))
    // done again it takes the place of the one before
    const q = withPart(p, one)
    expect(
      after(q, graduationSteps(one, { main: 1, accent: 2, plainRounds: 0, eachRounds: 1 })).parts[0]!.start.rows,
    ).toBe(8)
    expect(spreadStrands(8).slice(0, 2)).toEqual([0, 4])
    expect([...spreadStrands(16)].sort((a, b) => a - b)).toEqual(Array.from({ length: 16 }, (_, s) => s))
  })
  it('a loading fills as many rounds as there were, in whole repeats', () => {
    for (const { id } of LOADINGS) {
      const p = ropePiece(12, 'A', 4, Array<number>(48).fill(1), 6)
      const { steps, rounds, times } = loadingSteps(p, p.parts[0]!, ropeOf(p.parts[0]!)!, {
        loading: id,
        numbers: [1, 2, 3],
        along: 3,
      })
      const one = after(p, steps).parts[0]!
      expect([one.repeat.rows, one.times]).toEqual([rounds, times])
      expect(Math.abs(rowsOf(one) - 24)).toBeLessThanOrEqual(rounds / 2)
    }
  })
  it('the wrist side is so many neighbouring lines, whole from end to end', () => {
    const one = ropePiece(8, 'A', 3, Array<number>(24).fill(1), 4).parts[0]!
    const laying = wristSideLaying(one, 2, 2)
    expect(laying.size).toBe((8 * rowsOf(one)) / 3)
    const lattice = latticeOf(one)
    expect(
      new Set([...laying.keys()].map((key) => beadCentre(lattice, key % 8, Math.floor(key / 8)).x.toFixed(3))).size,
    ).toBe(2)
  })
})

describe('shaped beads on strands', () => {
  const shaped = (specs: string[], numbers: number[]) => {
    const p = ropePiece(8, 'A', numbers.length / 8, numbers, 1)
    return { ...p, tray: specs.map((spec, k) => bead(k + 1, { spec })) }
  }
  it('drops must face one way', () => {
    const p = shaped(['round-8', 'drop-3-4-mm'], [1, 1, 1, 2, 1, 1, 1, 1])
    expect(shapeNotes(p, p.parts[0]!)).toEqual([
      'B: thread every drop from the same side, so that they all face the same way.',
    ])
    expect(shapeNotes(piece(), part())).toEqual([])
  })
  it('a bead with two holes stops the lists of both its strands, and many are summed up', () => {
    const numbers = Array<number>(48).fill(1)
    numbers[2 * 8 + 3] = 2
    const p = shaped(['round-8', 'tile-5-mm'], numbers)
    const [note] = shapeNotes(p, p.parts[0]!)
    expect(note).toMatch(/^Strand 4 stops after 2 beads: B has two holes and takes strand (\d) as well/)
    const other = Number(/takes strand (\d)/.exec(note!)![1])
    const many = shaped(
      ['round-8', 'tile-5-mm'],
      Array.from({ length: 80 }, (_, k) => (k % 8 === 0 ? 2 : 1)),
    )
    expect(shapeNotes(many, many.parts[0]!).at(-1)).toContain('And 4 more')
    // it touches the strand that it takes
    expect(other).not.toBe(4)
  })
})

describe('every bead of a rope', () => {
  it.each(['braid-8', 'braid-12', 'braid-16', 'braid-7', 'coil'])(
    '%s: is reached by the four arrow keys',
    (technique) => {
      const t = requireTechnique(technique)
      const settings = t.settings.parse({})
      const columns = t.growth.nearestColumns(11, settings)
      const one = part({
        technique,
        settings,
        spec: 'round-8',
        times: 1,
        start: emptyCells(columns, 0),
        repeat: emptyCells(columns, 12, 1),
        end: emptyCells(columns, 0),
      })
      const seen = new Set(['0 0'])
      const queue = [{ c: 0, r: 0 }]
      for (let at = queue.shift(); at; at = queue.shift()) {
        for (const [dx, dy] of [
          [1, 0],
          [-1, 0],
          [0, 1],
          [0, -1],
        ] as const) {
          const to = beside(one, at, dx, dy)
          if (!seen.has(`${to.c} ${to.r}`)) {
            seen.add(`${to.c} ${to.r}`)
            queue.push(to)
          }
        }
      }
      expect(seen.size).toBe(12 * columns)
    },
  )
})
