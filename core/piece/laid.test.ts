import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANY_IDS, anyPieceOf, part, piece, rows } from '../../tests/fixture/piece'
import { extentOf } from '../fit/extent'
import { fitOf } from '../fit/reckon'
import { cellsFrom, emptyCells, insertColumns, insertRows } from '../grid/cells'
import { withNumbers } from '../grid/lines'
import { columnOfKey, keyOf, rowOfKey } from '../grid/key'
import { beadCentre } from '../technique/lattice'
import { partFindings } from '../proof/finding'
import { threadCuts } from '../supply/thread'
import { tallyPart, totalOf } from '../tally/tally'
import { allRowWords } from '../tally/words'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { emptyOf, hasGaps, laidCounted, laidOf, laidRows, laidWork } from './laid'
import { latticeOf } from './drawing'
import {
  asGrid,
  columnsOf,
  locateRow,
  rowsOf,
  techniqueOf,
  voidsOf,
  wholePart,
  type GridPart,
  type Part,
  workOf,
} from './piece'

const stitch = (technique: string, over: Partial<Part> = {}): Part =>
  part({ technique, settings: requireTechnique(technique).settings.parse({}), ...over })

/** Grids without an empty place: what a stitch is asked of a whole grid. */
const anyFull = anyPieceOf(ANY_IDS)
  .map((p) => {
    const one = p.parts[0]!
    const full = (cells: Part['start']) => ({ ...cells, blocks: cells.blocks.map((b) => b.map((n) => n || 1)) })
    return { ...p, parts: [{ ...one, start: full(one.start), repeat: full(one.repeat), end: full(one.end) }] }
  })
  .filter((p) => p.parts[0]!.technique !== 'right-angle' && rowsOf(p.parts[0]!) > 0)

const tubes = new Set(TECHNIQUES.filter((t) => t.round).map((t) => t.id))

describe('what is laid', () => {
  it('60 beaded rows and 40 empty ones of cylinder 11/0 on the loom are 96 mm, not 160 (by hand)', () => {
    const none = emptyCells(6, 0)
    const one = stitch('loom', { start: emptyCells(6, 60, 1), repeat: emptyCells(6, 20), end: none, times: 2 })
    const p = piece({ parts: [one] })
    expect(extentOf(p, one).lengthMm.nominal).toBeCloseTo(96, 9)
    expect(fitOf(p).beadworkMm.nominal).toBeCloseTo(96, 9)
    expect(laidCounted(one)).toBe(60)
    expect([...allRowWords(one)]).toHaveLength(60)
    // weft: 60 rows of 2 × (6 × 1.3 + 7 × 0.2) + 2 × 1.6
    expect(threadCuts(p, one)[0]!.pathMm).toBeCloseTo(60 * (2 * 9.2 + 3.2), 9)
    expect(partFindings(one)).toEqual([
      { code: 'edge-empty', weight: 'note', says: '40 empty rows at the end: not counted as size.' },
    ])
  })
  it(
    'empty rows at the ends and between, and empty columns at the edges, change no size, no thread and no word, ' +
      'in any stitch',
    () => {
      fc.assert(
        fc.property(anyFull, fc.nat(3), fc.nat(3), fc.boolean(), (p, before, behind, aside) => {
          const one = p.parts[0]!
          const columns = columnsOf(one)
          const blank = (k: number) => new Uint16Array(k * columns)
          const wide = {
            ...one,
            start: insertRows(asGrid(one).start, 0, blank(before)),
            end: insertRows(asGrid(one).end, one.end.rows, blank(behind)),
          }
          const [was, now] = [extentOf(p, one), extentOf(p, wide)]
          expect(now.lengthMm.nominal).toBeCloseTo(was.lengthMm.nominal, 9)
          expect(now.widthMm.nominal).toBeCloseTo(was.widthMm.nominal, 9)
          expect(laidRows(wide)).toBe(rowsOf(one))
          expect(emptyOf(wide).rows).toEqual({ start: before, between: [], end: behind })
          expect(threadCuts(p, wide).map((c) => c.pathMm)).toEqual(
            threadCuts(p, one).map((c) => expect.closeTo(c.pathMm, 6) as number),
          )
          const words = [...allRowWords(wide)]
          expect(words.every((w) => w.beads > 0)).toBe(true)
          expect(words.reduce((sum, w) => sum + w.beads, 0)).toBe(totalOf(tallyPart(one)))
          if (!aside || tubes.has(one.technique)) return
          const put = (cells: GridPart['start']) => insertColumns(cells, columns, 2, new Uint16Array(2 * cells.rows))
          const aside2 = {
            ...one,
            start: put(asGrid(one).start),
            repeat: put(asGrid(one).repeat),
            end: put(asGrid(one).end),
          }
          expect(extentOf(p, aside2).widthMm.nominal).toBeCloseTo(was.widthMm.nominal, 9)
          expect(laidOf(aside2).columns).toBe(columns)
        }),
        { numRuns: 150 },
      )
    },
  )
  it('a work of half rows measures what its beads reach: peyote of 2R − 1 rows is R d long (by hand)', () => {
    // The third row of the grid holds only the low columns: five rows, 3 × 1.6 mm.
    const one = part({ start: rows('AAAA', 'AAAA'), repeat: rows('A.A.'), end: emptyCells(4, 0), times: 1 })
    expect(extentOf(piece(), one).lengthMm.nominal).toBeCloseTo(4.8, 9)
    expect(extentOf(piece(), one).lengthFormula).toContain('− 0.8 mm, since its last rows are not whole')
  })
  it('a diamond of brick is as wide as its widest row, and every edge row counts as length (by hand)', () => {
    const one = stitch('brick', {
      start: rows('..A..', '.AA..', '.AAA.', 'AAAA.', 'AAAAA'),
      repeat: rows('AAAA.', '.AAA.'),
      end: emptyCells(5, 0),
      times: 1,
    })
    expect(extentOf(piece(), one).widthMm.nominal).toBeCloseTo(5 * 1.6, 9)
    expect(extentOf(piece(), one).lengthMm.nominal).toBeCloseTo(7 * 1.3, 9)
  })
  it(
    'right-angle weave keeps the row that closes its last units, and what is kept in places without a bead is ' +
      'none',
    () => {
      const right = (p: Part) => extentOf(piece(), p).lengthMm.nominal
      const whole = stitch('right-angle', {
        start: emptyCells(5, 0),
        repeat: emptyCells(5, 7, 1),
        end: emptyCells(5, 0),
        times: 1,
      })
      const below = { ...whole, repeat: insertRows(asGrid(whole).repeat, 7, new Uint16Array(15)) }
      // The uprights of the last row had no lower edge before: now they are beads of units that are only begun.
      expect(totalOf(tallyPart(below))).toBe(totalOf(tallyPart(whole)) + 3)
      expect(totalOf(tallyPart(laidOf(below).part))).toBe(totalOf(tallyPart(below)))
      expect(right(below)).toBeGreaterThan(right(whole))
      expect(right(below) - right(whole)).toBeLessThanOrEqual((Math.SQRT2 * 2.9) / 2 + 1e-9)
      expect(voidsOf(laidOf(below).part).every((key) => wholePart(laidOf(below).part)[key] === 0)).toBe(true)
    },
  )
  it('an empty row or column between beads is a finding, not a size', () => {
    const one = part({ start: rows('AAAA', '....', 'AAAA'), repeat: rows('AAAA'), end: rows('AAAA'), times: 1 })
    const [finding] = partFindings(one)
    expect(finding).toMatchObject({ code: 'row-empty', weight: 'stops' })
    expect(finding!.says).toContain('rows 3–4')
    expect(extentOf(piece(), one).lengthMm.nominal).toBeCloseTo(4.5 * 1.6, 9)
    const split = stitch('loom', { start: rows('AA.AA'), repeat: rows('AA.AA'), end: rows('AA.AA'), times: 2 })
    expect(partFindings(split)[0]).toMatchObject({ code: 'column-empty', weight: 'stops' })
    expect(partFindings(split)[0]!.says).toContain('column 3')
    expect(extentOf(piece(), split).widthMm.nominal).toBeCloseTo(4 * 1.3 + 5 * 0.2, 9)
    expect(partFindings(part())).toEqual([])
    expect(partFindings(part({ start: rows('....'), repeat: rows('....'), end: rows('....') }))).toEqual([])
  })
  it('nothing laid is no length, no row and no thread', () => {
    fc.assert(
      fc.property(anyFull, (p) => {
        const one = p.parts[0]!
        const blank = (cells: Part['start']) => emptyCells(cells.columns, cells.rows)
        const none = { ...one, start: blank(one.start), repeat: blank(one.repeat), end: blank(one.end) }
        expect(laidRows(none)).toBe(0)
        expect([...allRowWords(none)]).toEqual([])
        expect(requireTechnique(one.technique).growth.lengthOf(laidWork(none))).toBe(0)
      }),
    )
  })
})

/** Grids full of gaps: whole rows empty, single places empty, sections without rows. */
const anyGappy: fc.Arbitrary<Part> = fc
  .record({
    technique: fc.constantFrom('loom', 'peyote', 'brick', 'right-angle', 'herringbone', 'peyote-tube'),
    across: fc.integer({ min: 1, max: 3 }),
    times: fc.nat({ max: 3 }),
    rows: fc.tuple(fc.nat({ max: 3 }), fc.integer({ min: 1, max: 4 }), fc.nat({ max: 3 })),
    seed: fc.array(fc.nat({ max: 5 }), { minLength: 12, maxLength: 90 }),
  })
  .map(({ technique, across, times, rows: [s, r, e], seed }) => {
    const columns = technique === 'right-angle' ? 2 * across + 1 : 2 * across + 2
    let k = 0
    const next = () => seed[k++ % seed.length]!
    const section = (height: number) =>
      cellsFrom(
        columns,
        height,
        Array.from({ length: height }, () => {
          const empty = next() < 2
          return Array.from({ length: columns }, () => (empty ? 0 : Math.max(0, next() - 2)))
        }).flat(),
      )
    return stitch(technique, { times, start: section(s), repeat: section(r), end: section(e) })
  })

/** What shows of a part, cell by cell: the twin that what is looked through in blocks is held against. */
function seenOf(one: Part) {
  const columns = columnsOf(one)
  const flat = wholePart(one)
  const full = (c: number, r: number) => flat[keyOf(columns, c, r)] !== 0
  const rowNumbers = [...Array(rowsOf(one)).keys()]
  const columnNumbers = [...Array(columns).keys()]
  return {
    columns,
    full,
    rows: rowNumbers.map((r) => columnNumbers.some((c) => full(c, r))),
    across: columnNumbers.map((c) => rowNumbers.some((r) => full(c, r))),
  }
}

describe('what is looked through in blocks is what a walk over all cells finds', () => {
  it('rows and columns without a bead: before, between and behind', () => {
    const reached = { before: 0, between: 0, behind: 0, none: 0 }
    const empty = (flags: readonly boolean[]) => {
      const first = flags.indexOf(true)
      const last = flags.lastIndexOf(true)
      return first < 0
        ? { start: flags.length, between: [], end: 0 }
        : {
            start: first,
            between: [...flags.keys()].filter((i) => !flags[i] && i > first && i < last),
            end: flags.length - 1 - last,
          }
    }
    fc.assert(
      fc.property(anyGappy, (one) => {
        // Of a repeat that is worked more than once, a row is what any of its copies shows.
        fc.pre(one.technique !== 'right-angle')
        const seen = seenOf(one)
        const gaps = [...wholePart(one)].includes(0)
        const found = emptyOf(one)
        expect(hasGaps(one)).toBe(gaps)
        expect(found.rows).toEqual(gaps ? empty(seen.rows) : { start: 0, between: [], end: 0 })
        if (!tubes.has(one.technique))
          expect(found.columns).toEqual(gaps ? empty(seen.across) : { start: 0, between: [], end: 0 })
        else expect(found.columns).toEqual({ start: 0, between: [], end: 0 })
        reached.before += found.rows.start > 0 ? 1 : 0
        reached.between += found.rows.between.length > 0 ? 1 : 0
        reached.behind += found.rows.end > 0 ? 1 : 0
        reached.none += gaps ? 0 : 1
      }),
      { numRuns: 150, seed: 5 },
    )
    expect(Math.min(reached.before, reached.between, reached.behind)).toBeGreaterThan(3)
  })
  it('rows that are worked, columns that hold a bead', () => {
    fc.assert(
      fc.property(anyGappy, (one) => {
        fc.pre(one.technique !== 'right-angle')
        const seen = seenOf(one)
        const laid = laidOf(one)
        expect(rowsOf(laid.part)).toBe(seen.rows.filter(Boolean).length)
        const wide = seen.across.filter(Boolean).length
        expect(laid.columns).toBe(tubes.has(one.technique) || wide === 0 ? seen.columns : wide)
        // The beads are all there, in their order.
        expect([...wholePart(laid.part)].filter((n) => n > 0)).toEqual([...wholePart(one)].filter((n) => n > 0))
        if (seen.rows.every(Boolean) && one.times > 0) expect(laid.part).toBe(one)
      }),
      { numRuns: 150, seed: 6 },
    )
  })
  it('how far its beads reach short of whole rows and columns, from the middles of all of them', () => {
    let [short, narrow] = [0, 0]
    fc.assert(
      fc.property(anyGappy, (one) => {
        fc.pre(one.technique !== 'right-angle')
        const { part: compact, shortMm, narrowMm } = laidOf(one)
        const { columns, full, rows: filled } = seenOf(compact)
        const lattice = latticeOf(compact)
        const middles = (only: boolean) =>
          filled.flatMap((_, r) =>
            [...Array(columns).keys()].filter((c) => !only || full(c, r)).map((c) => beadCentre(lattice, c, r)),
          )
        const span = (values: readonly number[]) => Math.max(...values) - Math.min(...values)
        const all = middles(false)
        const laid = middles(true)
        if (laid.length === 0) {
          expect([shortMm, narrowMm]).toEqual([0, 0])
          return
        }
        expect(shortMm).toBeCloseTo(span(all.map((p) => p.y)) - span(laid.map((p) => p.y)), 9)
        // Empty columns at the edges are no width: what is left of it goes from the first to the last that holds one.
        const across = [...Array(columns).keys()].filter((c) => filled.some((_, r) => full(c, r)))
        const room = filled.flatMap((_, r) => across.map((c) => beadCentre(lattice, c, r).x))
        if (tubes.has(one.technique)) expect(narrowMm).toBe(0)
        else expect(narrowMm).toBeCloseTo(span(room) - span(laid.map((p) => p.x)), 9)
        short += shortMm > 0 ? 1 : 0
        narrow += narrowMm > 0 ? 1 : 0
      }),
      { numRuns: 150, seed: 7 },
    )
    expect(Math.min(short, narrow)).toBeGreaterThan(3)
  })
  it('sums over working rows, and which place holds a bead', () => {
    fc.assert(
      fc.property(anyGappy, (one) => {
        const { part: compact } = laidOf(one)
        const { columns, full } = seenOf(compact)
        const { laid } = laidWork(one)
        if (!laid) {
          expect(hasGaps(compact)).toBe(false)
          return
        }
        const technique = techniqueOf(compact)
        const work = { ...workOf(compact), columns }
        const walked = Array.from({ length: technique.order.count(work) }, (_, i) =>
          [...technique.order.row(i, work).keys].map((key) => full(columnOfKey(columns, key), rowOfKey(columns, key))),
        )
        const places = (row: readonly boolean[]) =>
          row.includes(true) ? row.lastIndexOf(true) - row.indexOf(true) + 1 : 0
        expect(laid.across).toBe(columns)
        expect(laid.beads).toBe(walked.flat().filter(Boolean).length)
        expect(laid.rows).toBe(walked.filter((row) => row.includes(true)).length)
        expect(laid.places).toBe(walked.reduce((sum, row) => sum + places(row), 0))
        expect(laid.firstPlaces).toBe(walked.length === 0 ? 0 : places(walked[0]!))
        for (let r = 0; r < rowsOf(compact); r++)
          for (let c = 0; c <= columns; c++) expect(laid.holds(c, r)).toBe(c < columns && full(c, r))
      }),
      { numRuns: 150, seed: 8 },
    )
  })
  it('what is kept where the stitch has no bead holds no row and counts nowhere', () => {
    let hidden = 0
    fc.assert(
      fc.property(anyGappy, fc.integer({ min: 1, max: 3 }), (any, kept) => {
        fc.pre(any.technique === 'right-angle' && any.times <= 1)
        const columns = columnsOf(any)
        const voids = voidsOf(any)
        const laying = (number: number) => layingAnywhere(any, new Map(voids.map((key) => [key, number])))
        const [bare, filled] = [laying(0), laying(kept)]
        hidden += voids.length > 0 ? 1 : 0
        expect(emptyOf(filled)).toEqual(emptyOf(bare))
        const [a, b] = [laidWork(bare), laidWork(filled)]
        expect(b.rows).toBe(a.rows)
        for (const sum of ['beads', 'rows', 'places', 'firstPlaces'] as const)
          if (a.laid && b.laid) expect(b.laid[sum]).toBe(a.laid[sum])
        for (let r = 0; a.laid && b.laid && r < a.rows; r++)
          for (let c = 0; c < columns; c++) expect(b.laid.holds(c, r)).toBe(a.laid.holds(c, r))
        const [short, long] = [laidOf(bare), laidOf(filled)]
        expect(long.shortMm).toBeCloseTo(short.shortMm, 9)
        expect(long.narrowMm).toBeCloseTo(short.narrowMm, 9)
      }),
      { numRuns: 600, seed: 9 },
    )
    expect(hidden).toBeGreaterThan(20)
  })
})

/** A part with numbers at keys of the written-out part, also where the stitch has no bead. */
function layingAnywhere(one: Part, numbers: ReadonlyMap<number, number>): Part {
  const columns = columnsOf(one)
  let next = one
  for (const [key, number] of numbers) {
    const { section, row } = locateRow(next, rowOfKey(columns, key))
    const cells = withNumbers(next[section], (set) => set(keyOf(columns, columnOfKey(columns, key), row), number))
    next = { ...next, [section]: cells }
  }
  return next
}
