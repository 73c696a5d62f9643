import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, piece, rows } from '../../tests/fixture/piece'
import { valueOf } from '../problem'
import type { TrayBead } from '../bead/bead'
import { linesOf } from '../grid/lines'
import { SECTIONS, type Part } from './piece'
import { LIMITS } from './schema'
import { applySteps, invertSteps } from './step'
import { addBeadsSteps, clearUnusedSteps, moveBeadSteps } from './tray'

const wholeCells = (p: Part) => SECTIONS.flatMap((name) => linesOf(p[name]).flatMap((line) => [...line]))

describe('the tray', () => {
  it('in another order holds the same beads, and the pattern stays', () => {
    fc.assert(
      fc.property(anyPiece, fc.nat(2), fc.nat(2), (p, from, to) => {
        const next = valueOf(applySteps(p, moveBeadSteps(p, from, to)))
        expect(next.tray[to]).toEqual(p.tray[from])
        expect(new Set(next.tray)).toEqual(new Set(p.tray))
        expect(next.parts).toEqual(p.parts)
      }),
    )
  })
  it('cleared holds only what is used, or one bead; taken back it is as before', () => {
    fc.assert(
      fc.property(anyPiece, (p) => {
        const steps = clearUnusedSteps(p)
        const next = valueOf(applySteps(p, steps))
        expect(next.tray.length).toBeGreaterThanOrEqual(1)
        const held = (b: TrayBead) => p.parts.some((q) => wholeCells(q).includes(b.number))
        expect(next.tray).toEqual(p.tray.some(held) ? p.tray.filter(held) : p.tray.slice(0, 1))
        expect(valueOf(applySteps(next, invertSteps(steps))).tray).toEqual(p.tray)
      }),
    )
  })
  it('takes the beads of a palette once, as many as it holds', () => {
    const p = piece({
      tray: [bead(1, { colour: '#101010', finish: 'matte' })],
      parts: [part({ start: rows('AAAA'), repeat: rows('AAAA'), end: rows('AAAA') })],
    })
    const look = (n: number) => ({
      name: `Look ${n}`,
      colour: `#1010${n.toString(16).padStart(2, '0')}`,
      finish: 'matte' as const,
      spec: 'cylinder-11',
    })
    const { steps, left } = addBeadsSteps(p, [look(16), look(17), look(17), look(18)])
    expect([valueOf(applySteps(p, steps)).tray.map((b) => b.name), left]).toEqual([
      ['Bead 1', 'Look 17', 'Look 18'],
      0,
    ])
    const many = Array.from({ length: 220 }, (_, n) => ({
      ...look(n),
      colour: `#20${n.toString(16).padStart(4, '0')}`,
    }))
    expect(addBeadsSteps(p, many)).toMatchObject({ left: 221 - LIMITS.tray })
  })
})
