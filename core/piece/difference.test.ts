import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../tests/fixture/piece'
import { anyWish, play } from '../../tests/fixture/step'
import { valueOf } from '../problem'
import { pieceToBody } from './codec'
import { stepsBetween } from './difference'
import { applySteps } from './step'

describe('steps between two states of a piece', () => {
  it('make the one into the other, whatever lies between', () => {
    let exchanged = 0
    fc.assert(
      fc.property(anyPiece, anyPiece, (from, to) => {
        const steps = stepsBetween(from, to)
        if (steps.some((s) => s.type === 'part' && s.value.id === 'stand-in')) exchanged++
        expect(pieceToBody(valueOf(applySteps(from, steps)))).toEqual(pieceToBody(to))
      }),
      { numRuns: 200 },
    )
    expect(exchanged).toBeGreaterThan(20)
  })
  it('are few where little was changed, and none where nothing was', () => {
    fc.assert(
      fc.property(anyPiece, fc.array(anyWish, { maxLength: 4 }), (from, wishes) => {
        const to = play(from, wishes).at(-1)?.after ?? from
        const steps = stepsBetween(from, to)
        expect(pieceToBody(valueOf(applySteps(from, steps)))).toEqual(pieceToBody(to))
        expect(stepsBetween(to, to)).toEqual([])
      }),
    )
  })
})
