import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hungPart } from '../../tests/fixture/joint'
import { bead } from '../../tests/fixture/piece'
import { emptyCells } from '../grid/cells'
import { isInside, rowsOf, type Part } from '../piece/piece'
import { SIDES, type Joint } from '../piece/schema'
import { boxOfWhole, placedOf, viewBeside, wholeOf } from '../picture/whole'
import { screenPoint } from '../picture/view'
import { wholeSvg } from './chart-svg'

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
