import { describe, expect, it } from 'vitest'
import { DEMO_PIECES } from '../../demo/pieces'
import { addCrossSteps, changeCrossSteps, crossesOf, guidesOf, removeCrossSteps } from '../piece/wire'
import { applySteps, type Step } from '../piece/step'
import type { Piece } from '../piece/piece'
import { wireList } from '../supply/wire-list'
import type { Guide } from '../technique/wire-side'
import { guideSheetSvg, guideSvg } from './guide-svg'

const demo = (name: string): Piece => DEMO_PIECES.find((p) => p.name === name)!
const guide: Guide = {
  ...{ title: 'Bar & post', widthMm: 60, lengthMm: 12, says: ['Bend it.'] },
  lines: [
    {
      kind: 'wire',
      thickMm: 0.8,
      points: [
        { x: 0, y: 6 },
        { x: 60, y: 6 },
      ],
    },
  ],
  labels: [
    { x: 10, y: 9, says: '10 bend' },
    { x: 58, y: 9, says: '58 end of it' },
  ],
}

describe('bending guides', () => {
  it('are in true millimetres, with words that stay on the page', () => {
    const svg = guideSvg(guide)
    expect(svg).toMatch(/^<svg [^>]*width="61mm" height="13mm" viewBox="0 0 61 13"/)
    expect(svg).toContain('<title>Bar &amp; post</title>')
    expect(svg).toContain('points="0,6 60,6"')
    // What would run over the edge ends at its mark.
    expect(svg).toMatch(/x="58"[^>]*text-anchor="end">58 end of it/)
    expect(svg).not.toMatch(/x="10"[^>]*text-anchor/)
  })
  it('stand below each other on a sheet, under a bar of 50 mm', () => {
    const svg = guideSheetSvg([guide, guide], 'Two')
    expect(svg).toContain('M0 2v4M50 2v4M0 4h50')
    expect(svg.match(/points="0,6 60,6"/g)).toHaveLength(2)
    const heights = [...svg.matchAll(/translate\(0 ([\d.]+)\)/g)].map(([, y]) => Number(y))
    // A guide, its title, its sentence, and a line free.
    expect(heights[1]! - heights[0]!).toBe(12 + 3 * 5)
  })
  it('are shown once for all parts that are bent alike, what all share last', () => {
    const told = guidesOf(demo('Fernbrook front')).map(({ parts, guides }) => [
      parts.map(({ name }) => name).join(', '),
      guides.map(({ title }) => title).join(', '),
    ])
    expect(told).toEqual([
      ['Left small, Right small', 'Stem'],
      ['Left, Right', 'Stem'],
      ['Middle', 'Stem'],
      ['Left small, Left, Middle, Right, Right small', 'Loops'],
    ])
    // One part alone has its own in their order.
    expect(guidesOf(demo('Kite pair'))).toHaveLength(1)
  })
  it('every piece of the demo on wire has some, and no other', () => {
    for (const piece of DEMO_PIECES)
      expect(guidesOf(piece).length > 0, piece.name).toBe(
        piece.parts.some((p) => /^(wire-|wound-|tile-)/.test(p.technique)),
      )
  })
})

describe('wire to buy', () => {
  it('is listed by kind, with the spool that holds it; for so many', () => {
    const [frame, cross] = wireList(demo('Lamplight drops'), 2)
    expect(frame!.name).toBe('Wire, 20 gauge (0.81 mm), half hard')
    expect(frame!.cuts).toHaveLength(1)
    expect(frame!.totalMm).toBe(2 * frame!.cuts[0]!.cutMm)
    expect([frame!.spoolMm, frame!.spools]).toEqual([2000, 1])
    // Two wires for the lozenges, one for each of the others.
    expect(cross!.cuts.map(({ count }) => count)).toEqual([2, 2, 2, 2])
    const [many] = wireList(demo('Lamplight drops'), 400)
    expect(many!.spoolMm * many!.spools).toBeGreaterThanOrEqual(many!.totalMm)
    expect(many!.spoolMm * (many!.spools - 1)).toBeLessThan(many!.totalMm)
    expect(wireList(demo('Reed bank cuff'))).toEqual([])
  })
})

describe('wires across a frame', () => {
  const done = (piece: Piece, steps: readonly Step[]): Piece => {
    const made = applySteps(piece, [...steps])
    if (!made.ok) throw new Error(made.problems[0]!.says)
    return made.value
  }
  const of = (piece: Piece) => crossesOf(piece.parts[0]!)!.map(({ gap, filling }) => `${gap} ${filling}`)
  it('are placed, filled anew, put in where there is most room, and taken out', () => {
    const piece = demo('Lamplight drops')
    expect(of(piece)).toEqual(['9 straight', '15 hugged', '20 lozenges-2'])
    const moved = done(piece, changeCrossSteps(piece, piece.parts[0]!, 0, { gap: 7 }))
    expect(of(moved)[0]).toBe('7 straight')
    const filled = done(moved, changeCrossSteps(moved, moved.parts[0]!, 2, { filling: 'straight' }))
    expect(of(filled)[2]).toBe('20 straight')
    for (const { freeMm, longMm } of crossesOf(filled.parts[0]!)!) expect(longMm).toBeLessThanOrEqual(freeMm + 0.05)
    const more = done(filled, addCrossSteps(filled, filled.parts[0]!))
    expect(of(more)).toHaveLength(4)
    expect(new Set(of(more).map((text) => text.split(' ')[0])).size).toBe(4)
    expect(of(done(more, removeCrossSteps(more, more.parts[0]!, 0)))).toEqual(of(more).slice(1))
  })
  it('what has none has no such steps', () => {
    const piece = demo('Plumb line studs')
    expect(crossesOf(piece.parts[0]!)).toBeNull()
    expect(addCrossSteps(piece, piece.parts[0]!)).toEqual([])
  })
})
