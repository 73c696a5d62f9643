import { describe, expect, it } from 'vitest'
import { byMaking, makingOf, MAKINGS } from './making'
import { TECHNIQUES } from './registry'

describe('how things are made', () => {
  it('every technique belongs somewhere, and every group has some', () => {
    // What is strung waits for its first technique; a guest of the house stands in it (tests/law).
    const used = new Set<string>([...TECHNIQUES.map((t) => makingOf(t.id).id), 'strung'])
    expect(used).toEqual(new Set(MAKINGS.map((m) => m.id)))
    expect(['loom', 'peyote-tube', 'braid-cord', 'coil'].map((id) => makingOf(id).title)).toEqual([
      'Woven flat',
      'Woven round',
      'Braided',
      'Coiled',
    ])
  })
  it('groups keep every thing once, in the order in which it came, and are never empty', () => {
    const ids = ['coil', 'loom', 'braid-8', 'peyote', 'coil']
    expect(byMaking(ids, (id) => id).map((g) => [g.making.id, g.things])).toEqual([
      ['flat', ['loom', 'peyote']],
      ['braid', ['braid-8']],
      ['coil', ['coil', 'coil']],
    ])
    expect(byMaking([], (id) => id)).toEqual([])
  })
})
