import { ANY_IDS } from '../../tests/fixture/piece'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec } from '../bead/spec'
import { beadCentre, nearestPlace, neighbourOffsets, transpose, type Place } from './lattice'
import { findTechnique, requireTechnique, TECHNIQUES } from './registry'
import { requireLattice } from './stitch'
import { placesOf, type Settings, type Technique, type Work } from './technique'
import { warpCount } from './weave/loom'

const work = (id: string, columns: number, rows: number, spec = 'cylinder-11', settings: Settings = {}): Work => ({
  columns,
  rows,
  bead: requireSpec(spec),
  settings: requireTechnique(id).settings.parse(settings),
})

/** Any full grid of any stitch, in a count that it allows. */
const anyWork = fc
  .record({
    id: fc.constantFrom(...ANY_IDS),
    across: fc.integer({ min: 1, max: 24 }),
    rows: fc.integer({ min: 2, max: 30 }),
    start: fc.constantFrom('left', 'right'),
    numbering: fc.constantFrom('first-two', 'first-one'),
    drop: fc.integer({ min: 2, max: 4 }),
    arc: fc.constantFrom('3', '5', '7'),
  })
  .map(({ id, across, rows, ...own }) => {
    const technique = requireTechnique(id)
    const settings = technique.settings.parse(
      Object.fromEntries(Object.entries(own).filter(([key]) => technique.fields.some((f) => f.key === key))),
    )
    return {
      technique,
      work: {
        columns: technique.growth.nearestColumns(across, settings),
        rows,
        bead: requireSpec('cylinder-11'),
        settings,
      } satisfies Work,
    }
  })

const keysOf = (technique: Technique, work: Work): number[] =>
  Array.from({ length: technique.order.count(work) }, (_, i) => [...technique.order.row(i, work).keys]).flat()

describe('every technique', () => {
  it('lays every bead exactly once, in working rows that follow each other', () => {
    fc.assert(
      fc.property(anyWork, ({ technique, work }) => {
        let next = 1
        for (let i = 0; i < technique.order.count(work); i++) {
          const row = technique.order.row(i, work)
          expect(row.from).toBe(next)
          next = row.to + 1
          for (const place of placesOf(row, work.columns)) expect(technique.order.rowOf(place, work)).toBe(i)
        }
        const keys = keysOf(technique, work)
        const voids = technique.voids?.(work) ?? []
        expect(new Set(keys).size).toBe(keys.length)
        expect(new Set([...keys, ...voids]).size).toBe(work.columns * work.rows)
        expect(keys.length + voids.length).toBe(work.columns * work.rows)
        expect(next - 1).toBe(technique.growth.countedRows(work.rows, work.settings))
      }),
    )
  })
  it('counts a full grid by its closed formula as a walk over the rows does', () => {
    fc.assert(
      fc.property(anyWork, ({ technique, work }) => {
        expect(technique.growth.beads(work)).toBe(keysOf(technique, work).length)
      }),
    )
  })
  it('goes from count to size and back', () => {
    fc.assert(
      fc.property(anyWork, ({ technique, work }) => {
        expect(technique.growth.rowsFor(technique.growth.lengthOf(work), work)).toBeCloseTo(work.rows, 9)
        const across = technique.growth.columnsFor(technique.growth.widthOf(work), work)
        expect(technique.growth.widthOf({ ...work, columns: across })).toBeCloseTo(technique.growth.widthOf(work), 9)
        // a coil is as thick as its core and beads make it, however its string is counted
        if (technique.family !== 'coil') expect(across).toBeCloseTo(work.columns, 9)
        expect(technique.growth.nearestColumns(work.columns, work.settings)).toBe(work.columns)
        expect(technique.check(work)).toEqual([])
      }),
    )
  })
  it('grows in length and thread with every row, and names the range of its size', () => {
    fc.assert(
      fc.property(anyWork, ({ technique, work }) => {
        const longer = { ...work, rows: work.rows + 1 }
        expect(technique.growth.lengthOf(longer)).toBeGreaterThan(technique.growth.lengthOf(work))
        const total = (w: Work) => technique.path(w).runs.reduce((sum, r) => sum + r.count * r.lengthMm, 0)
        expect(total(longer)).toBeGreaterThan(total(work))
        const { lengthMm, widthMm, thicknessMm, basis } = technique.extent(work)
        expect(lengthMm.nominal).toBeCloseTo(technique.growth.lengthOf(work), 9)
        expect(widthMm.nominal).toBeCloseTo(technique.growth.widthOf(work), 9)
        // ± 5 % for what is stitched or loomed, ± 10 to 20 % for braids (common practice)
        expect(lengthMm.nominal - lengthMm.least).toBeLessThanOrEqual(
          lengthMm.nominal * (technique.family === 'weave' ? 0.05 : 0.15) + 1e-9,
        )
        expect(lengthMm.most - lengthMm.nominal).toBeLessThanOrEqual(
          lengthMm.nominal * (technique.family === 'weave' ? 0.05 : 0.2) + 1e-9,
        )
        expect(lengthMm.most - lengthMm.least).toBeGreaterThanOrEqual(lengthMm.nominal * 0.1 - 1e-9)
        expect(thicknessMm).toBeCloseTo(technique.round ? technique.growth.widthOf(work) : work.bead.d, 9)
        expect(basis.kind).toBe('nominal')
      }),
    )
  })
  it('uses less thread where places are left empty', () => {
    fc.assert(
      fc.property(anyWork, ({ technique, work }) => {
        // A cord runs the whole length, whatever is strung on it.
        if (technique.family === 'braid') return
        const joined = (w: Work) =>
          technique
            .path(w)
            .runs.filter((r) => r.joined || r.id === 'wire')
            .reduce((sum, r) => sum + r.lengthMm, 0)
        const beads = technique.growth.beads(work)
        const full = {
          beads,
          rows: technique.order.count(work),
          places: beads,
          firstPlaces: technique.order.row(0, work).keys.length,
        }
        const all = { ...full, across: work.columns, holds: () => true }
        expect(joined({ ...work, laid: all })).toBeCloseTo(joined(work), 6)
        const fewer = {
          ...all,
          beads: full.beads - 1,
          places: full.places - 1,
          holds: (c: number, r: number) => r > 0 && c > 0,
        }
        expect(joined({ ...work, laid: fewer })).toBeLessThan(joined(work))
      }),
    )
  })
  it('finds each bead under its own middle, and none lies on another', () => {
    fc.assert(
      fc.property(anyWork, ({ technique, work }) => {
        const lattice = requireLattice(technique, work)
        const turned = lattice.sites.some((s) => s.turnDegrees !== 0)
        const voids = new Set(technique.voids?.(work))
        const beads = []
        for (let c = 0; c < Math.min(8, work.columns); c++)
          for (let r = 0; r < Math.min(6, work.rows); r++)
            if (!voids.has(r * work.columns + c)) beads.push({ c, r, ...beadCentre(lattice, c, r) })
        const near = 0.5 * Math.min(lattice.beadX, lattice.beadY)
        for (const a of beads) {
          for (const b of beads) {
            if (a === b) continue
            if (turned) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(near)
            else
              expect(Math.abs(a.x - b.x) > lattice.beadX - 1e-9 || Math.abs(a.y - b.y) > lattice.beadY - 1e-9).toBe(
                true,
              )
          }
          expect(nearestPlace(lattice, a)).toEqual({ c: a.c, r: a.r })
        }
      }),
      { numRuns: 60 },
    )
  })
  it('touches back: a neighbour’s neighbour is the bead itself', () => {
    fc.assert(
      fc.property(anyWork, fc.nat(8), fc.nat(8), ({ technique, work }, c, r) => {
        const lattice = requireLattice(technique, work)
        expect(neighbourOffsets(lattice, c, r).length).toBeGreaterThanOrEqual(2)
        for (const o of neighbourOffsets(lattice, c, r)) {
          expect(neighbourOffsets(lattice, c + o.c, r + o.r)).toContainEqual({ c: 0 - o.c, r: 0 - o.r })
        }
      }),
    )
  })
  it('mirrored, is the same work seen in a mirror', () => {
    fc.assert(
      fc.property(anyWork, ({ technique, work }) => {
        // The mirror of a braid is the other school (braid.test.ts), that of a coil climbs the other way.
        if (technique.family !== 'weave') return
        const mirrored = {
          ...work,
          settings: technique.settings.parse({
            ...work.settings,
            start: work.settings.start === 'left' ? 'right' : 'left',
          }),
        }
        const flipped = (key: number) => key - (key % work.columns) + work.columns - 1 - (key % work.columns)
        for (let i = 0; i < technique.order.count(work); i++) {
          const [a, b] = [technique.order.row(i, work), technique.order.row(i, mirrored)]
          expect([...b.keys]).toEqual(Array.from(a.keys, flipped))
          expect(b.direction).not.toBe(a.direction)
          expect(b.after).toBe(a.after)
        }
        const [left, right] = [requireLattice(technique, work), requireLattice(technique, mirrored)]
        const sum = beadCentre(left, 0, 1).x + beadCentre(right, work.columns - 1, 1).x
        for (let c = 0; c < work.columns; c++) {
          for (const r of [0, 1, 2]) {
            const [a, b] = [beadCentre(left, c, r), beadCentre(right, work.columns - 1 - c, r)]
            expect(a.x + b.x).toBeCloseTo(sum, 9)
            expect(b.y).toBeCloseTo(a.y, 9)
          }
        }
      }),
    )
  })
  it('says what count would do where it refuses one', () => {
    for (const technique of TECHNIQUES.filter((t) => t.store === 'cells')) {
      const settings = technique.settings.parse({})
      for (let columns = 1; columns < 40; columns++) {
        const problems = technique.check({ columns, rows: 6, settings })
        const nearest = technique.growth.nearestColumns(columns, settings)
        expect(technique.check({ columns: nearest, rows: 6, settings })).toEqual([])
        if (columns >= 3 && problems.length > 0)
          expect(problems[0]!.says).toMatch(new RegExp(`(Take|or) (\\d+ or )?\\d+`))
      }
    }
  })
  it('is the same lattice when the band is laid the other way and back', () => {
    for (const technique of TECHNIQUES.filter((t) => t.store === 'cells')) {
      const w = work(technique.id, technique.growth.nearestColumns(6, technique.settings.parse({})), 4)
      const lattice = requireLattice(technique, w)
      const again = transpose(transpose(lattice))
      for (const [c, r] of [
        [0, 0],
        [1, 0],
        [3, 2],
        [2, 3],
      ] as const) {
        const p = beadCentre(lattice, c, r)
        expect(beadCentre(again, c, r)).toEqual(p)
        expect(beadCentre(transpose(lattice), r, c)).toEqual({ x: p.y, y: p.x })
        expect(neighbourOffsets(again, c, r)).toEqual(neighbourOffsets(lattice, c, r))
      }
    }
  })
})

/** The working rows of a small grid as `direction keys`, each key as column and row. */
const orderOf = (w: Work, id: string): string[] => {
  const technique = requireTechnique(id)
  return Array.from({ length: technique.order.count(w) }, (_, i) => {
    const row = technique.order.row(i, w)
    return `${row.from === row.to ? row.from : `${row.from}-${row.to}`} ${row.direction} ${placesOf(row, w.columns)
      .map((p) => `${p.c}${p.r}`)
      .join(' ')}${row.after ? ` ${row.after}` : ''}`
  })
}

describe('loom, by hand', () => {
  // 20 beads of cylinder 11/0 (l 1.3, d 1.6) with warps of 0.2: 20 × 1.3 + 21 × 0.2 = 26 + 4.2 = 30.2 mm wide; 100
  // rows × 1.6 = 160 mm long
  const band = work('loom', 20, 100, 'cylinder-11', { warpMm: 0.2, doubleEdge: false, spareWarpMm: 200 })
  const loom = requireTechnique('loom')
  it('is wider than the same count stitched, by its warps', () => {
    expect(loom.growth.widthOf(band)).toBeCloseTo(30.2, 9)
    expect(loom.growth.lengthOf(band)).toBeCloseTo(160, 9)
  })
  it('has N + 1 warps, one more at each edge if the edges are doubled (common practice)', () => {
    expect(warpCount(20, false)).toBe(21)
    expect(warpCount(20, true)).toBe(23)
    const warps = loom.path(band).runs.find((r) => r.id === 'warp')!
    expect(warps).toMatchObject({ count: 21, joined: false })
    expect(warps.lengthMm).toBeCloseTo(160 + 400, 9)
  })
  it('uses weft as a walk bead by bead does: out under the beads, round the edge, back through them', () => {
    // A row: through the width there and back (2 W), and round an edge bead on each side (2 d).
    let walked = 0
    for (let pass = 0; pass < 2 * band.rows; pass++) walked += 30.2 + 1.6
    expect(loom.path(band).runs.find((r) => r.id === 'weft')!.lengthMm).toBeCloseTo(walked, 6)
  })
  it('picks up every row from the same side', () => {
    expect([0, 1, 2].map((i) => loom.order.row(i, band).direction)).toEqual(['→', '→', '→'])
    expect(loom.order.row(4, { ...band, settings: { ...band.settings, start: 'right' } }).keys[0]).toBe(4 * 20 + 19)
  })
  it('touches four beads, peyote six', () => {
    expect(neighbourOffsets(requireLattice(loom, band), 3, 3)).toHaveLength(4)
    expect(neighbourOffsets(requireLattice(requireTechnique('peyote'), work('peyote', 20, 4)), 3, 3)).toHaveLength(6)
  })
})

describe('flat peyote, by hand', () => {
  const peyote = requireTechnique('peyote')
  it(
    'is N l wide and (R + ½) d long; a strip of 170 mm in cylinder 11/0 has about 106 beads a column and 212 ' +
      'rows',
    () => {
      const strip = work('peyote', 26, 106)
      expect(peyote.growth.widthOf(strip)).toBeCloseTo(33.8, 9)
      expect(peyote.growth.lengthOf(strip)).toBeCloseTo(170.4, 9)
      expect(peyote.growth.countedRows(106, strip.settings)).toBe(212)
      expect(Math.round(peyote.growth.rowsFor(170, strip))).toBe(106)
    },
  )
  it('strings rows 1 and 2 at once, then N / 2 beads a row, turning at each edge (common practice)', () => {
    const strip = work('peyote', 6, 3)
    expect(orderOf(strip, 'peyote')).toEqual([
      '1-2 ← 50 40 30 20 10 00',
      '3 → 01 21 41',
      '4 ← 51 31 11',
      '5 → 02 22 42',
      '6 ← 52 32 12',
    ])
    expect(orderOf(work('peyote', 4, 2, 'cylinder-11', { numbering: 'first-one' }), 'peyote')).toEqual([
      '1 ← 30 20 10 00',
      '2 → 01 21',
      '3 ← 31 11',
    ])
  })
  it('lays each bead of a row next to beads that already lie: the thread always has something to pass through', () => {
    for (const start of ['left', 'right']) {
      const strip = work('peyote', 8, 6, 'cylinder-11', { start })
      const lattice = requireLattice(peyote, strip)
      const lying = new Set(placesOf(peyote.order.row(0, strip), 8).map((p) => `${p.c},${p.r}`))
      for (let i = 1; i < peyote.order.count(strip); i++) {
        const places = placesOf(peyote.order.row(i, strip), 8)
        for (const p of places) {
          const held = neighbourOffsets(lattice, p.c, p.r)
            .map((o) => `${p.c + o.c},${p.r + o.r}`)
            .filter((k) => lying.has(k))
          expect(held.length).toBeGreaterThanOrEqual(2)
        }
        for (const p of places) lying.add(`${p.c},${p.r}`)
      }
    }
  })
  it('uses thread as a walk over the beads does', () => {
    // 4 beads across, 3 bead rows, l 1.3, d 1.6. The first string crosses 4 beads (5.2 mm) and turns (1.6); rows 3 to
    // 6 each cross all four columns, through two new and two old beads (5.2), and turn (1.6): five crossings of 6.8
    // mm.
    const strip = work('peyote', 4, 3)
    let walked = 0
    for (let i = 0; i < peyote.order.count(strip); i++) {
      const laid = peyote.order.row(i, strip).keys.length
      const passed = i === 0 ? 0 : 4 - laid
      walked += (laid + passed) * 1.3 + 1.6
    }
    expect(walked).toBeCloseTo(5 * 6.8, 9)
    expect(peyote.path(strip).runs[0]!.lengthMm).toBeCloseTo(walked, 9)
  })
  it('refuses an odd count and says which are near', () => {
    const [found] = peyote.check(work('peyote', 7, 3))
    expect(found).toMatchObject({ code: 'columns-odd' })
    expect(found!.says).toContain('6 or 8')
    expect(peyote.growth.nearestColumns(1, {})).toBe(2)
  })
})

describe('the other stitches, by hand', () => {
  // cylinder 11/0: d 1.6, l 1.3
  const size = (id: string, columns: number, rows: number, settings: Settings = {}) => {
    const w = work(id, columns, rows, 'cylinder-11', settings)
    const t = requireTechnique(id)
    return [t.growth.widthOf(w), t.growth.lengthOf(w)].map((mm) => Math.round(mm * 1000) / 1000)
  }
  const thread = (id: string, columns: number, rows: number, settings: Settings = {}) =>
    requireTechnique(id).path(work(id, columns, rows, 'cylinder-11', settings)).runs[0]!.lengthMm

  it('square: straight rows to and fro; 3 l + 2 d of thread a bead', () => {
    expect(orderOf(work('square', 3, 2), 'square')).toEqual(['1 → 00 10 20', '2 ← 21 11 01'])
    expect(size('square', 10, 20)).toEqual([13, 32])
    expect(thread('square', 10, 20)).toBeCloseTo(200 * (3 * 1.3 + 2 * 1.6), 9)
  })
  it('odd peyote: rows of (N + 1) / 2 and (N − 1) / 2, the longer turn after the fuller ones', () => {
    expect(orderOf(work('peyote-odd', 5, 3), 'peyote-odd')).toEqual([
      '1-2 ← 40 30 20 10 00',
      '3 → 01 21 41 long turn',
      '4 ← 31 11',
      '5 → 02 22 42 long turn',
      '6 ← 32 12',
    ])
    expect(size('peyote-odd', 5, 10)).toEqual([6.5, 16.8])
  })
  it('two-drop: pairs of columns move together', () => {
    expect(orderOf(work('peyote-drop', 8, 2), 'peyote-drop')).toEqual([
      '1-2 ← 70 60 50 40 30 20 10 00',
      '3 → 01 11 41 51',
      '4 ← 71 61 31 21',
    ])
    expect(orderOf(work('peyote-drop', 6, 2, 'cylinder-11', { drop: 3 }), 'peyote-drop')).toEqual([
      '1-2 ← 50 40 30 20 10 00',
      '3 → 01 11 21',
      '4 ← 51 41 31',
    ])
  })
  it('brick: rows of N, half a bead aside; 2 l + d of thread a bead', () => {
    expect(orderOf(work('brick', 3, 2), 'brick')).toEqual(['1 → 00 10 20', '2 ← 21 11 01'])
    // (10 + ½) × 1.6 wide, 20 × 1.3 long
    expect(size('brick', 10, 20)).toEqual([16.8, 26])
    expect(thread('brick', 10, 20)).toBeCloseTo(200 * (2 * 1.3 + 1.6), 9)
    expect(
      beadCentre(requireLattice(requireTechnique('brick'), work('brick', 4, 4)), 0, 1).x -
        beadCentre(requireLattice(requireTechnique('brick'), work('brick', 4, 4)), 0, 0).x,
    ).toBeCloseTo(0.8, 9)
  })
  it('brick is peyote turned by a quarter: the same middles with x and y exchanged, d and l too', () => {
    const brick = requireLattice(requireTechnique('brick'), work('brick', 6, 4))
    const peyote = requireLattice(requireTechnique('peyote'), work('peyote', 4, 6))
    for (let c = 0; c < 6; c++)
      for (let r = 0; r < 4; r++)
        expect(beadCentre(brick, c, r)).toEqual({ x: beadCentre(peyote, r, c).y, y: beadCentre(peyote, r, c).x })
  })
  it('ladder: rungs of m beads; 2 m l + d of thread a rung', () => {
    expect(orderOf(work('ladder', 2, 3), 'ladder')).toEqual(['1 → 00 10', '2 ← 11 01', '3 → 02 12'])
    expect(size('ladder', 2, 30)).toEqual([2.6, 48])
    expect(thread('ladder', 2, 30)).toBeCloseTo(30 * (2 * 2 * 1.3 + 1.6), 9)
  })
  it('ladder between cords: cord folded double with its knots, thread about twice the cord (common practice)', () => {
    const laced = {
      columns: 1,
      rows: 160,
      bead: requireSpec('round-8'),
      settings: requireTechnique('ladder').settings.parse({ cordMm: 1.5 }),
    }
    const { runs, passes } = requireTechnique('ladder').path(laced)
    // 160 rungs of 3 mm are 480 mm: twice round a wrist; cord 2 × 480 + 200
    expect(runs.find((r) => r.id === 'cord')!.lengthMm).toBe(1160)
    // each rung 2 × 2.1 + 2 × 1.5 + 3 = 10.2 mm
    expect(runs.find((r) => r.id === 'thread')!.lengthMm).toBeCloseTo(1632, 9)
    expect(passes).toBe(2)
    expect(requireTechnique('ladder').growth.widthOf(laced)).toBeCloseTo(2.1 + 3, 9)
  })
  it('herringbone: pairs that lean by 18°; W + d a row and d a pair', () => {
    expect(orderOf(work('herringbone', 4, 2), 'herringbone')).toEqual(['1 → 00 10 20 30', '2 ← 31 21 11 01'])
    // 4 × 1.6 wide; 10 × 1.3 × cos 18° + 1.6 × sin 18° = 12.3637 + 0.4944
    expect(size('herringbone', 4, 10)).toEqual([6.4, 12.858])
    expect(thread('herringbone', 4, 10)).toBeCloseTo(10 * (6.4 + 1.6 + 2 * 1.6), 9)
    const lattice = requireLattice(requireTechnique('herringbone'), work('herringbone', 4, 2))
    expect([0, 1, 2].map((c) => lattice.sites[c % 2]!.turnDegrees)).toEqual([18, -18, 18])
  })
  it('right-angle weave: 2UV + U + V beads on the edges of U × V squares, as a square grid has', () => {
    // Columns are 2U + 1, rows V + 1. One unit: left, top, right, bottom.
    expect(orderOf(work('right-angle', 3, 2), 'right-angle')).toEqual(['1 → 00 10 20 11'])
    expect(orderOf(work('right-angle', 5, 3), 'right-angle')).toEqual([
      '1 → 00 10 20 11 31 40 30',
      '2 ← 41 32 21 01 12',
    ])
    for (const [u, v] of [
      [1, 1],
      [3, 2],
      [7, 20],
    ] as const)
      expect(requireTechnique('right-angle').growth.beads({ columns: 2 * u + 1, rows: v + 1 })).toBe(2 * u * v + u + v)
    // p = √2 (1.3 + 1.6) / 2 = 2.0506
    expect(size('right-angle', 11, 21)).toEqual([10.253, 41.012])
    expect(thread('right-angle', 11, 21)).toBeCloseTo(100 * (6 * 1.3 + 2 * 1.6), 9)
  })
  it('right-angle weave: every unit’s four beads touch each other in a ring', () => {
    const lattice = requireLattice(requireTechnique('right-angle'), work('right-angle', 5, 3))
    const touch = (a: Place, b: Place) =>
      neighbourOffsets(lattice, a.c, a.r).some((o) => a.c + o.c === b.c && a.r + o.r === b.r)
    for (const k of [0, 1]) {
      const ring = [
        { c: 2 * k, r: 1 },
        { c: 2 * k + 1, r: 1 },
        { c: 2 * k + 2, r: 1 },
        { c: 2 * k + 1, r: 2 },
      ]
      ring.forEach((a, i) => expect(touch(a, ring[(i + 1) % 4]!)).toBe(true))
      expect(touch(ring[0]!, ring[2]!)).toBe(false)
    }
  })
  it('netting: arcs of 3, 5 or 7; the middle bead is the joint; (k + 1) l of thread an arc', () => {
    expect(orderOf(work('netting', 6, 2, 'cylinder-11', { arc: '3' }), 'netting')).toEqual([
      '1 → 00 10 20 30 40 50',
      '2 ← 51 41 31 21 11 01',
    ])
    // Arc of 5 at 45°: leg 3 × 1.3 = 3.9; joint to joint across 2 × 3.9 × sin 45° = 5.5154, along 2.7577. 4 arcs, 6
    // rows.
    expect(size('netting', 20, 6)).toEqual([24.819, 16.546])
    expect(thread('netting', 20, 6)).toBeCloseTo(6 * 4 * 6 * 1.3, 9)
    const lattice = requireLattice(requireTechnique('netting'), work('netting', 10, 4))
    // The joint of row 1 lies where two arcs of row 2 begin and end.
    expect(neighbourOffsets(lattice, 2, 0)).toHaveLength(4)
  })
  it('tubular peyote: rounds of N / 2 that begin one bead further each time; spirals have no step up', () => {
    expect(orderOf(work('peyote-tube', 6, 3), 'peyote-tube')).toEqual([
      '1-2 → 00 10 20 30 40 50 join',
      '3 → 01 21 41 step up',
      '4 → 11 31 51 step up',
      '5 → 22 42 02 step up',
      '6 → 32 52 12 step up',
    ])
    expect(orderOf(work('peyote-spiral', 5, 2), 'peyote-spiral')).toEqual([
      '1-2 → 00 10 20 30 40 join',
      '3 → 01 21 41',
      '4 → 11 31',
    ])
    // 12 × 1.3 / π + 1.6 = 6.566 outside
    expect(size('peyote-tube', 12, 10)).toEqual([6.566, 16.8])
  })
  it('tubular brick and herringbone close round on N d and end each round', () => {
    expect(orderOf(work('brick-tube', 4, 2), 'brick-tube')).toEqual(['1 → 00 10 20 30 join', '2 → 01 11 21 31 join'])
    expect(orderOf(work('herringbone-tube', 4, 2), 'herringbone-tube')).toEqual([
      '1 → 00 10 20 30 step up',
      '2 → 01 11 21 31 step up',
    ])
    // 10 × 1.6 / π + 1.6 = 6.693 outside
    expect(size('brick-tube', 10, 10)[0]).toBe(6.693)
  })
})

describe('thread, walked step by step', () => {
  // cylinder 11/0: d 1.6, l 1.3. Each walk goes over the beads in the order in which they are picked up and adds what
  // the thread does there.
  const [d, l] = [1.6, 1.3]
  const walk = (
    id: string,
    columns: number,
    rows: number,
    each: (laid: number, row: number) => number,
    settings: Settings = {},
  ) => {
    const w = work(id, columns, rows, 'cylinder-11', settings)
    const technique = requireTechnique(id)
    let walked = 0
    for (let i = 0; i < technique.order.count(w); i++) walked += each(technique.order.row(i, w).keys.length, i)
    expect(walked).toBeCloseTo(technique.path(w).runs.find((r) => r.joined)!.lengthMm, 6)
  }
  const beadByBead = (perBead: number) => (laid: number) => {
    let sum = 0
    for (let k = 0; k < laid; k++) sum += perBead
    return sum
  }
  it('square: through the new bead, back through the one below, and through the new one again', () =>
    walk('square', 7, 9, beadByBead(l + d / 2 + l + d / 2 + d + l)))
  it('brick: up through the bead, over the loop, back down', () => walk('brick', 7, 9, beadByBead(l + d + l)))
  it('ladder: through the rung, back through the rung before, over to the next', () =>
    walk('ladder', 3, 12, (laid) => laid * l + laid * l + d))
  it('herringbone: across every bead, round the edge, and a dip between pairs', () =>
    walk('herringbone', 8, 6, (laid) => laid * d + d + (laid / 2) * d))
  it('netting: through the beads of every arc and one joint', () =>
    walk('netting', 15, 4, (laid) => (laid / 5) * (5 * l + l)))
  it('odd peyote: every crossing passes all columns, old beads and new, and turns', () =>
    walk('peyote-odd', 7, 6, (laid, i) => laid * l + (i === 0 ? 0 : 7 - laid) * l + d))
  it('two-drop: the same', () => walk('peyote-drop', 8, 6, (laid, i) => laid * l + (i === 0 ? 0 : 8 - laid) * l + d))
  it('tubular peyote: every round passes the whole round and steps up', () => {
    walk('peyote-tube', 8, 6, (laid, i) => laid * l + (i === 0 ? 0 : 8 - laid) * l + d)
    walk('peyote-spiral', 9, 6, (laid, i) => laid * l + (i === 0 ? 0 : 9 - laid) * l + d)
  })
  it('right-angle weave: round the four beads of every unit and on through two (about 6 l + 4 · d / 2)', () => {
    walk('right-angle', 11, 7, () => 5 * (4 * l + 2 * l + (4 * d) / 2))
  })
})

describe('the registry', () => {
  it('finds or requires', () => {
    expect(findTechnique('knitting')).toBeUndefined()
    expect(() => requireTechnique('knitting')).toThrow(/knitting/)
  })
})
