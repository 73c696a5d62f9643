import { isCounted } from './nature'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANY_IDS, anyPiece, anyPieceOf, bead, part, piece, rows } from '../../tests/fixture/piece'
import { cellsFrom } from '../grid/cells'
import { latticeOf } from './drawing'
import { neighbourOffsets } from '../technique/lattice'
import { valueOf } from '../problem'
import { BEAD_SPECS } from '../bead/spec'
import { requireTechnique } from '../technique/registry'
import { tallyPiece } from '../tally/tally'
import { checkPiece, partToFile, pieceToBody } from './codec'
import type { Joint } from './schema'
import { columnsOf, numberAt, rowsOf, voidsOf, wholePart, type Part, type Piece } from './piece'
import {
  addPartSteps,
  columnStepOf,
  columnsWanted,
  conversionNotes,
  quarterTurnSteps,
  removePartSteps,
  replaceGridSteps,
  specSteps,
  stitchSteps,
  unrollSteps,
  widthSteps,
} from './recast'
import { strandCords } from '../tally/cords'
import { applySteps, invertSteps, type Step } from './step'

describe('making it another way', () => {
  it('gives a sound piece that keeps its pattern, and can be taken back', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.constantFrom(...ANY_IDS),
        fc.constantFrom(...BEAD_SPECS.map((s) => s.id)),
        (p, technique, spec) => {
          for (const steps of [stitchSteps(p, p.parts[0]!, technique, 1), specSteps(p, p.parts[0]!, spec)]) {
            const next = valueOf(applySteps(p, steps))
            expect(checkPiece(next)).toEqual([])
            // Right-angle weave has no beads above its last edge, so cells there stop counting.
            const voids = voidsOf(p.parts[0]!).length + voidsOf(next.parts[0]!).length
            if (
              voids === 0 &&
              [p, next].every((q) => isCounted(q.parts[0]!)) &&
              columnsOf(next.parts[0]!) === columnsOf(p.parts[0]!)
            )
              expect([...tallyPiece(next)].sort()).toEqual([...tallyPiece(p)].sort())
            expect(pieceToBody(valueOf(applySteps(next, invertSteps(steps))))).toEqual(pieceToBody(p))
          }
        },
      ),
    )
  })
  it('widens and narrows at the right edge', () => {
    const p = piece({
      parts: [part({ technique: 'loom', settings: {}, start: rows('ABC'), repeat: rows('ABC'), end: rows('ABC') })],
    })
    const wide = valueOf(applySteps(p, widthSteps(p.parts[0]!, 5, 2))).parts[0]!
    expect([...wide.start.blocks[0]!]).toEqual([1, 2, 3, 2, 2])
    expect([...valueOf(applySteps(p, widthSteps(p.parts[0]!, 2, 2))).parts[0]!.end.blocks[0]!]).toEqual([1, 2])
    expect(widthSteps(p.parts[0]!, 3, 1)).toEqual([])
  })
  it('an odd loomed band becomes an even peyote one', () => {
    const p = piece({
      parts: [part({ technique: 'loom', settings: {}, start: rows('ABC'), repeat: rows('ABC'), end: rows('ABC') })],
    })
    const next = valueOf(applySteps(p, stitchSteps(p, p.parts[0]!, 'peyote', 1))).parts[0]!
    expect(columnsOf(next)).toBe(4)
    expect(next.settings).toEqual({ start: 'left', numbering: 'first-two' })
  })
  it('turned by a quarter keeps every bead and every neighbour; turned twice it is as before', () => {
    let turned = 0
    fc.assert(
      fc.property(anyPieceOf(['peyote', 'peyote-odd', 'brick']), (p) => {
        const one = p.parts[0]!
        const steps = quarterTurnSteps(p, one)
        if (!steps) return
        turned++
        const next = valueOf(applySteps(p, steps))
        const other = next.parts[0]!
        expect([...tallyPiece(next)].sort()).toEqual([...tallyPiece(p)].sort())
        for (let r = 0; r < rowsOf(one); r++) {
          for (let c = 0; c < columnsOf(one); c++) {
            expect(numberAt(other, r, c)).toBe(numberAt(one, c, r))
            const near = (q: Part, x: number, y: number, swap: boolean) =>
              neighbourOffsets(latticeOf(q), x, y)
                .map((o) => (swap ? `${o.r},${o.c}` : `${o.c},${o.r}`))
                .sort()
            expect(near(other, r, c, true)).toEqual(near(one, c, r, false))
          }
        }
        const back = quarterTurnSteps(next, other)
        if (back)
          expect(partToFile({ ...valueOf(applySteps(next, back)).parts[0]!, id: 'x' }).repeat).toEqual(
            partToFile({
              ...one,
              start: { ...one.start, rows: 0, blocks: [] },
              times: 1,
              end: { ...one.end, rows: 0, blocks: [] },
              repeat: cellsFrom(columnsOf(one), rowsOf(one), wholePart(one)),
              id: 'x',
            }).repeat,
          )
      }),
    )
    expect(turned).toBeGreaterThan(20)
  })
  it('says what a move to another stitch changes', () => {
    const loomed = part({
      technique: 'loom',
      settings: requireTechnique('loom').settings.parse({}),
      start: rows('ABC'),
      repeat: rows('ABC'),
      end: rows('ABC'),
    })
    expect(conversionNotes(loomed, 'square')).toEqual([])
    expect(conversionNotes(loomed, 'peyote').join(' ')).toMatch(/3 beads across become 4.*half a bead/)
    expect(conversionNotes(loomed, 'brick-tube').join(' ')).toMatch(/seam.*multiple of 2/)
    expect(conversionNotes(loomed, 'right-angle').join(' ')).toMatch(/edges of squares/)
  })
  it('repeats written out show the same beads, and each row is then its own', () => {
    fc.assert(
      fc.property(anyPiece, (p) => {
        const next = valueOf(applySteps(p, unrollSteps(p, p.parts[0]!))).parts[0]!
        expect([...wholePart(next)]).toEqual([...wholePart(p.parts[0]!)])
        expect(next.times).toBeLessThanOrEqual(1)
      }),
    )
  })
  it('parts are added and taken off; the last one stays', () => {
    const p = piece()
    const two = valueOf(applySteps(p, addPartSteps(p, 'Tab', 'brick', 'round-8')))
    expect(two.parts.map((q) => [q.name, q.technique])).toEqual([
      ['Band', 'peyote'],
      ['Tab', 'brick'],
    ])
    expect(valueOf(applySteps(two, removePartSteps(two, two.parts[1]!.id))).parts).toHaveLength(1)
    expect(removePartSteps(p, 'band')).toEqual([])
    expect(removePartSteps(two, 'none')).toEqual([])
  })
  it('a part of plain cords brings a cord where the tray has none, and is worked by the habit of its maker', () => {
    const p = piece()
    const two = valueOf(
      applySteps(p, addPartSteps(p, 'Loop', 'braid-cord', 'cylinder-11', { school: 'B', start: 'right' })),
    )
    expect([
      two.parts[1]!.settings.school,
      two.parts[1]!.spec,
      two.parts[1]!.repeat.rows,
      two.tray.at(-1)!.spec,
    ]).toEqual(['B', 'cord-2', 1, 'cord-2'])
    expect(checkPiece(two)).toEqual([])
    expect(strandCords(two.parts[1]!, two.tray).map((c) => c.diameterMm)).toEqual(Array<number>(8).fill(2))
    const three = valueOf(applySteps(two, addPartSteps(two, 'Another', 'braid-cord', 'cord-2')))
    expect(three.tray).toHaveLength(two.tray.length)
    // moved to a braid, a band takes the habit; what it says itself stays
    expect(
      valueOf(applySteps(p, stitchSteps(p, p.parts[0]!, 'braid-8', 1, { school: 'B' }))).parts[0]!.settings.school,
    ).toBe('B')
    expect(
      valueOf(applySteps(two, stitchSteps(two, two.parts[1]!, 'braid-8', 1, { school: 'A' }))).parts[1]!.settings,
    ).toBeDefined()
  })
  it('keeps what both stitches let one choose', () => {
    const p = piece({ parts: [part({ settings: { start: 'right', numbering: 'first-one' } })] })
    expect(valueOf(applySteps(p, stitchSteps(p, p.parts[0]!, 'peyote-odd', 1))).parts[0]!.settings).toEqual({
      start: 'right',
      numbering: 'first-one',
    })
    expect(valueOf(applySteps(p, stitchSteps(p, p.parts[0]!, 'brick', 1))).parts[0]!.settings).toEqual({
      start: 'right',
    })
  })
  it('names the count nearest to a width (13 mm in cylinder 11/0 peyote: 10 of 1.3 mm)', () => {
    expect(columnsWanted(part(), 13)).toBe(10)
  })
})

describe('made another way, case by case', () => {
  const stitch = (technique: string, over: Partial<Part> = {}) =>
    part({ technique, settings: requireTechnique(technique).settings.parse({}), ...over })
  const of = (one: Part, over: Partial<Piece> = {}) => piece({ parts: [one], ...over })
  const after = (p: Piece, steps: readonly Step[]) => valueOf(applySteps(p, steps))

  it('is widened by as many columns as the stitch allows at once', () => {
    const wide = (technique: string, letters: string) => {
      const cells = rows(letters)
      return columnStepOf(stitch(technique, { start: cells, repeat: rows(letters, letters), end: cells }))
    }
    expect(wide('loom', 'AAA')).toBe(1)
    expect(wide('peyote', 'AAAA')).toBe(2)
    expect(wide('right-angle', 'AAA')).toBe(2)
    expect(wide('herringbone', 'AAAA')).toBe(2)
    // A braid has the strands that it has: no other count is allowed, so nothing is said but one.
    expect(wide('braid-8', 'AAAAAAAA')).toBe(1)
  })
  it('is never made narrower than one column, nor changed to what it is', () => {
    const p = of(stitch('loom', { start: rows('ABC'), repeat: rows('ABC'), end: rows('ABC') }))
    const [one] = p.parts as [Part]
    expect(widthSteps(one, 0, 1)).toEqual([])
    expect(widthSteps(one, -2, 1)).toEqual([])
    expect(widthSteps(one, 1, 1)).toHaveLength(1)
    expect(stitchSteps(p, one, 'loom', 1)).toEqual([])
    expect(specSteps(p, one, one.spec)).toEqual([])
  })
  it('of another size: the grid and the beads of the old size, and no other bead', () => {
    const tray = [bead(1), bead(2, { spec: 'round-8' })]
    const p = of(stitch('loom', { start: rows('AB'), repeat: rows('AB'), end: rows('AB') }), { tray })
    const next = after(p, specSteps(p, p.parts[0]!, 'round-11'))
    expect(next.parts[0]!.spec).toBe('round-11')
    expect(next.tray.map((b) => b.spec)).toEqual(['round-11', 'round-8'])
  })
  it('of beads becomes cords: one row of the first that is worked, as often as there were rows; and back', () => {
    const p = of(stitch('loom', { start: rows('AABB'), repeat: rows('ABAB', 'BBBB'), end: rows('BBAA'), times: 3 }), {
      tray: [bead(1), bead(2), bead(3, { spec: 'round-8' })],
    })
    const steps = stitchSteps(p, p.parts[0]!, 'braid-cord', 2)
    const cords = after(p, steps)
    const [braid] = cords.parts as [Part]
    expect(braid).toMatchObject({ technique: 'braid-cord', times: 8, spec: 'cord-2' })
    expect([braid.start.rows, braid.repeat.rows, braid.end.rows]).toEqual([0, 1, 0])
    // Strands that the grid has no column for are of the bead that was chosen.
    expect([...braid.repeat.blocks[0]!]).toEqual([1, 2, 1, 2, 2, 2, 2, 2])
    expect(cords.tray.map((b) => b.spec)).toEqual(['cord-2', 'cord-2', 'round-8'])
    const back = after(cords, stitchSteps(cords, braid, 'peyote', 1))
    expect(back.parts[0]).toMatchObject({ technique: 'peyote', times: 8, spec: 'cylinder-11' })
    expect([...back.parts[0]!.repeat.blocks[0]!]).toEqual([1, 2, 1, 2, 2, 2, 2, 2])
    expect(back.tray.map((b) => b.spec)).toEqual(['cylinder-11', 'cylinder-11', 'round-8'])
    // Nothing laid yet: every strand is of the bead that was chosen, and there is one round.
    const none = { start: cellsFrom(4, 0, []), repeat: cellsFrom(4, 0, []), end: cellsFrom(4, 0, []) }
    const bare = stitch('loom', { ...none, times: 0 })
    const empty = of(bare)
    const fresh = after(empty, stitchSteps(empty, bare, 'braid-cord', 2)).parts[0]!
    expect([fresh.times, ...fresh.repeat.blocks[0]!]).toEqual([1, 2, 2, 2, 2, 2, 2, 2, 2])
  })
  it('says what becomes of the pattern when it goes from beads to cords, and back', () => {
    const cords = stitch('braid-cord', { start: rows('AAAAAAAA'), repeat: rows('AAAAAAAA'), end: rows('AAAAAAAA') })
    const beads = stitch('loom', { start: rows('AAA'), repeat: rows('AAA'), end: rows('AAA') })
    expect(conversionNotes(beads, 'loom')).toEqual([])
    expect(conversionNotes(cords, 'loom')).toEqual(['Cords become beads: every row begins alike.'])
    expect(conversionNotes(beads, 'braid-cord')[0]).toMatch(/^Cords keep one colour from end to end/)
    expect(conversionNotes(beads, 'brick-tube').join(' ')).toContain('The first column will touch the last')
    const tube = stitch('brick-tube', { start: rows('AAAA'), repeat: rows('AAAA'), end: rows('AAAA') })
    expect(conversionNotes(tube, 'brick').join(' ')).toContain('The round is opened')
  })
  it('turned by a quarter: brick of odd rows becomes peyote of odd count; what cannot be turned is not', () => {
    const wall = (height: number, columns = 4) =>
      stitch('brick', {
        times: 1,
        start: cellsFrom(columns, 0, []),
        repeat: cellsFrom(columns, height, Array<number>(columns * height).fill(1)),
        end: cellsFrom(columns, 0, []),
      })
    const turned = (one: Part) => {
      const p = of(one)
      const steps = quarterTurnSteps(p, one)
      return steps && after(p, steps).parts[0]!
    }
    expect(turned(wall(5))!.technique).toBe('peyote-odd')
    expect(turned(wall(6))!.technique).toBe('peyote')
    expect(turned(wall(6))!.id).toBe('band-2')
    expect(columnsOf(turned(wall(500))!)).toBe(500)
    expect(turned(wall(502))).toBeNull()
    expect(turned(wall(0))).toBeNull()
    // Odd peyote needs three columns.
    expect(turned(wall(1))).toBeNull()
    const loomed = stitch('loom', { start: rows('AA'), repeat: rows('AA'), end: rows('AA') })
    expect(turned(loomed)).toBeNull()
    const rounds = stitch('brick-tube', { start: rows('AAAA'), repeat: rows('AAAA'), end: rows('AAAA') })
    expect(turned(rounds)).toBeNull()
  })
  it('a new part gets a number that is free; of beads where the tray has cords it brings a bead', () => {
    const p = of(stitch('loom', { start: rows('AB'), repeat: rows('AB'), end: rows('AB') }))
    const ids = [0, 1, 2].reduce((q) => after(q, addPartSteps(q, 'More', 'peyote', 'cylinder-11')), p)
    expect(ids.parts.map((q) => q.id)).toEqual(['band', 'part-2', 'part-3', 'part-4'])
    const gap = after(ids, removePartSteps(ids, 'part-3'))
    expect(after(gap, addPartSteps(gap, 'More', 'loom', 'cylinder-11')).parts.at(-1)!.id).toBe('part-3')
    const added = after(p, addPartSteps(p, 'More', 'right-angle', 'round-8')).parts[1]!
    expect([rowsOf(added), added.times, added.spec]).toEqual([20, 1, 'round-8'])
    const none = cellsFrom(8, 0, [])
    const braid = stitch('braid-cord', { spec: 'cord-2', start: none, repeat: rows('AAAAAAAA'), end: none })
    const cordPiece = of(braid, { tray: [bead(1, { spec: 'cord-2' })] })
    const beaded = after(cordPiece, addPartSteps(cordPiece, 'Tag', 'loom', 'cord-2'))
    expect(beaded.tray[1]).toMatchObject({ name: 'Bead', spec: 'cylinder-11', finish: 'opaque' })
    expect(beaded.parts[1]).toMatchObject({ spec: 'cylinder-11', times: 1 })
    expect(new Set(beaded.parts[1]!.repeat.blocks[0])).toEqual(new Set([beaded.tray[1]!.number]))
  })
  it('a part that is not there is not taken off; what is worked once is written out already', () => {
    const p = of(stitch('loom', { start: rows('AB'), repeat: rows('AB', 'BA'), end: rows('AB'), times: 1 }))
    const two = after(p, addPartSteps(p, 'More', 'loom', 'cylinder-11'))
    expect(removePartSteps(two, 'nobody')).toEqual([])
    expect(removePartSteps(two, 'band')).toHaveLength(1)
    expect(unrollSteps(p, p.parts[0]!)).toEqual([])
    const never = { ...p.parts[0]!, times: 0 }
    expect(unrollSteps({ ...p, parts: [never] }, never)).toEqual([])
    const thrice = { ...p.parts[0]!, times: 3 }
    const out = after({ ...p, parts: [thrice] }, unrollSteps({ ...p, parts: [thrice] }, thrice)).parts[0]!
    expect([out.times, out.repeat.rows]).toEqual([1, 6])
  })
  it('a grid from outside takes the place of a part, as one section, with what hung on it and the fit', () => {
    const band = stitch('loom', { start: rows('AB'), repeat: rows('AB'), end: rows('AB') })
    const on: Joint = { part: 'band', at: 'end', by: 'start', holes: [1, 2], link: null }
    const tab: Part = { ...band, id: 'tab', name: 'Tab', on }
    const p = piece({ parts: [tab, { ...band }] })
    const fitted = { ...p, fit: { ...p.fit, part: 'band' } }
    const grid = { columns: 1, rows: 3, numbers: [1, 2, 1] }
    const { steps, id } = replaceGridSteps(fitted, fitted.parts[1]!, grid)
    const next = after(fitted, steps)
    expect(next.parts.map((q) => q.id)).toEqual(['tab', id])
    expect(next.parts[1]).toMatchObject({ id, technique: 'loom', times: 1, name: 'Band', on: null })
    expect([...wholePart(next.parts[1]!)]).toEqual([1, 2, 1])
    expect(next.fit.part).toBe(id)
    // A bead that is no longer there lets go; the other still holds.
    expect(next.parts[0]!.on).toEqual({ ...on, part: id, holes: [1] })
  })
})
