import { describe, expect, it } from 'vitest'
import { byMaking, canBecome, makingOf, MAKINGS } from './making'
import { requireTechnique, TECHNIQUES } from './registry'

describe('how things are made', () => {
  it('every technique belongs somewhere, and every group has some', () => {
    expect(new Set<string>(TECHNIQUES.map((t) => makingOf(t.id).id))).toEqual(new Set(MAKINGS.map((m) => m.id)))
    const title = (id: string) => makingOf(id).title
    expect(['loom', 'peyote-tube', 'braid-cord', 'coil', 'pins', 'rung-ladder'].map(title)).toEqual([
      'Woven bands',
      'Woven tubes',
      'Braids and ropes',
      'Braids and ropes',
      'Cords, pins and cuffs',
      'Chains',
    ])
  })
  it('groups keep every thing once, in the order in which it came, and are never empty', () => {
    const ids = ['coil', 'loom', 'braid-8', 'peyote', 'coil']
    expect(byMaking(ids, (id) => id).map((g) => [g.making.id, g.things])).toEqual([
      ['flat', ['loom', 'peyote']],
      ['braid', ['coil', 'braid-8', 'coil']],
    ])
    expect(byMaking([], (id) => id)).toEqual([])
  })
  it('is asked what can become of it: ribs a cuff and nothing else, ropes no ring, bands anything', () => {
    const becomes = (kind: Parameters<typeof canBecome>[1], ids: string[]) =>
      ids.filter((id) => canBecome(requireTechnique(id), kind))
    const some = ['peyote', 'peyote-tube', 'braid-8', 'coil', 'rung-ladder', 'cord-ladder', 'pins', 'cuff-ribs']
    expect(becomes('cuff', some)).toEqual(['peyote', 'cuff-ribs'])
    expect(becomes('ring', some)).toEqual(['peyote', 'pins'])
    expect(becomes('bracelet', some)).toEqual(some.slice(0, -1))
    expect(becomes('earrings', some)).toEqual(['peyote', 'peyote-tube', 'braid-8', 'coil', 'rung-ladder'])
  })
})
