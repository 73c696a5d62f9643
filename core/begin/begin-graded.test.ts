import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checkPiece } from '../piece/codec'
import { drawnSize } from '../piece/drawn-size'
import type { Part } from '../piece/piece'
import { usualClosure } from '../wear/closure'
import { beginPiece } from './begin'
import { beginningsFor, GRADED } from './beginnings'

const front = (widthMm: number, bodyMm: number, hangsFrom = GRADED, kind: 'pendant' | 'earrings' = 'pendant') =>
  beginPiece({
    ...{ kind, name: 'Front', wearer: '', bodyMm, easeMm: 0, closure: usualClosure('own'), widthMm, hangsFrom },
    ...{ technique: 'wound-rows', spec: 'round-11', motif: 'plain', start: 'left' },
  })
const rowsOf = ({ settings }: Part) => settings['rows'] as number

describe('a front in graded sizes', () => {
  it('is offered for what hangs at the neck, and only where a technique is made in sets', () => {
    expect(beginningsFor('wound-rows', 'pendant').map(({ id }) => id)).toEqual(['alone', GRADED])
    expect(beginningsFor('wound-rows', 'earrings')).toEqual([])
    expect(beginningsFor('tile-ring', 'ring')).toEqual([])
    expect(front(130, 60, GRADED, 'earrings').parts).toHaveLength(1)
    expect(front(130, 60, 'alone').parts).toHaveLength(1)
  })

  it('is largest in the middle, alike from both sides, a row less with every step, and clear of each other', () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 300 }), fc.integer({ min: 15, max: 80 }), (widthMm, bodyMm) => {
        const piece = front(widthMm, bodyMm)
        const [chain, ...set] = piece.parts as [Part, ...Part[]]
        const middle = (set.length - 1) / 2
        expect(set[middle]!.id).toBe(piece.fit.part)
        const at = set.map((part) => part.on!.holes[0]!)
        set.forEach((part, k) => {
          expect(rowsOf(part)).toBe(rowsOf(set[middle]!) - Math.abs(k - middle))
          expect(at[k]! + at.at(-1 - k)!).toBe(2 * at[middle]!)
          // Every other link lies the same way.
          expect(Math.abs(at[k]! - at[middle]!) % 2).toBe(0)
          if (k > 0)
            expect((at[k]! - at[k - 1]!) * (chain.settings['pitch'] as number)).toBeGreaterThan(
              (drawnSize(part).width + drawnSize(set[k - 1]!).width) / 2,
            )
        })
        expect(checkPiece(piece)).toEqual([])
      }),
      { numRuns: 15 },
    )
  })

  it('has more of them the wider it is', () => {
    expect([40, 130, 200].map((mm) => front(mm, 60).parts.length)).toEqual([4, 6, 8])
  })
})
