import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, piece } from '../../../tests/fixture/piece'
import { beginPiece } from '../../begin/begin'
import { requireSpec } from '../../bead/spec'
import { boundsOf } from '../../bounds'
import { choicesFor } from '../../fit/hang-choices'
import { choiceSteps } from '../../fit/choices'
import { fitOf } from '../../fit/reckon'
import { measureRows } from '../../making/measure'
import { keyOf } from '../../grid/key'
import { linesOf, raggedFrom } from '../../grid/lines'
import { centreOf, freeOf } from '../../piece/drawing'
import { rowsOf, techniqueOf, workOf, type Part, type Piece } from '../../piece/piece'
import { addPartSteps, settingSteps } from '../../piece/recast'
import { sized } from '../../piece/sizes'
import { applySteps, type Step } from '../../piece/step'
import { fillSteps } from '../../piece/wire'
import { partFindings } from '../../proof/finding'
import { cutList, holeChecks } from '../../supply/thread'
import { needsFor, toolsFor } from '../../supply/tools'
import { placeName } from '../../tally/place-name'
import { allRowWords, rowTitle } from '../../tally/words'
import { isoFromUs } from '../../units/ring-size'
import { usualClosure, type ClosureKind } from '../../wear/closure'
import type { FitKind } from '../../wear/kind'
import { requireTechnique, TECHNIQUES } from '../registry'
import type { Settings } from '../technique'

const TRAY = [
  bead(1, { spec: 'round-8' }),
  bead(2, { spec: 'round-11' }),
  bead(3, { spec: 'ball-6-mm' }),
  bead(4, { spec: 'ball-2-mm' }),
  bead(5, { spec: 'half-tile-5-x-2-3-mm' }),
  bead(6, { spec: 'cylinder-8' }),
  bead(7, { spec: 'bicone-4-mm' }),
  bead(8, { spec: 'bugle-6-mm' }),
  bead(9, { spec: 'ball-3-mm' }),
]
const many = (count: number, number: number): number[] => Array<number>(count).fill(number)

function on(technique: string, lines: readonly (readonly number[])[], settings: Settings = {}, plan = {}): Piece {
  const t = requireTechnique(technique)
  return piece({
    tray: TRAY,
    parts: [
      {
        ...{ id: 'band', name: 'Band', technique, spec: 'round-8', times: 1, on: null },
        ...{ settings: t.settings.parse(settings), plan: t.plan!.parse(plan) },
        ...{ start: raggedFrom([]), repeat: raggedFrom(lines), end: raggedFrom([]) },
      },
    ],
  })
}
const begun = (technique: string, kind: FitKind, bodyMm: number, closure: ClosureKind, settings: Settings = {}) =>
  beginPiece({
    ...{ name: '', wearer: '', kind, bodyMm, easeMm: 0, widthMm: 20, technique, settings },
    ...{ closure: usualClosure(closure), motif: 'plain', start: 'left' },
    spec: requireTechnique(technique).material.usualSpec,
  })
const first = (one: Piece): Part => one.parts[0]!
const done = (one: Piece, steps: readonly Step[]): Piece => {
  const made = applySteps(one, [...steps])
  if (!made.ok) throw new Error(made.problems[0]!.says)
  return made.value
}
const set = (one: Piece, settings: Settings): Piece =>
  done(one, settingSteps(one, first(one), { ...first(one).settings, ...settings }, 1))
const counts = (one: Piece): number[] => linesOf(first(one).repeat).map((line) => line.length)
const says = (one: Piece): string =>
  partFindings(first(one), one)
    .map((f) => f.says)
    .join('\n')
const drawn = (one: Piece) => freeOf(first(one))!
/** Cuts of the work itself, without an ear wire. */
const cuts = (one: Piece) => cutList(one).filter(({ part }) => part !== '')
const WIRED = TECHNIQUES.filter(({ wire }) => wire)

/** Any settings of a technique that its fields let one choose. */
const anySettings = (id: string): fc.Arbitrary<Settings> => {
  const { fields, settings } = requireTechnique(id)
  return fc
    .record(
      Object.fromEntries(
        fields.map((field): [string, fc.Arbitrary<string | number | boolean>] => {
          if (field.kind === 'choice') return [field.key, fc.constantFrom(...field.choices!.map(({ value }) => value))]
          if (field.kind === 'flag') return [field.key, fc.boolean()]
          const { least, most, whole } = boundsOf(settings, field.key)
          return [
            field.key,
            whole
              ? fc.integer({ min: least, max: Math.min(most, 12) })
              : fc.double({ min: least, max: most, noNaN: true }),
          ]
        }),
      ),
    )
    .filter((own) => settings.safeParse(own).success)
}

describe('a frame as it is begun', () => {
  it.each(['round-8', 'round-11'])('of %s has rows that its room takes, from 34 mm on', (spec) => {
    for (let bodyMm = 34; bodyMm <= 95; bodyMm += 3) {
      const p = beginPiece({
        ...{ name: '', wearer: '', kind: 'earrings', bodyMm, easeMm: 0, widthMm: 20, technique: 'wire-frame', spec },
        ...{ closure: usualClosure('ear-wire'), motif: 'plain', start: 'left' },
      })
      const codes = p.parts.flatMap((part) => partFindings(part, p).map(({ code }) => code))
      const crowded = codes.filter((code) => ['cross-long', 'cross-close', 'cross-short'].includes(code))
      expect([bodyMm, crowded]).toEqual([bodyMm, []])
    }
  })
})

describe('any work on wire', () => {
  it('is six techniques behind one door', () => {
    expect(WIRED.map(({ id }) => id)).toEqual([
      ...['wire-frame', 'wound-rows', 'wire-ladder', 'tile-ring', 'wire-shape', 'wire-flower'],
    ])
    for (const { making, id } of WIRED) expect(making, id).toBe('wire')
  })
  it('lays each bead once where it can be seen, is cut of wire and bent by guides, whatever is set (property)', () => {
    const any = fc.constantFrom(...WIRED.map(({ id }) => id)).chain((id) =>
      fc.record({
        id: fc.constant(id),
        settings: anySettings(id),
        lines: fc.array(fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 14 }), { minLength: 1, maxLength: 6 }),
      }),
    )
    fc.assert(
      fc.property(any, ({ id, settings, lines }) => {
        const one = on(id, lines, settings)
        const beads = lines.flat().length
        const { keys, xs, ys, carriers, widthMm, lengthMm } = drawn(one)
        expect(keys).toHaveLength(beads)
        for (let k = 0; k < keys.length; k++) {
          expect(xs[k]! >= -1e-6 && xs[k]! <= widthMm + 1e-6, `${id} x`).toBe(true)
          expect(ys[k]! >= -1e-6 && ys[k]! <= lengthMm + 1e-6, `${id} y`).toBe(true)
        }
        for (const { points } of carriers) for (const { x, y } of points) expect(Number.isFinite(x + y)).toBe(true)
        for (const cut of cuts(one)) {
          expect(Number.isFinite(cut.totalMm)).toBe(true)
          expect(cut.totalMm).toBeGreaterThanOrEqual(0)
          expect(cut.shopName).toMatch(/^Wire, \d+ gauge \(0?\.?\d/)
        }
        const part = first(one)
        for (const guide of techniqueOf(part).wire!.guides(workOf(part)))
          for (const { points } of guide.lines)
            for (const { x, y } of points) {
              expect(Number.isFinite(x + y)).toBe(true)
              expect(x).toBeGreaterThan(-20)
              expect(y).toBeGreaterThan(-20)
            }
        expect(says(one)).not.toMatch(/NaN|undefined|Infinity|\berror\b/)
        // Filled once, every line is full; of lines of one size each.
        const even = on(
          id,
          lines.map((line) => many(Math.max(1, line.length), line[0] ?? 1)),
          settings,
        )
        const full = done(even, fillSteps(even, first(even)))
        // Of an outline one size may be left over, and then follows it otherwise.
        if (id !== 'wire-ladder') expect(fillSteps(full, first(full)), id).toEqual([])
      }),
      { numRuns: 120 },
    )
  })
  it('is not measured on the way where it is bent to its size before the first bead', () => {
    const rows = { count: 60, rowOf: (k: number) => k }
    const frame = on('wire-frame', [many(40, 1), many(4, 2)], { wide: 60, long: 90 })
    expect(measureRows(frame, first(frame), rows)).toEqual([])
    const ring = on(
      'tile-ring',
      many(60, 0).map(() => [5, 1, 1]),
    )
    expect(measureRows(ring, first(ring), rows).length).toBeGreaterThan(0)
  })
  it('keeps what was strung by hand when a setting changes that makes no room', () => {
    const few = on('wire-frame', [many(10, 1), [2, 2]], { shape: 'circle', wide: 30 })
    expect(counts(set(few, { hardness: 'soft', pliers: 2.5 }))).toEqual([10, 2])
    expect(counts(set(few, { wide: 31 }))[0]).toBeGreaterThan(30)
    const tuned = on('tile-ring', [...many(9, 0).map(() => [5, 1, 1, 1, 1]), [5, ...many(6, 1)]])
    expect(counts(set(tuned, { gauge: '26' }))[9]).toBe(7)
    expect(counts(set(tuned, { seeds: 1 }))[9]).toBe(3)
    expect(counts(set(on('wound-rows', [[3], [2, 2]]), { wraps: 4 }))).toEqual([1, 2])
    expect(counts(set(on('wire-shape', [[2]], { shape: 'bar', size: 12 }), { post: 11 }))).toEqual([1])
  })
  it('is added to a piece with as many lines as it asks for, and full', () => {
    const one = on('tile-ring', [[5, 1, 1, 1, 1]])
    const added = done(one, addPartSteps(one, 'Frame', 'wire-frame', 'round-8'))
    const part = added.parts[1]!
    expect(rowsOf(part)).toBe(4)
    expect(fillSteps(added, part)).toEqual([])
  })
  it('has no more lines than can be laid at once', () => {
    const { check } = requireTechnique('wire-frame')
    const of = (rows: number) => check({ columns: 5, rows, settings: {} })
    expect(of(60)).toEqual([])
    expect(of(61)[0]!.says).toContain('can have 60 lines, not 61')
    expect(requireTechnique('tile-ring').check({ columns: 5, rows: 900, settings: {} })).toEqual([])
  })
  it('begins in the size that is wanted, with nothing that stops the work', () => {
    for (const [id, kind, mm, closure, near] of [
      ['wire-frame', 'earrings', 50, 'ear-wire', 0.2],
      ['wire-ladder', 'earrings', 45, 'ear-wire', 2.6],
      ['wire-shape', 'earrings', 24, 'post', 0.2],
      ['wire-flower', 'pendant', 60, 'own', 0.2],
      ['tile-ring', 'ring', 56, 'none', 3.2],
      ['wound-rows', 'pendant', 26, 'own', 4],
    ] as const) {
      const one = begun(id, kind, mm, closure)
      expect(Math.abs(fitOf(one).differenceMm), id).toBeLessThanOrEqual(near)
      expect(
        partFindings(first(one), one).filter(({ weight }) => weight === 'stops'),
        id,
      ).toEqual([])
      expect(
        holeChecks(one, first(one)).every(({ verdict }) => verdict === 'easy'),
        id,
      ).toBe(true)
      expect(toolsFor(one), id).toContain('Eye protection')
    }
  })
  it('is offered in another size where it is not as long as wanted, and is that when it is taken', () => {
    for (const [id, closure] of [
      ['wire-frame', 'ear-wire'],
      ['wire-ladder', 'ear-wire'],
      ['wire-flower', 'own'],
      ['wire-shape', 'post'],
    ] as const) {
      const kind = id === 'wire-flower' ? 'pendant' : 'earrings'
      const one = begun(id, kind, 50, closure)
      const other = { ...one, fit: { ...one.fit, bodyMm: 60 } }
      const [best] = choicesFor(other)
      expect(best!.way, id).toBe('size')
      const taken = done(other, choiceSteps(other, best!))
      expect(Math.abs(fitOf(taken).differenceMm), id).toBeLessThan(Math.abs(fitOf(other).differenceMm))
      expect(fitOf(taken).differenceMm, id).toBeCloseTo(best!.fit.differenceMm, 6)
    }
  })
})

describe('a frame of wire', () => {
  const oval = { shape: 'oval', wide: 21.8, long: 32.8, cross: '26', turns: 2 } as const
  // Common practice: 4 inches of wire bent to an oval carry about 40 × 8/0, or 56 × 11/0 with four wires across.
  it('of four inches carries 40 × 8/0, or 56 × 11/0 with four wires across', () => {
    const eight = done(on('wire-frame', [many(10, 1), []], oval), [])
    expect(counts(done(eight, fillSteps(eight, first(eight))))[0]).toBe(40)
    const eleven = on('wire-frame', [many(10, 2), ...many(4, 0).map(() => [])], oval)
    expect(counts(done(eleven, fillSteps(eleven, first(eleven))))[0]).toBe(56)
    expect(says(eight)).toContain('The frame takes 40 beads and has 10: 30 beads more would cover its wire.')
  })
  it('is as large as its beads ask for, the other way round: one bead more takes more wire (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('circle', 'oval', 'drop', 'egg', 'heart', 'polygon'),
        fc.integer({ min: 20, max: 60 }),
        fc.constantFrom(1, 2, 6, 9),
        (shape, count, number) => {
          const frame = (n: number) => on('wire-frame', [many(n, number)], { shape, by: 'beads', room: 0 })
          const wire = (one: Piece) => cuts(one)[0]!.totalMm - cuts(one)[0]!.spareMm
          expect(wire(frame(count + 1))).toBeGreaterThan(wire(frame(count)))
          // A frame of that size takes them, and no more than one besides.
          const { widthMm } = drawn(frame(count))
          expect(widthMm).toBeGreaterThan(5)
          expect(says(frame(count))).not.toContain('off, or bend it larger')
        },
      ),
      { numRuns: 30 },
    )
  })
  it('a larger bead never raises its count (property)', () => {
    const sizes = [2, 1, 9, 3]
    fc.assert(
      fc.property(
        fc.constantFrom('circle', 'oval', 'drop', 'egg', 'heart', 'polygon'),
        fc.double({ min: 20, max: 60, noNaN: true }),
        (shape, wide) => {
          const full = sizes.map((number) => {
            const one = on('wire-frame', [[number]], { shape, wide, long: wide * 1.4, even: false })
            return counts(done(one, fillSteps(one, first(one))))[0]!
          })
          expect(full).toEqual([...full].sort((a, b) => b - a))
        },
      ),
      { numRuns: 25 },
    )
  })
  it('holds wires across between the same two beads left and right: its drawing is its own mirror', () => {
    const one = begun('wire-frame', 'earrings', 55, 'ear-wire', { filling: 'hugged' })
    const { xs, ys, widthMm } = drawn(one)
    const places = Array.from(xs, (x, k) => ({ x, y: ys[k]! }))
    for (const { x, y } of places)
      expect(
        places.some((p) => Math.hypot(p.x - (widthMm - x), p.y - y) < 0.02),
        `${x} ${y}`,
      ).toBe(true)
    expect(drawn(one).carriers.every(({ kind }) => kind === 'wire')).toBe(true)
    // Its wraps go over the frame as often as under it, two turns at each end of each wire.
    const { layers } = drawn(one)
    const crosses = rowsOf(first(one)) - 1
    expect(layers.before).toHaveLength(crosses * 2 * 2)
    expect(layers.behind).toHaveLength(layers.before.length)
  })
  it('calls each line what it is: frame, wire across, stem, row, ring, petal, leaf', () => {
    const titles = (one: Piece) => [...allRowWords(first(one))].map(rowTitle)
    const line = many(6, 1)
    expect(titles(on('wire-frame', [many(40, 1), line, line]))).toEqual(['Frame', 'Wire 1 across', 'Wire 2 across'])
    expect(titles(on('wound-rows', [[3], line, line]))).toEqual(['Stem', 'Row 1', 'Row 2'])
    expect(titles(on('wire-flower', [line, line, line, line], { petals: 2, leaves: 1 }))).toEqual([
      ...['Ring', 'Petal 1', 'Petal 2', 'Leaf 1'],
    ])
    expect(titles(on('wire-ladder', [many(1, 1), many(2, 1)]))).toEqual(['Row 1', 'Row 2'])
    // A bead is found by the same names.
    expect(placeName(first(on('wire-frame', [many(40, 1), line])), { c: 2, r: 1 })).toBe('wire 1 across, bead 3')
  })
  it('is drawn from its loop down as long as it is said to be', () => {
    for (const technique of ['wire-frame', 'wire-ladder', 'wound-rows']) {
      const one = begun(technique, 'earrings', 40, 'ear-wire')
      const { hungAt, lengthMm } = drawn(one)
      const { least, most } = techniqueOf(first(one)).extent(workOf(first(one))).lengthMm
      expect(lengthMm - hungAt!.y, technique).toBeCloseTo((least + most) / 2, 1)
    }
  })
  it('says what does not fit, and how to mend it', () => {
    const frame = (lines: readonly (readonly number[])[], plan = {}, more: Settings = {}) =>
      on('wire-frame', lines, { shape: 'circle', wide: 30, ...more }, plan)
    const ring = counts(done(frame([[1]]), fillSteps(frame([[1]]), first(frame([[1]])))))[0]!
    expect(says(frame([many(ring + 2, 1)]))).toContain(
      `The frame takes ${ring} beads and has ${ring + 2}: take 2 beads`,
    )
    expect(says(frame([many(ring - 1, 1)]))).toContain('put a bead at the bottom: nothing can hang on the axis')
    const cross = (gap: number, filling = 'straight', left: number | null = null) => ({ gap, left, filling })
    expect(says(frame([many(ring, 1), many(30, 2)], { crosses: [cross(10)] }))).toMatch(
      /What wire 1 carries is [\d.]+ mm too long: it would bow by/,
    )
    expect(says(frame([many(ring, 1), many(3, 2)], { crosses: [cross(10)] }))).toMatch(
      /On wire 1 [\d.]+ mm of wire would show on each side: add \d+ beads a side/,
    )
    expect(says(frame([many(ring, 1), [2], [2]], { crosses: [cross(10), cross(10)] }))).toContain(
      'Wires 1 and 2 across lie in each other',
    )
    expect(says(frame([many(ring, 1), [2]], { crosses: [cross(10, 'straight', 11)] }))).toContain(
      'Wire 1 leaves gap 10 on the right and gap 11 on the left: it lies askew.',
    )
    expect(says(frame([many(ring, 1), [2]], { crosses: [cross(99)] }))).toContain('Wire 1 asks for gap 99')
    expect(says(frame([many(20, 6)], {}, { wide: 16 }))).toContain('cylinder 8/0 gapes on this bend')
    expect(says(frame([many(8, 8)], {}, { wide: 20, gauge: '24' }))).toMatch(
      /is too long for this bend: its hole needs a curve of radius 15.9 mm/,
    )
    // Twelve petals round 3 mm rattle.
    expect(says(frame([many(ring, 1), [...many(13, 2), 9]], { crosses: [cross(10, 'flower')] }))).toContain(
      'rattles in them',
    )
    expect(says(frame([many(ring, 1), [...many(6, 2), 9]], { crosses: [cross(10, 'flower')] }))).toContain(
      'wire shows between them',
    )
  })
  it('tells each wire: wrapped in its gap, through its beads, a large bead three times', () => {
    const one = on(
      'wire-frame',
      [many(40, 1), [2, ...many(8, 2), 3, ...many(8, 2), 2]],
      { shape: 'circle', wide: 30 },
      {
        crosses: [{ gap: 10, left: null, filling: 'hugged' }],
      },
    )
    const told = techniqueOf(first(one))
      .order.row(1, workOf(first(one)))
      .told!.map((step) => `${step.says} ${step.note}`)
    expect(told[0]).toContain('wind 2 turns round the frame in gap 10 on the left')
    expect(told.filter((text) => text.includes('through the 2nd bead'))).toHaveLength(2)
    expect(told.join(' ')).toContain('back over the large bead')
    const [large] = holeChecks(one, first(one)).filter(({ spec }) => spec === 'ball-6-mm')
    expect(large).toMatchObject({ passes: 3 })
    // 18.8 mm across, two turns at each end of 22 on 26 gauge, 2 × 50 mm to hold: 132 mm.
    const flat = on('wire-frame', [many(40, 1), many(2, 2)], { ...oval, gauge: '22' }, { crosses: [{ gap: 10 }] })
    const wire = cuts(flat).find(({ id }) => id === 'cross-1-1')!
    expect(wire.formula).toMatch(/2 × 2 turns × π × 1 mm \+ 2 × 50 mm to hold/)
    expect(wire.totalMm - wire.spareMm).toBeCloseTo(21.8 + 4 * Math.PI * (0.644 + 0.405) + 100, 0)
  })
  it('hangs with its face to the front, where an even count of quarter turns leads to it', () => {
    const one = begun('wire-frame', 'earrings', 50, 'ear-wire')
    const seen = (loop: 'front' | 'side') =>
      says({ ...one, fit: { ...one.fit, closure: { ...one.fit.closure, loop } } })
    expect(seen('side')).not.toMatch(/edge/)
    expect(seen('front')).toMatch(/edge/)
  })
  describe('left open at its top', () => {
    const open = (openMm: number, more: Settings = {}, count = 30) =>
      on('wire-frame', [many(count, 1)], { shape: 'circle', wide: 30, gauge: '20', open: openMm, ...more })
    it('is cut from end to end, with a loop on each', () => {
      const [cut] = cuts(open(20))
      expect(cut!.formula).toContain('from end to end 74.2 mm + 2 loops')
      expect(cut!.totalMm - cut!.spareMm).toBeCloseTo(30 * Math.PI - 20 + 2 * (1.75 * Math.PI + 2) + 20, 1)
      // One ring stands on each end, as far aside as the chord between the ends: 2 · 15 sin (10 / 15).
      const rings = drawn(open(20)).carriers.slice(1)
      const middles = rings.map(({ points }) => points.reduce((sum, { x }) => sum + x, 0) / points.length)
      expect(middles).toHaveLength(2)
      expect(middles[0]! - middles[1]!).toBeCloseTo(30 * Math.sin(10 / 15), 1)
      expect(says(open(20))).not.toMatch(/loop|open/)
      expect(drawn(open(0)).carriers).toHaveLength(2)
    })
    it('takes fewer beads the more it is left open, alike on both sides (property)', () => {
      fc.assert(
        fc.property(
          fc.constantFrom('circle', 'oval', 'drop', 'egg', 'heart', 'polygon'),
          fc.integer({ min: 0, max: 25 }),
          // Where a point or a cleft is left out, the room that it kept free is gained.
          fc.integer({ min: 10, max: 18 }),
          (shape, openMm, more) => {
            const full = (mm: number) => {
              const one = open(mm, { shape, long: 40 }, 1)
              return done(one, fillSteps(one, first(one)))
            }
            const [one, other] = [full(openMm), full(openMm + more)]
            expect(counts(other)[0]).toBeLessThan(counts(one)[0]!)
            const { xs, widthMm } = drawn(other)
            const sum = xs.reduce((a, b) => a + b, 0)
            expect(sum / xs.length).toBeCloseTo(widthMm / 2, 1)
          },
        ),
        { numRuns: 25 },
      )
    })
    it('is as large as its beads ask for, too', () => {
      const wire = (count: number, openMm: number) => {
        const [cut] = cuts(open(openMm, { by: 'beads', room: 0 }, count))
        return cut!.totalMm - cut!.spareMm
      }
      expect(wire(31, 12)).toBeGreaterThan(wire(30, 12))
      // Beads bend less round a larger outline: they take a little less wire, and never less than their own length.
      expect(wire(30, 12)).toBeLessThan(wire(30, 0))
      expect(wire(30, 12)).toBeGreaterThan(30 * requireSpec('round-8').l + 2 * (1.75 * Math.PI + 2) + 20)
      // Where more than its wire is asked for, half of the outline stays: 30 beads on a half circle.
      expect(drawn(open(100, { by: 'beads', room: 0 }, 30)).widthMm).toBeGreaterThan(30 * 2.1 * (2 / Math.PI))
    })
    it('is told with its loops: the first before its beads, the other behind them, and a ring to hang it by', () => {
      const told = (one: Piece) =>
        techniqueOf(first(one))
          .order.row(0, workOf(first(one)))
          .told!.map(({ says: text, note }) => `${text} ${note}`)
      const steps = told(open(20))
      expect(steps[0]).toContain('turn a loop on one end')
      expect(steps.at(-1)).toContain('turn a loop on the other end')
      expect(told(open(0)).join(' ')).toContain('press the loops onto each other')
      expect(needsFor(open(20))).toContainEqual(expect.objectContaining({ name: 'Ring or short chain', count: 1 }))
      expect(needsFor(open(0))).toEqual([])
    })
    it('says where its beads slide off, its loops meet, or too little of it is left', () => {
      expect(says(open(20, { loops: 0 }))).toContain('Beads slide off an open end: turn a loop on each, where none is')
      expect(says(open(20, { loops: 1 }))).toContain('where one is planned')
      // Two rings of 1.75 mm inside, of wire of 0.81, side by side: 3.4 mm from middle to middle.
      expect(says(open(3.3))).toContain('The loops lie on each other: their middles want 3.4 mm between them.')
      expect(says(open(3.5))).not.toContain('The loops lie on each other')
      expect(says(open(50))).toContain('50 mm are more than half of the 94.2 mm round this frame')
      expect(says(open(47))).not.toContain('more than half')
    })
    it('hangs to a length that is wanted, larger and opened as much more', () => {
      const one = open(20, { shape: 'oval', wide: 24, long: 34 })
      const wanted = { ...one, fit: { ...one.fit, kind: 'pendant' as const, bodyMm: 45 } }
      const [sizing] = techniqueOf(first(one)).wire!.sizedTo!(45, workOf(first(wanted)))
      const larger = on('wire-frame', [many(30, 1)], sizing!.settings)
      expect(drawn(larger).lengthMm - drawn(larger).hungAt!.y).toBeCloseTo(45, 0)
      expect(sizing!.settings.open).toBeGreaterThan(20)
    })
    it('faces the front behind a loop that is seen from the front: the ring through both loops turns it', () => {
      const seen = (openMm: number, loop: 'front' | 'side') => {
        const one = begun('wire-frame', 'earrings', 50, 'ear-wire', { open: openMm })
        return says({ ...one, fit: { ...one.fit, closure: { ...one.fit.closure, loop } } })
      }
      expect(seen(12, 'front')).not.toMatch(/edge/)
      expect(seen(12, 'side')).toMatch(/edge/)
    })
    it('is closed where it is bought', () => {
      const [one, other] = [20, 0].map((mm) => drawn(open(mm, { source: 'bought' })))
      expect(one!.xs).toEqual(other!.xs)
      expect(one!.carriers).toEqual(other!.carriers)
    })
  })
  it('takes no wire of its own where it is bought', () => {
    const one = on('wire-frame', [many(30, 1)], { shape: 'circle', wide: 25, source: 'bought' })
    expect(cuts(one)).toEqual([])
    expect(needsFor(one)[0]).toMatchObject({ name: 'Hoop, 25 mm across', count: 1 })
  })
  it('is as thick as its holes allow where that is left open', () => {
    const wire = (number: number) => cuts(on('wire-frame', [many(20, number)], { shape: 'circle' }))[0]!.shopName
    expect(wire(1)).toBe('Wire, 20 gauge (0.81 mm), half hard')
    expect(wire(2)).toBe('Wire, 22 gauge (0.64 mm), half hard')
    const tight = on('wire-frame', [many(20, 2)], { shape: 'circle', gauge: '20' })
    expect(holeChecks(tight, first(tight))[0]).toMatchObject({
      ...{ verdict: 'tight', passes: 1 },
      helps: [{ kind: 'wire', gauge: 22 }],
    })
  })
})

describe('rows wound round a centre', () => {
  const gauges = { stem: '22', winding: '26', above: 'simple' } as const
  it('take what was worked by hand, both sides alike, on 128 mm of wire and tails', () => {
    const one = on(
      'wound-rows',
      [
        [3, 9],
        [4, 4],
        [1, 1],
      ],
      gauges,
    )
    const full = done(one, fillSteps(one, first(one)))
    expect(counts(full)).toEqual([2, 12, 20])
    const winding = cuts(full).find(({ id }) => id === 'winding')!
    expect(winding.totalMm - winding.spareMm).toBeCloseTo(128 + 200, 0)
    expect(says(full)).toMatch(/mm of wire shows at each end of row 1: 7 beads stand off by [\d.]+ mm, 6 leave it\./)
    // 19.0 tall and 16.0 wide, without its loop.
    const { xs, ys } = drawn(full)
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(16 - 3, 0)
    expect(Math.max(...ys) - Math.min(...ys)).toBeGreaterThan(14)
  })
  it('say where sides differ, rows are too full or clump', () => {
    expect(says(on('wound-rows', [[3], many(9, 2)], gauges))).toContain('both sides carry the same count')
    expect(says(on('wound-rows', [[3], many(30, 2)], gauges))).toMatch(
      /Row 1 takes 8 a side and has 15: it would stand off by/,
    )
    expect(says(on('wound-rows', [[3], many(4, 2)], gauges))).toContain('of wire shows on each side')
    expect(says(on('wound-rows', [[], many(4, 2)], gauges))).toContain('Nothing stands on the stem')
    const five = on('wound-rows', [[3], ...Array.from({ length: 5 }, () => [2, 2])], gauges)
    expect(says(done(five, fillSteps(five, first(five))))).toContain('Winding gets clumsy beyond 4 rows')
  })
  it('never lie in each other or in what stands there, and mirror (property)', () => {
    const anyRow = fc.constantFrom(1, 2, 4, 9)
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(3, 9, 1), { minLength: 1, maxLength: 3 }),
        fc.array(anyRow, { minLength: 1, maxLength: 4 }),
        fc.constantFrom('none', 'head', 'foot', 'both'),
        fc.integer({ min: 25, max: 75 }),
        (stem, rows, pointed, tip) => {
          const lined = [stem, ...rows.map((number) => [number, number])]
          const one = on('wound-rows', lined, { ...gauges, pointed, tip })
          const full = done(one, fillSteps(one, first(one)))
          const part = first(full)
          const lines = linesOf(part.repeat)
          lines.slice(1).forEach((line, k) => {
            expect(line.length % 2).toBe(0)
            const half = line.length / 2
            const middle = drawn(full).widthMm / 2
            for (let c = 0; c < half; c++) {
              const [right, left] = [centreOf(part, c, k + 1), centreOf(part, half + c, k + 1)]
              expect(right.x - middle).toBeCloseTo(middle - left.x, 4)
              expect(right.y).toBeCloseTo(left.y, 4)
              // Nor does it reach over the stem into the other side, hole ends and thickness.
              const own = requireSpec(TRAY[line[c]! - 1]!.spec)
              const { turns, indexOf } = drawn(full)
              const turn = (turns[indexOf(keyOf(part.repeat.columns, c, k + 1))]! * Math.PI) / 180
              const aside = Math.hypot((own.l / 2) * Math.cos(turn), (own.d / 2) * Math.sin(turn))
              expect(right.x - middle - aside, `${pointed} ${tip}`).toBeGreaterThan(-0.05)
              // A row stands clear of the beads of the stem by half of itself.
              stem.forEach((number, s) => {
                const at = centreOf(part, s, 0)
                const far = Math.hypot(right.x - at.x, right.y - at.y)
                const size = requireSpec(TRAY[number - 1]!.spec).d / 2 + requireSpec(TRAY[line[c]! - 1]!.spec).d / 2
                expect(far).toBeGreaterThan(size - 0.05)
              })
            }
          })
        },
      ),
      { numRuns: 40 },
    )
  })
  it('come to tips where they are pointed: longer by their sides and by what their points reach', () => {
    const leaf = (pointed: string) => {
      const one = on('wound-rows', [[3], [2, 2], [2, 2]], { ...gauges, pointed })
      return done(one, fillSteps(one, first(one)))
    }
    const [round, foot, both] = ['none', 'foot', 'both'].map(leaf)
    // By hand, a 6 mm ball and two rows of 11/0: each tip reaches R (√2 − 1) farther, less what a row that is too
    // full lifts the round one by.
    const tip = (3 + 2 * requireSpec('round-11').d) * (Math.SQRT2 - 1)
    const more = (one: Piece) => drawn(one).lengthMm - drawn(round!).lengthMm
    const lift = (one: Piece) => drawn(one).widthMm - drawn(round!).widthMm
    expect(more(foot!) - lift(foot!)).toBeCloseTo(tip + (lift(foot!) / 2) * (Math.SQRT2 - 1), 0)
    expect(more(both!) - lift(both!)).toBeCloseTo(2 * tip + lift(both!) * (Math.SQRT2 - 1), 0)
    expect(counts(both!)[2]).toBeGreaterThan(counts(round!)[2]!)
    const wire = (one: Piece) => cuts(one).find(({ id }) => id === 'winding')!.totalMm
    expect(wire(both!)).toBeGreaterThan(wire(foot!))
    const notes = (one: Piece) =>
      techniqueOf(first(one))
        .order.row(1, workOf(first(one)))
        .told!.map(({ says: text, note }) => `${text} ${note}`)
        .join('\n')
    expect(notes(foot!)).toMatch(/at the foot, crossing it at 45°/)
    expect(notes(foot!)).not.toMatch(/at the head, close together, crossing/)
    expect(says(both!)).not.toMatch(/stand off|stops/)
  })
  it('are shown row by row: what each takes, has, and its turns', () => {
    const one = on(
      'wound-rows',
      [
        [3, 9],
        [4, 4],
        [1, 1],
      ],
      gauges,
    )
    const [table] = techniqueOf(first(one)).wire!.tables!(workOf(first(one)), 0)
    expect(table!.rows).toEqual([
      ['1', 'round glass or stone 2 mm', '6', '1', '15', '2'],
      ['2', 'round 8/0', '10', '1', '22.8', '6'],
    ])
  })
  it('one more row is as full as it is there, where it is asked for', () => {
    const one = begun('wound-rows', 'pendant', 30, 'own', { rows: 2 })
    const rows = Number(first(one).settings.rows)
    const more = set(one, { rows: rows + 1 })
    expect(rowsOf(first(more))).toBe(rows + 2)
    expect(fillSteps(more, first(more))).toEqual([])
    expect(rowsOf(first(set(more, { rows: 1 })))).toBe(2)
  })
})

describe('a wire ladder', () => {
  it('takes the first row once and all others twice: 24.25 mm for 1, 2, 3 of 11/0', () => {
    const one = on('wire-ladder', [[2], [2, 2], [2, 2, 2]], { outline: 'own', twist: 0, loop: 'simple', pliers: 1 })
    const [cut] = cuts(one)
    // Loop on 1 mm pliers π + 2, and 2 × 40 mm to hold.
    expect(cut!.totalMm - cut!.spareMm).toBeCloseTo(24.25 + Math.PI + 2 + 80, 1)
  })
  it('passes every bead of the first row once, of all others twice', () => {
    const one = on('wire-ladder', [[2], [2, 2], [2, 2, 2]], { outline: 'own' })
    const { passesAt } = techniqueOf(first(one)).path(workOf(first(one)))
    expect([passesAt!(0, 0, 'a'), passesAt!(1, 1, 'a'), passesAt!(2, 2, 'a')]).toEqual([1, 2, 2])
    const told = techniqueOf(first(one)).order.row(1, workOf(first(one))).told!
    expect(told.map(({ who }) => who)).toEqual(['other end', 'one end'])
    expect(told[0]!.note).toContain('0.7 mm further out on each side')
  })
  it('follows its outline when that changes; colours stay where a row stays', () => {
    const one = begun('wire-ladder', 'earrings', 45, 'ear-wire')
    const before = linesOf(first(one).repeat).map((line) => [...line].join())
    const thinner = set(one, { gauge: '30' })
    expect(linesOf(first(thinner).repeat).map((line) => [...line].join())).toEqual(before)
    const triangle = set(one, { outline: 'triangle', rows: 8, widest: 16.8 })
    expect(counts(triangle)).toHaveLength(8)
    const widths = linesOf(first(triangle).repeat).map((line) =>
      Array.from(line, (n) => requireSpec(one.tray.find((b) => b.number === n)!.spec).l).reduce((a, b) => a + b, 0),
    )
    expect(widths.map((mm) => Math.round(mm * 10) / 10)).toEqual([2.1, 4.2, 6.3, 8.4, 10.5, 12.6, 14.7, 16.8])
    expect(counts(set(triangle, { turned: true }))).toEqual(counts(triangle).toReversed())
  })
  it('shows how far each row stands off from the one before', () => {
    const one = on('wire-ladder', [[2], [2, 2], [2, 2, 2, 2, 2]], { outline: 'own' })
    const [table] = techniqueOf(first(one)).wire!.tables!(workOf(first(one)), 0)
    expect(table!.rows).toEqual([
      ['1', '1.4', '', ''],
      ['2', '2.8', '0.7', '0.1'],
      ['3', '7', '2.1', '0.9'],
    ])
  })
  it('says which row stands off, and the row that mends it', () => {
    const one = on('wire-ladder', [many(3, 2), many(7, 2)], { outline: 'own' })
    expect(says(one)).toContain(
      'Row 2 is 5.6 mm wider than row 1: its ends stand off by 2.8 mm, with 1.4 mm of bare wire on each side. Put a ' +
        'row of 5 × round 11/0 between them.',
    )
    const mended = on('wire-ladder', [many(3, 2), many(5, 2), many(7, 2)], { outline: 'own' })
    expect(says(mended)).not.toContain('5.6 mm wider')
    expect(says(on('wire-ladder', [[2, 1]], { outline: 'own' }))).toContain('Row 1 is not its own mirror')
    expect(says(on('wire-ladder', [[2], []], { outline: 'own' }))).toContain('Row 2 has no bead')
    expect(says(on('wire-ladder', [many(4, 2), many(5, 2)], { outline: 'own' }))).toBe('')
  })
})

describe('a ring of tiles', () => {
  const tile = (seeds: number, seed: number) => [5, ...many(2 * seeds, seed)]
  // Common practice: ten half tiles with two seeds between fit a middle finger, and take about 20 cm of wire doubled.
  it('of ten half tiles and two 8/0 fits a middle finger, on about 20 cm of wire', () => {
    const one = on(
      'tile-ring',
      many(10, 0).map(() => tile(2, 1)),
    )
    const ring = {
      ...one,
      fit: { ...one.fit, kind: 'ring' as const, bodyMm: isoFromUs(7.75), closure: usualClosure('none') },
    }
    expect(fitOf(ring).finishedMm.nominal).toBeCloseTo(56.5, 1)
    expect(cuts(one)[0]).toMatchObject({ cutMm: 200, pieces: 1 })
    expect(says(one)).toContain('the finger feels the seeds')
  })
  it('20 gauge is tight in its holes, and 22 is offered', () => {
    const one = on(
      'tile-ring',
      many(10, 0).map(() => tile(2, 1)),
      { gauge: '20' },
    )
    const check = holeChecks(one, first(one)).find(({ spec }) => spec.startsWith('half-tile'))
    expect(check).toMatchObject({ verdict: 'tight', passes: 1, helps: [{ kind: 'wire', gauge: 22 }] })
  })
  it('goes through both holes, once each, seeds on both wires', () => {
    const one = on('tile-ring', [tile(1, 1), tile(1, 1)])
    const { passesAt } = techniqueOf(first(one)).path(workOf(first(one)))
    expect([passesAt!(0, 1, 'a'), passesAt!(0, 1, 'b'), passesAt!(1, 1, 'a')]).toEqual([1, 1, 1])
    expect(drawn(one).carriers.filter(({ kind }) => kind === 'wire')).toHaveLength(2)
  })
  it('offers seeds by one more or fewer; ring size → tiles → ring size stays within a tile’s step (property)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 46, max: 70 }), (iso) => {
        const one = begun('tile-ring', 'ring', iso, 'none')
        const near = choicesFor(one).filter(({ way }) => way === 'whole')
        const best = Math.min(...near.map((c) => Math.abs(c.fit.differenceMm)))
        // A tile and its seeds add about 6.4 mm.
        expect(best).toBeLessThanOrEqual(6.5 / 2)
        const sizes = near.map((c) => c.fit.finishedMm.nominal).sort((a, b) => a - b)
        expect(sizes[0]!).toBeLessThanOrEqual(iso + 3.3)
        expect(sizes.at(-1)!).toBeGreaterThanOrEqual(iso - 3.3)
      }),
      { numRuns: 25 },
    )
    const ways = choicesFor(begun('tile-ring', 'ring', 53, 'none')).map(({ way }) => way)
    expect(ways).toContain('whole')
    expect(counts(set(begun('tile-ring', 'ring', 56, 'none'), { seeds: 3 })).every((n) => n === 7)).toBe(true)
  })
  it('one, two or three seeds between stand side by side, with what is left over', () => {
    const one = begun('tile-ring', 'ring', 56, 'none')
    const [table] = techniqueOf(first(one)).wire!.tables!(workOf(first(one)), 56)
    expect(table!.rows.map(([seeds]) => seeds)).toEqual(['1', '1', '2', '2', '3', '3'])
    // Ten tiles with two 8/0 between: 56.5.
    expect(table!.rows[3]).toEqual(['2', '10', '56.5', '7.75', '+0.5'])
  })
  it('says what is no ring: too few tiles, one hole, unlike seeds', () => {
    expect(says(on('tile-ring', [tile(2, 1)]))).toContain('do not close round a finger')
    expect(
      says(
        on(
          'tile-ring',
          many(6, 0).map(() => [1, 2, 2]),
        ),
      ),
    ).toContain('has one hole')
    expect(says(on('tile-ring', [...many(6, 0).map(() => tile(2, 1)), [5, 1, 1, 1]]))).toContain(
      'unlike counts of seeds',
    )
    expect(says(on('tile-ring', [...many(6, 0).map(() => tile(2, 1)), tile(1, 1)]))).toContain(
      'Behind tile 7 lie 1 seeds',
    )
  })
})

describe('a small bent shape', () => {
  it('a bar of 12 mm on 22 gauge holds eight 11/0, a circle of 10 mm nineteen; heart and hoop by hand', () => {
    const full = (settings: Settings, number = 2) => {
      const one = on('wire-shape', [[number]], settings)
      return done(one, fillSteps(one, first(one)))
    }
    const bar = full({ shape: 'bar', size: 12, gauge: '22' })
    expect(counts(bar)).toEqual([8])
    expect(cuts(bar)[0]!.totalMm - cuts(bar)[0]!.spareMm).toBeCloseTo(27.6, 1)
    expect(counts(full({ shape: 'circle', size: 10, open: 3 }))).toEqual([19])
    expect(counts(full({ shape: 'hoop', size: 25, gauge: '20' }, 1))).toEqual([31])
    expect(counts(full({ shape: 'heart', size: 11 }))[0]! % 2).toBe(0)
  })
  it('says where beads cannot move, and what posts are made of', () => {
    expect(says(on('wire-shape', [many(9, 2)], { shape: 'bar', size: 12 }))).toContain('take a bead out, 8 fit')
    expect(says(on('wire-shape', [many(4, 2)], { shape: 'bar', size: 12 }))).toContain('room for 8 beads')
    expect(says(on('wire-shape', [many(8, 2)], { shape: 'bar', size: 12, gauge: '24' }))).toContain(
      'Posts are 0.6 to 0.8 mm',
    )
    expect(says(on('wire-shape', [[8]], { shape: 'circle', size: 12, gauge: '24' }))).toContain(
      'does not slide round this bend',
    )
    const studs = on('wire-shape', [many(8, 2)], { shape: 'bar', size: 12 })
    expect(needsFor(studs)).toEqual([{ name: 'Butterfly backs', count: 1, says: 'one for each post' }])
  })
})

describe('a flower on wire', () => {
  it('closes its ring through the first petal, locks its middle, and twists each loop', () => {
    const one = on('wire-flower', [[...many(10, 2), 9], many(9, 2), many(13, 2)], { petals: 1, leaves: 1 })
    const work = workOf(first(one))
    const told = techniqueOf(first(one))
      .order.row(0, work)
      .told!.map((step) => `${step.says} ${step.note}`)
    expect(told[1]).toContain('through the 1st bead')
    expect(told[3]).toContain('through the 6th bead')
    const leaf = techniqueOf(first(one))
      .order.row(2, work)
      .told!.map((step) => `${step.says} ${step.note}`)
    expect(leaf.join(' ')).toContain('a leaf')
    expect(leaf.join(' ')).toContain('twist it 3 turns')
    expect(says(one)).toBe('')
  })
  it('says where its middle rattles, its ring leans, and loops differ', () => {
    expect(says(on('wire-flower', [[...many(13, 2), 4]]))).toContain('rattles')
    expect(says(on('wire-flower', [[...many(13, 2), 4]]))).toContain('the middle leans by 14°')
    expect(says(on('wire-flower', [[...many(10, 2), 9], many(9, 2), many(8, 2)], { petals: 2 }))).toContain(
      'Petals have unlike counts',
    )
    expect(says(on('wire-flower', [[...many(10, 2), 9], many(3, 2)]))).toContain('with fewer than four it is no loop')
    expect(says(on('wire-flower', [[...many(10, 2), 9], many(9, 2)]))).toContain('5 petals are asked for and 1 loops')
  })
  it('has as many petals and leaves as are asked for, like those that it has', () => {
    const one = begun('wire-flower', 'pendant', 60, 'own')
    expect(rowsOf(first(one))).toBe(8)
    const more = set(one, { petals: 7, leaves: 1 })
    expect(rowsOf(first(more))).toBe(9)
    expect(new Set(counts(more).slice(1, 8)).size).toBe(1)
    expect(says(sized(more))).not.toContain('unlike')
  })
})
