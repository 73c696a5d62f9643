import { plainNumber } from '../../units/length'
import { wireDiameterMm } from '../../units/wire-gauge'
import { bowMm } from '../../wire/cross'
import type { MeasuredCurve } from '../../wire/curve'
import { frameWireMm } from '../../wire/frame'
import { GAPES, sectionOf, tightestBendMm, wireTakenMm } from '../../wire/section'
import { tenths } from '../carrier/line'
import type { Point } from '../lattice'
import type { Finding, Work } from '../technique'
import type { Guide } from '../wire-side'
import { beadsFor, frameSize, openMmOf, topLoop } from './frame-own'
import { markedWire, ringPoints, inMm } from './wire-work'
import {
  type LaidCross,
  type Measured,
  gapsOf,
  gapPoint,
  frameLines,
  lieInEachOther,
  overMm,
  roomBetween,
} from './frame-laid'

/** What is said of a frame: what wants a look, wire to cut, and guides to bend it by. */

/** Held while a wire is wrapped, mm on each end (from memory). */
const HELD_MM = 50

const counted = (n: number, word: string): string => `${n} ${word}${n === 1 ? '' : 's'}`

/** What of a frame wants a look. */
export function findings(all: Measured): Finding[] {
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
  openFindings(all).forEach(({ code, weight, says }) => add(code, weight, says))
  crosses.forEach((cross, k) =>
    findingsOfCross(all, cross, k + 1).forEach(({ code, weight, says }) => add(code, weight, says)),
  )
  crosses.forEach((cross, k) => {
    const at = crosses.findIndex((one, i) => i > k && lieInEachOther(cross, one))
    if (at < 0) return
    const { highMm, apartMm } = roomBetween(cross, crosses[at]!)
    add(
      'cross-close',
      'stops',
      `Wires ${k + 1} and ${at + 1} across lie in each other: their rows are ${inMm(highMm)} high together and ` +
        `${inMm(apartMm)} apart. Move one a gap away.`,
    )
  })
  return out
}

/** What of an open frame wants a look. */
function openFindings({ own, curve }: Measured): Finding[] {
  const asked = openMmOf(own)
  if (asked === 0) return []
  const out: Finding[] = []
  const [start, end] = [curve.at(0), curve.at(curve.lengthMm)]
  const roundMm = 2 * curve.lengthMm
  if (asked > curve.lengthMm + 1e-6)
    out.push({
      code: 'open-wide',
      weight: 'stops',
      says:
        `${inMm(asked)} are more than half of the ${inMm(roundMm)} round this frame: half of it is left open. Leave ` +
        'less open, or bend it larger.',
    })
  if (own.loops < 2)
    out.push({
      code: 'open-bare',
      weight: 'stops',
      says: `Beads slide off an open end: turn a loop on each, where ${own.loops === 0 ? 'none' : 'one'} is planned.`,
    })
  const { upMm } = topLoop(own)
  const needMm = 2 * upMm + wireDiameterMm(own.gauge)
  if (own.loops === 2 && Math.hypot(start.x - end.x, start.y - end.y) < needMm - 1e-6)
    out.push({
      code: 'open-close',
      weight: 'looks',
      says:
        `The loops lie on each other: their middles want ${inMm(needMm)} between them. Leave more open, turn them ` +
        'on thinner pliers, or close the frame.',
    })
  return out
}

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
      weight: 'looks',
      says: `Wire ${number} leaves gap ${gap} on the right and gap ${left} on the left: it lies askew.`,
    })
  if (gap >= beads.length)
    out.push({
      code: 'cross-gap',
      weight: 'stops',
      says: `Wire ${number} asks for gap ${gap}; the frame has ${Math.max(0, beads.length - 1)}. Give it another.`,
    })
  if (row.length === 0) return out
  const over = overMm(cross)
  if (over > 0)
    out.push({
      code: 'cross-long',
      weight: 'looks',
      says:
        `What wire ${number} carries is ${inMm(over)} too long: it would bow by ` +
        `${inMm(bowMm(filled.longMm, freeMm) || over)}. Take a bead out, or move it to where the frame is wider.`,
    })
  const small = row.reduce((least, bead) => (bead.l < least ? bead.l : least), Infinity)
  const bare = (freeMm - filled.longMm) / 2
  if (bare > small)
    out.push({
      code: 'cross-short',
      weight: 'looks',
      says:
        `On wire ${number} ${inMm(bare)} of wire would show on each side: add ` +
        `${counted(Math.floor(bare / small), 'bead')} a side.`,
    })
  return out
}

/** The tightest bend of a curve, mm. */
function tightest(curve: MeasuredCurve): number {
  let most = 0
  for (let k = 0; k < 360; k++) most = Math.max(most, Math.abs(curve.bendAt((curve.lengthMm * (k + 0.5)) / 360)))
  return most > 0 ? 1 / most : Infinity
}

export function wiresOf(all: Measured) {
  const { own, curve, crosses } = all
  const { wireMm } = topLoop(own)
  const [a, c] = [wireDiameterMm(own.gauge), wireDiameterMm(own.cross)]
  const overlap = own.loops === 0 && curve.closed ? OVERLAP_MM : 0
  const frame =
    own.source === 'bought'
      ? []
      : [
          {
            ...{ key: 'frame', name: 'Frame', gauge: own.gauge, hardness: own.hardness },
            lengthMm: frameWireMm(curve.lengthMm, { loops: own.loops, loopMm: wireMm, overlapMm: overlap }),
            formula:
              `${curve.closed ? 'once round' : 'from end to end'} ${inMm(curve.lengthMm)}` +
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
          `${inMm(straight)} across${moreMm > 0.05 ? ` + ${inMm(moreMm)} round its beads` : ''} + ` +
          `2 × ${own.turns} turns ` +
          `× π × ${tenths(a + c)} mm + 2 × ${HELD_MM} mm to hold`,
      }))
    }),
  ]
}
/** How far the ends of a frame without loops lie over each other, mm (common practice). */
const OVERLAP_MM = 12

export function guidesOf(all: Measured): Guide[] {
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
      curve.closed
        ? 'Bend the wire until it lies on the line; the numbers are gaps between beads, counted from the top.'
        : 'Bend the wire until it lies on the line, both ends apart; the numbers are gaps between beads, counted ' +
          'down from either end.',
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
