import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, anyPieceOf, part, piece, rows } from '../../tests/fixture/piece'
import { cellsFrom } from '../grid/cells'
import { latticeOf } from './lattice'
import { neighbourOffsets } from '../technique/lattice'
import { valueOf } from '../problem'
import { BEAD_SPECS } from '../bead/spec'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { tallyPiece } from '../tally/tally'
import { checkPiece, partToFile, pieceToBody } from './codec'
import { columnsOf, numberAt, rowsOf, voidsOf, wholePart, type Part } from './piece'
import {
  addPartSteps,
  columnsWanted,
  conversionNotes,
  quarterTurnSteps,
  removePartSteps,
  specSteps,
  stitchSteps,
  unrollSteps,
  widthSteps,
} from './recast'
import { isCordWork, strandCords } from '../tally/cords'
import { applySteps, invertSteps } from './step'

describe('making it another way', () => {
  it('gives a sound piece that keeps its pattern, and can be taken back', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.constantFrom(...TECHNIQUES.map((t) => t.id)),
        fc.constantFrom(...BEAD_SPECS.map((s) => s.id)),
        (p, technique, spec) => {
          for (const steps of [stitchSteps(p, p.parts[0]!, technique, 1), specSteps(p, p.parts[0]!, spec)]) {
            const next = valueOf(applySteps(p, steps))
            expect(checkPiece(next)).toEqual([])
            // Right-angle weave has no beads above its last edge, so cells there stop counting.
            const voids = voidsOf(p.parts[0]!).length + voidsOf(next.parts[0]!).length
            if (
              voids === 0 &&
              [p, next].every((q) => !isCordWork(q.parts[0]!)) &&
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
