import { describe, expect, it } from 'vitest'
import type { Piece } from '../core/piece/piece'
import { applySteps, type Step } from '../core/piece/step'
import { checkPiece } from '../core/piece/codec'
import { valueOf } from '../core/problem'
import { meanStep, withMeant } from '../core/proof/meant'
import { proofOf } from '../core/proof/proof'
import { SAMPLER } from './sampler'

const does = (piece: Piece, steps: readonly Step[]): Piece => valueOf(applySteps(piece, [...withMeant(piece, steps)]))
const open = (piece: Piece) => proofOf(piece).open.filter((f) => f.group !== 'safety')

describe('the apprentice’s sampler', () => {
  it('shows a mistake of nearly every kind', () => {
    expect(checkPiece(SAMPLER)).toEqual([])
    expect([...new Set(open(SAMPLER).map((f) => f.rule))].toSorted()).toEqual([
      ...['cap-narrow', 'clasp-light', 'clasp-narrow', 'cycle-open', 'drops-both-ways', 'edge-breaks', 'face-down'],
      ...[
        'fit',
        'gap-crossed',
        'glyphs-alike',
        'halves-differ',
        'hole-full',
        'line-odd',
        'neighbours-alike',
        'not-reached',
      ],
      ...[
        'odd',
        'pair-differs',
        'part-empty',
        'repeat-open',
        'round-open',
        'row-doubled',
        'row-missing',
        'second-hole',
      ],
      ...['series-breaks', 'sharp-turn', 'tray-twins', 'tray-unused', 'turn-doubled'],
    ])
  })

  it('is mended to nothing found: by its mends, and by what is meant so', () => {
    let piece = SAMPLER
    for (let k = 0; k < 60; k++) {
      const next = open(piece).find((f) => f.mends.length > 0)
      if (!next) break
      piece = does(piece, next.mends[0]!.steps)
    }
    const left = open(piece)
    expect(left.map((f) => f.rule).toSorted()).toEqual(['drops-both-ways', 'face-down', 'sharp-turn'])
    for (const one of left) piece = does(piece, [meanStep(piece, one, 'practice')])
    expect(open(piece)).toEqual([])
    expect(proofOf(piece).quiet).toHaveLength(left.length)
  })

  it('says what is wrong, where and what to do, and calls nothing an error', () => {
    for (const f of proofOf(SAMPLER).open) {
      expect(f.says).not.toMatch(/error|invalid|undefined|NaN/i)
      expect(f.says.length).toBeGreaterThan(30)
      expect(f.says).toMatch(/[.?]$/)
    }
  })
})
