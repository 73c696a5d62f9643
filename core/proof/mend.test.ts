import { describe, expect, it } from 'vitest'
import { bead, part, piece } from '../../tests/fixture/piece'
import { cellsFrom, emptyCells } from '../grid/cells'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { countsChanged, mendAllSteps, mended } from './mend'
import { proofOf } from './proof'

const crowded = piece({ tray: [bead(1), bead(2), bead(3), bead(4)], parts: [part({ times: 52 })] })

describe('mends', () => {
  it('of one kind are taken at once, each on what the other left', () => {
    const of = (rule: string) => proofOf(crowded).open.filter((f) => f.rule === rule).length
    expect(of('tray-unused')).toBe(2)
    const { steps, count } = mendAllSteps(crowded, 'tray-unused')
    expect(count).toBe(2)
    const after = valueOf(applySteps(crowded, [...steps]))
    expect(after.tray.map((b) => b.number)).toEqual([1, 2])
    expect(mendAllSteps(after, 'tray-unused')).toEqual({ steps: [], count: 0 })
  })
  it('are taken in every part, though the sentence is the same', () => {
    const flat = Array.from({ length: 12 * 40 }, (_, k) => {
      const [c, r] = [k % 12, Math.floor(k / 12)]
      const right = 1 + Math.floor((Math.abs(c - 5.5) + Math.abs((r % 10) - 4.5)) / 2.5)
      return c === 6 && r === 14 ? 4 : right
    })
    const none = emptyCells(12, 0)
    const band = { technique: 'loom', settings: {}, times: 1, start: none, end: none, repeat: cellsFrom(12, 40, flat) }
    const tray = [1, 2, 3, 4, 5].map((n) => bead(n))
    const two = piece({ tray, parts: [part({ ...band, id: 'one' }), part({ ...band, id: 'two' })] })
    const { steps, count } = mendAllSteps(two, 'odd')
    expect(count).toBe(2)
    expect(proofOf(valueOf(applySteps(two, [...steps]))).open.filter((f) => f.rule === 'odd')).toEqual([])
  })
  it('say which counts change', () => {
    const short = piece()
    const fit = proofOf(short).open.find((f) => f.rule === 'fit')!
    const after = valueOf(mended(short, fit.mends[0]!.steps))
    const changed = countsChanged(short, after)
    expect(changed.map((c) => c.bead.letter)).toEqual(['A', 'B'])
    expect(changed.every((c) => c.after > c.before)).toBe(true)
    expect(countsChanged(short, short)).toEqual([])
  })
})
