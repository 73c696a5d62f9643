import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, mendedBy } from '../../../tests/fixture/proof'
import { usualClosure, type ClosureKind } from '../../wear/closure'
import { claspLight, claspNarrow, closes, heavy, laidAtAll } from './wear'

describe('size', () => {
  it('is found where it will not close, and mended by as many repeats as it takes', () => {
    const short = piece()
    const [found] = foundBy(closes, short)
    expect(found).toMatchObject({ weight: 'stops', part: null })
    expect(found!.says).toContain('No, it will not close')
    expect(foundBy(closes, mendedBy(short, found!))).toEqual([])
  })
  it('is left alone where it fits, and where nothing is laid', () => {
    expect(foundBy(closes, piece({ parts: [part({ times: 52 })] }))).toEqual([])
    const none = piece({ parts: [part({ start: rows('....'), repeat: rows('....'), end: rows('....') })] })
    expect(foundBy(closes, none)).toEqual([])
    expect(foundBy(laidAtAll, none).map((f) => f.weight)).toEqual(['stops'])
    expect(foundBy(laidAtAll, piece())).toEqual([])
    // Of several parts the empty one is taken out; the only one stays.
    expect(foundBy(laidAtAll, none)[0]!.mends).toEqual([])
    const two = { ...none, parts: [part(), { ...none.parts[0]!, id: 'spare' }] }
    const [found, ...more] = foundBy(laidAtAll, two)
    expect(more).toEqual([])
    expect(mendedBy(two, found!).parts.map(({ id }) => id)).toEqual(['band'])
  })
})

describe('weight', () => {
  const drops = (times: number) => {
    const p = piece({
      tray: [bead(1, { spec: 'round-6' }), bead(2, { spec: 'round-6' })],
      parts: [part({ spec: 'round-6', times })],
    })
    return { ...p, fit: { ...p.fit, kind: 'earrings' as const, closure: usualClosure('ear-wire') } }
  }
  it('of an earring is worth knowing over 7 g and wrong over 10 (common practice)', () => {
    // 8 × times + 8 beads, 14.5 to a gram.
    expect([10, 13, 20].map((n) => foundBy(heavy, drops(n)).map((f) => f.weight))).toEqual([[], ['note'], ['looks']])
  })
  it('of a necklace is more than a small magnet holds', () => {
    const closed = (kind: ClosureKind, times: number) => {
      const p = piece({
        tray: [bead(1, { spec: 'round-6' }), bead(2, { spec: 'round-6' })],
        parts: [part({ spec: 'round-6', times })],
      })
      return { ...p, fit: { ...p.fit, kind: 'necklace' as const, bodyMm: 450, closure: usualClosure(kind) } }
    }
    const [found] = foundBy(claspLight, closed('magnet', 60))
    expect(found).toMatchObject({ weight: 'looks' })
    expect(mendedBy(closed('magnet', 60), found!).fit.closure.kind).toBe('toggle')
    expect(foundBy(claspLight, closed('magnet', 20))).toEqual([])
    expect(foundBy(claspLight, closed('toggle', 60))).toEqual([])
  })
})

describe('a closure', () => {
  const band = (columns: number, kind: ClosureKind) => {
    const row = (ch: string) => rows(ch.repeat(columns))
    const p = piece({
      parts: [part({ technique: 'loom', settings: {}, start: row('A'), repeat: row('B'), end: row('A'), times: 60 })],
    })
    return { ...p, fit: { ...p.fit, closure: usualClosure(kind) } }
  }
  it('is too thin for a wide band where it is sewn on at one point', () => {
    const [found] = foundBy(claspNarrow, band(24, 'toggle'))
    expect(found!.says).toContain('its corners gape')
    expect(foundBy(claspNarrow, mendedBy(band(24, 'toggle'), found!))).toEqual([])
    expect(foundBy(claspNarrow, band(8, 'toggle'))).toEqual([])
    expect(foundBy(claspNarrow, band(24, 'slide'))).toEqual([])
  })
})
