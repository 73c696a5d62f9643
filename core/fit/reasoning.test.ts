import { describe, expect, it } from 'vitest'
import { part, piece, rows } from '../../tests/fixture/piece'
import type { Piece } from '../piece/piece'
import { fitSchema, type Fit, type Swatch } from '../piece/schema'
import { usualClosure } from '../wear/closure'
import { reasonLine, reasonsOf } from './reasoning'

/** 106 bead rows of peyote in cylinder 11/0, 106.5 × 1.6 = 170.4 mm long, four beads or 5.2 mm wide. */
const band = (over: Partial<Fit>, one: 'AAAA' | 'AAAAAA' = 'AAAA'): Piece =>
  piece({
    fit: fitSchema.parse({ kind: 'bracelet', bodyMm: 170, widthMm: 10, closure: usualClosure('toggle'), ...over }),
    parts: [part({ start: rows(one), repeat: rows(one, one), end: rows(one), times: 52 })],
  })
const said = (p: Piece) => Object.fromEntries(reasonsOf(p).map((r) => [r.id, reasonLine(r)]))

describe('the reasoning, line by line', () => {
  it('of wraps with a button that overlaps and has three openings', () => {
    const button = { ...usualClosure('button'), overlapMm: 9, openings: 3 }
    // 3 × (183 + π 1.6) = 564.08; − 12 + 9 − 16 ÷ 3; (170.4 + 12 − 9) ÷ 3 − π 1.6 = 52.77; + 16 ÷ 3
    expect(said(band({ easeMm: 13, wraps: 3, closure: button }))).toMatchObject({
      wanted: 'Inside wanted: wrist 170.0 mm + room 13.0 mm = 183.0 mm',
      centre: 'Through its middle: 3 × (183.0 mm + π × 1.6 mm), because it bends about its middle = 564.1 mm',
      target:
        'Beadwork wanted: 564.1 mm − 12.0 mm for button and loop + 9.0 mm that overlap − a third of the 16.0 mm it ' +
        'can be let out = 555.7 mm',
      finished: 'Inside, closed: (170.4 mm + 12.0 mm − 9.0 mm) ÷ 3 − π × 1.6 mm = 52.8 mm',
      reach: 'Let out: from 52.8 mm to 58.1 mm in 3 openings = 58.1 mm',
    })
  })
  it('of a chain: where it closes is what is wanted', () => {
    const lines = said(band({ easeMm: 13, closure: { ...usualClosure('toggle'), extenderMm: 50 } }))
    expect(lines.reach).toBe('Let out: from 179.4 mm to 229.4 mm along the chain = 183.0 mm')
    expect(lines.finished).toBe('Inside, closed: 170.4 mm + 14.0 mm − π × 1.6 mm = 179.4 mm')
    expect(said(band({})).reach).toBeUndefined()
  })
  it('of room: more, less, or none', () => {
    expect(said(band({})).wanted).toBe('Inside wanted: wrist 170.0 mm = 170.0 mm')
    const elastic = said(band({ easeMm: -2.5, closure: usualClosure('elastic') }))
    expect(elastic.wanted).toBe('Inside wanted: wrist 170.0 mm less 2.5 mm = 167.5 mm')
    // nothing is taken up and nothing laid over: no brackets, no terms
    expect(elastic.target).toBe('Beadwork wanted: 172.5 mm = 172.5 mm')
    expect(elastic.finished).toBe('Inside, closed: 170.4 mm − π × 1.6 mm = 165.4 mm')
    expect(said(band({ wraps: 2, closure: usualClosure('elastic') })).finished).toBe(
      'Inside, closed: 170.4 mm ÷ 2 − π × 1.6 mm = 80.2 mm',
    )
  })
  it('of what must be passed, where that is more than is worn', () => {
    const none = usualClosure('none')
    expect(said(band({ closure: none, passMm: 205 })).wanted).toBe(
      'Inside wanted: nothing opens, so it must pass hand at its widest: 205.0 mm = 205.0 mm',
    )
    expect(said(band({ closure: none, passMm: 400, wraps: 2, easeMm: 13 })).wanted).toBe(
      'Inside wanted: nothing opens, so it must pass hand at its widest: 400.0 mm ÷ 2 turns = 200.0 mm',
    )
    expect(said(band({ closure: none, passMm: 183, easeMm: 13 })).wanted).toBe(
      'Inside wanted: wrist 170.0 mm + room 13.0 mm = 183.0 mm',
    )
  })
  it('of what lies straight or stays open', () => {
    const necklace = said(band({ kind: 'necklace', bodyMm: 457.2, closure: usualClosure('hook') }))
    expect(necklace).toMatchObject({
      wanted: 'Length wanted: finished length 457.2 mm = 457.2 mm',
      target: 'Beadwork wanted: 457.2 mm − 11.0 mm for small hook or claw with ring = 446.2 mm',
      finished: 'Finished length: 170.4 mm + 11.0 mm = 181.4 mm',
    })
    expect(necklace.centre).toBeUndefined()
    const let3 = { ...usualClosure('hook'), extenderMm: 30 }
    expect(said(band({ kind: 'necklace', bodyMm: 457.2, closure: let3 })).target).toBe(
      'Beadwork wanted: 457.2 mm − 11.0 mm for small hook or claw with ring − a third of the 30.0 mm it can be let ' +
        'out = 436.2 mm',
    )
    expect(said(band({ kind: 'earrings', bodyMm: 40, closure: usualClosure('ear-wire') })).wanted).toBe(
      'Drop wanted: drop 40.0 mm = 40.0 mm',
    )
    const cuff = said(band({ kind: 'cuff', closure: usualClosure('none') }))
    expect(cuff.wanted).toBe('Band wanted: wrist 170.0 mm × 0.78; bent to a gap of 25 mm to 30 mm = 132.6 mm')
    expect(cuff.finished).toBe('Band: 170.4 mm = 170.4 mm')
    expect([cuff.centre, cuff.target]).toEqual([undefined, undefined])
  })
  it('of a ring that is wide', () => {
    const ring = { kind: 'ring', bodyMm: 54, closure: usualClosure('none') } as const
    expect(said(band(ring)).wanted).toBe('Inside wanted: finger 54.0 mm = 54.0 mm')
    expect(said(band(ring, 'AAAAAA')).wanted).toBe(
      'Inside wanted: finger 54.0 mm + half a size, 1.28 mm, because the band is wider than 6 mm = 55.3 mm',
    )
  })
  it('of how sure it is', () => {
    const swatch = (lengthMm: number): Swatch => ({ rows: 20, lengthMm, columns: 0, widthMm: 0, from: '' })
    const measured = (...swatches: Swatch[]) =>
      said({
        ...band({}),
        gauges: [{ technique: 'peyote', spec: 'cylinder-11', thread: 'gel-6', swatches }],
      }).gauge
    expect(said(band({})).gauge).toBe(
      'Give or take: beads and hands differ until you measure: ± 5 % of 170.4 mm; from 161.9 mm to 178.9 mm = 8.5 mm',
    )
    expect(measured(swatch(32))).toBe(
      'Give or take: one swatch in this stitch, bead and thread; so ± 2.5 % of 170.4 mm; from 166.1 mm to ' +
        '174.7 mm = 4.3 mm',
    )
    expect(measured(swatch(32), swatch(32))).toBe(
      'Give or take: 2 swatches in this stitch, bead and thread; so ± 1.0 % of 170.4 mm; from 168.7 mm to ' +
        '172.1 mm = 1.7 mm',
    )
  })
})
