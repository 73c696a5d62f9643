import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hungPart } from '../../tests/fixture/joint'
import { bead } from '../../tests/fixture/piece'
import { rowPiece } from '../../tests/fixture/rows'
import { emptyCells } from '../grid/cells'
import { isInside, rowsOf, type Part } from '../piece/piece'
import { SIDES, type Joint } from '../piece/schema'
import { boxOfWhole, placedOf, viewBeside, wholeOf } from '../picture/whole'
import { screenPoint } from '../picture/view'
import { drawnSize } from '../piece/drawn-size'
import { centreOf } from '../piece/drawing'
import { chartStrips, chartSvg, paperScale, wholeSvg } from './chart-svg'

const made = (id: string, technique: string, on: Joint | null, columns: number, rows: number): Part =>
  hungPart(id, technique, on, { columns, rows })

/** Where the beads of each group lie on the paper, its transform worked out. */
function groupsOf(svg: string): { name: string; beads: { x: number; y: number }[] }[] {
  const groups = [
    ...svg.matchAll(
      /<g transform="translate\(([-\d.]+) ([-\d.]+)\)(?: rotate\((-?\d+)\))?"><title>([^<]*)<\/title>(.*?)<\/g>/gs,
    ),
  ]
  return groups.map(([, tx, ty, turn = '0', name, uses]) => {
    const angle = (Number(turn) * Math.PI) / 180
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
    return {
      name: name!,
      beads: [...uses!.matchAll(/<use href="#[^"]+" x="([-\d.]+)" y="([-\d.]+)"\/>/g)].map(([, x, y]) => ({
        x: Number(tx) + Number(x) * cos - Number(y) * sin,
        y: Number(ty) + Number(x) * sin + Number(y) * cos,
      })),
    }
  })
}

describe('all that hangs together as SVG', () => {
  it('has every bead where the mat shows it, whichever sides are joined', () => {
    const side = fc.constantFrom(...SIDES)
    fc.assert(
      fc.property(side, side, side, side, (at, by, at2, by2) => {
        const parts = [
          made('band', 'loom', null, 4, 5),
          made('b', 'brick', { part: 'band', at, by, holes: [], link: { kind: 'ring', mm: 3 } }, 3, 4),
          made('c', 'peyote', { part: 'b', at: at2, by: by2, holes: [], link: null }, 4, 3),
        ]
        const scale = 2
        const groups = groupsOf(wholeSvg(parts, parts[2]!, [bead(1)], { scale, ink: 'colour', title: 'All' }))
        expect(groups.map((g) => g.name)).toEqual(['band', 'b', 'c'])
        const whole = wholeOf(parts)
        const view = { lie: 'level', scale, x: 0, y: 0 } as const
        const box = boxOfWhole(whole, parts[0]!, view)
        parts.forEach((p, k) => {
          const own = viewBeside(placedOf(whole, parts[0]!), view, placedOf(whole, p))
          const beads: { x: number; y: number }[] = []
          for (let r = 0; r < rowsOf(p); r++)
            for (let c = 0; c < p.repeat.columns; c++) if (isInside(p, { c, r })) beads.push(screenPoint(p, own, c, r))
          expect(groups[k]!.beads).toHaveLength(beads.length)
          beads.forEach((b, n) => {
            expect(groups[k]!.beads[n]!.x).toBeCloseTo(b.x - box.x, 2)
            expect(groups[k]!.beads[n]!.y).toBeCloseTo(b.y - box.y, 2)
          })
        })
      }),
      { numRuns: 60 },
    )
  })
  it('draws a ring for a link, names its parts, and leaves places without a bead out', () => {
    const parts = [
      made('Top & tail', 'loom', null, 4, 5),
      {
        ...made(
          'drop',
          'loom',
          { part: 'Top & tail', at: 'end', by: 'start', holes: [1, 4], link: { kind: 'ring', mm: 3 } },
          3,
          4,
        ),
        repeat: emptyCells(3, 4, 0),
      },
    ]
    const svg = wholeSvg(parts, parts[0]!, [bead(1)], { scale: 1, ink: 'colour', title: 'A <b>' })
    expect(svg.match(/<circle cx=/g)).toHaveLength(2)
    expect(svg).toContain('<title>A &lt;b&gt;</title>')
    expect(svg).toContain('<title>Top &amp; tail</title>')
    expect(groupsOf(svg).map((g) => g.beads.length)).toEqual([20, 0])
  })
})

describe('a chart of lines that lie freely', () => {
  const comb = rowPiece(
    'cuff-ribs',
    ['hexagon-6-mm', 'round-11'],
    [
      [2, 1, 2, 1, 2],
      [2, 2, 2],
    ],
    {
      ...{ settings: { cuff: 20, shared: true, turns: 1 }, times: 6 },
    },
  )
  const ribs = comb.parts[0]!
  it('is so large that its smallest bead takes a letter, and no wider than it may be', () => {
    // A seed of 1.4 is drawn at 4.2; a cuff of 20 in no more than 50 mm, but at least so that 2.2 are left.
    expect(paperScale(ribs, 90)).toBeCloseTo(4.2 / 1.4, 6)
    expect(paperScale(ribs, 50)).toBeCloseTo(50 / drawnSize(ribs).width, 6)
    expect(paperScale(ribs, 5)).toBeCloseTo(2.2 / 1.4, 6)
  })
  it('is cut in strips of lines that fit, each once, in order', () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 200 }), fc.nat(11), fc.nat(11), (paper, a, b) => {
        const [from, to] = [Math.min(a, b), Math.max(a, b)]
        const strips = chartStrips(ribs, from, to, 2, paper)
        expect(strips.flatMap(([x, y]) => Array.from({ length: y - x }, (_, k) => x + k))).toEqual(
          Array.from({ length: to - from }, (_, k) => from + k),
        )
        for (const [x, y] of strips)
          if (y - x > 1) expect((centreOf(ribs, 0, y - 1).y - centreOf(ribs, 0, x).y) * 2).toBeLessThanOrEqual(paper)
      }),
    )
  })
  it('shows what carries a section too, cut off where its beads end', () => {
    const chart = (from: number, to: number) =>
      chartSvg(ribs, comb.tray, { lie: 'level', from, to, scale: 2, ink: 'colour', title: 'Ribs' })
    expect(chart(0, 12)).not.toContain('clipPath')
    const strip = chart(4, 6)
    expect(strip).toContain('clip-path="url(#cut)"')
    // A stretch of the cuff begins where the chart does: the bare cuff before it lies off the paper.
    const [, x] = /<polyline points="([-\d.]+),/.exec(strip)!
    expect(Number(x)).toBeLessThan(-20)
    // Of the beginning a little of the bare cuff is seen: ten of it are not.
    const [, first] = /<use href="#[^"]+" x="([-\d.]+)"/.exec(chart(0, 2))!
    const [, all] = /<use href="#[^"]+" x="([-\d.]+)"/.exec(chart(0, 12))!
    expect(Number(first)).toBeLessThan(Number(all) - 5)
  })
})
