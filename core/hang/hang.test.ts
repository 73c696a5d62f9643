import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { everyFor, linksIn, middleFirst, nearCounts, nearPlaces, strapPieces } from './chain'
import { collide, fanDegrees, levelsFor, staggerMm } from './crowd'
import { facingOf, turnedBy } from './facing'
import { levelled } from './level'
import { loopHeightMm, loopWireMm, stockPin, wirePasses, wrappedLoopMm } from './pin'
import {
  bestLine,
  EDGES,
  evenLongest,
  levelsOf,
  shareOf,
  strandByRule,
  strandRuleSchema,
  zoneCounts,
  type Zone,
} from './rule'
import { fullerHoles, nearSpreads, spreadOver } from './spread'
import { tiltDegrees, type Pull } from './tilt'
import { lengthForSag, swagOf, swagPlaces } from './swag'

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)

describe('two beads in a hole', () => {
  it('is a palindrome that differs by at most one and holds all; no choice of all is more even', () => {
    const chosen = (holes: number, extra: number): number[][] =>
      extra === 0
        ? [[]]
        : holes < extra
          ? []
          : [...chosen(holes - 1, extra), ...chosen(holes - 1, extra - 1).map((c) => [...c, holes - 1])]
    for (let holes = 1; holes <= 10; holes++)
      for (let beads = 1; beads <= 2 * holes; beads++) {
        const spread = spreadOver(holes, beads)
        const extra = beads % holes
        const symmetric = chosen(holes, extra).filter((c) => c.every((h) => c.includes(holes - 1 - h)))
        expect(spread === null, `${beads} over ${holes}`).toBe(symmetric.length === 0)
        if (!spread) continue
        expect(sum(spread)).toBe(beads)
        expect([...spread].reverse()).toEqual(spread)
        expect(Math.max(...spread) - Math.min(...spread)).toBeLessThanOrEqual(1)
        // How far each extra lies from its even share of the row.
        const cost = (c: readonly number[]) => sum(c.map((h, i) => (h + 0.5 - ((i + 0.5) * holes) / extra) ** 2))
        const own = extra === 0 ? [] : fullerHoles(spread)
        if (extra > 0) expect(cost(own)).toBeCloseTo(Math.min(...symmetric.map(cost)), 9)
      }
  })
  it.each([
    [9, 11, [3, 7]],
    [11, 15, [2, 5, 7, 10]],
    [7, 9, [2, 6]],
    [8, 12, [2, 4, 5, 7]],
    [5, 8, [1, 3, 5]],
  ])('%i holes take %i beads with two in %j', (holes, beads, fuller) => {
    expect(fullerHoles(spreadOver(holes, beads)!).map((h) => h + 1)).toEqual(fuller)
  })
  it('says which counts can be spread where one cannot', () => {
    expect(spreadOver(10, 13)).toBeNull()
    expect(nearSpreads(10, 13)).toEqual([12, 14])
    // None at all is no count to offer; two holes take no odd number alike.
    expect([nearSpreads(1, 1), nearSpreads(2, 2), nearSpreads(2, 1)]).toEqual([[2], [], [2]])
    expect([spreadOver(0, 3), spreadOver(3, -1), spreadOver(3, 0)]).toEqual([null, null, [0, 0, 0]])
  })
})

const zone = (more: Partial<Zone>): Zone => ({
  beads: [1],
  along: 'strand',
  grow: 'step',
  from: 3,
  step: 2,
  every: 1,
  to: 0,
  levelMm: 0,
  trim: 0,
  ...more,
})
/** Closed sum of a zone that grows by a step to a point: 2 (from M + step M (M − 1) / 2), less the middle if odd. */
const pointTotal = (from: number, step: number, strands: number): number => {
  const lists = Math.ceil(strands / 2)
  const all = 2 * (from * lists + (step * lists * (lists - 1)) / 2)
  return strands % 2 === 1 ? all - (from + step * (lists - 1)) : all
}
const rule = (more: object) => strandRuleSchema.parse({ strands: 11, zones: [zone({})], end: [9], ...more })
const ground = { startMm: 0, lengthOf: () => 1.4 }

describe('strands by rule', () => {
  it('eleven that grow by two hold 3 5 7 9 11 13 and back, 83 in all', () => {
    const counts = Array.from({ length: 11 }, (_, i) => zoneCounts(rule({}), i, ground)[0]!)
    expect(counts).toEqual([3, 5, 7, 9, 11, 13, 11, 9, 7, 5, 3])
    expect(pointTotal(3, 2, 11)).toBe(83)
  })
  it('a point is its own mirror, its total the closed sum, its steps exact (property)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.nat(20), fc.nat(4), (strands, from, step) => {
        const own = rule({ strands, zones: [zone({ from, step })] })
        const counts = Array.from({ length: strands }, (_, i) => zoneCounts(own, i, ground)[0]!)
        expect([...counts].reverse()).toEqual(counts)
        expect(sum(counts)).toBe(pointTotal(from, step, strands))
        counts.slice(1, Math.ceil(strands / 2)).forEach((n, k) => expect(n - counts[k]!).toBe(step))
      }),
    )
  })
  it('every edge begins at its shortest and reaches its longest; all but a slope lie alike from both sides', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...EDGES),
        fc.integer({ min: 3, max: 60 }),
        fc.integer({ min: 1, max: 3 }),
        (edge, strands, waves) => {
          const shares = Array.from({ length: strands }, (_, i) => shareOf(edge, i, strands, waves))
          expect(shares[0]).toBe(0)
          for (const s of shares) expect(s >= 0 && s <= 1 + 1e-12).toBe(true)
          if (edge === 'slope') expect(shares.at(-1)).toBe(1)
          else shares.forEach((s, i) => expect(s).toBeCloseTo(shares[strands - 1 - i]!, 9))
          if (edge === 'point' || edge === 'arc') expect(Math.max(...shares)).toBeCloseTo(1, 12)
          expect(levelsOf(edge, strands, waves)).toBeGreaterThan(0)
        },
      ),
    )
    // An arc falls steeply at its sides, a point evenly; a wave comes back as often as it has waves.
    expect(shareOf('arc', 1, 11)).toBeCloseTo(0.6, 12)
    expect(shareOf('point', 1, 11)).toBeCloseTo(0.2, 12)
    expect(shareOf('wave', 4, 9, 1)).toBeCloseTo(1, 12)
    expect(shareOf('wave', 4, 9, 2)).toBeCloseTo(0, 12)
  })
  it('keeps a zone, grows one every second strand, reaches the longest evenly, and cuts one at a level', () => {
    const own = rule({
      strands: 9,
      zones: [
        zone({ grow: 'keep', from: 2 }),
        zone({ from: 1, step: 1, every: 2 }),
        zone({ grow: 'to', from: 3, to: 12 }),
        zone({ grow: 'level', levelMm: 35 }),
      ],
    })
    const counts = Array.from({ length: 9 }, (_, i) => zoneCounts(own, i, ground))
    expect(counts.map((c) => c[0])).toEqual([2, 2, 2, 2, 2, 2, 2, 2, 2])
    expect(counts.map((c) => c[1])).toEqual([1, 1, 2, 2, 3, 2, 2, 1, 1])
    expect(counts.map((c) => c[2])).toEqual([3, 5, 8, 10, 12, 10, 8, 5, 3])
    // To 35 mm: 25 beads of 1.4 in all.
    expect(counts.map((c) => sum(c))).toEqual(Array<number>(9).fill(25))
    // A top that lies lower leaves less.
    expect(zoneCounts(own, 0, { ...ground, startMm: 7 })[3]).toBe(counts[0]![3]! - 5)
  })
  it('beads take turns down a strand, or from strand to strand alike from both sides; the end comes last', () => {
    const down = rule({ strands: 5, zones: [zone({ beads: [1, 2], grow: 'keep', from: 5 })], end: [7, 8, 7] })
    expect(strandByRule(down, 1, ground)).toEqual([1, 2, 1, 2, 1, 7, 8, 7])
    const across = rule({ strands: 5, zones: [zone({ beads: [1, 2], along: 'row', grow: 'keep', from: 2 })] })
    expect([0, 1, 2, 3, 4].map((i) => strandByRule(across, i, ground)[0])).toEqual([1, 2, 1, 2, 1])
  })
})

describe('a zone that grows evenly', () => {
  const evenly = (from: number, to: number, strands: number) =>
    Array.from(
      { length: Math.ceil(strands / 2) },
      (_, i) => zoneCounts(rule({ strands, zones: [zone({ grow: 'to', from, to })] }), i, ground)[0]!,
    )
  it('has exact ends, steps that differ by at most one and never turn back (property)', () => {
    fc.assert(
      fc.property(fc.nat(40), fc.nat(60), fc.integer({ min: 3, max: 40 }), (a, more, strands) => {
        const counts = evenly(a, a + more, strands)
        expect([counts[0], counts.at(-1)]).toEqual([a, a + more])
        const steps = counts.slice(1).map((n, k) => n - counts[k]!)
        expect(Math.max(...steps) - Math.min(...steps)).toBeLessThanOrEqual(1)
        expect(Math.min(...steps)).toBeGreaterThanOrEqual(0)
      }),
    )
    expect(evenly(3, 12, 13)).toEqual([3, 5, 6, 8, 9, 11, 12])
    expect(evenLongest({ from: 3, to: 12 }, 7)).toEqual([9, 15])
    expect(evenLongest({ from: 3, to: 15 }, 7)).toEqual([15])
    expect(evenLongest({ from: 3, to: 8 }, 1)).toEqual([8])
  })
})

describe('swags', () => {
  // Values by the catenary, worked out by hand; a chain of rigid rods hangs within 0.2 % of them.
  it.each([
    [10, 12, 2.92, 4.7],
    [10, 20, 7.96, 2.3],
    [14.7, 29.4, 11.71, 3.38],
    [20, 21, 2.79, 18.4],
  ])('over %f mm %f mm sag by %f with a bend of %f', (span, length, sag, bend) => {
    const swag = swagOf(span, length)!
    expect(swag.sagMm).toBeCloseTo(sag, 2)
    expect(Math.abs(swag.radiusMm - bend)).toBeLessThan(0.06)
    // Identity of the catenary: ℓ² / 4 = f² + 2 a f.
    expect(swag.sagMm ** 2 + 2 * swag.radiusMm * swag.sagMm).toBeCloseTo(length ** 2 / 4, 6)
  })
  it('a chain of rods let fall until it rests lies where the beads are drawn', () => {
    // Independent: least potential energy by pulling each joint down and drawing the rods to their length again.
    const [span, n, l] = [14.7, 20, 1.4]
    const joints = Array.from({ length: n + 1 }, (_, k) => ({ x: (k * span) / n, y: Math.sin((Math.PI * k) / n) * 9 }))
    for (let round = 0; round < 20000; round++) {
      const pull = 0.02 / (1 + round / 2000)
      for (let k = 1; k < n; k++) joints[k]!.y += pull
      for (let again = 0; again < 12; again++)
        for (let k = 0; k < n; k++) {
          const [a, b] = [joints[k]!, joints[k + 1]!]
          const far = Math.hypot(b.x - a.x, b.y - a.y)
          const [dx, dy] = [((b.x - a.x) * (far - l)) / far, ((b.y - a.y) * (far - l)) / far]
          const [fromA, fromB] = [k === 0 ? 0 : 0.5, k === n - 1 ? 0 : 0.5]
          const all = fromA + fromB
          a.x += (dx * fromA) / all
          a.y += (dy * fromA) / all
          b.x -= (dx * fromB) / all
          b.y -= (dy * fromB) / all
        }
    }
    const places = swagPlaces(span, Array<number>(n).fill(l))
    const lowest = Math.max(...joints.map((j) => j.y))
    expect(Math.abs(swagOf(span, n * l)!.sagMm - lowest)).toBeLessThan(0.15)
    places.forEach((p, k) => {
      const [a, b] = [joints[k]!, joints[k + 1]!]
      expect(Math.hypot(p.x - (a.x + b.x) / 2, p.y - (a.y + b.y) / 2)).toBeLessThan(0.35)
    })
  })
  it('sags more the longer, less the wider; back from the sag comes the length (property)', () => {
    const mm = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true })
    fc.assert(
      fc.property(mm(2, 80), mm(1.02, 5), (span, times) => {
        const own = swagOf(span, span * times)!
        expect(swagOf(span, span * times + 1)!.sagMm).toBeGreaterThan(own.sagMm)
        if (times * span > span + 1) expect(swagOf(span + 0.5, span * times)!.sagMm).toBeLessThan(own.sagMm)
        expect(own.sagMm).toBeLessThan((span * times) / 2)
        expect(lengthForSag(span, own.sagMm)).toBeCloseTo(span * times, 6)
      }),
    )
    expect(swagOf(20, 16)).toBeNull()
    expect(lengthForSag(14.7, 8)).toBeCloseTo(23.03, 2)
  })
  it('nothing sags over no width, nor what is no longer than its width', () => {
    expect([swagOf(0, 5), swagOf(10, 10), lengthForSag(10, 0)]).toEqual([null, null, 10])
  })
  it('beads of a swag lie end to end, from one end to the other', () => {
    const lengths = [1.4, 2.1, 1.4, 3, 1.4, 2.1, 1.4]
    const places = swagPlaces(9, lengths)
    const end = (k: number, way: 1 | -1) => {
      const { x, y, turnDegrees } = places[k]!
      const turn = (turnDegrees * Math.PI) / 180
      // The chord is a little shorter than the bead where the curve is tight.
      return { x: x + (way * Math.cos(turn) * lengths[k]!) / 2, y: y + (way * Math.sin(turn) * lengths[k]!) / 2 }
    }
    expect(end(0, -1).x).toBeCloseTo(0, 0)
    expect(end(6, 1).x).toBeCloseTo(9, 0)
    for (let k = 1; k < lengths.length; k++)
      expect(Math.hypot(end(k, -1).x - end(k - 1, 1).x, end(k, -1).y - end(k - 1, 1).y)).toBeLessThan(0.25)
    expect(swagPlaces(9, [1.4, 1.4]).map((p) => p.y)).toEqual([0, 0])
  })
})

describe('crowding', () => {
  it('two drops are clear from the stagger on, found by going down bit by bit', () => {
    for (const [p, w, h] of [
      [2.1, 3.4, 3.4],
      [3, 3.4, 3.4],
      [2.1, 4, 7],
      [3, 4, 7],
    ] as const) {
      let down = 0
      while (collide({ x: 0, y: 0, wideMm: w, highMm: h }, { x: p, y: down, wideMm: w, highMm: h })) down += 1e-4
      expect(staggerMm(p, w, h)).toBeCloseTo(down, 3)
    }
    expect(staggerMm(2.1, 4, 7)).toBeCloseTo(5.96, 2)
    expect(staggerMm(2.1, 3.4, 3.4)).toBeCloseTo(2.67, 2)
    expect(staggerMm(3.4, 3.4, 3.4)).toBe(0)
  })
  it('contact of two equal ellipses, walked along their outlines', () => {
    const [w, h, p] = [4, 7, 2.1]
    const down = staggerMm(p, w, h)
    // The least of the second ellipse’s equation along the outline of the first is 1: they just touch.
    let least = Infinity
    for (let k = 0; k < 20000; k++) {
      const t = (2 * Math.PI * k) / 20000
      const [x, y] = [(w / 2) * Math.cos(t), (h / 2) * Math.sin(t)]
      least = Math.min(least, ((x - p) / (w / 2)) ** 2 + ((y - down) / (h / 2)) ** 2)
    }
    expect(least).toBeCloseTo(1, 6)
  })
  it('two drops collide by how far apart they are, wherever they hang', () => {
    const drop = (x: number, y: number) => ({ x, y, wideMm: 4, highMm: 7 })
    for (const [dx, dy] of [
      [0, 0],
      [30, 12],
      [-25, 40],
    ] as const) {
      expect(collide(drop(dx, dy), drop(dx + 3.9, dy))).toBe(true)
      expect(collide(drop(dx, dy), drop(dx + 4, dy))).toBe(false)
      expect(collide(drop(dx, dy), drop(dx, dy + 6.9))).toBe(true)
      expect(collide(drop(dx, dy), drop(dx, dy + 7.1))).toBe(false)
    }
    expect([staggerMm(4, 4, 7), fanDegrees(5, 2, 2.5, 0), fanDegrees(5, 2.5, 2.5, 20)]).toEqual([0, 0, 0])
  })
  it('levels and the fan', () => {
    expect([levelsFor(2.1, 3.4), levelsFor(2.1, 4.2), levelsFor(1.3, 4), levelsFor(3, 2)]).toEqual([2, 2, 4, 1])
    expect(fanDegrees(11, 2.1, 3.4, 25)).toBeCloseTo(16, 1)
    expect(fanDegrees(11, 3.4, 2.1, 25)).toBe(0)
  })
})

describe('a level line', () => {
  const hoop = Array.from({ length: 9 }, (_, i) => Math.sqrt(12.5 ** 2 - ((i - 4) * 2.1) ** 2))
  const from = hoop.map((y) => y + 2 * 1.4 + 3.4)
  const wish = { from, fillerMm: 1.4, trimMm: 0, mostTrim: 4, lineMm: 40, giveMm: 0.7 }
  it('of nine strands on a hoop with one filler, and nearer with a small trim', () => {
    const plain = levelled(wish)
    expect(plain.filler).toEqual([17, 16, 15, 15, 15, 15, 15, 16, 17])
    expect(plain.lineMm).toBeCloseTo(39.33, 2)
    expect(Math.max(...plain.off.map(Math.abs))).toBeCloseTo(0.37, 2)
    const trimmed = levelled({ ...wish, trimMm: 1.05, mostTrim: 3 })
    expect(Math.max(...trimmed.off.map(Math.abs))).toBeLessThan(0.13)
    expect(trimmed.filler[0]! * 1.4 + trimmed.trim[0]! * 1.05).toBeCloseTo(15 * 1.4 + 3 * 1.05, 6)
  })
  it('is the best of all lines, tried in small steps, and mirrors where the starts do (property)', () => {
    const start = fc.double({ min: 0, max: 12, noNaN: true })
    fc.assert(
      fc.property(fc.array(start, { minLength: 1, maxLength: 5 }), fc.boolean(), (starts, trims) => {
        const own = { ...wish, from: [...starts, ...[...starts].reverse()], trimMm: trims ? 1.05 : 0 }
        const found = levelled(own)
        const cost = (off: readonly number[]) => sum(off.map((o) => o * o))
        const near = own.from.map((y) =>
          Array.from({ length: 30 }, (_, a) => [0, 1, 2, 3, 4].map((b) => y + a * 1.4 + b * own.trimMm)).flat(),
        )
        for (let line = 39.3; line <= 40.7; line += 0.01) {
          const off = near.map(
            (ends) => ends.reduce((a, b) => (Math.abs(b - line) < Math.abs(a - line) ? b : a)) - line,
          )
          expect(cost(found.off)).toBeLessThanOrEqual(cost(off) + 1e-6)
        }
        const ends = found.filler.map((n, i) => n * 1.4 + found.trim[i]! * own.trimMm)
        ends.forEach((mm, i) => expect(mm).toBeCloseTo(ends[ends.length - 1 - i]!, 9))
      }),
      { numRuns: 25 },
    )
  })
})

describe('a zone that reaches to a line', () => {
  const lengthOf = (number: number) => (number === 2 ? 1.05 : 1.4)
  const hoop = Array.from({ length: 9 }, (_, i) => 12.5 - Math.sqrt(12.5 ** 2 - ((i - 4) * 2.1) ** 2))
  const grounds = hoop.map((high) => ({ startMm: 12.5 - Math.min(...hoop) - high - 3.9, lengthOf }))
  const ends = (trim: number, levelMm: number) =>
    grounds.map((g, i) => {
      const own = rule({ strands: 9, zones: [zone({ grow: 'level', levelMm, trim })], end: [] })
      return g.startMm + strandByRule(own, i, g).reduce((sum, n) => sum + lengthOf(n), 0)
    })
  const off = (all: readonly number[], line: number) => Math.max(...all.map((e) => Math.abs(e - line)))
  it('comes to it within half a bead, and with a trim bead within a fifth of a millimetre', () => {
    for (const line of [30, 33.3, 36.1]) {
      expect(off(ends(0, line), line)).toBeLessThanOrEqual(0.7 + 1e-9)
      expect(off(ends(2, line), line)).toBeLessThanOrEqual(0.175 + 1e-9)
    }
  })
  it('finds a line near its own at which the strands end more level, mirrored as they are', () => {
    const own = rule({ strands: 9, zones: [zone({ grow: 'level', levelMm: 33 })], end: [] })
    const line = bestLine(own, 0, grounds)
    expect(Math.abs(line - 33)).toBeLessThanOrEqual(0.7)
    const spread = (all: readonly number[], at: number) => sum(all.map((e) => (e - at) ** 2))
    expect(spread(ends(0, line), line)).toBeLessThanOrEqual(spread(ends(0, 33), 33) + 1e-9)
    ends(0, line).forEach((e, i, all) => expect(e).toBeCloseTo(all[8 - i]!, 9))
  })
  it('reckons with the zones above it and with its trim; of another zone, or of no strands, it is as it was', () => {
    // One, two, … beads of 1.4 above it, and no curve: all lengths are multiples of 1.4, and so is the best line.
    const straight = Array.from({ length: 5 }, () => ({ startMm: 0, lengthOf }))
    const above = zone({ beads: [1], grow: 'step', from: 1, step: 1 })
    const below = zone({ grow: 'level', levelMm: 20 })
    const own = rule({ strands: 5, zones: [above, below, zone({ beads: [2], grow: 'keep', from: 9 })], end: [] })
    expect(bestLine(own, 1, straight)).toBeCloseTo(14 * 1.4, 9)
    // Above it a bead of 1.05: the lengths are 1.05 and multiples of 1.4.
    const small = rule({ ...own, zones: [zone({ beads: [2], grow: 'keep', from: 1 }), below] })
    expect(bestLine(small, 1, straight)).toBeCloseTo(1.05 + 14 * 1.4, 9)
    // By trims of 1.05 every 0.35 is reached, 19.95 the nearest.
    const trimmed = rule({ ...own, zones: [zone({ beads: [1], grow: 'keep', from: 1 }), { ...below, trim: 2 }] })
    expect(Math.abs(bestLine(trimmed, 1, straight) - 20)).toBeLessThanOrEqual(0.7)
    const staggered = straight.map((g, i) => ({ ...g, startMm: [0, 0.35, 0.7, 0.35, 0][i]! }))
    const lineOf = (trim: number) =>
      bestLine(
        rule({ ...own, zones: [zone({ beads: [1], grow: 'keep', from: 1 }), { ...below, trim }] }),
        1,
        staggered,
      )
    const offBy = (trim: number) => {
      const levelMm = lineOf(trim)
      const made = rule({ ...own, zones: [zone({ beads: [1], grow: 'keep', from: 1 }), { ...below, trim, levelMm }] })
      const bottoms = staggered.map((g, i) => g.startMm + sum(strandByRule(made, i, g).map(lengthOf)))
      return Math.max(...bottoms.map((e) => Math.abs(e - levelMm)))
    }
    expect(offBy(2)).toBeLessThan(1e-9)
    expect(offBy(0)).toBeGreaterThan(0.2)
    expect(bestLine(own, 0, straight)).toBe(above.levelMm)
    expect(bestLine(own, 1, [])).toBe(20)
    expect(bestLine(own, 7, straight)).toBe(0)
  })
})

describe('levels of an edge', () => {
  it('are one of a straight edge, all of a slope, half of a point, and as many as a wave has to its crest', () => {
    expect([levelsOf('straight', 13), levelsOf('slope', 13), levelsOf('point', 13), levelsOf('arc', 12)]).toEqual([
      1, 13, 7, 6,
    ])
    // Thirteen strands in one wave: seven from the first to the middle; in two, four to each crest.
    expect([levelsOf('wave', 13), levelsOf('wave', 13, 2), levelsOf('wave', 1)]).toEqual([7, 4, 1])
    expect([shareOf('slope', 0, 1), shareOf('wave', 0, 1)]).toEqual([0, 0])
  })
})

describe('pins and loops', () => {
  it('twelve millimetres of beads take 21.9 mm with a simple loop and a pin of 25', () => {
    // Common practice: beads and 8 to 10 mm for the loop.
    for (const q of [2, 2.2, 2.5]) {
      expect(loopWireMm(q)).toBeGreaterThan(8)
      expect(loopWireMm(q)).toBeLessThan(10)
    }
    expect(12 + loopWireMm(2.5)).toBeCloseTo(21.85, 2)
    expect(stockPin(12 + loopWireMm(2.5))).toBe(25)
    // 22 gauge, three turns.
    expect(wrappedLoopMm(2.5, 0.644, 3)).toBeCloseTo(28.5, 0)
    expect(stockPin(12 + wrappedLoopMm(2.5, 0.644, 3))).toBe(45)
    expect(stockPin(71)).toBeNull()
    expect(stockPin(70)).toBe(70)
  })
  it('a loop stands half of itself above the beads, a wrapped one its neck higher', () => {
    // (2.5 + 0.6) / 2; and 1.5 of neck with two turns of 0.6.
    expect(loopHeightMm(2.5, 0.6, false)).toBeCloseTo(1.55, 9)
    expect(loopHeightMm(2.5, 0.6, true)).toBeCloseTo(1.55 + 1.5 + 1.2, 9)
    // A pin of just its length does, and so does a hole.
    expect([stockPin(25), stockPin(25.1), stockPin(70.1)]).toEqual([25, 30, null])
    expect([wirePasses(0.8, 0.8), wirePasses(0.8, 0.81), wirePasses(1.6, 0.8, 2)]).toEqual([true, false, true])
  })
  it('a wrapped loop grows by one turn of the wire round itself', () => {
    expect(wrappedLoopMm(2.5, 0.6, 4) - wrappedLoopMm(2.5, 0.6, 3)).toBeCloseTo(2 * Math.PI * 0.6, 9)
    expect(loopHeightMm(2.5, 0.6, true)).toBeGreaterThan(loopHeightMm(2.5, 0.6, false))
    expect([wirePasses(0.8, 0.8), wirePasses(0.8, 0.81), wirePasses(0.8, 0.41, 2), wirePasses(0.8, 0.4, 2)]).toEqual([
      true,
      false,
      false,
      true,
    ])
  })
})

describe('every so-manieth place', () => {
  it('is found in the middle wherever any place is, by trying all of them', () => {
    for (let places = 1; places < 40; places++)
      for (let count = 1; count < 8; count++)
        for (let every = 1; every < 6; every++) {
          const tried = Array.from({ length: places }, (_, first) => first).filter((first) => {
            const at = Array.from({ length: count }, (_, i) => first + i * every)
            return at.at(-1)! < places && at.every((p) => at.includes(places - 1 - p))
          })
          expect(middleFirst(places, count, every), `${count} every ${every} of ${places}`).toBe(tried[0] ?? null)
        }
  })
  it('160 links have no middle link for nine dangles every five: 159 or 161 do', () => {
    expect(middleFirst(160, 9, 5)).toBeNull()
    expect(nearPlaces(160, 9, 5)).toEqual([159, 161])
    expect([159, 161].map((n) => middleFirst(n, 9, 5))).toEqual([59, 60])
    // an even number of dangles has its middle between two of them
    expect(nearCounts(160, 9, 5)).toEqual([8, 10])
    expect(nearCounts(160, 9, 4)).toEqual([])
    // fewer links than they take: the least that do
    expect(nearPlaces(3, 3, 2)).toEqual([5])
  })
  it('what is said to do instead does (property)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 1, max: 12 }),
        (places, count, every) => {
          for (const n of nearPlaces(places, count, every)) expect(middleFirst(n, count, every)).not.toBeNull()
          for (const n of nearCounts(places, count, every)) expect(middleFirst(places, n, every)).not.toBeNull()
          if (middleFirst(places, count, every) === null)
            expect(nearPlaces(places, count, every).length).toBeGreaterThan(0)
        },
      ),
    )
  })
  it('links of a length, the step for a span, and what a strap is cut to', () => {
    expect([linksIn(450, 2.8), linksIn(20, 2.8), linksIn(5, 0)]).toEqual([161, 7, 0])
    // eight gaps of 2.8 mm links over 90 mm: 4.02 links
    expect([everyFor(90, 9, 2.8), everyFor(1, 9, 2.8), everyFor(90, 1, 2.8)]).toEqual([4, 1, 1])
    expect(strapPieces(460, { claspMm: 12, frontMm: null })).toEqual({ pieces: 1, eachMm: 448 })
    expect(strapPieces(460, { claspMm: 12, frontMm: 34 })).toEqual({ pieces: 2, eachMm: 207 })
    expect(strapPieces(30, { claspMm: 12, frontMm: 34 }).eachMm).toBe(0)
  })
})

describe('what hangs by one loop', () => {
  const anyPulls = fc.array(
    fc.record({
      grams: fc.double({ min: 0.01, max: 5, noNaN: true }),
      x: fc.double({ min: -30, max: 30, noNaN: true }),
      y: fc.double({ min: 1, max: 60, noNaN: true }),
    }),
    { minLength: 1, maxLength: 8 },
  )
  const mirrored = (pulls: readonly Pull[]) => pulls.map((p) => ({ ...p, x: 0 - p.x }))
  it('turns to where its weights lie lowest, found by turning it bit by bit (property)', () => {
    fc.assert(
      fc.property(anyPulls, (pulls) => {
        // Height of all weights once the whole is turned about its loop.
        const low = (degrees: number) => {
          const t = (degrees * Math.PI) / 180
          return sum(pulls.map(({ grams, x, y }) => grams * (x * Math.sin(t) + y * Math.cos(t))))
        }
        const found = tiltDegrees(pulls)
        for (let d = -89; d <= 89; d += 0.5) expect(low(found)).toBeGreaterThanOrEqual(low(d) - 1e-9)
        expect(tiltDegrees(mirrored(pulls))).toBeCloseTo(0 - found, 9)
        expect(tiltDegrees([...pulls, ...mirrored(pulls)])).toBeCloseTo(0, 9)
      }),
    )
  })
  it('hangs straight where nothing weighs, and by hand', () => {
    expect(tiltDegrees([])).toBe(0)
    // 0.2 g 8 mm out, against 1 g 20 mm below: atan (1.6 / 24)
    expect(
      tiltDegrees([
        { grams: 1, x: 0, y: 20 },
        { grams: 0.2, x: 8, y: 20 },
      ]),
    ).toBeCloseTo(3.814, 3)
  })
})

describe('facing', () => {
  it('a quarter turn from the side shows the front', () => {
    expect([turnedBy('side', 1), turnedBy('side', 2), turnedBy('front', 3)]).toEqual(['front', 'side', 'side'])
  })
  it('turns by a quarter at each link', () => {
    expect(facingOf({ hook: 'side', rings: 0, eyeAcross: false })).toBe('front')
    expect(facingOf({ hook: 'front', rings: 0, eyeAcross: false })).toBe('side')
    expect(facingOf({ hook: 'front', rings: 1, eyeAcross: false })).toBe('front')
    expect(facingOf({ hook: 'side', rings: 0, eyeAcross: true })).toBe('side')
    expect(facingOf({ hook: 'side', rings: 1, eyeAcross: true })).toBe('front')
    fc.assert(
      fc.property(
        fc.constantFrom('front' as const, 'side' as const),
        fc.nat(9),
        fc.boolean(),
        (hook, rings, across) => {
          const one = facingOf({ hook, rings, eyeAcross: across })
          expect(facingOf({ hook, rings: rings + 1, eyeAcross: across })).not.toBe(one)
          expect(facingOf({ hook, rings: rings + 2, eyeAcross: across })).toBe(one)
        },
      ),
    )
  })
})
