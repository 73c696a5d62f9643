import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hung } from '#core/piece/held'
import type { Part, Piece } from '#core/piece/piece'
import { sized } from '#core/piece/sizes'
import { applySteps } from '#core/piece/step'
import { valueOf } from '#core/problem'
import { meanStep, withMeant } from '#core/proof/meant'
import { proofOf } from '#core/proof/proof'
import { Reader, type Progress } from '#core/proof/reader'
import { SAMPLER } from '../../demo/sampler'
import { anyPiece } from '../fixture/piece'
import { anyWish, play } from '../fixture/step'

/** As a worker has it: parts that have changed are other values, and all else is made anew. */
const cloned = ({ parts, ...head }: Piece, sent: Map<Part, Part>): Piece => {
  const bare = ({ sizes: _sizes, held: _held, ...part }: Part): Part => structuredClone(part) as Part
  return hung(
    sized({
      ...structuredClone(head),
      parts: parts.map((part) => {
        const known = sent.get(part) ?? bare(part)
        sent.set(part, known)
        return known
      }),
    }),
  )
}

describe('reading again and again', () => {
  it('says what reading from scratch says, after any edits and when they are undone', () => {
    fc.assert(
      fc.property(anyPiece, fc.array(anyWish, { minLength: 1, maxLength: 3 }), (piece, wishes) => {
        const reader = new Reader()
        const sent = new Map<Part, Part>()
        const played = play(piece, wishes)
        const states = [piece, ...played.map(({ after }) => after), ...played.map(({ before }) => before).toReversed()]
        for (const state of states) expect(reader.read(cloned(state, sent))).toEqual(proofOf(state))
      }),
      // Chains are laid anew for every state: on a busy machine a few of them take long.
      { numRuns: 20, interruptAfterTimeLimit: 40_000 },
    )
  })

  it('says it of a piece of many parts, mend by mend, and what is meant so stays quiet', () => {
    const reader = new Reader()
    const sent = new Map<Part, Part>()
    let piece = SAMPLER
    for (let k = 0; k < 12; k++) {
      const now = reader.read(cloned(piece, sent))
      expect(now).toEqual(proofOf(piece))
      const wanted = now.open.filter(({ group }) => group !== 'safety')
      const next = wanted[(k * 7) % wanted.length]!
      const steps = next.mends[0]?.steps ?? [meanStep(piece, next, 'practice')]
      piece = valueOf(applySteps(piece, [...withMeant(piece, steps)]))
    }
  })

  it('asks only what has changed, and says how far it is', () => {
    const asked: Part[] = []
    const rule = {
      ...{ id: 'x', group: 'odd' as const, looksFor: 'What is asked.', alone: true as const },
      ofPart: (part: Part) => {
        asked.push(part)
        return [{ weight: 'note' as const, says: `${part.name} was asked.`, why: '' }]
      },
    }
    const reader = new Reader([rule])
    const told: Progress[] = []
    reader.read(SAMPLER, {}, (progress) => told.push(progress))
    expect(asked).toHaveLength(SAMPLER.parts.length)
    expect(told.map(({ done, of, part }) => [done, of, part])).toEqual(
      SAMPLER.parts.map(({ name }, k) => [k, SAMPLER.parts.length, name]),
    )
    const [band, ...rest] = SAMPLER.parts
    const changed = { ...SAMPLER, parts: [{ ...band!, name: 'Other' }, ...rest] }
    const before = asked.length
    expect(reader.read(changed).open.map(({ says }) => says)[0]).toBe('Other was asked.')
    expect(asked.slice(before).map(({ id }) => id)).toEqual([band!.id])
    // Another tray: all of them are asked.
    reader.read({ ...changed, tray: changed.tray.slice(1) })
    expect(asked.length).toBe(before + 1 + SAMPLER.parts.length)
  })
})
