import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec } from '../bead/spec'
import { beadCentre, nearestPlace, neighbourOffsets, transpose } from './lattice'
import { findTechnique, requireTechnique, TECHNIQUES } from './registry'
import type { Settings, Work } from './technique'
import { warpCount } from './weave/loom'

const work = (id: string, columns: number, rows: number, spec = 'cylinder-11', settings: Settings = {}): Work =>
  ({ columns, rows, bead: requireSpec(spec), settings: requireTechnique(id).settings.parse(settings) })

const anyWork = fc.record({ id: fc.constantFrom(...TECHNIQUES.map(t => t.id)), half: fc.integer({ min: 1, max: 12 }), rows: fc.integer({ min: 1, max: 30 }), start: fc.constantFrom('left', 'right') })
  .map(({ id, half, rows, start }) => ({ technique: requireTechnique(id), work: work(id, 2 * half, rows, 'cylinder-11', { start }) }))

describe('every technique', () => {
  it('lays every bead exactly once, in working rows that follow each other', () => {
    fc.assert(fc.property(anyWork, ({ technique, work }) => {
      const seen = new Set<string>()
      let next = 1
      for (let i = 0; i < technique.workingRows(work); i++) {
        const row = technique.workingRow(i, work)
        expect(row.from).toBe(next)
        next = row.to + 1
        for (const place of row.places) {
          expect(technique.workingRowOf(place, work)).toBe(i)
          seen.add(`${place.c},${place.r}`)
        }
      }
      expect(seen.size).toBe(work.columns * work.rows)
      expect(next - 1).toBe(technique.countedRows(work.rows))
    }))
  })
  it('goes from count to size and back', () => {
    fc.assert(fc.property(anyWork, ({ technique, work }) => {
      expect(technique.rowsFor(technique.lengthOf(work), work)).toBeCloseTo(work.rows, 9)
      expect(technique.columnsFor(technique.widthOf(work), work)).toBeCloseTo(work.columns, 9)
      expect(technique.nearestColumns(work.columns)).toBe(work.columns)
      expect(technique.check(work)).toEqual([])
    }))
  })
  it('grows in length and thread with every row, and names the range of its size', () => {
    fc.assert(fc.property(anyWork, ({ technique, work }) => {
      const longer = { ...work, rows: work.rows + 1 }
      expect(technique.lengthOf(longer)).toBeGreaterThan(technique.lengthOf(work))
      const total = (w: Work) => technique.path(w).runs.reduce((sum, r) => sum + r.count * r.lengthMm, 0)
      expect(total(longer)).toBeGreaterThan(total(work))
      const { lengthMm, thicknessMm, basis } = technique.extent(work)
      expect(lengthMm.least).toBeCloseTo(lengthMm.nominal * 0.95, 9)
      expect(lengthMm.most).toBeCloseTo(lengthMm.nominal * 1.05, 9)
      expect(thicknessMm).toBe(work.bead.d)
      expect(basis.kind).toBe('nominal')
    }))
  })
  it('has beads that touch but do not lie on each other', () => {
    fc.assert(fc.property(anyWork, ({ technique, work }) => {
      const lattice = technique.lattice(work)
      const beads = []
      for (let c = 0; c < Math.min(6, work.columns); c++) for (let r = 0; r < Math.min(6, work.rows); r++) beads.push({ c, r, ...beadCentre(lattice, c, r) })
      for (const a of beads) {
        for (const b of beads) {
          if (a === b) continue
          expect(Math.abs(a.x - b.x) > lattice.beadX - 1e-9 || Math.abs(a.y - b.y) > lattice.beadY - 1e-9).toBe(true)
        }
        expect(nearestPlace(lattice, a)).toEqual({ c: a.c, r: a.r })
      }
    }))
  })
  it('touches back: a neighbour’s neighbour is the bead itself', () => {
    fc.assert(fc.property(anyWork, fc.nat(8), fc.nat(8), ({ technique, work }, c, r) => {
      const lattice = technique.lattice(work)
      for (const o of neighbourOffsets(lattice, c, r)) {
        expect(neighbourOffsets(lattice, c + o.c, r + o.r)).toContainEqual({ c: 0 - o.c, r: 0 - o.r })
      }
    }))
  })
  it('is the same lattice when the band is laid the other way and back', () => {
    for (const technique of TECHNIQUES) {
      const lattice = technique.lattice(work(technique.id, 6, 4))
      expect(transpose(transpose(lattice))).toEqual({ ...lattice, sites: lattice.sites.map(s => ({ ...s, turnDegrees: expect.closeTo(s.turnDegrees, 9) as number })) })
      const turned = transpose(lattice)
      for (const [c, r] of [[0, 0], [1, 0], [3, 2], [2, 3]] as const) {
        const p = beadCentre(lattice, c, r)
        expect(beadCentre(turned, r, c)).toEqual({ x: p.y, y: p.x })
      }
    }
  })
})

describe('loom, by hand', () => {
  // 20 beads of cylinder 11/0 (l 1.3, d 1.6) with warps of 0.2: 20 × 1.3 + 21 × 0.2 = 26 + 4.2 = 30.2 mm wide; 100 rows × 1.6 = 160 mm long
  const band = work('loom', 20, 100, 'cylinder-11', { warpMm: 0.2, doubleEdge: false, spareWarpMm: 200 })
  const loom = requireTechnique('loom')
  it('is wider than the same count stitched, by its warps', () => {
    expect(loom.widthOf(band)).toBeCloseTo(30.2, 9)
    expect(loom.lengthOf(band)).toBeCloseTo(160, 9)
  })
  it('has N + 1 warps, one more at each edge if the edges are doubled (common practice)', () => {
    expect(warpCount(20, false)).toBe(21)
    expect(warpCount(20, true)).toBe(23)
    const warps = loom.path(band).runs.find(r => r.id === 'warp')!
    expect(warps).toMatchObject({ count: 21, joined: false })
    expect(warps.lengthMm).toBeCloseTo(160 + 400, 9)
  })
  it('uses weft as a walk bead by bead does: out under the beads, round the edge, back through them', () => {
    // A row: through the width there and back (2 W), and round an edge bead on each side (2 d).
    let walked = 0
    for (let pass = 0; pass < 2 * band.rows; pass++) walked += 30.2 + 1.6
    expect(loom.path(band).runs.find(r => r.id === 'weft')!.lengthMm).toBeCloseTo(walked, 6)
  })
  it('picks up every row from the same side', () => {
    expect([0, 1, 2].map(i => loom.workingRow(i, band).direction)).toEqual(['→', '→', '→'])
    expect(loom.workingRow(4, { ...band, settings: { ...band.settings, start: 'right' } }).places[0]).toEqual({ c: 19, r: 4 })
  })
  it('touches four beads, peyote six', () => {
    expect(neighbourOffsets(loom.lattice(band), 3, 3)).toHaveLength(4)
    expect(neighbourOffsets(requireTechnique('peyote').lattice({ ...band, settings: {} }), 3, 3)).toHaveLength(6)
  })
})

describe('flat peyote, by hand', () => {
  const peyote = requireTechnique('peyote')
  it('is N l wide and (R + ½) d long; a strip of 170 mm in cylinder 11/0 has about 106 beads a column and 212 rows', () => {
    const strip = work('peyote', 26, 106)
    expect(peyote.widthOf(strip)).toBeCloseTo(33.8, 9)
    expect(peyote.lengthOf(strip)).toBeCloseTo(170.4, 9)
    expect(peyote.countedRows(106)).toBe(212)
    expect(Math.round(peyote.rowsFor(170, strip))).toBe(106)
  })
  it('strings rows 1 and 2 at once, then N / 2 beads a row, turning at each edge (common practice)', () => {
    const strip = work('peyote', 6, 3)
    const rows = Array.from({ length: 5 }, (_, i) => peyote.workingRow(i, strip))
    expect(rows.map(r => [r.from, r.to, r.direction, r.places.map(p => `${p.c}${p.r}`).join(' ')])).toEqual([
      [1, 2, '←', '50 40 30 20 10 00'],
      [3, 3, '→', '01 21 41'],
      [4, 4, '←', '51 31 11'],
      [5, 5, '→', '02 22 42'],
      [6, 6, '←', '52 32 12'],
    ])
  })
  it('lays each bead of a row next to beads that already lie: the thread always has something to pass through', () => {
    for (const start of ['left', 'right']) {
      const strip = work('peyote', 8, 6, 'cylinder-11', { start })
      const lattice = peyote.lattice(strip)
      const lying = new Set(peyote.workingRow(0, strip).places.map(p => `${p.c},${p.r}`))
      for (let i = 1; i < peyote.workingRows(strip); i++) {
        const { places } = peyote.workingRow(i, strip)
        for (const p of places) {
          const held = neighbourOffsets(lattice, p.c, p.r).map(o => `${p.c + o.c},${p.r + o.r}`).filter(k => lying.has(k))
          expect(held.length).toBeGreaterThanOrEqual(2)
        }
        for (const p of places) lying.add(`${p.c},${p.r}`)
      }
    }
  })
  it('mirrored, is the same work seen in a mirror', () => {
    const left = work('peyote', 8, 4)
    const right = work('peyote', 8, 4, 'cylinder-11', { start: 'right' })
    for (let i = 0; i < peyote.workingRows(left); i++) {
      const a = peyote.workingRow(i, left)
      const b = peyote.workingRow(i, right)
      expect(b.places).toEqual(a.places.map(p => ({ c: 7 - p.c, r: p.r })))
      expect(b.direction).not.toBe(a.direction)
    }
    const width = peyote.widthOf(left)
    for (let c = 0; c < 8; c++) {
      const a = beadCentre(peyote.lattice(left), c, 2)
      const b = beadCentre(peyote.lattice(right), 7 - c, 2)
      expect([b.x, b.y]).toEqual([expect.closeTo(width - a.x, 9), expect.closeTo(a.y, 9)])
    }
  })
  it('uses thread as a walk over the beads does', () => {
    // 4 beads across, 3 bead rows, l 1.3, d 1.6. The first string crosses 4 beads (5.2 mm) and turns (1.6); rows 3 to 6 each cross all
    // four columns, through two new and two old beads (5.2), and turn (1.6): five crossings of 6.8 mm.
    const strip = work('peyote', 4, 3)
    let walked = 0
    for (let i = 0; i < peyote.workingRows(strip); i++) {
      const laid = peyote.workingRow(i, strip).places.length
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
    expect(peyote.nearestColumns(1)).toBe(2)
  })
})

describe('the registry', () => {
  it('finds or requires', () => {
    expect(findTechnique('knitting')).toBeUndefined()
    expect(() => requireTechnique('knitting')).toThrow(/knitting/)
  })
})
