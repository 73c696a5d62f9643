import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPieceOf, part, piece } from '../../tests/fixture/piece'
import { emptyCells } from '../grid/cells'
import { laidOf } from '../piece/laid'
import { columnsOf, numberAt, rowsOf, voidsOf, workOf, type Part } from '../piece/piece'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { pathOf } from './thread'
import { requireSpec } from '../bead/spec'

/**
 * A reckoner of its own for formulas as they are shown: words and units are passed over; numbers, + − × ÷ and brackets
 * are reckoned. A figure after “=” only repeats what stands before it in its bracket.
 */
function reckon(formula: string): number {
  const plain = formula
    .replace(/,\s*about$/, '')
    .replace(/=\s*[\d.]+/g, '')
    .replace(/[a-zåäö]+/gi, ' ')
  const tokens = plain.match(/[\d.]+|[+−×÷()]/g)!
  let at = 0
  const value = (): number => {
    if (tokens[at] === '(') {
      at++
      const inside = sum()
      at++
      return inside
    }
    return Number(tokens[at++])
  }
  const product = (): number => {
    let out = value()
    while (tokens[at] === '×' || tokens[at] === '÷') out = tokens[at++] === '×' ? out * value() : out / value()
    return out
  }
  const sum = (): number => {
    let out = product()
    while (tokens[at] === '+' || tokens[at] === '−') out = tokens[at++] === '+' ? out + product() : out - product()
    return out
  }
  return sum()
}

const sewn = TECHNIQUES.filter((t) => t.family === 'weave').map((t) => t.id)

describe('thread formulas', () => {
  it('give their value, of whole grids and of shaped work, in every stitch and the coil', () => {
    fc.assert(
      fc.property(anyPieceOf([...sewn, 'coil']), (p) => {
        const one = p.parts[0]!
        for (const run of pathOf(one).runs) {
          if (run.id === 'core') continue
          // Loomed warps name their count too.
          const shown = reckon(run.formula) / (run.id === 'warp' ? run.count : 1)
          // Figures are shown to the thousandth of a millimetre.
          const off = 0.0006 * Math.max(1, rowsOf(one) * columnsOf(one))
          if (run.lengthMm > 0 && rowsOf(laidOf(one).part) > 0)
            expect(Math.abs(shown - run.lengthMm), `${one.technique}: ${run.formula}`).toBeLessThanOrEqual(off + 1e-6)
        }
      }),
      { numRuns: 400 },
    )
  })
  it('of shaped work are the sum over its rows, walked bead by bead', () => {
    fc.assert(
      fc.property(
        anyPieceOf(['loom', 'square', 'brick', 'herringbone', 'ladder', 'peyote', 'peyote-odd', 'peyote-drop']),
        (p) => {
          const grid = p.parts[0]!
          const { part: one } = laidOf(grid)
          const technique = requireTechnique(one.technique)
          const { l, d } = requireSpec(one.spec)
          const work = workOf(one)
          let walked = 0
          for (let i = 0; i < technique.order.count(work); i++) {
            const held = [...technique.order.row(i, work).keys].map(
              (key) => numberAt(one, key % work.columns, Math.floor(key / work.columns)) !== 0,
            )
            const beads = held.filter(Boolean).length
            if (beads === 0) continue
            const span = held.lastIndexOf(true) - held.indexOf(true) + 1
            // craft formulas: what one row asks, for as much of the width as it fills
            walked +=
              {
                loom: 2 * (span * l + (span + 1) * 0.2) + 2 * d,
                square: beads * (3 * l + 2 * d),
                brick: beads * (2 * l + d),
                herringbone: span * d + d + (span / 2) * d,
                ladder: 2 * span * l + d,
              }[one.technique] ?? (i === 0 ? span : 2 * span) * l + d
          }
          expect(pathOf(grid).runs[0]!.lengthMm).toBeCloseTo(walked, 6)
        },
      ),
      { numRuns: 200 },
    )
  })
  it('of laced ladder count the openings: 30 inches of cord for 7 inches with two (common practice)', () => {
    const settings = requireTechnique('ladder').settings.parse({ cordMm: 1.5 })
    const rungs = Math.round((7 * 25.4) / 3)
    const one: Part = part({
      technique: 'ladder',
      settings,
      spec: 'round-8',
      start: emptyCells(1, 0),
      repeat: emptyCells(1, rungs, 1),
      end: emptyCells(1, 0),
      times: 1,
    })
    const cord = (kind: 'button' | 'toggle', openings: number) =>
      pathOf(one, {
        ...piece({ parts: [one] }),
        fit: { ...piece().fit, closure: { ...piece().fit.closure, kind, openings } },
      }).runs[1]!
    expect(Math.abs(cord('button', 2).lengthMm / 25.4 - 30)).toBeLessThan(0.5)
    expect(cord('button', 2).lengthMm - cord('button', 1).lengthMm).toBe(100)
    expect(cord('toggle', 1).formula).not.toContain('opening')
    expect(reckon(cord('button', 2).formula)).toBeCloseTo(cord('button', 2).lengthMm, 2)
  })
  it('of right-angle weave and netting count whole units and arcs that are begun', () => {
    const weave = (technique: string, columns: number, filled: (c: number, r: number) => boolean) => {
      const grid = emptyCells(columns, 5)
      const cells = {
        ...grid,
        blocks: [
          Uint16Array.from({ length: columns * 5 }, (_, k) => (filled(k % columns, Math.floor(k / columns)) ? 1 : 0)),
        ],
      }
      return part({
        technique,
        settings: requireTechnique(technique).settings.parse({}),
        start: emptyCells(columns, 0),
        repeat: cells,
        end: emptyCells(columns, 0),
        times: 1,
      })
    }
    // Three units across, four along; the last column of units lacks its right-hand uprights.
    expect(pathOf(weave('right-angle', 7, (c) => c < 6)).runs[0]!.formula).toContain('8 units')
    expect(pathOf(weave('right-angle', 7, () => true)).runs[0]!.formula).toContain('12 units')
    expect(pathOf(weave('netting', 10, (c, r) => c < 5 || r === 0)).runs[0]!.formula).toContain('6 arcs')
    expect(voidsOf(weave('right-angle', 7, () => true))).toHaveLength(4)
  })
})
