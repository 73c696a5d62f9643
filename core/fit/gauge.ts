import { median } from '../median'
import { requireSpec } from '../bead/spec'
import { basisOf, type Part, type Piece } from '../piece/piece'
import { boundsOf } from '../bounds'
import { MOST_SWATCHES, swatchSchema, type Gauge, type Swatch } from '../piece/schema'
import { NOMINAL_SPREAD, type Plan, type Settings, type Technique, type Work } from '../technique/technique'
import { requireTechnique } from '../technique/registry'

/**
 * A gauge is what one hand measured: so many rows of a stitch, in one bead and one thread, came to so many mm. Kept as
 * the swatches themselves; what follows from them is a factor on the nominal model, so that it serves every count.
 */
export interface Hand {
  /** Measured length ÷ nominal length, mean of the swatches. */
  readonly along: number
  /** The same across; 1 where no swatch says its width. */
  readonly across: number
  /** How far a length may be off, as a share. */
  readonly spread: number
  readonly swatches: number
}

/** One swatch says less than several: so much, as a share, until a second one is there. */
const ONE_SWATCH_SPREAD = 0.025

/** Nobody works more evenly than this. */
const LEAST_SPREAD = 0.01

/** A swatch this far from the nominal figure, as a share, is questioned. */
const FAR_FROM_NOMINAL = 0.12

/** What a swatch was worked like, where that is known: settings and count across, and what its lines mean. */
type Worked = Pick<Work, 'settings' | 'columns' | 'plan' | 'usual'>

export function workedOf(part: Part): Worked {
  const { bead: _, ...worked } = basisOf(part)
  return worked
}

/** What a gauge is kept under. */
export type GaugeKey = Pick<Gauge, 'technique' | 'spec' | 'thread' | 'plan'>

/** What the gauge of a part is kept under: its stitch, bead and thread, and its recipe where it follows one’s own. */
export function gaugeKeyOf(part: Pick<Part, 'technique' | 'spec' | 'plan'>, thread: Gauge['thread']): GaugeKey {
  const plan = part.plan && requireTechnique(part.technique).planKey?.(part.plan)
  return { technique: part.technique, spec: part.spec, thread, ...(plan ? { plan } : {}) }
}

/**
 * Nominal length of so many rows, mm. Rows measured within a work grow by a row each; a finished piece is measured
 * from end to end, and is compared with the model’s own length of that count: the half bead of peyote, or a row of
 * units that is only begun, is no row.
 */
function nominalMm(technique: Technique, spec: string, { rows, from }: Swatch, worked: Worked): number {
  const work = { ...worked, bead: requireSpec(spec) }
  if (from !== '') return technique.growth.lengthOf({ ...work, rows })
  return (
    (rows * (technique.growth.lengthOf({ ...work, rows: 120 }) - technique.growth.lengthOf({ ...work, rows: 100 }))) /
    20
  )
}

/** Width that one column more brings, nominal mm. */
const columnMm = (technique: Technique, spec: string, settings: Part['settings']): number => {
  const work = { bead: requireSpec(spec), settings }
  const [narrow, wide] = [technique.growth.nearestColumns(20, settings), technique.growth.nearestColumns(60, settings)]
  return (
    (technique.growth.widthOf({ ...work, columns: wide }) - technique.growth.widthOf({ ...work, columns: narrow })) /
    (wide - narrow)
  )
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length

/** Sample standard deviation. */
const deviation = (values: readonly number[]): number => {
  const m = mean(values)
  return Math.sqrt(values.reduce((sum, v) => sum + (v - m) ** 2, 0) / (values.length - 1))
}

/**
 * Measured ÷ nominal of one swatch, along and across. What a swatch does not name is as in the work that it is used
 * for; the stitch's defaults without.
 */
export function swatchFactors(
  { technique: id, spec }: Pick<Gauge, 'technique' | 'spec'>,
  swatch: Swatch,
  work?: Worked,
): { along: number; across: number | null } {
  const technique = requireTechnique(id)
  const settings = work?.settings ?? technique.settings.parse({})
  const { lengthMm, columns, widthMm } = swatch
  const across = columns > 0 && widthMm > 0 ? widthMm / (columns * columnMm(technique, spec, settings)) : null
  const counted = columns || work?.columns || 2
  return {
    along:
      lengthMm /
      nominalMm(technique, spec, swatch, {
        ...work,
        settings,
        columns: technique.growth.nearestColumns(counted, settings),
      }),
    across,
  }
}

/**
 * Mean and spread of the swatches; null where there are none. The spread is twice the standard deviation, never under
 * 1 % nor over the nominal 5 %.
 */
export function handOf(gauge: Gauge, work?: Worked): Hand | null {
  if (gauge.swatches.length === 0) return null
  const factors = gauge.swatches.map((s) => swatchFactors(gauge, s, work))
  const along = factors.map((f) => f.along)
  const across = factors.flatMap((f) => (f.across === null ? [] : [f.across]))
  return {
    along: mean(along),
    across: across.length === 0 ? 1 : mean(across),
    swatches: along.length,
    spread:
      along.length === 1
        ? ONE_SWATCH_SPREAD
        : Math.min(NOMINAL_SPREAD, Math.max(LEAST_SPREAD, (2 * deviation(along)) / mean(along))),
  }
}

export const sameGauge = (a: GaugeKey, b: GaugeKey): boolean =>
  a.technique === b.technique && a.spec === b.spec && a.thread === b.thread && a.plan === b.plan

export type Ground = Pick<Piece, 'tray' | 'gauges' | 'supply'>

/** The gauge that a part of the piece stands on: same stitch, same bead, same thread. */
export function gaugeFor(
  ground: Pick<Piece, 'gauges' | 'supply'>,
  part: Pick<Part, 'technique' | 'spec' | 'plan'>,
): Gauge | undefined {
  const key = gaugeKeyOf(part, ground.supply.thread)
  return ground.gauges.find((g) => sameGauge(g, key))
}

/** By gauge, then by what the part was worked like: its settings or its plan, and its shape. */
const HANDS = new WeakMap<Gauge, WeakMap<object, Map<string, Hand | null>>>()

/** The hand that a part is made by; null without a gauge for its stitch, bead and thread. */
export function handFor(ground: Pick<Piece, 'gauges' | 'supply'>, part: Part): Hand | null {
  const gauge = gaugeFor(ground, part)
  if (!gauge) return null
  const known = HANDS.get(gauge) ?? new WeakMap<object, Map<string, Hand | null>>()
  HANDS.set(gauge, known)
  const way: Settings | Plan = part.plan ?? part.settings
  const byShape = known.get(way) ?? new Map<string, Hand | null>()
  known.set(way, byShape)
  const work = workedOf(part)
  const shape = `${work.columns} ${JSON.stringify(part.settings)} ${(work.usual ?? []).map(({ id }) => id).join()}`
  let hand = byShape.get(shape)
  if (hand === undefined) {
    hand = handOf(gauge, work)
    if (byShape.size > 50) byShape.clear()
    byShape.set(shape, hand)
  }
  return hand
}

interface Questioned {
  readonly index: number
  readonly why: 'far from the others' | 'far from the beads'
}

/**
 * Swatches that look like a slip of the tape or the count: with three and more, one that lies over 4 % and over three
 * times the usual distance (median absolute deviation) from the median; otherwise one that is far from what the beads
 * say.
 */
export function questionedSwatches(gauge: Gauge, work?: Worked): Questioned[] {
  const factors = gauge.swatches.map((s) => swatchFactors(gauge, s, work).along)
  const middle = factors.length === 0 ? 1 : median(factors)
  const usual = median(factors.map((f) => Math.abs(f - middle)).concat(factors.length === 0 ? [0] : []))
  return factors.flatMap((f, index): Questioned[] => {
    const off = Math.abs(f - middle)
    if (factors.length >= 3 && off > 0.04 * middle && off > 3 * usual) return [{ index, why: 'far from the others' }]
    return Math.abs(f - 1) > FAR_FROM_NOMINAL ? [{ index, why: 'far from the beads' }] : []
  })
}

/**
 * So many rows of a part, measured from their first to their last, as a swatch; what is longer than a swatch may be is
 * told by as many rows as one may have, at the same rate. Null where nothing was measured.
 */
export function endToEnd(
  part: Part,
  { rows, mm, from }: { readonly rows: number; readonly mm: number; readonly from: string },
): Swatch | null {
  const most = boundsOf(swatchSchema, 'rows').most
  const { growth } = requireTechnique(part.technique)
  const lengthOf = (n: number) => growth.lengthOf({ ...basisOf(part), rows: n })
  const few = Math.min(rows, most)
  const lengthMm = rows > most ? (mm * lengthOf(few)) / lengthOf(rows) : mm
  const { least, most: longest } = boundsOf(swatchSchema, 'lengthMm')
  return few >= 1 && lengthMm >= least && lengthMm <= longest
    ? { rows: few, lengthMm, columns: 0, widthMm: 0, from }
    : null
}

/** The gauges of a piece with one more swatch of a part; a gauge for it is begun where there is none. */
export function withSwatch(gauges: readonly Gauge[], key: GaugeKey, swatch: Swatch): Gauge[] {
  const there = gauges.find((g) => sameGauge(g, key))
  if (!there) return [...gauges, { ...key, swatches: [swatch] }]
  // A gauge holds so many; the oldest goes.
  return gauges.map((g) => (g === there ? { ...g, swatches: [...g.swatches, swatch].slice(-MOST_SWATCHES) } : g))
}

/** The gauges without swatches of one name. */
export const withoutSwatchFrom = (gauges: readonly Gauge[], key: GaugeKey, from: string): Gauge[] =>
  gauges
    .map((g) => (sameGauge(g, key) ? { ...g, swatches: g.swatches.filter((s) => s.from !== from) } : g))
    .filter((g) => g.swatches.length > 0)

/** The gauges with a swatch taken out; a gauge without swatches goes. */
export function withoutSwatch(gauges: readonly Gauge[], key: GaugeKey, index: number): Gauge[] {
  return gauges
    .map((g) => (sameGauge(g, key) ? { ...g, swatches: g.swatches.filter((_, i) => i !== index) } : g))
    .filter((g) => g.swatches.length > 0)
}
