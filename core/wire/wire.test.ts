import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec, type BeadSpec } from '../bead/spec'
import { wireDiameterMm } from '../units/wire-gauge'
import { measured, opened, type Curve } from './curve'
import { beadsOnFrame, fellowGap, frameWireMm, placesOnFrame, wrapsMm } from './frame'
import { kinkOffMm, sectionOf, supportMm, tightestBendMm, wedge, wireTakenMm } from './section'
import { boxOf, drop, FRAME_SHAPES, frameOfLength, frameOfWidth, heart, polygon, type FrameForm } from './shape'
import { nextGauge, passTogether, roomInHoleMm, thickestThrough, threeInHoleMm } from './shared-hole'

const SPECS = [
  'round-8',
  'round-11',
  'cylinder-8',
  'cylinder-11',
  'ball-4-mm',
  'ball-6-mm',
  'bicone-4-mm',
  'cube-3-mm',
]
const spec = (id: string): BeadSpec => requireSpec(id)
const form = (over: Partial<FrameForm> = {}): FrameForm => ({
  ...{ shape: 'circle', tall: 1, upper: 0.5, corners: 4, rounded: 0.15 },
  ...over,
})
/** Forms of every shape, as they are bent. */
const FORMS: readonly FrameForm[] = FRAME_SHAPES.map((shape) =>
  form({ shape, tall: { circle: 1, oval: 1.5, egg: 1.25, drop: 2.2, heart: 2.2, polygon: 1 }[shape], upper: 0.36 }),
)

describe('a bead on a bend', () => {
  it('touches its neighbour at twice its wedge, and nowhere nearer, found by lines that part them', () => {
    // Two bodies that are alike on both sides of a line through the middle of the bend are parted by it, or overlap.
    const apart = (bead: BeadSpec, r: number, half: number): number => {
      const middle = Math.sqrt(r * r - (bead.l * bead.l) / 4)
      let best = -Infinity
      for (let lean = -1.2; lean <= 1.2; lean += 0.002) {
        // The first body stands at −half, the second at +half; the line is turned by lean from their bisector.
        const reach = (side: 1 | -1) => supportMm(bead, half * side - lean)
        best = Math.max(best, 2 * middle * Math.sin(half) * Math.cos(lean) - reach(1) - reach(-1))
      }
      return best
    }
    for (const id of SPECS)
      for (const r of [6, 10, 25]) {
        const half = wedge(spec(id), r)
        if (half === null) continue
        expect(apart(spec(id), r, half * 1.004), `${id} on ${r}`).toBeGreaterThan(0)
        expect(apart(spec(id), r, half * 0.99), `${id} on ${r}`).toBeLessThan(0)
      }
  })
  // Worked by hand from the wedge: extra wire, per cent of the bead's length.
  it.each([
    ['round-8', [5.7, 2.1, 1.3, 0.6, 0.2]],
    ['round-11', [2.6, 1.0, 0.6, 0.3, 0.1]],
    ['cylinder-8', [43, 23, 18, 11, 6.4]],
    ['cylinder-11', [19, 11, 8.8, 5.7, 3.3]],
  ])('%s takes more of a tight bend', (id, percent) => {
    const found = [5, 8, 10, 15, 25].map((r) => (wireTakenMm(spec(id), r)! / spec(id).l - 1) * 100)
    found.forEach((mm, k) => expect(Math.abs(mm - percent[k]!)).toBeLessThanOrEqual(percent[k]! >= 10 ? 0.5 : 0.06))
  })
  it('takes no less than its hole, less the wider the bend; does not lie on one that is too tight', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SPECS), fc.double({ min: 4, max: 60, noNaN: true }), (id, r) => {
        const [tight, wide] = [wireTakenMm(spec(id), r), wireTakenMm(spec(id), r + 1)]
        if (tight === null) return
        expect(tight).toBeGreaterThanOrEqual(spec(id).l)
        expect(wide!).toBeLessThanOrEqual(tight + 1e-12)
      }),
    )
    expect(wireTakenMm(spec('ball-6-mm'), Infinity)).toBe(6)
    expect(wireTakenMm(spec('ball-6-mm'), 3.5)).toBeNull()
  })
  it('stands off from a kink as a corner of its section does', () => {
    const at = (id: string, degrees: number) => kinkOffMm(spec(id), (degrees * Math.PI) / 180)
    expect(at('round-8', 90)).toBeCloseTo(0.78, 2)
    expect(at('round-8', 126)).toBeCloseTo(2.08, 2)
    expect(at('cylinder-8', 90)).toBeCloseTo(1.5, 9)
    expect(at('bicone-4-mm', 90)).toBeCloseTo((4 - 3.8) / 2, 9)
    expect(at('bicone-4-mm', 20)).toBe(0)
    expect(['round-8', 'bicone-4-mm', 'tile-5-mm'].map((id) => sectionOf(spec(id)))).toEqual([
      'ellipse',
      'rhomb',
      'box',
    ])
  })
  it('slides round no bend tighter than its hole lets it', () => {
    expect(tightestBendMm(spec('round-8'), wireDiameterMm(22))).toBeCloseTo(1.76, 2)
    expect(tightestBendMm(spec('round-11'), wireDiameterMm(24))).toBeCloseTo(1.25, 2)
    expect(tightestBendMm(spec('bugle-6-mm'), wireDiameterMm(24))).toBeCloseTo(15.9, 1)
    expect(tightestBendMm(spec('bugle-6-mm'), 0.8)).toBe(Infinity)
  })
})

describe('wires in one hole', () => {
  it('three of a kind need 2.1547 of one (Graham and others 1998); a thin third slips in beside two', () => {
    expect(threeInHoleMm([1, 1, 1])).toBeCloseTo(2.1547, 4)
    expect(threeInHoleMm([1, 1, 0.5])).toBe(2)
    // The limit of Descartes’ circle theorem: r₃ = 2/3 of two equal ones.
    expect(threeInHoleMm([3, 3, 2 - 1e-9])).toBe(6)
    expect(threeInHoleMm([3, 3, 2.01])).toBeGreaterThan(6)
    expect(threeInHoleMm([2, 3, 3])).toBe(threeInHoleMm([3, 2, 3]))
  })
  it('is the circle that touches all three, found by moving its middle (property)', () => {
    const anyWire = fc.double({ min: 0.2, max: 1.2, noNaN: true })
    fc.assert(
      fc.property(anyWire, anyWire, anyWire, (a, b, c) => {
        const [r1, r2, r3] = [a, b, c].map((x) => x / 2).sort((x, y) => y - x) as [number, number, number]
        // The three lie against each other in a triangle; the least circle round them, by descent.
        const [x1, x2] = [0, r1 + r2]
        const x3 = ((r1 + r3) ** 2 - (r2 + r3) ** 2 + x2 * x2) / (2 * x2)
        const y3 = Math.sqrt((r1 + r3) ** 2 - x3 * x3)
        const need = (x: number, y: number) =>
          Math.max(Math.hypot(x - x1, y) + r1, Math.hypot(x - x2, y) + r2, Math.hypot(x - x3, y - y3) + r3)
        let [x, y, step] = [x2 / 2, y3 / 3, r1]
        while (step > 1e-9) {
          const better = [
            [step, 0],
            [-step, 0],
            [0, step],
            [0, -step],
          ].find(([dx, dy]) => need(x + dx!, y + dy!) < need(x, y) - 1e-13)
          if (better) [x, y] = [x + better[0]!, y + better[1]!]
          else step /= 2
        }
        // Descent along the axes stops a little short in a crease.
        expect(threeInHoleMm([a, b, c])).toBeLessThanOrEqual(2 * need(x, y) + 1e-6)
        expect(threeInHoleMm([a, b, c])).toBeGreaterThan(2 * need(x, y) * 0.97)
      }),
    )
  })
  it('more of them lie between two bounds; planned with nine tenths of the hole', () => {
    const { least, surely } = roomInHoleMm([0.64, 0.4, 0.4, 0.4])
    expect([least, surely].map((mm) => Number(mm.toFixed(3)))).toEqual([1.067, 1.502])
    expect(roomInHoleMm([0.5, 0, 0.3])).toEqual({ least: 0.8, surely: 0.8 })
    expect(roomInHoleMm([])).toEqual({ least: 0, surely: 0 })
    expect([0.7, 0.72, 0.73, 0.88, 0.89].map((a) => passTogether(0.8, [a]))).toEqual([
      'easy',
      'easy',
      'tight',
      'tight',
      'no',
    ])
    // 20 gauge in the nominal hole of a tile: tight, and 22 goes.
    expect([20, 22].map((gauge) => passTogether(0.8, [wireDiameterMm(gauge)]))).toEqual(['tight', 'easy'])
    expect(passTogether(1.4, [0.64, 0.4, 0.4, 0.4])).toBe('tight')
  })
})

describe('the gauge that goes through', () => {
  // The thickest for one, two and three passes, worked by hand with nine tenths of the hole; even gauges are sold.
  it.each([
    ['round-11', [22, 28, 28]],
    ['round-8', [20, 26, 26]],
    ['round-15', [24, 30, 32]],
  ])('%s', (id, gauges) => {
    expect([1, 2, 3].map((passes) => thickestThrough(16, [{ holeMm: spec(id).h, passes }]))).toEqual(gauges)
  })
  it('is no thicker than asked for, and counts what else is in the hole', () => {
    expect(thickestThrough(20, [{ holeMm: 2, passes: 1 }])).toBe(20)
    expect(thickestThrough(20, [{ holeMm: 0.8, passes: 1, others: [0.4] }])).toBe(30)
    expect(thickestThrough(20, [{ holeMm: 0.1, passes: 1 }])).toBe(34)
    expect(nextGauge(0.8, [wireDiameterMm(20)])).toBe(22)
    expect(nextGauge(0.8, [0.4, 0.4, 0.4])).toBe(28)
    expect(nextGauge(0.05, [0.4])).toBeNull()
  })
})
describe('frames', () => {
  const lengthOf = (curve: Curve) => measured(curve).lengthMm
  it('are as long as their formulas say', () => {
    expect(frameOfWidth(form(), 20).lengthMm).toBeCloseTo(20 * Math.PI, 9)
    // Ramanujan’s second approximation of an ellipse, half axes 10 and 15.
    const h = (5 / 25) ** 2
    const oval = Math.PI * 25 * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)))
    expect(frameOfWidth(form({ shape: 'oval', tall: 1.5 }), 20).lengthMm).toBeCloseTo(oval, 6)
    expect(frameOfWidth(form({ shape: 'egg', tall: 1.25, upper: 0.36 }), 20).lengthMm).toBeCloseTo(71.25, 2)
    expect(lengthOf(drop(10, 22))).toBeCloseTo(80.045, 3)
    expect(lengthOf(heart(6, 5, 13))).toBeCloseTo(65.56, 2)
    // A square of side s with corners rounded by ρ: 4 (s − 2 ρ) + 2 π ρ.
    const [side, rho] = [10 * Math.SQRT2, 1.5]
    expect(lengthOf(polygon(4, 10, rho / side))).toBeCloseTo(4 * (side - 2 * rho) + 2 * Math.PI * rho, 6)
  })
  it('a drop from its length: 90 mm with its point 2.2 of its radius above the middle is 35.98 tall', () => {
    const { top, bottom } = boxOf(frameOfLength(form({ shape: 'drop', tall: 2.2 }), 90))
    expect(bottom - top).toBeCloseTo(35.98, 1)
  })
  it('is where its length along says, and says so of a place, of its bend alone and of a walk (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FORMS),
        fc.double({ min: 40, max: 300, noNaN: true }),
        fc.double({ min: -0.5, max: 1.5, noNaN: true }),
        (one, mm, share) => {
          const curve = frameOfLength(one, mm)
          const s = share * mm
          expect(curve.bendAt(s)).toBe(curve.at(s).bend)
          const walk = curve.along(90)
          expect(walk).toHaveLength(91)
          // Chords of so small a step are as long as the step, but across a kink.
          walk.slice(0, 90).forEach((p, k) => {
            expect(p).toEqual(curve.at((k * curve.lengthMm) / 90))
            const on = curve.at(((k + 0.01) * mm) / 90)
            const isKink = curve.kinks.some(({ at }) => Math.abs(at - (k * mm) / 90) < (0.02 * mm) / 90)
            if (!isKink) expect(Math.hypot(on.x - p.x, on.y - p.y)).toBeCloseTo((0.01 * mm) / 90, 4)
          })
        },
      ),
      { numRuns: 40 },
    )
  })
  it('begin at the top in the middle, run clockwise, close, are alike on both sides, and scale (property)', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FORMS), fc.double({ min: 40, max: 300, noNaN: true }), (one, mm) => {
        const curve = frameOfLength(one, mm)
        expect(curve.lengthMm).toBeCloseTo(mm, 6)
        expect(curve.at(0).x).toBeCloseTo(0, 6)
        expect(curve.at(mm / 7).x).toBeGreaterThan(0)
        const double = frameOfLength(one, 2 * mm)
        for (let k = 0; k <= 20; k++) {
          const [a, b, c] = [curve.at((k * mm) / 40), curve.at(mm - (k * mm) / 40), double.at((k * mm) / 20)]
          expect(a.x).toBeCloseTo(-b.x, 3)
          expect(a.y).toBeCloseTo(b.y, 3)
          expect(c.x).toBeCloseTo(2 * a.x, 3)
          expect(c.y).toBeCloseTo(2 * a.y, 3)
        }
        expect(curve.at(mm + 5).x).toBeCloseTo(curve.at(5).x, 6)
        expect(curve.kinks.map(({ at }) => Number((at / mm).toFixed(3)))).toEqual(
          { drop: [0], heart: [0, 0.5] }[one.shape as string] ?? [],
        )
      }),
      { numRuns: 40 },
    )
  })
  it('left open at their beginning are the same curve without it, alike on both sides (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FORMS),
        fc.double({ min: 40, max: 300, noNaN: true }),
        fc.double({ min: 0.01, max: 0.5, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (one, mm, share, at) => {
          const [whole, open] = [frameOfLength(one, mm), share * mm]
          const curve = opened(whole, open)
          expect(curve.closed).toBe(false)
          expect(curve.lengthMm).toBeCloseTo(mm - open, 6)
          const s = at * curve.lengthMm
          const same = whole.at(s + open / 2)
          expect(Math.hypot(curve.at(s).x - same.x, curve.at(s).y - same.y)).toBeLessThan(1e-9)
          expect(curve.bendAt(s)).toBe(curve.at(s).bend)
          expect(curve.at(s).turnDegrees).toBeCloseTo(same.turnDegrees, 6)
          const [left, right] = [curve.at(s), curve.at(curve.lengthMm - s)]
          expect(left.x).toBeCloseTo(-right.x, 3)
          expect(left.y).toBeCloseTo(right.y, 3)
          // Beyond its ends it is at its ends, and a kink where it is open is none.
          expect(curve.at(-1)).toEqual(curve.at(0))
          expect(curve.at(mm)).toEqual(curve.at(curve.lengthMm))
          expect(curve.along(90).at(-1)!.x).toBeCloseTo(-curve.along(90)[0]!.x, 3)
          expect(curve.kinks).toHaveLength(one.shape === 'heart' ? 1 : 0)
          for (const { at: kink } of curve.kinks) expect(kink).toBeCloseTo(curve.lengthMm / 2, 3)
        },
      ),
      { numRuns: 60 },
    )
    const round = frameOfLength(form(), 100)
    expect(opened(round, 0)).toBe(round)
    // Half of the way round is left at least: ends as far apart as the round is wide.
    const half = opened(round, 80)
    expect(half.lengthMm).toBeCloseTo(50, 6)
    expect(half.at(0).x - half.at(50).x).toBeCloseTo(100 / Math.PI, 3)
  })
  it('bend by the radius of their arcs, against three points of the curve', () => {
    for (const one of FORMS) {
      const curve = frameOfLength(one, 90)
      for (const share of [0.11, 0.23, 0.31, 0.44]) {
        const s = share * 90
        const [a, b, c] = [curve.at(s - 0.05), curve.at(s), curve.at(s + 0.05)]
        const area = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)
        const sides = [a, b, c].map((p, k, all) => {
          const q = all[(k + 1) % 3]!
          return Math.hypot(p.x - q.x, p.y - q.y)
        })
        // Menger: the bend of the circle through three points is 4 areas over the product of their distances.
        expect(b.bend).toBeCloseTo((2 * area) / (sides[0]! * sides[1]! * sides[2]!), 1)
      }
    }
  })
})

describe('beads on a frame', () => {
  it('a circle of 20 mm takes 29 rounds 8/0, and 21 cylinders where straight counting says 25', () => {
    const curve = frameOfWidth(form(), 20)
    expect(beadsOnFrame(curve, [spec('round-8')]).count).toBe(29)
    expect(beadsOnFrame(curve, [spec('cylinder-8')]).count).toBe(21)
    expect(Math.floor(curve.lengthMm / 2.5)).toBe(25)
    expect(beadsOnFrame(curve, [])).toMatchObject({ count: 0 })
  })
  // Common practice: 4 inches of wire with two loops carry about 40 × 8/0 or 56 × 11/0 with room to wrap.
  it('four inches of wire with two loops carry 40 × 8/0, or 56 × 11/0 with four cross wires', () => {
    const curve = frameOfLength(form({ shape: 'oval', tall: 1.5 }), 101.6 - 15)
    const box = boxOf(curve)
    expect([box.right - box.left, box.bottom - box.top].map((mm) => Number(mm.toFixed(1)))).toEqual([21.8, 32.8])
    expect(beadsOnFrame(curve, [spec('round-8')], { freeMm: 1.62, even: true })).toMatchObject({ count: 40 })
    const freeMm = wrapsMm(4, 2, wireDiameterMm(26))
    expect(freeMm).toBeCloseTo(6.48, 2)
    const eleven = beadsOnFrame(curve, [spec('round-11')], { freeMm, even: true })
    expect(eleven.count).toBe(56)
    // 78.70 of 80.12 mm.
    expect(eleven.slackMm).toBeCloseTo(80.12 - 78.7, 1)
    expect(frameWireMm(86.6, { loops: 2, loopMm: 7.5, overlapMm: 0 })).toBeCloseTo(121.6, 9)
  })
  it('takes no more of larger beads, of less wire, or with more kept free; even counts are even (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FORMS),
        fc.double({ min: 60, max: 200, noNaN: true }),
        fc.constantFrom('round-11', 'round-8', 'cylinder-11'),
        fc.double({ min: 0, max: 12, noNaN: true }),
        (one, mm, id, freeMm) => {
          const count = (long: number, free = 0, even = false) =>
            beadsOnFrame(frameOfLength(one, long), [spec(id)], { freeMm: free, even }).count
          const n = count(mm)
          expect(count(mm * 0.9)).toBeLessThanOrEqual(n)
          expect(count(mm, freeMm)).toBeLessThanOrEqual(n)
          expect(count(mm, freeMm, true) % 2).toBe(0)
          expect(count(mm, freeMm) - count(mm, freeMm, true)).toBeLessThanOrEqual(1)
          // As many as are counted find room, and no gap is wider than what is left over.
          const curve = frameOfLength(one, mm)
          const found = beadsOnFrame(curve, [spec(id)])
          const { places, gapMm } = placesOnFrame(
            curve,
            Array.from({ length: found.count }, () => spec(id)),
          )
          expect(places).toHaveLength(n)
          expect(gapMm).toBeGreaterThan(-0.12)
          // A rounded corner takes more of a bead that lies across it than of one beside it.
          const corners = spec(id).l * (one.shape === 'polygon' ? one.corners : 0.2)
          expect(gapMm * n).toBeLessThanOrEqual(found.slackMm + corners + 1e-6)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('the gap after so many beads lies as high on the other side, and no two beads lie in each other', () => {
    for (const one of FORMS)
      for (const id of ['round-8', 'cylinder-11', 'ball-4-mm']) {
        const bead = spec(id)
        const curve = frameOfLength(one, 120)
        const { count } = beadsOnFrame(curve, [bead], { even: true })
        const { places } = placesOnFrame(
          curve,
          Array.from({ length: count }, () => bead),
        )
        for (let gap = 1; gap < count; gap++) {
          const [right, left] = [gap, fellowGap(gap, count)].map((g) => {
            const [a, b] = [curve.at(places[g - 1]!.to), curve.at(places[g]!.from)]
            return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
          })
          expect(Math.hypot(right!.x + left!.x, right!.y - left!.y)).toBeLessThan(0.02)
        }
        // Separating lines through both middles: bodies of neighbours overlap by no more than a hair.
        for (let k = 1; k < count; k++) {
          const [p, q] = [places[k - 1]!, places[k]!]
          let apart = -Infinity
          for (let way = 0; way < Math.PI; way += 0.02) {
            const gap = Math.abs((q.x - p.x) * Math.cos(way) + (q.y - p.y) * Math.sin(way))
            const reach = [p, q].map((b) => supportMm(bead, way - (b.turnDegrees * Math.PI) / 180))
            apart = Math.max(apart, gap - reach[0]! - reach[1]!)
          }
          expect(apart, `${one.shape} ${id} ${k}`).toBeGreaterThan(-0.05)
        }
      }
  })
})
