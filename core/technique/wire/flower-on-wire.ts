import { z } from 'zod'
import { requireSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { laced, type Lacing } from '../../recipe/laced'
import type { Row } from '../../recipe/rows'
import { wireDiameterMm } from '../../units/wire-gauge'
import { centreOfPetals, petalsRound } from '../../wire/cross'
import { measured, type MeasuredCurve } from '../../wire/curve'
import { placesBetween } from '../../wire/frame'
import { twistWireMm } from '../../wire/rungs'
import { drop } from '../../wire/shape'
import type { Carrier, PlacedBead } from '../drawing'
import type { Point } from '../lattice'
import { BEADS } from '../material'
import type { Finding, Settings, Work } from '../technique'
import { lengthOfRow } from '../work'
import type { Guide, Sizing } from '../wire-side'
import { twisted } from './coil'
import { highOfRow, lineOf, longOfRow, places } from './filling'
import { flowerSays } from './flower'
import {
  differs,
  AS_HOLES_ALLOW,
  gaugeField,
  gaugeNumber,
  gaugeOrHoles,
  gaugeThrough,
  HARDNESS,
  hardnessField,
  keptByShape,
  markedWire,
  TUCKED,
  WIRE_CAUTIONS,
  wireWork,
  inMm,
} from './wire-work'

/**
 * A flower on wire: a ring of beads closed through its first, a middle locked across it; further lines are petals and
 * leaves, loops of beads that a twist closes. The first line is the ring and its middle, last. docs/wire.md.
 */
const settings = z.strictObject({
  petals: z
    .int()
    .min(0)
    .max(12)
    .default(5)
    .describe('Loops that stand round the ring; the rest are leaves on the stem'),
  leaves: z.int().min(0).max(8).default(2),
  twist: z.int().min(1).max(12).default(3).describe('Turns that close each loop'),
  stem: z.number().min(5).max(200).default(25).describe('Stem of both ends, twisted, mm'),
  gauge: gaugeOrHoles.default(AS_HOLES_ALLOW).describe('Wire, by its gauge number'),
  hardness: z.enum(HARDNESS).default('soft'),
})
type Own = Omit<z.infer<typeof settings>, 'gauge'> & { readonly gauge: number }
function read(given: Settings): Own {
  const own = settings.parse(given)
  return { ...own, gauge: gaugeNumber(own.gauge) }
}

/** The thickest wire of flowers, by gauge (from memory). */
const FLOWER_GAUGE = 26
/** Held at each end, mm (from memory). */
const HELD_MM = 50
/** A turn of a twist takes so many thicknesses of the wire. */
const TWIST_PITCH = 4

const twistLong = (own: Own, turns = own.twist): number => turns * TWIST_PITCH * wireDiameterMm(own.gauge)

/** A loop of beads as it lies: where it begins, which way it points, and the curve from there. */
interface LaidLoop {
  readonly row: Row
  readonly curve: MeasuredCurve
  readonly at: Point
  /** Which way it points, radians clockwise from the top. */
  readonly way: number
  readonly tallMm: number
  readonly isLeaf: boolean
}

interface Measured {
  readonly own: Own
  readonly ring: Row
  readonly middle: Row
  /** Middle line of the ring, and how far it reaches. */
  readonly ringMm: number
  readonly reachMm: number
  readonly loops: readonly LaidLoop[]
}

/** A loop as a drop with its point where it is twisted, as slim as there is room for. */
function loopCurve(row: Row, halfAngle: number): { readonly curve: MeasuredCurve; readonly tallMm: number } {
  // A drop whose sides leave its point by an angle has its point R / sin (angle) above the middle of its round.
  const above = 1 / Math.sin(Math.max(0.18, Math.min(0.7, halfAngle)))
  const thick = highOfRow(row)
  const one = measured(drop(1, above)).lengthMm
  const radius = Math.max(thick * 0.7, (longOfRow(row) + thick) / one)
  return { curve: measured(drop(radius, above * radius)), tallMm: radius * (above + 1) }
}

/** Beads of the shortest first line that is a ring with its middle. */
const LEAST_RING = 4

/** The ring of a first line, and what lies in its middle: too few beads for a ring lie there side by side. */
const ringOf = (row: Row): { readonly ring: Row; readonly middle: Row } =>
  row.length < LEAST_RING ? { ring: [], middle: row } : { ring: row.slice(0, -1), middle: row.slice(-1) }

const measure = keptByShape((work: Work, lines: readonly Row[]): Measured => {
  const asked = read(work.settings)
  // Petals of the ring are passed twice.
  const own = { ...asked, gauge: gaugeThrough(asked.gauge, FLOWER_GAUGE, lines, 2) }
  const { ring, middle } = ringOf(lines[0] ?? [])
  const thick = highOfRow(ring)
  const inner = Math.max(
    ring.length > 0 ? highOfRow(middle) : longOfRow(middle),
    ring.length > 2 ? centreOfPetals(ring[0]!, ring.length) : 0,
  )
  const ringMm = ring.length > 0 ? (inner + thick) / 2 : 0
  const reachMm = ring.length > 0 ? ringMm + thick / 2 : inner / 2
  const rest = lines.slice(1)
  const round = Math.min(own.petals, rest.length)
  const loops = rest.map((row, k): LaidLoop => {
    const isLeaf = k >= round
    const { curve, tallMm } = loopCurve(row, isLeaf ? 0.4 : Math.PI / Math.max(3, round) - petalLean(row, reachMm))
    const twist = twistLong(own) / 2
    if (!isLeaf) {
      const way = (2 * Math.PI * k) / Math.max(1, round)
      const far = reachMm + twist
      return { row, curve, tallMm, isLeaf, way, at: { x: far * Math.sin(way), y: -far * Math.cos(way) } }
    }
    // Leaves stand out from the stem, left and right in turn, further down the more there are.
    const leaf = k - round
    const side = leaf % 2 === 0 ? 1 : -1
    const longest = rest
      .slice(0, round)
      .reduce((most, petal) => Math.max(most, petal.length > 0 ? loopCurve(petal, 0.4).tallMm : 0), 0)
    const up = (tallMm + twist) * Math.cos(LEAF_WAY) + highOfRow(row)
    const below = reachMm + (round > 0 ? longest + twist : 2) + up + Math.floor(leaf / 2) * (up + highOfRow(row))
    return { row, curve, tallMm, isLeaf, way: side * LEAF_WAY, at: { x: side * twist, y: below } }
  })
  return { own, ring, middle, ringMm, reachMm, loops }
})

/** How leaves lean from straight up, radians. */
const LEAF_WAY = 1.15

/** By how much the thickness of its beads narrows the room of a petal, radians. */
const petalLean = (row: Row, reachMm: number): number => highOfRow(row) / 2 / Math.max(3, reachMm + longOfRow(row) / 3)

/** A point of a loop, its own point at the origin with its round above, where it lies. */
function turned({ at, way, curve }: LaidLoop, { x, y }: Point): Point {
  const top = curve.at(0)
  // The drop is drawn with its point above: turned about, its round leads away.
  const [px, py] = [-(x - top.x), -(y - top.y)]
  return { x: at.x + px * Math.cos(way) - py * Math.sin(way), y: at.y + px * Math.sin(way) + py * Math.cos(way) }
}

/** All that is laid, from the middle of the flower. */
function laid(all: Measured) {
  const { ring, middle, ringMm, loops } = all
  const first = ring.map((bead, i) => {
    const angle = (2 * Math.PI * i) / ring.length
    return {
      c: i,
      r: 0,
      x: ringMm * Math.sin(angle),
      y: -ringMm * Math.cos(angle),
      turnDegrees: (angle * 180) / Math.PI,
      bead,
    }
  })
  // A middle is laid across the ring; beads that are no ring lie from side to side.
  const inner = lineOf(middle, -longOfRow(middle) / 2, longOfRow(middle) / 2).map((pose, k) => ({
    ...{ c: ring.length + k, r: 0, bead: middle[k]!, ...pose },
    ...(ring.length > 0 ? { turnDegrees: 90 } : {}),
  }))
  const rest = loops.flatMap((loop, k) => {
    const thick = highOfRow(loop.row)
    const room = { from: thick / 2, to: Math.max(thick / 2 + 0.1, loop.curve.lengthMm - thick / 2) }
    return placesBetween(loop.curve, loop.row, room).places.map((place, c) => ({
      ...{ c, r: k + 1, bead: loop.row[c]! },
      ...turned(loop, place),
      turnDegrees: place.turnDegrees + 180 + (loop.way * 180) / Math.PI,
    }))
  })
  return [...first, ...inner, ...rest]
}

function boxOfAll(all: Measured) {
  const { own, reachMm } = all
  const box = { left: -reachMm, right: reachMm, top: -reachMm, bottom: reachMm }
  for (const { x, y, bead } of laid(all)) {
    const half = Math.max(bead.l, bead.d) / 2
    box.left = Math.min(box.left, x - half)
    box.right = Math.max(box.right, x + half)
    box.top = Math.min(box.top, y - half)
    box.bottom = Math.max(box.bottom, y + half)
  }
  const flower = box.bottom
  return { ...box, bottom: Math.max(flower, reachMm + own.stem) }
}

/** The twisted stem from the ring down. */
function stemLines({ own, reachMm }: Measured, to: number): Carrier[] {
  const a = wireDiameterMm(own.gauge)
  const turns = Math.max(2, Math.round((to - reachMm) / (TWIST_PITCH * a)))
  return twisted({ x: 0, y: reachMm }, { x: 0, y: to }, turns, a)
}

function layoutOf(work: Work, all: Measured) {
  const { own, ringMm, loops, ring } = all
  const box = boxOfAll(all)
  const move = <P extends Point>(p: P) => ({ ...p, x: p.x - box.left, y: p.y - box.top })
  const thickMm = wireDiameterMm(own.gauge)
  const moved = (strand: Carrier): Carrier => ({ ...strand, points: strand.points.map(({ x, y }) => move({ x, y })) })
  const wire = (points: readonly Point[]) => moved({ kind: 'wire', thickMm, points })
  const round =
    ring.length > 0
      ? [
          wire(
            Array.from({ length: 49 }, (_, k) => ({
              x: ringMm * Math.sin((k / 24) * Math.PI),
              y: -ringMm * Math.cos((k / 24) * Math.PI),
            })),
          ),
        ]
      : []
  return {
    placed: laid(all).map(({ c, r, x, y, turnDegrees, bead }): PlacedBead =>
      move({ key: keyOf(work.columns, c, r), x, y, turnDegrees, bead }),
    ),
    carriers: [
      ...round,
      wire([
        { x: 0, y: -ringMm },
        { x: 0, y: ringMm },
      ]),
      ...loops
        .filter(({ row }) => row.length > 0)
        .flatMap((loop) => [
          wire(
            Array.from({ length: 61 }, (_, k) =>
              turned(loop, loop.curve.at((loop.curve.lengthMm * Math.min(k, 59.999)) / 60)),
            ),
          ),
          ...twisted(
            loop.at,
            loop.isLeaf
              ? { x: 0, y: loop.at.y + twistLong(own) / 2 }
              : { x: ringMm * Math.sin(loop.way), y: -ringMm * Math.cos(loop.way) },
            own.twist,
            thickMm,
          ).map(moved),
        ]),
      ...stemLines(all, box.bottom).map(moved),
    ],
    widthMm: box.right - box.left,
    lengthMm: box.bottom - box.top,
    hungAt: move({ x: 0, y: box.top }),
    fixtureAt: () => null,
  }
}

function wiresOf({ own, ring, middle, ringMm, reachMm, loops }: Measured) {
  const a = wireDiameterMm(own.gauge)
  const round = ring.length > 0 ? 2 * Math.PI * ringMm + ring[0]!.l + 2 * ringMm : longOfRow(middle)
  const twist = twistWireMm(own.twist, a, twistLong(own))
  const petals = loops.reduce((sum, { row }) => sum + (row.length > 0 ? longOfRow(row) + 2 * twist : 0), 0)
  const step =
    loops.filter(({ isLeaf }) => !isLeaf).length *
    (reachMm > 0 ? (2 * Math.PI * reachMm) / Math.max(1, loops.filter(({ isLeaf }) => !isLeaf).length) : 0)
  const stem = 2 * twistWireMm(own.stem / (TWIST_PITCH * a), a, own.stem)
  return [
    {
      ...{ key: 'wire', name: 'Wire of the flower', gauge: own.gauge, hardness: own.hardness },
      lengthMm: round + petals + step + stem + 2 * HELD_MM,
      formula:
        `ring and middle ${inMm(round)} + loops with their twists ${inMm(petals)} + ` +
        `from one to the next ${inMm(step)} + ` +
        `stem of both ends ${inMm(stem)} + 2 × ${HELD_MM} mm to hold`,
    },
  ]
}

function findings({ own, ring, middle, loops }: Measured): Finding[] {
  const out: Finding[] = []
  if (ring.length > 0 && middle[0])
    for (const says of flowerSays(ring[0]!, ring.length, middle[0].d))
      out.push({ code: 'flower-centre', weight: 'note', says })
  if (ring.length === 0 && loops.length === 0 && middle.length === 0)
    out.push({
      code: 'flower-empty',
      weight: 'stops',
      says: 'Nothing is strung: a ring takes three beads at least, and a middle.',
    })
  if (ring.length % 2 === 1)
    out.push({
      code: 'flower-leans',
      weight: 'note',
      says:
        `With ${ring.length} beads in the ring the middle leans by ${Math.round(180 / ring.length)}°: the wire ` +
        'leaves beside the axis.',
    })
  const counts = [false, true].flatMap((isLeaf) => {
    const of = loops.filter((loop) => loop.isLeaf === isLeaf && loop.row.length > 0)
    return new Set(of.map(({ row }) => row.length)).size > 1 ? [isLeaf ? 'Leaves' : 'Petals'] : []
  })
  for (const which of counts)
    out.push({
      code: 'loops-unlike',
      weight: 'looks',
      says: `${which} have unlike counts of beads: they will differ in size.`,
    })
  const few = loops.findIndex(({ row }) => row.length > 0 && row.length < 4)
  if (few >= 0)
    out.push({
      code: 'loop-few',
      weight: 'note',
      says: `Loop ${few + 1} has ${loops[few]!.row.length} beads: with fewer than four it is no loop.`,
    })
  if (own.petals > loops.length && loops.length > 0)
    out.push({
      code: 'loops-missing',
      weight: 'note',
      says: `${own.petals} petals are asked for and ${loops.length} loops are strung: they stand round evenly.`,
    })
  return out
}

function guidesOf(all: Measured): Guide[] {
  const [{ lengthMm }] = wiresOf(all) as [ReturnType<typeof wiresOf>[number]]
  const box = boxOfAll(all)
  const pad = 4
  const move = ({ x, y }: Point): Point => ({ x: x - box.left + pad, y: y - box.top + pad })
  const a = wireDiameterMm(all.own.gauge)
  return [
    {
      title: 'Flower',
      widthMm: box.right - box.left + 2 * pad,
      lengthMm: box.bottom - box.top + 2 * pad,
      lines: [
        ...all.loops
          .filter(({ row }) => row.length > 0)
          .map((loop) => ({
            kind: 'wire' as const,
            thickMm: a,
            points: Array.from({ length: 61 }, (_, k) =>
              move(turned(loop, loop.curve.at((loop.curve.lengthMm * Math.min(k, 59.999)) / 60))),
            ),
          })),
        ...stemLines(all, box.bottom).map(({ thickMm, points }) => ({
          kind: 'wire' as const,
          thickMm,
          points: points.map(move),
        })),
      ],
      labels: [],
      says: ['Shape petals and leaves with your fingers until they lie on their lines.'],
    },
    markedWire('Wire of the flower', lengthMm, a, [{ at: lengthMm / 2, says: 'middle: begin the ring here' }]),
  ]
}

function full(lines: readonly (readonly number[])[], work: Work, from?: Settings): number[][] {
  const own = read(work.settings)
  if (!differs(from, work.settings, ['petals', 'leaves'])) return lines.map((line) => [...line])
  const [ring = [], ...loops] = lines
  const was = from === undefined ? own : read(from)
  const petals = loops.slice(0, was.petals)
  const leaves = loops.slice(was.petals)
  const of = (list: readonly (readonly number[])[], count: number, other: readonly number[]) =>
    Array.from({ length: count }, (_, k) => [...(list[k] ?? list.at(-1) ?? other)])
  const any = petals.at(-1) ?? leaves.at(-1) ?? ring
  return [[...ring], ...of(petals, own.petals, any), ...of(leaves, own.leaves, any)]
}

function sizedTo(lengthMm: number, work: Work): Sizing[] {
  const all = measure(work)
  const box = boxOfAll(all)
  const stem = Math.round((lengthMm + box.top - all.reachMm) * 10) / 10
  const next = settings.safeParse({ ...work.settings, stem })
  return next.success && all.reachMm + stem >= boxOfAll({ ...all, own: { ...all.own, stem: 5 } }).bottom - 1e-6
    ? [{ settings: next.data, says: `a stem of ${inMm(stem)}` }]
    : []
}

/** Sizes that a flower is begun with beside its petals’ beads: a middle, and beads of leaves. */
const SIZES = ['ball-3-mm', 'round-11'] as const
function firstOf({ bead, settings: own }: Pick<Work, 'bead' | 'settings'>): number[][] {
  const { petals, leaves } = read(own)
  const { count } = petalsRound(bead, requireSpec(SIZES[0]).d)
  return [
    // An even ring: its wire leaves on the axis.
    [...Array<number>(Math.max(4, count - (count % 2))).fill(0), 1],
    ...Array.from({ length: petals }, () => Array<number>(11).fill(0)),
    ...Array.from({ length: leaves }, () => Array<number>(15).fill(2)),
  ]
}

export const flowerOnWire = wireWork({
  id: 'wire-flower',
  name: 'Flower on wire',
  summary: 'A ring of beads with a middle locked across it, petals and leaves as twisted loops, on a stem.',
  settings,
  fields: [
    { key: 'petals', label: 'Petals', help: 'Loops round the ring; 0 for a plain ring.', kind: 'number' },
    { key: 'leaves', label: 'Leaves', help: 'Loops on the stem.', kind: 'number' },
    { key: 'twist', label: 'Twist', help: 'Turns that close a loop.', kind: 'count' },
    { key: 'stem', label: 'Stem', help: 'Both ends twisted, to fix it by.', kind: 'length' },
    gaugeField('gauge', 'Wire, gauge', '28 is 0.32 mm: it passes 11/0 twice.', [22, 34], true),
    hardnessField,
  ],
  plan: z.strictObject({}),
  material: { ...BEADS, usualSpec: 'round-11' },
  kinds: ['pendant', 'earrings'],
  closure: 'own',
  lineTitle(i, work) {
    const own = read(work.settings)
    return i === 0
      ? lengthOfRow(work, 0) < LEAST_RING
        ? 'Middle'
        : 'Ring'
      : i <= own.petals
        ? `Petal ${i}`
        : `Leaf ${i - own.petals}`
  },
  words: {
    line: 'loop',
    place: 'bead',
    across: 'in the longest loop',
    acrossTitle: 'Longest loop',
    thing: 'Flower',
    sample: {
      name: 'flower',
      how: 'Work one flower and measure it from its highest petal to the end of its stem.',
      counted: 'Flowers measured',
      where: 'Along its stem.',
      wide: true,
    },
  },
  first: {
    sizes: SIZES,
    edge: 0,
    period: ({ settings: own }) => 1 + read(own).petals + read(own).leaves,
    parts: (r, _count, work) => firstOf(work)[r] ?? [],
  },
  shape(work, lines) {
    const all = measure(work, lines)
    const box = boxOfAll(all)
    return {
      layout: layoutOf(work, all),
      lengthMm: box.bottom - box.top,
      widthMm: box.right - box.left,
      thicknessMm: Math.max(0.1, ...lines.map(highOfRow)),
      lengthFormula: `${inMm(-box.top)} above the middle of the ring, ${inMm(box.bottom)} below it`,
      widthFormula: `from its outermost bead to the other: ${inMm(box.right - box.left)}`,
      wires: wiresOf(all),
      guides: guidesOf(all),
      findings: findings(all),
    }
  },
  program(work, lines) {
    const { own, ring } = measure(work, lines)
    const first: Lacing[] =
      ring.length > 0
        ? [
            { do: 'pick', by: 'wire', at: places(0, ring.length), note: 'the ring' },
            { do: 'pass', by: 'wire', at: [0], way: 'on', note: 'closes it' },
            { do: 'pick', by: 'wire', at: [ring.length], note: 'the middle, laid across' },
            {
              do: 'pass',
              by: 'wire',
              at: [Math.ceil((ring.length + 1) / 2) - 1],
              way: 'on',
              note: 'locks it on the far side',
            },
          ]
        : [{ do: 'pick', by: 'wire', at: places(0, lines[0]?.length ?? 0) }]
    return laced(
      lines,
      lines.map((row, r): Lacing[] =>
        r === 0
          ? first
          : [
              {
                do: 'pick',
                by: 'wire',
                at: places(0, row.length),
                note: r <= own.petals ? 'a petal' : 'a leaf, on the stem',
              },
              { do: 'say', text: `bend it to a loop and twist it ${own.twist} turns close to its beads` },
              ...(r === lines.length - 1 ? [{ do: 'say', text: 'twist both ends to a stem' } as const] : []),
            ],
      ),
      {
        unit: 'loop',
        carriers: [{ id: 'wire', name: 'wire', kind: 'wire', mm: wireDiameterMm(own.gauge) }],
        fixtures: {},
        cut: { folded: false, each: 'piece' },
      },
    )
  },
  side: { upright: true, full, sizedTo },
  lengthOf: (work) => {
    if (!work.lineLength) return read(work.settings).stem
    const box = boxOfAll(measure(work))
    return box.bottom - box.top
  },
  rowsFor: (_mm, { settings: own }) => 1 + read(own).petals + read(own).leaves,
  firstLines: (count, work) => Array.from({ length: count }, (_, r) => (firstOf(work)[r] ?? [0]).length),
  workplace: () => ({
    tools: ['Chain-nose pliers', 'Nylon-jaw pliers', 'Flush cutter', 'Eye protection'],
    needs: [],
    ready: [{ id: 'middle', text: 'Mark the middle of the wire: the ring is strung there', minutes: 1 }],
    cautions: [...WIRE_CAUTIONS],
    fasten: {
      title: 'Set the petals',
      says: ['Set petals and leaves as they should stand, and press the twist of each flat behind the ring.'],
      minutes: 2,
    },
    clasp: (name) => ({
      title: `Fix it to: ${name}`,
      says: ['Wind the stem round it, frame, pin or comb, in close turns; cut it, and tuck its end in between beads.'],
      minutes: 5,
      cautions: [TUCKED],
    }),
    mirror:
      'It is the mirror of the first: work its petals and leaves the other way round. Read left for right in what ' +
      'follows.',
    pair: {
      title: 'Lay the pair together',
      says: ['Hold both beside each other: petals and leaves should stand as in a mirror.'],
      minutes: 2,
    },
    glued: false,
  }),
  mostLines: 60,
})
