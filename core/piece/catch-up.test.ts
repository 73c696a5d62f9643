import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, part, piece, rows } from '../../tests/fixture/piece'
import { anyWish, play } from '../../tests/fixture/step'
import { acknowledged, catchUp, goesThrough, stacked, type Ahead } from './catch-up'
import { pieceToBody } from './codec'
import { layingSteps, setStep } from './edit'
import { EMPTY_HISTORY } from './history'
import type { Piece } from './piece'
import { applySteps, type Step, type Transaction } from './step'
import { valueOf } from '../problem'

const plain = (p: Piece) => JSON.stringify(pieceToBody(p))
const aheadOf = (base: Piece, mine: Step[][]): Ahead => {
  const pending: Transaction[] = mine.map((steps, k) => ({ id: `mine-${k}-00000`, label: 'edit', steps }))
  return {
    revision: 5,
    head: 'there-5',
    base,
    pending,
    piece: valueOf(applySteps(base, mine.flat())),
    history: EMPTY_HISTORY,
  }
}

describe('catching up', () => {
  it('recognises its own steps that were saved though the answer was lost', () => {
    fc.assert(
      fc.property(anyPiece, fc.array(anyWish, { minLength: 1, maxLength: 4 }), fc.nat(), (base, wishes, some) => {
        const mine = play(base, wishes)
        if (mine.length === 0) return
        const ahead = aheadOf(
          base,
          mine.map((m) => m.steps),
        )
        const saved = 1 + (some % mine.length)
        const caught = valueOf(
          catchUp(
            ahead,
            ahead.pending.slice(0, saved).map((t, k) => ({ number: 6 + k, id: t.id, steps: t.steps })),
          ),
        )
        expect(caught.revision).toBe(5 + saved)
        expect(caught.pending).toEqual(ahead.pending.slice(saved))
        expect(plain(caught.piece)).toBe(plain(ahead.piece))
        expect(plain(caught.base)).toBe(plain(mine[saved - 1]!.after))
        expect(plain(valueOf(acknowledged(ahead, saved)).base)).toBe(plain(caught.base))
      }),
    )
  })
  it('puts the edits of others under its own: base + pending is what is shown', () => {
    let met = 0
    fc.assert(
      fc.property(
        anyPiece,
        fc.array(anyWish, { minLength: 1, maxLength: 3 }),
        fc.array(anyWish, { minLength: 1, maxLength: 3 }),
        (base, a, b) => {
          const mine = play(base, a)
          const theirs = play(base, b)
          const ahead = aheadOf(
            base,
            mine.map((m) => m.steps),
          )
          const caught = catchUp(
            ahead,
            theirs.map((t, k) => ({ number: 6 + k, id: `theirs-${k}-000`, steps: t.steps })),
          )
          if (!caught.ok) {
            expect(plain(ahead.piece)).toBe(plain(mine.at(-1)?.after ?? base))
            return
          }
          met++
          expect(plain(caught.value.base)).toBe(plain(theirs.at(-1)?.after ?? base))
          expect(
            plain(
              valueOf(
                applySteps(
                  caught.value.base,
                  caught.value.pending.flatMap((t) => t.steps),
                ),
              ),
            ),
          ).toBe(plain(caught.value.piece))
        },
      ),
      { numRuns: 300 },
    )
    expect(met).toBeGreaterThan(50)
  })
  it('two lots of unsent edits are both kept, one on the other, or are said to clash', () => {
    let kept = 0
    fc.assert(
      fc.property(
        anyPiece,
        fc.array(anyWish, { minLength: 1, maxLength: 3 }),
        fc.array(anyWish, { minLength: 1, maxLength: 3 }),
        (base, a, b) => {
          const one = aheadOf(
            base,
            play(base, a).map((m) => m.steps),
          )
          const other = {
            ...aheadOf(
              base,
              play(base, b).map((m) => m.steps),
            ),
          }
          const both = stacked(one, { ...other, pending: other.pending.map((t) => ({ ...t, id: `other-${t.id}` })) })
          if (!both.ok) return
          kept++
          expect(both.value.pending.slice(0, one.pending.length)).toEqual(one.pending)
          expect(
            plain(
              valueOf(
                applySteps(
                  base,
                  both.value.pending.flatMap((t) => t.steps),
                ),
              ),
            ),
          ).toBe(plain(both.value.piece))
        },
      ),
      { numRuns: 200 },
    )
    expect(kept).toBeGreaterThan(30)
  })
  it('two people in different places: both stand', () => {
    const base = piece({ parts: [part({ start: rows('AAAA', 'AAAA'), times: 1 })] })
    const mine = layingSteps(base.parts[0]!, new Map([[0, 3]]))
    const theirs = [...layingSteps(base.parts[0]!, new Map([[7, 2]])), setStep(base, ['name'], 'Renamed')]
    const caught = valueOf(catchUp(aheadOf(base, [mine]), [{ number: 6, id: 'theirs-0000', steps: theirs }]))
    expect(caught.piece.name).toBe('Renamed')
    expect([...caught.piece.parts[0]!.start.blocks[0]!]).toEqual([3, 1, 1, 1, 1, 1, 1, 2])
  })
  it('two people in the same place: neither is overwritten, a person is asked', () => {
    const base = piece()
    const mine = layingSteps(base.parts[0]!, new Map([[0, 3]]))
    const theirs = layingSteps(base.parts[0]!, new Map([[0, 2]]))
    const caught = catchUp(aheadOf(base, [mine]), [{ number: 6, id: 'theirs-0000', steps: theirs }])
    expect(caught.ok ? 'both' : caught.problems[0]!.code).toBe('edits-clash')
  })
  it('a line goes through every state of itself and no other; what is too long ago is not known', () => {
    fc.assert(
      fc.property(
        fc.array(fc.uuid(), { minLength: 1, maxLength: 30 }),
        fc.nat(),
        fc.nat(),
        fc.uuid(),
        (ids, at, seen, other) => {
          const line = ids.map((id, k) => ({ number: k + 1, id }))
          const now = { revision: ids.length, head: ids.at(-1)! }
          const made = line.slice(seen % (ids.length + 1))
          const revision = at % (ids.length + 1)
          const known = revision === 0 || revision === ids.length || made.some((m) => m.number === revision)
          expect(goesThrough({ revision, head: ids[revision - 1] ?? '' }, now, made)).toBe(known ? true : null)
          if (revision > 0) expect(goesThrough({ revision, head: other }, now, made)).toBe(known ? false : null)
          expect(goesThrough({ revision: ids.length + 1, head: now.head }, now, made)).toBe(false)
        },
      ),
    )
  })
})
