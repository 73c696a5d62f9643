import { describe, expect, it } from 'vitest'
import { proofOf } from '../core/proof/proof'
import { RULES } from '../core/proof/rules'
import { shelfValueSchema, type Stock } from '../core/shelf/shelf'
import { DEMO_PIECES } from './pieces'
import { DEMO_HOLDINGS, DEMO_SHELF } from './shelf'

describe('the proofreader at the sample workshop', () => {
  const items = DEMO_SHELF.map((value) => shelfValueSchema.parse(value))
    .filter((value): value is Stock => value.kind === 'bead' || value.kind === 'thread' || value.kind === 'finding')
    .map((value, k) => ({ id: String(k), value }))
  const holdings = DEMO_HOLDINGS.map(({ piece, bead, grams }) => ({
    ...{ pieceId: piece, kind: 'reserved' as const, amount: grams },
    shelfId: items.find(({ value }) => value.name === bead)!.id,
  }))

  it('finds something by every rule, so that each can be seen in a piece', () => {
    const seen = new Set(
      DEMO_PIECES.flatMap((piece) => {
        const { open, quiet } = proofOf(piece, { box: { stock: { items, holdings }, pieceId: piece.name } })
        return [...open, ...quiet].map(({ rule }) => rule)
      }),
    )
    // What a technique finds itself goes by a code of its own.
    expect(RULES.map(({ id }) => id).filter((id) => id !== 'own' && !seen.has(id))).toEqual([])
    expect([...seen].filter((id) => !RULES.some((rule) => rule.id === id)).toSorted()).toEqual([
      ...['fringe-fans', 'holes-shared', 'odd-perhaps', 'ring-thick-seeds', 'row-doubled', 'row-missing'],
    ])
  })
})
