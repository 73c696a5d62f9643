import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANY_IDS, anyPieceOf, bead, part } from '../../tests/fixture/piece'
import { bookletLayout, placeOnPage } from '../format/booklet'
import { chartSvg } from '../format/chart-svg'
import { cellsFrom, emptyCells } from '../grid/cells'
import { sampleCells } from '../image/sample'
import { signRows } from '../pattern/letters'
import { letteringIn } from '../pattern/lettering'
import { latticeOf } from '../piece/drawing'
import { columnsOf, rowsOf, voidsOf, type Part } from '../piece/piece'
import type { Point } from '../technique/lattice'
import { TECHNIQUES } from '../technique/registry'
import { paint } from './raster'
import { makeSprites } from './sprite'
import { arrowNote, flipOf, screenPoint, sizeOnScreen, type Lie, type View } from './view'

const ground = { r: 207, g: 198, b: 184 }
const tray = [
  bead(1, { colour: '#101010', finish: 'matte' }),
  bead(2, { colour: '#c03020', finish: 'matte' }),
  bead(3, { colour: '#2030c0', finish: 'matte' }),
]

/** A quarter turn counter-clockwise on a screen whose y runs down: what lay to the right lies up. */
const quarter = ({ x, y }: Point): Point => ({ x: y, y: 0 - x })

/** Places as steps from the first, so that only how they lie to one another counts. */
const fromFirst = (points: readonly Point[]): Point[] =>
  points.map((p) => ({ x: p.x - points[0]!.x, y: p.y - points[0]!.y }))

function expectSame(turned: readonly Point[], points: readonly Point[], digits: number) {
  const [a, b] = [fromFirst(turned), fromFirst(points)]
  a.forEach((p, k) => {
    expect(p.x).toBeCloseTo(b[k]!.x, digits)
    expect(p.y).toBeCloseTo(b[k]!.y, digits)
  })
}

function placesOfPart(p: Part): { c: number; r: number }[] {
  const voids = new Set(voidsOf(p))
  return Array.from({ length: columnsOf(p) * rowsOf(p) }, (_, k) => k)
    .filter((k) => !voids.has(k))
    .map((k) => ({ c: k % columnsOf(p), r: Math.floor(k / columnsOf(p)) }))
}

/** Middles of the beads of a chart, in the order of its rows. */
const usesIn = (svg: string): Point[] =>
  [...svg.matchAll(/<use href="#[^"]+" x="([-\d.]+)" y="([-\d.]+)"/g)].map(([, x, y]) => ({
    x: Number(x),
    y: Number(y),
  }))

describe('level and upright are one work', () => {
  const any = anyPieceOf(ANY_IDS)
    .map((p) => p.parts[0]!)
    .filter((p) => placesOfPart(p).length > 1)
  it(
    'upright is level turned a quarter counter-clockwise: screen, chart and booklet, every stitch, braid and ' +
      'coil',
    () => {
      fc.assert(
        fc.property(any, (p) => {
          const places = placesOfPart(p)
          const seen = (lie: Lie) => places.map(({ c, r }) => screenPoint(p, { lie, scale: 3, x: 7, y: 9 }, c, r))
          expectSame(seen('level').map(quarter), seen('upright'), 6)
          const charted = (lie: Lie) => usesIn(chartSvg(p, tray, { lie, scale: 2, ink: 'colour', title: 'x' }))
          expectSame(charted('level').map(quarter), charted('upright'), 2)
          expectSame(
            charted('level').map(({ x, y }) => ({ x: x * 1.5, y: y * 1.5 })),
            seen('level'),
            2,
          )
          // A page of the booklet is upright too, drawn larger.
          const layout = bookletLayout(p, { widthMm: 9000, heightMm: 9000 })
          const at = placeOnPage(p, layout, layout.tiles[0]!)
          expectSame(
            places
              .map(({ c, r }) => at(c, r))
              .map(({ x, y }) => ({ x: (3 * x) / layout.scale, y: (3 * y) / layout.scale })),
            seen('upright'),
            6,
          )
        }),
        { numRuns: 200 },
      )
    },
  )
  it('turned by half it is the same work; from the wrong side it is the mirror image', () => {
    fc.assert(
      fc.property(any, fc.constantFrom<Lie>('level', 'upright'), (p, lie) => {
        const seen = (wrongSide: boolean, turned: boolean) =>
          placesOfPart(p).map(({ c, r }) =>
            screenPoint(p, { lie, scale: 3, x: 0, y: 0, flip: flipOf({ wrongSide, turned }) }, c, r),
          )
        expectSame(seen(false, true).map(quarter).map(quarter), seen(false, false), 6)
        expectSame(
          seen(true, false).map(({ x, y }) => (lie === 'level' ? { x, y: -y } : { x: -x, y })),
          seen(false, false),
          6,
        )
        expectSame(seen(true, true).map(quarter).map(quarter), seen(true, false), 6)
      }),
    )
  })
  it('row 1 lies at the left or at the bottom, column 1 at the top or at the left', () => {
    const p = part()
    const at = (lie: Lie, c: number, r: number) => screenPoint(p, { lie, scale: 1, x: 0, y: 0 }, c, r)
    expect(at('level', 0, 0).x).toBeLessThan(at('level', 0, 5).x)
    expect(at('level', 0, 0).y).toBeLessThan(at('level', 2, 0).y)
    expect(at('upright', 0, 0).y).toBeGreaterThan(at('upright', 0, 5).y)
    expect(at('upright', 0, 0).x).toBeLessThan(at('upright', 2, 0).x)
  })
  it('leaning and pointed beads turn with the work, pixel by pixel', () => {
    const shapes = (p: Part, lie: Lie) => {
      const own = tray.map((t) => ({ ...t, spec: p.spec }))
      const size = sizeOnScreen(p, { lie, scale: 16 })
      const [width, height] = [Math.round(size.width), Math.round(size.height)]
      const surface = { width, height, pixels: new Int32Array(width * height) }
      const view: View = { lie, scale: 16, x: 0, y: 0 }
      paint(surface, { x: 0, y: 0, width, height }, p, view, makeSprites(own, 16, { ground, glyphs: false, nap: 0 }))
      // What is red, blue or neither: light falls from above either way.
      return {
        width,
        height,
        at: (x: number, y: number) => {
          const v = surface.pixels[y * width + x]!
          const [r, b] = [v & 255, (v >> 16) & 255]
          return r > b + 30 ? 2 : b > r + 30 ? 3 : 0
        },
      }
    }
    const shares: Record<string, number> = {}
    for (const [technique, spec] of [
      ['herringbone', 'cylinder-11'],
      ['netting', 'cylinder-11'],
      ['braid-8', 'round-8'],
      ['coil', 'round-8'],
      ['loom', 'triangle-6-mm'],
      ['brick', 'cylinder-11'],
    ] as const) {
      const columns = technique === 'netting' ? 5 : technique === 'loom' ? 2 : 8
      const grid = cellsFrom(
        columns,
        4,
        Array.from({ length: 4 * columns }, (_, k) => ((k * 7) % 5 < 2 ? 2 : 3)),
      )
      const p = part({
        technique,
        spec,
        settings: TECHNIQUES.find((t) => t.id === technique)!.settings.parse({}),
        start: emptyCells(columns, 0),
        repeat: grid,
        end: emptyCells(columns, 0),
        times: 1,
      })
      const [level, upright] = [shapes(p, 'level'), shapes(p, 'upright')]
      expect([upright.width, upright.height]).toEqual([level.height, level.width])
      let [same, all] = [0, 0]
      for (let y = 0; y < level.height; y++) {
        for (let x = 0; x < level.width; x++) {
          const [a, b] = [level.at(x, y), upright.at(y, level.width - 1 - x)]
          if (a === 0 && b === 0) continue
          all++
          if (a === b) same++
        }
      }
      shares[technique] = same / all
    }
    // Where beads overlap, another of two may lie on top.
    for (const [technique, share] of Object.entries(shares))
      expect(share, technique).toBeGreaterThan(technique === 'netting' ? 0.9 : 0.96)
  })
})

describe('what is laid by rule stands upright', () => {
  const blank = part({
    technique: 'loom',
    settings: TECHNIQUES.find((t) => t.id === 'loom')!.settings.parse({}),
    start: emptyCells(20, 0),
    repeat: emptyCells(20, 20, 1),
    end: emptyCells(20, 0),
    times: 1,
  })
  const box = { c: 0, r: 0, columns: 20, rows: 20 }
  /** Ink as it is seen: a line of signs for each level of the screen, from the top. */
  const seen = (p: Part, lie: Lie, laid: ReadonlySet<number>) => {
    const points = placesOfPart(p)
      .map(({ c, r }) => ({
        ...screenPoint(p, { lie, scale: 10, x: 0, y: 0 }, c, r),
        ink: laid.has(r * columnsOf(p) + c),
      }))
      .sort((a, b) => a.y - b.y || a.x - b.x)
    const lines = new Map<number, string>()
    for (const { y, ink } of points) lines.set(Math.round(y), `${lines.get(Math.round(y)) ?? ''}${ink ? '#' : '.'}`)
    return [...lines.values()].filter((l) => l.includes('#')).map((l) => l.replace(/^\.+|\.+$/g, ''))
  }
  it.each([
    ['level', 'along'],
    ['upright', 'across'],
  ] as const)('letters read %s when they run %s', (lie, way) => {
    const { laying } = letteringIn(blank, box, { text: 'F', size: 1, way, number: 2 })
    expect(seen(blank, lie, new Set(laying.keys()))).toEqual(signRows('F')!.map((l) => l.replace(/^\.+|\.+$/g, '')))
  })
  it('a picture stands on the work as it stood on the screen, either way', () => {
    // The upper left quarter is red.
    const data = new Uint8ClampedArray(40 * 40 * 4)
    for (let k = 0; k < 1600; k++) data.set(k % 40 < 20 && k < 800 ? [255, 0, 0, 255] : [255, 255, 255, 255], 4 * k)
    for (const lie of ['level', 'upright'] as const) {
      const cells = sampleCells({ width: 40, height: 40, data }, latticeOf(blank), {
        box,
        lie,
        crop: { x: 0, y: 0, width: 40, height: 40 },
        brightness: 0,
        contrast: 0,
      })
      const size = sizeOnScreen(blank, { lie, scale: 1 })
      for (const { c, r } of placesOfPart(blank)) {
        const { x, y } = screenPoint(blank, { lie, scale: 1, x: 0, y: 0 }, c, r)
        const red = cells[3 * (r * 20 + c) + 1]! < 0.1
        if (Math.abs(x - size.width / 2) > 1.7 && Math.abs(y - size.height / 2) > 1.7)
          expect(red).toBe(x < size.width / 2 && y < size.height / 2)
      }
    }
  })
})

describe('what → means', () => {
  it('is said beside level work, and where upright work is turned; never of a rope', () => {
    const p = part()
    expect(arrowNote(p, { lie: 'upright' })).toBe('')
    expect(arrowNote(p, { lie: 'level' })).toContain('from the upper edge to the lower')
    expect(arrowNote(p, { lie: 'level', flip: flipOf({ wrongSide: true, turned: false }) })).toContain(
      'from the lower edge to the upper',
    )
    expect(arrowNote(p, { lie: 'upright', flip: flipOf({ wrongSide: false, turned: true }) })).toContain(
      'from right to left',
    )
    expect(
      arrowNote(
        part({
          technique: 'braid-8',
          settings: TECHNIQUES.find((t) => t.id === 'braid-8')!.settings.parse({}),
          start: emptyCells(8, 0),
          repeat: emptyCells(8, 2, 1),
          end: emptyCells(8, 0),
        }),
        { lie: 'level' },
      ),
    ).toBe('')
    const svg = chartSvg(p, tray, {
      lie: 'level',
      scale: 2,
      ink: 'colour',
      title: 'x',
      note: arrowNote(p, { lie: 'level' }),
    })
    expect(svg).toContain('→ in the words runs from the upper edge to the lower')
  })
})
