import { describe, expect, it } from 'vitest'
import { bead, piece } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy, of } from '../../../tests/fixture/proof'
import { partRow } from '../../piece/piece'
import { oddLines } from './lines'

const TRAY = [1, 2, 3, 4].map((number) => bead(number))
const strung = (technique: string, lines: readonly (readonly number[])[]) =>
  piece({ tray: TRAY, parts: [linesPart(technique, lines)] })
const cycle = Array.from({ length: 8 }, () => [1, 1, 2, 3]).flat()

describe('beads that break what their list follows', () => {
  it('are named with what is expected there, and laid', () => {
    const one = strung('rung-ladder', [cycle.with(14, 4)])
    const [found, ...more] = foundBy(oddLines, one)
    expect(more).toEqual([])
    expect(found!.says).toMatch(
      /bead 15 is D where B is expected \(its 4 beads come again, 7 places like it\)\. Lay B there\.$/,
    )
    expect(found!.spots).toEqual([{ section: 'repeat', r: 0, c: 14 }])
    const mended = mendedBy(one, found!)
    expect([...partRow(mended.parts[0]!, 0)]).toEqual(cycle)
    expect(foundBy(oddLines, mended)).toEqual([])
    expect(foundBy(oddLines, strung('rung-ladder', [cycle]))).toEqual([])
  })
  it('on a frame from both sides: which of the two is right is asked, and either can be made so', () => {
    const half = [1, 1, 2, 1, 1, 3, 1, 1, 2, 1, 4, 1, 2, 1, 1, 3, 1, 2]
    const ring = [...half, ...half.toReversed()]
    const one = strung('wire-frame', [ring.with(5, 1)])
    const [found] = foundBy(oddLines, one)
    expect(found!.says).toBe(
      'Frame, bead 6 (A) and bead 31 (C) should be alike, as 17 pairs are from both ends; which is right? ' +
        'Make both so.',
    )
    expect(found!.mends.map(({ label }) => label)).toEqual(['Make both A', 'Make both C'])
    expect([...partRow(mendedBy(one, found!).parts[0]!, 0)]).toEqual(ring.with(5, 1).with(30, 1))
    const [, second] = found!.mends
    expect([...partRow(mendedBy(one, { ...found!, mends: [second!] }).parts[0]!, 0)]).toEqual(ring)
    expect(foundBy(oddLines, strung('wire-frame', [ring]))).toEqual([])
  })
  it('of a line that is not as its fellows all of them are laid', () => {
    const rungs = Array.from({ length: 9 }, () => [1, 2, 2, 3, 1])
    const one = strung('rung-ladder', rungs.with(2, [1, 2, 3, 2, 1]))
    const [found] = foundBy(oddLines, one)
    expect(found!.says).toMatch(
      /3 is not as the others \(8 \w+s like it\): beads 3 and 4 are C B, expected B C\. Lay these\.$/,
    )
    expect([...partRow(mendedBy(one, found!).parts[0]!, 2)]).toEqual(rungs[0])
    const turns = Array.from({ length: 16 }, (_, k) => [1, (k % 4) + 1, 1])
    const [single] = foundBy(oddLines, strung('rung-ladder', turns.with(5, [1, 4, 1])))
    expect(single!.says).toMatch(/every 4 \w+s they come again, 3 like it\). Lay B there/)
  })
  it('of another size are how it is made', () => {
    const one = strung('rung-ladder', [cycle.with(14, 4)])
    const other = { ...one, tray: one.tray.map((b) => (b.number === 4 ? { ...b, spec: 'round-8' } : b)) }
    expect(foundBy(oddLines, other)).toEqual([])
  })
  it('are left to the field where there is one', () => {
    expect(oddLines.needs!(linesPart('rung-ladder', [of(3)]), strung('rung-ladder', []))).toBe(true)
    expect(oddLines.needs!(piece().parts[0]!, piece())).toBe(false)
  })
})
