import { describe, expect, it } from 'vitest'
import { part } from '../../tests/fixture/piece'
import { cellsFrom, emptyCells } from '../grid/cells'
import { requireTechnique } from '../technique/registry'
import { walked } from '../technique/braid/plan'
import { discMove, discMoves, nextBeads, pauseWords } from './disc'

const braid = (n: number, school: 'A' | 'B', rounds: number) => part({
  technique: `braid-${n}`, settings: requireTechnique(`braid-${n}`).settings.parse({ school }), spec: 'round-8', times: 1,
  start: emptyCells(n, 0), repeat: cellsFrom(n, rounds, Array.from({ length: n * rounds }, (_, k) => 1 + k % 3)), end: emptyCells(n, 0),
})

describe('moves on the disc', () => {
  it.each([[8, 'A'], [8, 'B'], [12, 'A'], [12, 'B'], [16, 'A'], [16, 'B']] as const)('%d strands, school %s: each is the one that a walk from the start makes, far into the braid', (n, school) => {
    const one = braid(n, school, 60)
    expect(discMoves(one)).toBe(60 * n)
    const laid = walked(requireTechnique(one.technique).braid!.plan(one.settings), 60 * n)
    for (let i = 0; i < 60 * n; i++) {
      const move = discMove(one, i)!
      expect([move.strand, move.from, move.to]).toEqual([laid[i]!.strand, laid[i]!.slot, laid[i]!.to])
      expect(move.number).toBe(1 + ((move.round - 1) * n + move.strand) % 3)
    }
    expect(discMove(one, 60 * n)).toBeNull()
    expect(discMove(one, -1)).toBeNull()
    expect(discMove(part(), 0)).toBeNull()
  })
  it('of eight strands turn the disc a quarter each step and the drift of two slots back, A one way and B the other', () => {
    expect([0, 1, 2, 4, 8].map(i => discMove(braid(8, 'A', 4), i)!.turn)).toEqual([0, 0, 90, 180, 382.5])
    expect(Math.abs(discMove(braid(8, 'B', 4), 2)!.turn)).toBe(90)
    expect(discMove(braid(8, 'B', 4), 2)!.turn).toBe(-90)
  })
  it('say where one stopped: A shows three strands at the top, B at the bottom', () => {
    expect(pauseWords(braid(8, 'A', 4), 5)).toContain('Three strands at the top')
    expect(pauseWords(braid(8, 'B', 4), 5)).toContain('Three strands at the bottom')
    expect(pauseWords(braid(8, 'A', 4), 6)).toContain('Two strands lie at every dot')
    expect(pauseWords(braid(8, 'A', 4), 32)).toContain('done')
    // and the disc bears it out: after the first move of a step three strands lie round slot 1
    const { disc } = discMove(braid(8, 'A', 4), 1)!
    expect(disc.strands.filter((s, i) => s >= 0 && [31, 32, 1, 2].includes(i + 1))).toHaveLength(3)
  })
  it('know the bead that comes next on every strand', () => {
    const one = braid(8, 'A', 2)
    const first = discMove(one, 0)!
    const before = nextBeads(one, 0)
    const after = nextBeads(one, 1)
    expect(before[first.strand]).toBe(first.number)
    for (let s = 0; s < 8; s++) expect(after[s]).toBe(s === first.strand ? 1 + (8 + s) % 3 : before[s])
    expect(nextBeads(one, 16)).toEqual(Array<number>(8).fill(0))
  })
})
