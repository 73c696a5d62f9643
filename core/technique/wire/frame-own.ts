import { z } from 'zod'
import { loopWireMm } from '../../hang/pin'
import { boxOf, frameOfLength, frameOfWidth, FRAME_SHAPES, type FrameForm } from '../../wire/shape'
import { opened, type MeasuredCurve, type Spot } from '../../wire/curve'
import { thickestThrough } from '../../wire/shared-hole'
import { beadsOnFrame, wireForBeads, wrapsMm } from '../../wire/frame'
import { wireDiameterMm } from '../../units/wire-gauge'
import type { Row } from '../../recipe/rows'
import type { Plan, Settings } from '../technique'
import type { Cross } from '../wire-side'
import { fillingOf, FILLING_IDS } from './fillings'
import { highOfRow, type Filling } from './filling'
import { AS_HOLES_ALLOW, gaugeOrHoles, HARDNESS } from './wire-work'

/** Settings and plan of a frame of wire, and the curve that it is bent to. Lengths in mm. */

export const frameSettings = z.strictObject({
  shape: z.enum(FRAME_SHAPES).default('drop'),
  by: z.enum(['size', 'beads']).default('size').describe('Its size decides its beads, or its beads its size'),
  wide: z.number().min(6).max(150).default(24).describe('Across, between the middles of its wire, mm'),
  long: z.number().min(6).max(200).default(36).describe('From its top to its lowest point, mm'),
  upper: z.number().min(0.2).max(0.8).default(0.36).describe('Of an egg, how far down it is widest, as a share'),
  corners: z.int().min(3).max(10).default(4),
  rounded: z.number().min(0.05).max(0.45).default(0.15).describe('Corners of a polygon, as a share of a side'),
  open: z.number().min(0).max(120).default(0).describe('Left open at its top, mm of its wire; 0 where its ends meet'),
  source: z.enum(['bent', 'bought']).default('bent').describe('Bent from wire, or a bought hoop'),
  gauge: gaugeOrHoles.default(AS_HOLES_ALLOW).describe('Wire of the frame, by its gauge number'),
  hardness: z.enum(HARDNESS).default('half'),
  loops: z.int().min(0).max(2).default(2).describe('Loops where its ends meet'),
  pliers: z.number().min(1).max(6).default(1.75).describe('Round-nose pliers where the loops are turned, mm'),
  even: z.boolean().default(true).describe('As many beads on the left as on the right'),
  room: z.number().min(0).max(5).default(0.8).describe('Room left free, in beads; wraps take more where they must'),
  crosses: z.int().min(0).max(12).default(3).describe('Wires across, when it is begun'),
  filling: z.enum(FILLING_IDS).default('straight').describe('What fills a wire across where nothing else is said'),
  cross: gaugeOrHoles.default(AS_HOLES_ALLOW).describe('Wires across, by their gauge number'),
  turns: z.int().min(1).max(4).default(2).describe('Turns of each wrap round the frame'),
})
/** Settings with gauges as numbers; 0 where they are left to the holes (`gauged`). */
export type OwnFrame = Omit<z.infer<typeof frameSettings>, 'gauge' | 'cross'> & {
  readonly gauge: number
  readonly cross: number
}
export function readFrame(settings: Settings): OwnFrame {
  const own = frameSettings.parse(settings)
  const number = (gauge: string) => (gauge === AS_HOLES_ALLOW ? 0 : Number(gauge))
  return { ...own, gauge: number(own.gauge), cross: number(own.cross) }
}

/** The thickest wire that a frame and its wires across are made of, by gauge (common practice). */
const FRAME_GAUGE = 20
const CROSS_GAUGE = 26

/** Settings with the gauges that are left open chosen by the holes that the wires pass. */
export function gauged(own: OwnFrame, lines: readonly Row[], fillings: readonly string[]): OwnFrame {
  const [frame = [], ...crosses] = lines
  const gauge =
    own.gauge ||
    thickestThrough(
      FRAME_GAUGE,
      holesOf([frame], () => ONCE),
    )
  const cross =
    own.cross ||
    thickestThrough(
      CROSS_GAUGE,
      holesOf(crosses, (k) => fillingOf(fillings[k] ?? '').passes),
    )
  return { ...own, gauge, cross }
}

const ONCE: Filling['passes'] = { small: 1, large: 1 }

/** Holes of some lines, and how often each is passed: one entry for each size of a line. */
const holesOf = (lines: readonly Row[], passesOf: (line: number) => Filling['passes']) =>
  lines.flatMap((row, k) => {
    const { small, large } = passesOf(k)
    const thick = highOfRow(row)
    return [...new Map(row.map((bead) => [bead.id, bead])).values()].map(({ h, d }) => ({
      ...{ holeMm: h, passes: d === thick ? large : small },
    }))
  })

const MOST_CROSSES = 24
const framePlan = z.strictObject({
  crosses: z
    .array(
      z.strictObject({
        gap: z.int().min(1).max(1000).describe('Gap of the frame, from the top down its right side'),
        left: z.int().min(1).max(1000).nullable().default(null).describe('The same on the left, where it differs'),
        filling: z.enum(FILLING_IDS).default('straight'),
      }),
    )
    .max(MOST_CROSSES)
    .default([])
    .describe('Wires across, one for each line behind the first'),
})
export const framePlanSchema: z.ZodType<Plan> = framePlan
export const framePlanOf = (plan: Plan | undefined): readonly Cross[] => framePlan.parse(plan ?? {}).crosses

/** A form by how wide and how long it is. */
export function formOf({ shape, wide, long, upper, corners, rounded }: OwnFrame): FrameForm {
  const base = { shape, upper, corners, rounded }
  switch (shape) {
    case 'circle':
    case 'polygon':
      return { ...base, tall: 1 }
    case 'oval':
    case 'egg':
      return { ...base, tall: long / wide }
    case 'drop':
      // Its point stands above the middle of a round as wide as it is.
      return { ...base, tall: Math.max(1.1, (2 * long) / wide - 1) }
    case 'heart':
      // Two rounds of 0.55 and 0.45 beside the middle.
      return { ...base, tall: Math.max(1.2, long / (wide * HEART_ROUND) - 1) }
  }
}
/** Radius of a heart’s rounds as a share of its width: 0.55 / (2 (0.55 + 0.45)). */
const HEART_ROUND = 0.275

/** What of the frame’s wire stays free, mm: room for wraps, about one bead at least. */
export function freeMmOf(own: OwnFrame, beads: Row, crosses: readonly Pick<Cross, 'filling'>[]): number {
  const wires = crosses.reduce((sum, { filling }) => sum + fillingOf(filling).wires, 0)
  return Math.max(own.room * (beads[0]?.l ?? 0), wrapsMm(wires, own.turns, wireDiameterMm(own.cross)))
}

/** What a frame is left open by, mm: a hoop that is bought is closed. */
export const openMmOf = ({ open, source }: OwnFrame): number => (source === 'bought' ? 0 : open)

/** The outline of a frame, as if it were closed: by its size, or so that its beads find room. */
export function outline(own: OwnFrame, beads: Row, freeMm: number): MeasuredCurve {
  if (own.by === 'size' || beads.length === 0) return frameOfWidth(formOf(own), own.wide)
  const openMm = openMmOf(own)
  // Not more than half of the way round is left open.
  const of = (wireMm: number) => frameOfLength(formOf(own), Math.min(wireMm + openMm, 2 * wireMm))
  return of(wireForBeads((mm) => opened(of(mm), openMm), beads, freeMm))
}

/** The curve of a frame’s wire: its outline, less what is left open at its top. */
export const frameCurve = (own: OwnFrame, beads: Row, freeMm: number): MeasuredCurve =>
  opened(outline(own, beads, freeMm), openMmOf(own))

/** How many beads of a cycle a frame takes. */
export const beadsFor = (own: OwnFrame, curve: MeasuredCurve, cycle: Row, freeMm: number): number =>
  beadsOnFrame(curve, cycle, { freeMm, even: own.even }).count

/** Gaps of wires across that nobody has placed: shared out down the frame. */
export function crossesOf(own: OwnFrame, plan: Plan | undefined, lines: number, beads: number): Cross[] {
  const said = framePlanOf(plan)
  return Array.from({ length: Math.max(0, lines) }, (_, k): Cross => {
    const gap = Math.max(1, Math.round((((k + 1) / (lines + 1)) * beads) / 2))
    return said[k] ?? { gap, left: null, filling: own.filling }
  })
}

/** Loop at the top: wire it takes, and how far its middle stands above the frame. */
export const topLoop = (own: OwnFrame): { readonly wireMm: number; readonly upMm: number } =>
  own.loops > 0 || own.source === 'bought'
    ? { wireMm: loopWireMm(own.pliers), upMm: (own.pliers + wireDiameterMm(own.gauge)) / 2 }
    : { wireMm: 0, upMm: 0 }

/** Ends of a frame that carry a loop: both where it is open, one place where they meet. */
export function loopEnds(own: OwnFrame, curve: MeasuredCurve): readonly Spot[] {
  if (topLoop(own).upMm === 0) return []
  return curve.closed ? [curve.at(0)] : [curve.at(0), curve.at(curve.lengthMm)].slice(0, own.loops)
}

/** How long a frame is as it hangs, from the middle of its loop to its lowest bead; and how wide. */
export function frameSize(own: OwnFrame, curve: MeasuredCurve, beads: Row) {
  const box = boxOf(curve)
  const thick = Math.max(highOfRow(beads), wireDiameterMm(own.gauge))
  return {
    box,
    thick,
    lengthMm: topLoop(own).upMm + (box.bottom - box.top) + thick / 2,
    widthMm: box.right - box.left + thick,
  }
}
