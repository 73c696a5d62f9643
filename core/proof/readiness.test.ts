import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../tests/fixture/piece'
import { usualClosure } from '../wear/closure'
import { readinessOf } from './readiness'
import { unusedBeads } from './rule/unused'

describe('what wants a look', () => {
  it('is a band that will not close, an empty part, a bead that nobody uses', () => {
    expect(readinessOf(piece())).toMatchObject({ fit: 1, mat: 0, supplies: 0 })
    expect(readinessOf(piece({ parts: [part({ times: 52 })] })).fit).toBe(0)
    expect(
      readinessOf(piece({ parts: [part({ start: rows('....'), repeat: rows('....'), end: rows('....') })] })).mat,
    ).toBe(1)
    expect(unusedBeads(piece())).toEqual([3])
  })
  it('is an earring over 10 g (common practice: careful above)', () => {
    const heavy = piece({
      tray: [bead(1, { spec: 'round-6' }), bead(2, { spec: 'round-6' })],
      parts: [part({ spec: 'round-6', times: 20 })],
    })
    const drops = { ...heavy, fit: { ...heavy.fit, kind: 'earrings' as const, closure: usualClosure('ear-wire') } }
    // 8 × 20 + 8 = 168 beads, 14.5 to a gram: 11.6 g
    expect(readinessOf(drops).supplies).toBe(1)
    expect(readinessOf({ ...drops, parts: [{ ...drops.parts[0]!, times: 10 }] }).supplies).toBe(0)
  })
  it('is a hole too tight, in the work or at the ends', () => {
    const p = piece({
      tray: [bead(1, { spec: 'cylinder-15' }), bead(2, { spec: 'cylinder-15' })],
      parts: [part({ spec: 'cylinder-15', times: 50 })],
    })
    expect(readinessOf({ ...p, supply: { ...p.supply, needle: '10' } }).supplies).toBe(2)
    expect(readinessOf({ ...p, supply: { ...p.supply, needle: '15', thread: 'gel-4' } }).supplies).toBe(0)
    // Once, in how many parts it may be; another bead is another hole.
    const tight = { ...p, supply: { ...p.supply, needle: '10' as const } }
    const more = (spec: string) => ({
      ...tight,
      tray: [...tight.tray, bead(3, { spec })],
      parts: [...tight.parts, part({ id: 'two', name: 'Two', spec, times: 50, repeat: rows('CCCC') })],
    })
    expect(readinessOf(more('cylinder-15')).supplies).toBe(2)
    expect(readinessOf(more('round-15')).supplies).toBe(3)
  })
})
