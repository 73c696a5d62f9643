import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy, of } from '../../../tests/fixture/proof'
import { fitOf } from '../../fit/reckon'
import { emptyCells } from '../../grid/cells'
import { sized } from '../../piece/sizes'
import { usualClosure, type ClosureKind } from '../../wear/closure'
import { claspLight, claspNarrow, closes, heavy, laidAtAll } from './wear'

const none = (columns: number) => emptyCells(columns, 0)

describe('size', () => {
  it('is found where it will not close, and mended by as many repeats as it takes', () => {
    const short = piece()
    const [found] = foundBy(closes, short)
    expect(found).toMatchObject({ weight: 'stops', part: null })
    expect(found!.says).toContain('No, it will not close')
    expect(foundBy(closes, mendedBy(short, found!))).toEqual([])
  })
  it('says what it comes to, what is wanted, and the three nearest ways, each as long as it says', () => {
    const [found] = foundBy(closes, piece())
    expect(found!.says).toBe(
      'No, it will not close: the bracelet comes to 22.6 mm, 183 is wanted. ' +
        'Take one of these, or change the measure on Fit.',
    )
    expect(found!.mends.map((m) => m.label)).toEqual([
      'Work 54 repeats, closed by small hook or claw with ring: 182.8 mm',
      'Work 53 repeats: 182.6 mm',
      'Work 54 repeats and 2 rows fewer: 182.6 mm',
    ])
    expect(foundBy(closes, piece({ parts: [part({ times: 60 })] })).map((f) => f.weight)).toEqual(['looks'])
    expect(foundBy(closes, piece({ parts: [part({ times: 50 })] })).map((f) => f.weight)).toEqual(['looks'])
  })
  it('has ways of every kind, and each taken is as long as it says, and fits', () => {
    const ways = new Set<string>()
    const repeat = rows(...Array<string>(24).fill('ABBA'))
    const cord = { technique: 'braid-8', settings: {}, spec: 'round-8', start: none(8), end: none(8) }
    const shapes = [{ repeat }, { ...cord, repeat: rows(...Array<string>(20).fill('ABABABAB')) }]
    for (const shape of shapes)
      for (const bodyMm of [120, 150, 171, 183, 196, 260]) {
        const p = piece({ parts: [part({ ...shape, times: 1 })] })
        const wish = { ...p, fit: { ...p.fit, bodyMm } }
        for (const found of foundBy(closes, wish))
          for (const [k, { label }] of found.mends.entries()) {
            const [, what, mm] = /^Work (.*): ([\d.]+) mm$/.exec(label)!
            ways.add(
              what!
                .replaceAll(/\d+(\.\d+)?/g, 'n')
                .replace(/closed by .*/, 'closed')
                .replace(/in (round|cylinder).*/, 'in'),
            )
            const after = mendedBy(wish, found, k)
            expect(foundBy(closes, after)).toEqual([])
            expect(fitOf(sized(after)).atMm).toBeCloseTo(Number(mm), 1)
          }
      }
    expect([...ways].toSorted()).toEqual([
      ...['n repeat, n mm plain at each end', 'n repeat, with a chain of n mm', 'n repeats'],
      ...['n repeats and n rows fewer', 'n repeats and n rows more', 'n repeats in', 'n repeats, closed'],
      ...['n repeats, n mm plain at each end', 'n repeats, with a chain of n mm'],
    ])
  })
  it('says so where nothing near comes to it', () => {
    const long = piece({ parts: [linesPart('fringe', [of(30), of(60), of(30)])] })
    const fit = { ...long.fit, kind: 'earrings' as const, closure: usualClosure('ear-wire'), bodyMm: 20, easeMm: 0 }
    const [found] = foundBy(closes, { ...long, fit })
    expect([found!.weight, found!.mends]).toEqual(['looks', []])
    expect(found!.says).toMatch(
      /Nothing that is near comes to it: change how much is worked, or the measure on Fit\.$/,
    )
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
    expect(foundBy(heavy, drops(13))[0]!.says).toBe(
      'One earring weighs 7.7 g: 7 are comfortable, over 10 pull at the ear. Make it shorter or narrower, or take ' +
        'smaller beads.',
    )
    const { fit } = piece()
    expect(foundBy(heavy, { ...drops(20), fit })).toEqual([])
  })
  it('is what its closure holds: a breakaway about 40 g, a slide 90, and only a magnet gives way in wear', () => {
    const worn = (kind: ClosureKind, times: number) => {
      const p = drops(times)
      return foundBy(claspLight, {
        ...p,
        fit: { ...p.fit, kind: 'necklace' as const, bodyMm: 450, closure: usualClosure(kind) },
      })
    }
    // 14.5 to a gram: 8 × 44 + 8 are 24.8 g, 8 × 45 + 8 are 25.4.
    expect([worn('magnet', 44).length, worn('magnet', 45).map((f) => f.weight)]).toEqual([0, ['looks']])
    expect([worn('breakaway', 71).length, worn('breakaway', 72).map((f) => f.weight)]).toEqual([0, ['note']])
    expect([worn('slide', 162).length, worn('slide', 163).map((f) => f.weight)]).toEqual([0, ['note']])
    expect(worn('magnet', 45)[0]!.says).toMatch(
      / for 25\.4 g: such a closure holds about 25 g\. Take a toggle or a hook/,
    )
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
    // Cylinders 11/0 are 1.3 mm long and have warps between them: 16 come to 24 mm, 17 to more than 25.
    const widths = [14, 15, 16, 17, 18].filter((n) => foundBy(claspNarrow, band(n, 'hook')).length > 0)
    expect(widths[0]).toBe(17)
    expect(found!.says).toMatch(/on a band 3\d(\.\d)? mm wide: its corners gape/)
    expect(found!.mends.map((m) => m.label)).toEqual(['Take a slide-lock tube'])
    const hung = band(24, 'hook')
    expect(foundBy(claspNarrow, { ...hung, fit: { ...hung.fit, kind: 'pendant' } })).toEqual([])
  })
})
