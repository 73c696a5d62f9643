import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, part, piece, rows } from '../../tests/fixture/piece'
import { valueOf } from '../problem'
import { BEAD_SPECS } from '../bead/spec'
import { TECHNIQUES } from '../technique/registry'
import { tallyPiece } from '../tally/tally'
import { checkPiece, pieceToBody } from './codec'
import { columnsOf, voidsOf } from './piece'
import { columnsWanted, specSteps, stitchSteps, widthSteps } from './recast'
import { applySteps, invertSteps } from './step'

describe('making it another way', () => {
  it('gives a sound piece that keeps its pattern, and can be taken back', () => {
    fc.assert(fc.property(anyPiece, fc.constantFrom(...TECHNIQUES.map(t => t.id)), fc.constantFrom(...BEAD_SPECS.map(s => s.id)), (p, technique, spec) => {
      for (const steps of [stitchSteps(p, p.parts[0]!, technique, 1), specSteps(p, p.parts[0]!, spec)]) {
        const next = valueOf(applySteps(p, steps))
        expect(checkPiece(next)).toEqual([])
        // Right-angle weave has no beads above its last edge, so cells there stop counting.
        const voids = voidsOf(p.parts[0]!).length + voidsOf(next.parts[0]!).length
        if (voids === 0 && columnsOf(next.parts[0]!) === columnsOf(p.parts[0]!)) expect([...tallyPiece(next)].sort()).toEqual([...tallyPiece(p)].sort())
        expect(pieceToBody(valueOf(applySteps(next, invertSteps(steps))))).toEqual(pieceToBody(p))
      }
    }))
  })
  it('widens and narrows at the right edge', () => {
    const p = piece({ parts: [part({ technique: 'loom', settings: {}, start: rows('ABC'), repeat: rows('ABC'), end: rows('ABC') })] })
    const wide = valueOf(applySteps(p, widthSteps(p.parts[0]!, 5, 2))).parts[0]!
    expect([...wide.start.blocks[0]!]).toEqual([1, 2, 3, 2, 2])
    expect([...valueOf(applySteps(p, widthSteps(p.parts[0]!, 2, 2))).parts[0]!.end.blocks[0]!]).toEqual([1, 2])
    expect(widthSteps(p.parts[0]!, 3, 1)).toEqual([])
  })
  it('an odd loomed band becomes an even peyote one', () => {
    const p = piece({ parts: [part({ technique: 'loom', settings: {}, start: rows('ABC'), repeat: rows('ABC'), end: rows('ABC') })] })
    const next = valueOf(applySteps(p, stitchSteps(p, p.parts[0]!, 'peyote', 1))).parts[0]!
    expect(columnsOf(next)).toBe(4)
    expect(next.settings).toEqual({ start: 'left', numbering: 'first-two' })
  })
  it('names the count nearest to a width (13 mm in cylinder 11/0 peyote: 10 of 1.3 mm)', () => {
    expect(columnsWanted(part(), 13)).toBe(10)
  })
})
