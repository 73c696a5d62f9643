import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { requireSpec } from '../bead/spec'
import { cellsFrom, emptyCells, rowAt } from '../grid/cells'
import { laidOf, laidWork } from '../piece/laid'
import { techniqueOf, withPart, type Part, type Piece } from '../piece/piece'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { usualClosure } from '../wear/closure'
import { extentOf, mixedSizes, rowMm } from './extent'
import { colourCycle } from './cycle'
import { fitOf, mustPassMm, rowsWanted } from './reckon'

const settingsOf = (id: string, own: object = {}) => requireTechnique(id).settings.parse(own) as Part['settings']
const stitch = (technique: string, over: Partial<Part> = {}) =>
  part({ technique, settings: settingsOf(technique), start: emptyCells(4, 0), end: emptyCells(4, 0), ...over })

describe('beads of other sizes', () => {
  // Of the grid, larger, smaller: A cylinder 11/0, B round 8/0, C round 15/0.
  const tray = [bead(1), bead(2, { spec: 'round-8' }), bead(3, { spec: 'round-15' })]
  const sizes = ['cylinder-11', 'round-8', 'round-15'].map(requireSpec)

  it.each([
    ['square', 'l', 'd'],
    ['brick', 'd', 'l'],
  ] as const)('make rows of %s as wide as their beads together and as long as the largest', (id, across, along) => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 12, maxLength: 12 }),
        fc.integer({ min: 0, max: 3 }),
        (flat, times) => {
          const cells = cellsFrom(4, 3, flat)
          const one = stitch(id, { start: rows('AAAA'), repeat: cells, times })
          const more = (number: number, way: 'l' | 'd') => sizes[number - 1]![way] - sizes[0]![way]
          const counted = Array.from({ length: 3 }, (_, r) => [...rowAt(cells, r)].filter((n) => n > 0))
          const worked = times === 0 ? [] : counted.filter((row) => row.length > 0)
          const wide = worked.map((row) => row.reduce((sum, n) => sum + more(n, across), 0))
          const long = worked.map((row) => Math.max(...row.map((n) => more(n, along))))
          const { widerMm, longerMm } = mixedSizes(one, tray)
          expect(widerMm).toBeCloseTo(Math.max(0, ...wide), 9)
          expect(longerMm).toBeCloseTo(times * long.reduce((sum, mm) => sum + mm, 0), 9)
          // The same cells with other beads on the tray are asked anew.
          expect(mixedSizes(one, [bead(1), bead(2), bead(3)])).toEqual({ widerMm: 0, longerMm: 0 })
          const swapped = [bead(1), bead(2, { spec: 'round-15' }), bead(3, { spec: 'round-8' })]
          const other = {
            ...one,
            repeat: cellsFrom(
              4,
              3,
              flat.map((n) => [0, 1, 3, 2][n]!),
            ),
          }
          expect(mixedSizes(one, swapped)).toEqual(mixedSizes(other, tray))
          expect(mixedSizes(one, tray)).toEqual({ widerMm, longerMm })
        },
      ),
    )
  })
  it('all smaller, make narrower and shorter work; nothing laid makes none', () => {
    const small = stitch('square', { repeat: rows('CCCC', 'CCAC'), times: 2 })
    const { l, d } = requireSpec('round-15')
    const own = requireSpec('cylinder-11')
    expect(mixedSizes(small, tray).widerMm).toBeCloseTo(3 * (l - own.l), 9)
    expect(mixedSizes(small, tray).longerMm).toBeCloseTo(2 * (d - own.d), 9)
    const p = piece({ tray, parts: [small] })
    expect(extentOf(p, small).lengthFormula).toContain(`− ${Math.round(20 * (own.d - d)) / 10} mm for beads of other`)
    expect(mixedSizes(stitch('square', { repeat: rows('....'), times: 2 }), tray)).toEqual({ widerMm: 0, longerMm: 0 })
  })
  it('go round a tube, so that only its length follows; in tilted work and squares of beads nothing does', () => {
    const tube = stitch('brick-tube', { repeat: rows('BBBB'), times: 2 })
    expect(mixedSizes(tube, tray).widerMm).toBe(0)
    expect(mixedSizes(tube, tray).longerMm).toBeCloseTo(
      2 * (requireSpec('round-8').l - requireSpec('cylinder-11').l),
      9,
    )
    for (const id of ['herringbone', 'right-angle', 'netting']) {
      const across = requireTechnique(id).growth.nearestColumns(4, settingsOf(id))
      const one = stitch(id, {
        start: emptyCells(across, 0),
        repeat: emptyCells(across, 4, 2),
        end: emptyCells(across, 0),
      })
      expect(mixedSizes(one, tray), id).toEqual({ widerMm: 0, longerMm: 0 })
    }
  })
})

describe('the size of a part', () => {
  it('is less where its edges are not straight and its last rows not whole', () => {
    // Brick: every other row half a bead aside; with its outermost beads left out it is narrower.
    const one = stitch('brick', { repeat: rows('AAA.', 'AAAA'), times: 3 })
    const p = piece({ parts: [one] })
    const { narrowMm, shortMm } = laidOf(one)
    const { widthMm, lengthMm, widthFormula } = extentOf(p, one)
    const whole = techniqueOf(one).extent(laidWork(one))
    const shaped = stitch('brick', { repeat: rows('AAAA', 'AAA.'), times: 3 })
    const narrow = laidOf(shaped).narrowMm
    expect(Math.max(narrowMm, narrow)).toBeGreaterThan(0.5)
    expect(widthMm.nominal).toBeCloseTo(whole.widthMm.nominal - narrowMm, 9)
    expect(lengthMm.nominal).toBeCloseTo(whole.lengthMm.nominal - shortMm, 9)
    expect(widthFormula.includes('not straight')).toBe(narrowMm > 0)
    expect(extentOf(piece({ parts: [shaped] }), shaped).widthMm.nominal).toBeCloseTo(
      techniqueOf(shaped).extent(laidWork(shaped)).widthMm.nominal - narrow,
      9,
    )
  })
  it('of plain cords grows with their thickness in everything', () => {
    const braid = (spec: string) => {
      const one = part({
        technique: 'braid-cord',
        settings: settingsOf('braid-cord', { braid: '8' }),
        spec: 'cord-2',
        start: emptyCells(8, 0),
        repeat: emptyCells(8, 1, 1),
        end: emptyCells(8, 0),
        times: 40,
      })
      return piece({ tray: [bead(1, { spec })], parts: [one] })
    }
    const [thin, thick] = [braid('cord-2'), braid('cord-3')]
    const by = requireSpec('cord-3').d / requireSpec('cord-2').d
    const [a, b] = [thin, thick].map((p) => extentOf(p, p.parts[0]!))
    for (const end of ['least', 'nominal', 'most'] as const) {
      expect(b!.lengthMm[end]).toBeCloseTo(a!.lengthMm[end] * by, 9)
      expect(b!.widthMm[end]).toBeCloseTo(a!.widthMm[end] * by, 9)
    }
    expect(b!.thicknessMm).toBeCloseTo(a!.thicknessMm * by, 9)
    expect(rowMm(thick, thick.parts[0]!)).toBeCloseTo(rowMm(thin, thin.parts[0]!) * by, 9)
    expect([a!.lengthFormula.includes('thickness'), b!.lengthFormula.includes('thickness')]).toEqual([false, true])
  })
  it('follows a width that was measured, of a tube in its thickness too; one that was not keeps its own range', () => {
    const measured = (one: Part, across: number): Piece => {
      const p = piece({ parts: [one] })
      const wide = techniqueOf(one).growth.widthOf({ ...laidWork(one), columns: 60 })
      const narrow = techniqueOf(one).growth.widthOf({ ...laidWork(one), columns: 20 })
      const columnMm = (wide - narrow) / 40
      const swatch = { rows: 20, lengthMm: 20 * rowMm(p, one), columns: 10, widthMm: 10 * columnMm * across, from: '' }
      const swatches = [across === 0 ? { ...swatch, columns: 0, widthMm: 0 } : swatch]
      return { ...p, gauges: [{ technique: one.technique, spec: one.spec, thread: 'gel-6', swatches }] as never }
    }
    for (const [id, tube] of [
      ['brick', false],
      ['brick-tube', true],
    ] as const) {
      const one = stitch(id, { repeat: rows('AAAA', 'AAAA'), times: 9 })
      const nominal = extentOf(piece({ parts: [one] }), one)
      const own = extentOf(measured(one, 1.1), one)
      expect(own.widthMm.nominal).toBeCloseTo(nominal.widthMm.nominal * 1.1, 9)
      expect(own.widthMm.most / own.widthMm.nominal).toBeCloseTo(1.025, 9)
      expect(own.thicknessMm).toBeCloseTo(nominal.thicknessMm * (tube ? 1.1 : 1), 9)
      expect(own.widthFormula).toContain('by your gauge')
      const not = extentOf(measured(one, 0), one)
      expect(not.widthMm).toEqual(nominal.widthMm)
      expect(not.widthFormula).toBe(nominal.widthFormula)
    }
  })
})

describe('what would be', () => {
  it('with another part or another fit is what the piece would be with them', () => {
    fc.assert(
      fc.property(anyPiece, fc.constantFrom('toggle' as const, 'none' as const), fc.nat(3), (any, kind, more) => {
        const hanging = part({ id: 'tail', name: 'Tail' })
        const p = { ...any, parts: [hanging, ...any.parts], fit: { ...any.fit, part: any.parts[0]!.id } }
        const other = { ...any.parts[0]!, times: any.parts[0]!.times + more }
        const fit = { ...p.fit, bodyMm: 181, closure: usualClosure(kind) }
        const there = { ...withPart(p, other), fit }
        expect(fitOf(p, { part: other, fit })).toEqual(fitOf(there))
        expect(fitOf(p, { fit })).toEqual(fitOf({ ...p, fit }))
        expect(fitOf(p, { part: other })).toEqual(fitOf(withPart(p, other)))
        expect(rowsWanted(p, { part: other, fit })).toBe(rowsWanted(there))
        expect(rowsWanted(p, { part: other })).toBe(rowsWanted(withPart(p, other)))
      }),
    )
  })
  it('passes what it must pass, all turns together, to the last hair', () => {
    const p = piece({ parts: [part({ times: 52 })] })
    const slip = (passMm: number, wraps = 1) => {
      const fit = { ...p.fit, closure: usualClosure('none'), easeMm: 0, wraps, bodyMm: 80 }
      const inside = fitOf(p, { fit }).finishedMm.nominal
      return fitOf(p, { fit: { ...fit, passMm: inside * wraps + passMm } }).feel
    }
    expect([slip(0), slip(0.01), slip(0, 2), slip(0.01, 2)].map((feel) => feel === 'will not pass')).toEqual([
      false,
      true,
      false,
      true,
    ])
    // A hand that nobody measured is no bound; a head is.
    expect(mustPassMm({ ...p.fit, closure: usualClosure('none'), passMm: 0 })).toBe(0)
  })
})

describe('the cycle of colours', () => {
  const loom = (...lines: string[]) => stitch('loom', { repeat: rows(...lines) })
  it('is found where it goes into the repeat twice, and is none of an empty one', () => {
    expect(colourCycle(loom('AAAA', 'BBBB', 'AAAA', 'BBBB'))).toBe(2)
    expect(colourCycle(loom('AAAA', 'BBBB', 'AAAA', 'BBBC'))).toBe(4)
    expect(colourCycle(loom('AAAA', 'BBBB', 'AAAA'))).toBe(3)
    expect(colourCycle({ ...loom('AAAA'), repeat: emptyCells(4, 0) })).toBe(0)
  })
  it('joins on without a slip: the same cells cycle otherwise in another stitch', () => {
    const lines = ['AAAA', 'AAAA', 'AAAA', 'AAAA']
    const brick = stitch('brick', { repeat: rows(...lines) })
    expect([colourCycle({ ...brick, technique: 'loom' }), colourCycle(brick)]).toEqual([1, 2])
  })
  it('of a single bead in a corner is no less than the bead, whatever the stitch would lack there', () => {
    for (const { id } of TECHNIQUES.filter((t) => t.store === 'cells' && !t.round)) {
      const settings = requireTechnique(id).settings.parse({})
      const across = requireTechnique(id).growth.nearestColumns(3, settings)
      for (let c = 0; c < across; c++) {
        const one = part({
          ...{ technique: id, settings, spec: 'cube-3-mm', times: 1, repeat: emptyCells(across, 0) },
          start: cellsFrom(
            across,
            1,
            Array.from({ length: across }, (_, k) => (k === c ? 1 : 0)),
          ),
          end: emptyCells(across, 1),
        })
        const { lengthMm, widthMm } = extentOf(piece({ parts: [one] }), one)
        expect(Math.min(lengthMm.least, widthMm.least), `${id} ${c}`).toBeGreaterThanOrEqual(0)
      }
    }
  })
})
