import { requireSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { laced, type Lacing } from '../../recipe/laced'
import type { Row } from '../../recipe/rows'
import { plainNumber } from '../../units/length'
import { wireDiameterMm } from '../../units/wire-gauge'
import { bowMm, freeSpanMm } from '../../wire/cross'
import type { MeasuredCurve } from '../../wire/curve'
import { fellowGap, frameWireMm, placesOnFrame, type FramePlace } from '../../wire/frame'
import { GAPES, sectionOf, tightestBendMm, wireTakenMm } from '../../wire/section'
import { FRAME_SHAPES } from '../../wire/shape'
import { tenths } from '../carrier/line'
import type { Carrier, PlacedBead } from '../drawing'
import type { Point } from '../lattice'
import { BEADS } from '../material'
import type { Finding, Settings, Work } from '../technique'
import type { Cross, CrossSide, CrossView, Guide, Sizing } from '../wire-side'
import { resizedAbout } from './about'
import { fillingOf, FILLINGS } from './fillings'
import { longOfRow, type FilledSpan } from './filling'
import {
  beadsFor,
  crossesOf,
  frameCurve,
  framePlanSchema,
  frameSettings,
  frameSize,
  freeMmOf,
  gauged,
  readFrame,
  topLoop,
  type OwnFrame,
} from './frame-own'
import {
  EAR_CAUTION,
  gaugeField,
  hardnessField,
  keptByShape,
  markedWire,
  ringPoints,
  WIRE_CAUTIONS,
  wireWork,
} from './wire-work'

/**
 * A frame bent from wire with beads on it, and wires across it. The first line is the frame, from its top round its
 * right side; every other line is a wire across, from left to right. docs/wire.md.
 */

/** Held while a wire is wrapped, mm on each end (from memory). */
const HELD_MM = 50

interface LaidCross extends Cross {
  readonly row: Row
  readonly filled: FilledSpan
  readonly freeMm: number
  /** Where it comes out of the frame, on the left and on the right. */
  readonly from: Point
  readonly to: Point
}

interface Measured {
  readonly own: OwnFrame
  readonly curve: MeasuredCurve
  readonly beads: Row
  readonly freeMm: number
  readonly places: readonly FramePlace[]
  readonly crosses: readonly LaidCross[]
}

/** The middle of the gap behind so many beads of a frame. */
function gapPoint(curve: MeasuredCurve, places: readonly FramePlace[], gap: number): Point {
  const before = places[gap - 1]
  const after = places[gap]
  if (!before || !after) return curve.at(before ? before.to : (after?.from ?? 0))
  return curve.at((before.to + after.from) / 2)
}

const measure = keptByShape((work: Work, rows: readonly Row[]): Measured => {
  const asked = readFrame(work.settings)
  const [beads = [], ...lines] = rows
  const plan = crossesOf(asked, work.plan, lines.length, beads.length)
  const own = gauged(
    asked,
    rows,
    plan.map(({ filling }) => filling),
  )
  const freeMm = freeMmOf(own, beads, plan)
  const curve = frameCurve(own, beads, freeMm)
  const { places } = placesOnFrame(curve, beads)
  const crosses = plan.map((cross, k) => {
    const laid = layCross({ curve, places, beads }, cross, lines[k]!)
    // Several in one gap would hide each other: each is shown a little lower, and is a finding.
    const before = plan.slice(0, k).filter((one) => sameGaps(one, cross, beads.length)).length
    const lower = ({ x, y }: Point) => ({ x, y: y + before * SHOWN_LOWER_MM })
    return before === 0 ? laid : { ...laid, from: lower(laid.from), to: lower(laid.to) }
  })
  return { own, curve, beads, freeMm, places, crosses }
})

const SHOWN_LOWER_MM = 0.4

const sameGaps = (a: Cross, b: Cross, beads: number): boolean => {
  const [one, other] = [gapsOf(a, beads), gapsOf(b, beads)]
  return one.left === other.left && one.right === other.right
}

interface Bent {
  readonly curve: MeasuredCurve
  readonly places: readonly FramePlace[]
  readonly beads: Row
}

/** Gaps of a wire across, within the frame. */
function gapsOf({ gap, left }: Cross, beads: number): { readonly right: number; readonly left: number } {
  const within = (at: number) => Math.max(1, Math.min(Math.max(1, beads - 1), at))
  return { right: within(gap), left: within(fellowGap(left ?? gap, beads)) }
}

/** Room for a row at a height, between the beads of the frame. */
const freeAt = ({ curve, beads }: Bent, y: number, high: number): number =>
  freeSpanMm(
    curve,
    y,
    high,
    beads.reduce((most, { d }) => Math.max(most, d), 0),
  )

/** What a filling takes in its place: asked again with the room that is left by how high it comes to be. */
function proposed(bent: Bent, cross: Cross, small: Work['bead'], large: Work['bead']): number[] {
  const filling = fillingOf(cross.filling)
  const of = (row: Row) => filling.propose(layCross(bent, cross, row).freeMm, small, large)
  const beads = (parts: readonly number[]) => parts.map((part) => (part === 0 ? small : large))
  return of(beads(of([large])))
}

function layCross(bent: Bent, cross: Cross, row: Row): LaidCross {
  const { curve, places, beads } = bent
  const gaps = gapsOf(cross, beads.length)
  const [to, from] = [gapPoint(curve, places, gaps.right), gapPoint(curve, places, gaps.left)]
  const filling = fillingOf(cross.filling)
  const y = (from.y + to.y) / 2
  // How high it is where follows from its beads, and the room from that: its ends come nearest to the frame.
  const { profile } = filling.lay(row, 100)
  const freeMm = Math.min(
    freeAt(bent, y, 0),
    ...profile.map(({ highMm, outerMm }) => freeAt(bent, y, highMm) + 2 * outerMm),
  )
  return { ...cross, row, filled: filling.lay(row, freeMm), freeMm, from, to }
}

/** Points of the frame’s wire, and of its loop. */
function frameLines({ own, curve }: Measured): Carrier[] {
  const thickMm = wireDiameterMm(own.gauge)
  const steps = 160
  const wire: Carrier = {
    kind: 'wire',
    thickMm,
    points: Array.from({ length: steps + 1 }, (_, k) =>
      curve.at((curve.lengthMm * Math.min(k, steps - 1e-9)) / steps),
    ),
  }
  const { upMm } = topLoop(own)
  const top = curve.at(0)
  return upMm > 0 ? [wire, { kind: 'wire', thickMm, points: ringPoints(top.x, top.y - upMm, upMm, 24) }] : [wire]
}

/** A point of a filling where it lies in the frame. */
function placed({ from, to }: LaidCross, { x, y }: Point): Point {
  const turn = Math.atan2(to.y - from.y, to.x - from.x)
  const [mx, my] = [(from.x + to.x) / 2, (from.y + to.y) / 2]
  return { x: mx + x * Math.cos(turn) - y * Math.sin(turn), y: my + x * Math.sin(turn) + y * Math.cos(turn) }
}

/** Wires across, each with its wraps on the frame. */
function crossLines(all: Measured): Carrier[] {
  const { own } = all
  const thickMm = wireDiameterMm(own.cross)
  return all.crosses.flatMap((cross): Carrier[] => {
    const ways = cross.filled.wires.map(({ points }): Carrier => ({
      ...{ kind: 'wire', thickMm },
      points: [cross.from, ...points.map((p) => placed(cross, p)), cross.to],
    }))
    return [...ways, ...wrapLines(all, cross, thickMm)]
  })
}

/** Turns round the frame, as they are seen: short lines across its wire beside the gap. */
function wrapLines({ own, curve, places, beads }: Measured, cross: LaidCross, thickMm: number): Carrier[] {
  const gaps = gapsOf(cross, beads.length)
  const turns = own.turns * cross.filled.wires.length
  const half = wireDiameterMm(own.gauge) / 2 + thickMm
  return [gaps.right, gaps.left].flatMap((gap) => {
    const [before, after] = [places[gap - 1], places[gap]]
    if (!before || !after) return []
    const middle = (before.to + after.from) / 2
    return Array.from({ length: turns }, (_, k): Carrier => {
      const at = curve.at(middle + (k - (turns - 1) / 2) * thickMm)
      const way = (at.turnDegrees * Math.PI) / 180
      return {
        ...{ kind: 'wire', thickMm },
        points: [-half, half].map((by) => ({ x: at.x - by * Math.sin(way), y: at.y + by * Math.cos(way) })),
      }
    })
  })
}

function layoutOf(work: Work, all: Measured) {
  const { own, curve, beads, places } = all
  const { box, thick, lengthMm, widthMm } = frameSize(own, curve, beads)
  const { upMm } = topLoop(own)
  const shift = { x: thick / 2 - box.left, y: upMm - box.top }
  const move = <P extends Point>(p: P) => ({ ...p, x: p.x + shift.x, y: p.y + shift.y })
  const key = (c: number, r: number) => keyOf(work.columns, c, r)
  const onFrame = places.map(({ x, y, turnDegrees }, c): PlacedBead => ({
    ...{ key: key(c, 0), x, y, turnDegrees, bead: beads[c]! },
  }))
  const across = all.crosses.flatMap((cross, k) => {
    const turn = (Math.atan2(cross.to.y - cross.from.y, cross.to.x - cross.from.x) * 180) / Math.PI
    return cross.filled.poses.map((pose, c): PlacedBead => ({
      ...{ key: key(c, k + 1), ...placed(cross, pose), turnDegrees: pose.turnDegrees + turn, bead: cross.row[c]! },
    }))
  })
  return {
    placed: [...onFrame, ...across].map(move),
    carriers: [...frameLines(all), ...crossLines(all)].map((c) => ({
      ...c,
      points: c.points.map(({ x, y }) => move({ x, y })),
    })),
    ...{ widthMm, lengthMm },
    hungAt: move({ x: 0, y: box.top - upMm }),
    fixtureAt: () => null,
  }
}

const mm = (value: number): string => `${tenths(value)} mm`
const counted = (n: number, word: string): string => `${n} ${word}${n === 1 ? '' : 's'}`

/** What of a frame wants a look. */
function findings(all: Measured): Finding[] {
  const { own, curve, beads, freeMm, crosses } = all
  const out: Finding[] = []
  const add = (code: string, weight: Finding['weight'], says: string) => out.push({ code, weight, says })
  if (beads.length > 0) {
    const most = own.by === 'size' ? beadsFor(own, curve, beads, freeMm) : beads.length
    if (beads.length > most)
      add(
        'frame-full',
        'stops',
        `The frame takes ${most} beads and has ${beads.length}: take ${counted(beads.length - most, 'bead')} ` +
          'off, or bend it larger.',
      )
    else if (beads.length < most)
      add(
        'frame-bare',
        'note',
        `The frame takes ${most} beads and has ${beads.length}: ${counted(most - beads.length, 'bead')} more would ` +
          'cover its wire.',
      )
    const tight = tightest(curve)
    const gaping = beads.find(
      (bead) => sectionOf(bead) === 'box' && (wireTakenMm(bead, tight) ?? Infinity) > bead.l * (1 + GAPES),
    )
    if (gaping) add('frame-gapes', 'note', `${gaping.name} gapes on this bend. Round beads or a wider curve close it.`)
    // A hole that the wire fills is said by the check of holes.
    const needs = (bead: Work['bead']) => tightestBendMm(bead, wireDiameterMm(own.gauge))
    const stiff = beads.find((bead) => Number.isFinite(needs(bead)) && needs(bead) > tight)
    if (stiff)
      add(
        'frame-stiff',
        'stops',
        `${stiff.name} is too long for this bend: its hole needs a curve of radius ` +
          `${tenths(needs(stiff))} mm or more, and the tightest here has ` +
          `${tenths(tight)} mm. Thinner wire, shorter beads, or a wider curve.`,
      )
    if (beads.length % 2 === 1)
      add(
        'frame-odd',
        'note',
        `${beads.length} beads put a bead at the bottom: nothing can hang on the axis. ${beads.length - 1} or ` +
          `${beads.length + 1} leave a gap there.`,
      )
  }
  crosses.forEach((cross, k) =>
    findingsOfCross(all, cross, k + 1).forEach(({ code, weight, says }) => add(code, weight, says)),
  )
  crosses.forEach((cross, k) => {
    const other = crosses.findIndex(
      (one, i) =>
        i > k && Math.abs(middleOf(one) - middleOf(cross)) < (one.filled.highMm + cross.filled.highMm) / 2 - 0.05,
    )
    if (other >= 0 && cross.row.length > 0 && crosses[other]!.row.length > 0)
      add(
        'cross-close',
        'stops',
        `Wires ${k + 1} and ${other + 1} across lie in each other: their rows are ` +
          `${mm((crosses[other]!.filled.highMm + cross.filled.highMm) / 2)} high together and ` +
          `${mm(Math.abs(middleOf(crosses[other]!) - middleOf(cross)))} apart. Move one a gap away.`,
      )
  })
  return out
}

const middleOf = ({ from, to }: LaidCross): number => (from.y + to.y) / 2

function findingsOfCross({ beads }: Measured, cross: LaidCross, number: number): Finding[] {
  const { row, filled, freeMm, gap, left } = cross
  const out: Finding[] = filled.says.map((says) => ({
    code: 'cross-flower',
    weight: 'note',
    says: `Wire ${number}: ${says}`,
  }))
  if (left !== null && left !== gap)
    out.push({
      code: 'cross-askew',
      weight: 'note',
      says: `Wire ${number} leaves gap ${gap} on the right and gap ${left} on the left: it lies askew.`,
    })
  if (gap >= beads.length)
    out.push({
      code: 'cross-gap',
      weight: 'stops',
      says: `Wire ${number} asks for gap ${gap}; the frame has ${Math.max(0, beads.length - 1)}. Give it another.`,
    })
  if (row.length === 0) return out
  const over = filled.longMm - freeMm
  if (over > 0.05)
    out.push({
      code: 'cross-long',
      weight: 'note',
      says:
        `Row ${number} is ${mm(over)} too long: it would bow by ${mm(bowMm(filled.longMm, freeMm) || over)}. Take a ` +
        'bead out, or move it to where the frame is wider.',
    })
  const small = row.reduce((least, bead) => (bead.l < least ? bead.l : least), Infinity)
  if (-over / 2 > small)
    out.push({
      code: 'cross-short',
      weight: 'note',
      says:
        `On wire ${number} ${mm(-over / 2)} of wire would show on each side: add ` +
        `${counted(Math.floor(-over / 2 / small), 'bead')} a side.`,
    })
  return out
}

/** The tightest bend of a curve, mm. */
function tightest(curve: MeasuredCurve): number {
  let most = 0
  for (let k = 0; k < 360; k++) most = Math.max(most, Math.abs(curve.at((curve.lengthMm * (k + 0.5)) / 360).bend))
  return most > 0 ? 1 / most : Infinity
}

function wiresOf(all: Measured) {
  const { own, curve, crosses } = all
  const { wireMm } = topLoop(own)
  const [a, c] = [wireDiameterMm(own.gauge), wireDiameterMm(own.cross)]
  const overlap = own.loops === 0 ? OVERLAP_MM : 0
  const frame =
    own.source === 'bought'
      ? []
      : [
          {
            ...{ key: 'frame', name: 'Frame', gauge: own.gauge, hardness: own.hardness },
            lengthMm: frameWireMm(curve.lengthMm, { loops: own.loops, loopMm: wireMm, overlapMm: overlap }),
            formula:
              `once round ${mm(curve.lengthMm)}` +
              (own.loops > 0 ? ` + ${counted(own.loops, 'loop')} × (π × ${plainNumber(own.pliers)} + 2) mm` : '') +
              (overlap > 0 ? ` + ${overlap} mm to overlap` : '') +
              ' + 2 × 10 mm to hold',
          },
        ]
  return [
    ...frame,
    ...crosses.flatMap((cross, k) => {
      const straight = Math.hypot(cross.to.x - cross.from.x, cross.to.y - cross.from.y)
      const wraps = 2 * own.turns * Math.PI * (a + c)
      return cross.filled.wires.map(({ moreMm }, w) => ({
        key: `cross-${k + 1}-${w + 1}`,
        name:
          cross.filled.wires.length > 1
            ? `Wire ${k + 1} across, ${w + 1} of ${cross.filled.wires.length}`
            : `Wire ${k + 1} across`,
        gauge: own.cross,
        hardness: 'soft' as const,
        lengthMm: straight + moreMm + wraps + 2 * HELD_MM,
        formula:
          `${mm(straight)} across${moreMm > 0.05 ? ` + ${mm(moreMm)} round its beads` : ''} + ` +
          `2 × ${own.turns} turns ` +
          `× π × ${tenths(a + c)} mm + 2 × ${HELD_MM} mm to hold`,
      }))
    }),
  ]
}
/** How far the ends of a frame without loops lie over each other, mm (common practice). */
const OVERLAP_MM = 12

function guidesOf(all: Measured): Guide[] {
  const { own, curve, beads, crosses, places } = all
  if (own.source === 'bought') return []
  const { box } = frameSize(own, curve, beads)
  const { upMm, wireMm } = topLoop(own)
  const pad = 10
  const move = ({ x, y }: Point): Point => ({ x: x - box.left + pad, y: y - box.top + 2 * upMm + pad })
  const wire = frameLines(all)
  const marks = crosses.flatMap((cross) => {
    const gaps = gapsOf(cross, beads.length)
    return [gaps.right, gaps.left].map((gap) => ({ at: gapPoint(curve, places, gap), gap: cross.gap }))
  })
  const total = wiresOf(all)[0]!.lengthMm
  const shape: Guide = {
    title: 'Frame',
    widthMm: box.right - box.left + 2 * pad,
    lengthMm: box.bottom - box.top + 2 * upMm + 2 * pad,
    lines: [
      ...wire.map(({ points, thickMm }) => ({ kind: 'wire' as const, thickMm, points: points.map(move) })),
      ...marks.map(({ at }) => ({
        ...{ kind: 'mark' as const, thickMm: 0.25 },
        points: ringPoints(at.x, at.y, 1, 12).map(move),
      })),
    ],
    labels: marks.map(({ at, gap }) => ({
      ...move({ x: at.x + (at.x < 0 ? -6 : 2.5), y: at.y + 1 }),
      says: String(gap),
    })),
    says: [
      'Bend the wire until it lies on the line; the numbers are gaps between beads, counted from the top.',
      own.shape === 'circle' ? `A mandrel of ${tenths(own.wide - wireDiameterMm(own.gauge))} mm bends it.` : '',
    ].filter(Boolean),
  }
  const loops =
    own.loops > 0
      ? [
          { at: 10, says: 'loop begins' },
          { at: 10 + wireMm, says: 'frame begins' },
          { at: 10 + wireMm + curve.lengthMm, says: 'frame ends' },
        ]
      : []
  return [shape, markedWire('Wire of the frame', total, wireDiameterMm(own.gauge), loops)]
}

// ---- lines when they are full, and other sizes

const lineBead = (work: Work, line: readonly number[], r: number, lines: readonly (readonly number[])[]) => {
  const known = new Map<number, Work['bead']>()
  lines.forEach((one, at) => one.forEach((number, c) => known.set(number, work.beadAt?.(c, at) ?? work.bead)))
  return line.map((number) => known.get(number) ?? work.beadAt?.(0, r) ?? work.bead)
}

/** A line with as many beads as its frame takes, grown about its middle so that it stays its own mirror. */
function fullFrame(
  own: OwnFrame,
  line: readonly number[],
  freeMm: number,
  rowOf: (line: readonly number[]) => Row,
): number[] {
  const curve = frameCurve(own, rowOf(line), freeMm)
  const fits = (count: number): boolean => {
    const row = rowOf(resizedAbout(line, count))
    return row.length === count && beadsFor({ ...own, even: false }, curve, row, freeMm) >= count
  }
  const step = own.even ? 2 : 1
  const first = beadsFor(own, curve, rowOf(line), freeMm)
  let count = Math.max(step, first - (first % step))
  while (count > step && !fits(count)) count -= step
  while (count < MOST_ON_FRAME && fits(count + step)) count += step
  return resizedAbout(line, count)
}
const MOST_ON_FRAME = 400

function full(lines: readonly (readonly number[])[], work: Work): number[][] {
  const rows = lines.map((line, r) => lineBead(work, line, r, lines))
  const asked = readFrame(work.settings)
  const [first = [], ...rest] = lines
  const cycle = rows[0] ?? []
  const plan = crossesOf(asked, work.plan, rest.length, first.length)
  const own = gauged(
    asked,
    rows,
    plan.map(({ filling }) => filling),
  )
  const freeMm = freeMmOf(own, cycle, plan)
  const frame =
    own.by === 'size' && first.length > 0
      ? fullFrame(own, first, freeMm, (line) => lineBead(work, line, 0, lines))
      : [...first]
  const beads = lineBead(work, frame, 0, lines)
  const bent = bentOf(own, beads, freeMm)
  const crosses = crossesOf(own, work.plan, rest.length, frame.length)
  return [
    frame,
    ...rest.map((line, k) => {
      const cross = crosses[k]!
      // Wires that nobody has placed move with the frame.
      return line.length === 0 ? [] : refilled(line, rows[k + 1]!, cross, bent)
    }),
  ]
}

function bentOf(own: OwnFrame, beads: Row, freeMm: number): Bent {
  const curve = frameCurve(own, beads, freeMm)
  return { curve, beads, places: placesOnFrame(curve, beads).places }
}

/** A line of a filling with as many beads as its room takes; as it is where it holds as many already. */
function refilled(line: readonly number[], row: Row, cross: Cross, bent: Bent): number[] {
  if (cross.filling === 'straight') return straightFull(line, row, layCross(bent, cross, row).freeMm)
  const small = row.reduce((best, bead) => (bead.d < best.d ? bead : best))
  const large = row.reduce((best, bead) => (bead.d > best.d ? bead : best))
  const parts = proposed(bent, cross, small, large)
  if (parts.length === line.length) return [...line]
  const number = (part: number) => line[row.findIndex((bead) => bead.id === (part === 0 ? small : large).id)]!
  return parts.map(number)
}

/** A straight run made longer or shorter about its middle, two beads at a time. */
function straightFull(line: readonly number[], row: Row, freeMm: number): number[] {
  let [numbers, beads] = [[...line], [...row]]
  while (longOfRow(beads) > freeMm + 1e-9 && beads.length > 1) {
    numbers = numbers.slice(1, -1).length > 0 ? numbers.slice(1, -1) : numbers.slice(1)
    beads = beads.slice(1, -1).length > 0 ? beads.slice(1, -1) : beads.slice(1)
  }
  while (beads.length > 0 && beads.length < 400 && longOfRow(beads) + beads[0]!.l + beads.at(-1)!.l <= freeMm + 1e-9) {
    numbers = [numbers[0]!, ...numbers, numbers.at(-1)!]
    beads = [beads[0]!, ...beads, beads.at(-1)!]
  }
  return numbers
}

/** The same frame so much larger or smaller that it hangs to a length; and with two beads more or fewer. */
function sizedTo(lengthMm: number, work: Work): Sizing[] {
  const { own, curve, beads } = measure(work)
  const now = frameSize(own, curve, beads)
  const bare = topLoop(own).upMm + now.thick / 2
  const tall = now.box.bottom - now.box.top
  const share = (lengthMm - bare) / tall
  if (!(share > 0)) return []
  const round = (value: number) => Math.round(value * 10) / 10
  const [wide, long] = [now.box.right - now.box.left, tall].map((one) => round(one * share)) as [number, number]
  const settings = frameSettings.safeParse({ ...work.settings, by: 'size', wide, long })
  return settings.success
    ? [{ settings: settings.data, says: `a frame ${plainNumber(wide)} × ${plainNumber(long)} mm` }]
    : []
}

const crossSide: CrossSide = {
  fillings: FILLINGS.map(({ id, name, says }) => ({ id, name, says })),
  of: (work): CrossView[] =>
    measure(work).crosses.map(({ gap, left, filling, freeMm, filled }) => ({
      ...{ gap, left, filling, freeMm, longMm: filled.longMm },
    })),
  lastGap: (work) => Math.max(1, (work.lineLength?.(0) ?? 2) - 1),
  plan: (crosses) => framePlanSchema.parse({ crosses }),
  line: (cross, work, { small, large, specOf }) =>
    proposed(measure(work), cross, specOf(small), specOf(large)).map((part) => (part === 0 ? small : large)),
}

/** Sizes of the beads that a frame is begun with beside its own: seeds across, and a large one. */
const SIZES = ['round-11', 'ball-4-mm'] as const
const specOf = (id: string) => requireSpec(id)

/** Lines that a frame begins with: its beads, and its wires across. */
function firstParts(work: Pick<Work, 'bead' | 'settings' | 'plan'>, specs: readonly Work['bead'][]): number[][] {
  const asked = readFrame(work.settings)
  const [bead, small, large] = specs as [Work['bead'], Work['bead'], Work['bead']]
  const own = gauged({ ...asked, by: 'size' }, [[bead], [small, large]], [asked.filling])
  const freeMm = freeMmOf(own, [bead], crossesOf(own, work.plan, own.crosses, 2))
  const curve = frameCurve(own, [], freeMm)
  const count = beadsFor(own, curve, [bead], freeMm)
  const beads = Array.from({ length: count }, () => bead)
  const bent = { curve, beads, places: placesOnFrame(curve, beads).places }
  return [
    Array<number>(count).fill(0),
    ...crossesOf(own, work.plan, own.crosses, count).map((cross) =>
      proposed(bent, cross, small, large).map((part) => part + 1),
    ),
  ]
}

export const frame = wireWork({
  id: 'wire-frame',
  name: 'Frame of wire',
  summary: 'Wire bent to a round, drop, heart or the like, beads on it, and wires across it.',
  settings: frameSettings,
  fields: [
    {
      ...{ key: 'shape', label: 'Shape', help: 'As the wire is bent.', kind: 'choice' as const },
      choices: FRAME_SHAPES.map((value) => ({ value, label: value })),
    },
    {
      key: 'by',
      label: 'Its size',
      help: 'Give the size and its beads follow, or give the beads and its size follows.',
      kind: 'choice',
      choices: [
        { value: 'size', label: 'is given' },
        { value: 'beads', label: 'follows from its beads' },
      ],
    },
    { key: 'wide', label: 'Width', help: 'Between the middles of its wire.', kind: 'length' },
    {
      ...{ key: 'long', label: 'Height', help: 'From its top to its lowest point.', kind: 'length' as const },
      counts: (own: Settings) => !['circle', 'polygon'].includes(readFrame(own).shape),
    },
    {
      ...{ key: 'upper', label: 'Widest at', help: 'Share of its height from the top.', kind: 'number' as const },
      counts: (own: Settings) => readFrame(own).shape === 'egg',
    },
    {
      ...{ key: 'corners', label: 'Corners', help: 'Of the polygon.', kind: 'count' as const },
      counts: (own: Settings) => readFrame(own).shape === 'polygon',
    },
    {
      ...{ key: 'rounded', label: 'Rounded by', help: 'Share of a side.', kind: 'number' as const },
      counts: (own: Settings) => readFrame(own).shape === 'polygon',
    },
    {
      key: 'source',
      label: 'Frame',
      help: 'Bent from a length of wire, or a hoop as it is bought.',
      kind: 'choice',
      choices: [
        { value: 'bent', label: 'bent from wire' },
        { value: 'bought', label: 'bought' },
      ],
    },
    gaugeField('gauge', 'Frame, gauge', 'A larger number is thinner.', [16, 26], true),
    hardnessField,
    { key: 'loops', label: 'Loops', help: 'Turned on its ends where they meet.', kind: 'number' },
    { key: 'pliers', label: 'Pliers', help: 'Round nose where the loops are turned.', kind: 'length' },
    { key: 'even', label: 'Even count', help: 'Leaves a gap at the bottom, on the axis.', kind: 'flag' },
    { key: 'room', label: 'Room left, in beads', help: 'For wraps; about one.', kind: 'number' },
    gaugeField('cross', 'Wires across, gauge', 'All of them; they wrap round the frame.', [22, 34], true),
    { key: 'turns', label: 'Turns of a wrap', help: 'Round the frame at both ends of a wire.', kind: 'count' },
  ],
  plan: framePlanSchema,
  material: { ...BEADS, usualSpec: 'round-8' },
  kinds: ['earrings', 'pendant'],
  closure: 'ear-wire',
  words: {
    line: 'wire',
    place: 'bead',
    across: 'on the fullest wire',
    acrossTitle: 'Fullest wire',
    thing: 'Frame',
    sample: {
      name: 'frame',
      how: 'Bend one frame, string it, and measure from the middle of its loop to its lowest bead.',
      counted: 'Frames measured',
      where: 'From the loop down.',
      wide: true,
    },
  },
  first: {
    sizes: SIZES,
    edge: 0,
    period: ({ settings }) => 1 + readFrame(settings).crosses,
    parts: (r, _count, work) => partsOf(work)[r] ?? [],
  },
  shape(work, rows) {
    const all = measure(work, rows)
    const { own, curve, beads } = all
    const { lengthMm, widthMm, thick } = frameSize(own, curve, beads)
    const { upMm } = topLoop(own)
    return {
      layout: layoutOf(work, all),
      ...{ lengthMm, widthMm, thicknessMm: thick },
      lengthFormula:
        `frame ${mm(lengthMm - upMm - thick / 2)} high + half a bead` +
        (upMm > 0 ? ` + ${mm(upMm)} to the middle of its loop` : ''),
      widthFormula: `frame ${mm(widthMm - thick)} wide + its beads ${mm(thick)}`,
      wires: wiresOf(all),
      guides: guidesOf(all),
      findings: findings(all),
    }
  },
  program(work, rows) {
    const { own, crosses } = measure(work, rows)
    const thread = (k: number, w: number) => `x${k}w${w}`
    const carriers = crosses.flatMap(({ filled }, k) =>
      filled.wires.map((_, w) => ({
        id: thread(k, w),
        name: filled.wires.length > 1 ? `wire ${k + 1}, ${w + 1} of ${filled.wires.length}` : `wire ${k + 1}`,
        kind: 'wire' as const,
        mm: wireDiameterMm(own.cross),
      })),
    )
    const lacings = crosses.map((cross, k): Lacing[] => {
      const names = cross.filled.wires.map((_, w) => thread(k, w))
      const wraps = (note: string) =>
        names.map((by): Lacing => ({ do: 'wrap', by, round: 'frame', turns: own.turns, note }))
      const left = cross.left ?? cross.gap
      return [
        ...wraps(`in gap ${left} on the left`),
        ...cross.filled.lacing(names),
        ...wraps(`in gap ${cross.gap} on the right`),
        { do: 'say', text: 'draw the wraps close, cut both ends and press them flat between the beads' },
      ]
    })
    const close =
      own.source === 'bought'
        ? 'close the hoop'
        : own.loops > 0
          ? 'bring the ends together, turn a loop on each, and press the loops onto each other'
          : 'lay the ends over each other'
    const beads = rows[0]?.length ?? 0
    return laced(
      rows,
      [
        [
          {
            do: 'pick',
            by: 'frame',
            at: Array.from({ length: beads }, (_, k) => k),
            note: 'from the top, round the right side',
          },
          { do: 'say', text: close },
        ],
        ...lacings,
      ],
      {
        unit: 'wire',
        carriers: [{ id: 'frame', name: 'frame', kind: 'wire', mm: wireDiameterMm(own.gauge) }, ...carriers],
        fixtures: { frame: { name: 'frame', d: wireDiameterMm(own.gauge), holes: 1, pitch: 0 } },
        cut: { folded: false, each: 'motif' },
      },
    )
  },
  // Its eye lies in its plane.
  eyeAcross: () => false,
  side: { upright: true, stands: true, full, sizedTo, crosses: crossSide },
  lengthOf(work) {
    if (!work.lineLength) return readFrame(work.settings).long
    const { own, curve, beads } = measure(work)
    return frameSize(own, curve, beads).lengthMm
  },
  rowsFor: (_mm, work) => 1 + readFrame(work.settings).crosses,
  firstLines: (count, work) => Array.from({ length: count }, (_, r) => (partsOf(work)[r] ?? [0]).length),
  workplace(work) {
    const { own, crosses } = measure(work)
    const bought = own.source === 'bought'
    return {
      tools: [
        ...['Round-nose pliers', 'Chain-nose pliers', 'Flush cutter', 'Nylon-jaw pliers', 'File'],
        ...(bought ? [] : ['Mandrel or anything round', 'Bending guide, printed']),
        'Eye protection',
      ],
      needs: bought
        ? [
            {
              name: `${own.shape === 'circle' ? 'Hoop' : 'Frame'}, ${mm(own.wide)} across`,
              count: 1,
              says: 'one that opens',
            },
          ]
        : [],
      ready: [
        ...(bought
          ? []
          : [
              { id: 'straighten', text: 'Draw the wire through nylon jaws until it is straight', minutes: 2 },
              { id: 'bend', text: 'Bend the frame until it lies on its line in the bending guide', minutes: 8 },
            ]),
        {
          id: 'try',
          text: 'Try the smallest hole on the frame’s wire, and where wires meet on all of them',
          minutes: 2,
        },
      ],
      cautions: [...WIRE_CAUTIONS, EAR_CAUTION],
      fasten: {
        title: 'Tuck in and look',
        says: [
          crosses.length > 0
            ? 'Press every cut end flat between two beads with chain-nose pliers, on the inside of the frame.'
            : 'Press the cut ends flat.',
          'Lay the other of a pair upon it: gaps, rows and loops should cover each other.',
        ],
        minutes: 5,
      },
      glued: false,
    }
  },
  mostLines: 60,
})

/** What a frame begins with, kept by its settings. */
const kept = new WeakMap<Settings, { readonly bead: string; readonly parts: number[][] }>()
function partsOf(work: Pick<Work, 'bead' | 'settings' | 'plan'>): number[][] {
  let known = kept.get(work.settings)
  if (known?.bead !== work.bead.id) {
    known = { bead: work.bead.id, parts: firstParts(work, [work.bead, ...SIZES.map(specOf)]) }
    kept.set(work.settings, known)
  }
  return known.parts
}
