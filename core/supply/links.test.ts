import { describe, expect, it } from 'vitest'
import { hungPart, joint } from '../../tests/fixture/joint'
import { piece } from '../../tests/fixture/piece'
import { linksNeeded } from './links'
import { shoppingList } from './shopping'
import { cutList, lengthsOf } from './thread'

describe('what joins parts is bought and cut', () => {
  const p = piece({
    parts: [
      hungPart('band', 'loom', null),
      hungPart('b', 'loom', joint({ holes: [1, 4], link: { kind: 'ring', mm: 5 } })),
      hungPart('c', 'loom', joint({ at: 'start', by: 'end', link: { kind: 'ring', mm: 5 } })),
      hungPart('d', 'loom', joint({ at: 'left', by: 'right', holes: [2, 3], link: { kind: 'chain', mm: 22.5 } })),
      hungPart('e', 'loom', joint({ at: 'right', by: 'left' })),
    ],
  })
  it('one for each bead that a part hangs at, all that are alike together', () => {
    expect(linksNeeded(p)).toEqual([
      { kind: 'ring', name: 'Jump rings for a gap of 5 mm', mm: 5, count: 3 },
      { kind: 'chain', name: 'Chain between parts, 22.5 mm', mm: 22.5, count: 2 },
    ])
    expect(linksNeeded(piece())).toEqual([])
  })
  it('chain is cut by its length, rings are wanted by their count, for all that are made', () => {
    const cut = cutList(p).filter((c) => c.material === 'chain')
    expect(cut).toMatchObject([{ pieces: 2, cutMm: 22.5, totalMm: 45, part: '', shopName: 'Chain' }])
    expect(lengthsOf(p, 3).find((l) => l.material === 'chain')).toMatchObject({ totalMm: 135, spareMm: 0 })
    const batch = { ...p, supply: { ...p.supply, batch: 3 } }
    const others = shoppingList([{ id: 'one', piece: batch }]).others
    expect(others.find((o) => o.name === 'Jump rings for a gap of 5 mm')).toMatchObject({ wanted: 9, unit: 'count' })
    expect(others.find((o) => o.name === 'Chain')).toMatchObject({ wanted: 135, unit: 'mm' })
  })
})
