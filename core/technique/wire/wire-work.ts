import { z } from 'zod'
import { wireDiameterMm } from '../../units/wire-gauge'
import { thickestThrough } from '../../wire/shared-hole'
import { plainNumber } from '../../units/length'
import { tenths } from '../carrier/line'
import { problem } from '../../problem'
import type { Row, RowProgram } from '../../recipe/rows'
import type { Strung } from '../strung'
import { rowsOfWork, rowWork, type RowLayout, type RowWork } from '../row-work'
import {
  rangeOf,
  type Extent,
  type Finding,
  type Range,
  type SettingField,
  type Settings,
  type ThreadRun,
  type Work,
} from '../technique'
import type { Guide, WireSide } from '../wire-side'

/** Work on wire: everything follows from one shape, worked out once for the lengths and sizes of its lines. */

/** Hardness of the wire that is asked for. */
export const HARDNESS = ['soft', 'half', 'hard'] as const
export type Hardness = (typeof HARDNESS)[number]
export const HARDNESS_NAMES: Readonly<Record<Hardness, string>> = {
  soft: 'soft',
  half: 'half hard',
  hard: 'hard',
}

/** A wire by its gauge: “Wire, 22 gauge (0.64 mm), half hard”. */
export const wireName = (gauge: number, hardness: Hardness): string =>
  `Wire, ${gauge} gauge (${plainNumber(Math.round(wireDiameterMm(gauge) * 100) / 100)} mm), ` +
  HARDNESS_NAMES[hardness]

/** Cut lengths of wire are rounded up to this, mm. */
const CUT_STEP_MM = 5

/** A wire to cut. */
export interface WireCut {
  readonly key: string
  readonly name: string
  readonly gauge: number
  readonly hardness: Hardness
  readonly lengthMm: number
  readonly formula: string
}

/** Everything about work on wire that follows from its geometry. */
export interface WireShape {
  readonly layout: RowLayout
  readonly lengthMm: number
  readonly widthMm: number
  readonly thicknessMm: number
  readonly lengthFormula: string
  readonly widthFormula: string
  readonly wires: readonly WireCut[]
  readonly guides: readonly Guide[]
  readonly findings: readonly Finding[]
}

/** Spread of what geometry says until a gauge stands: beads are known to a tenth (wire.md). */
const SPREAD = 0.05

/** Brass, g/mm³ (handbook figure, about 8.5 g/cm³). */
const BRASS_G_PER_MM3 = 8.5e-3

type Inherited = 'check' | 'layout' | 'runs' | 'extent' | 'program' | 'wire' | 'findings' | 'making' | 'grams'

/** Work on wire as its file says it. */
export interface WireWork extends Omit<RowWork, Inherited> {
  shape(work: Work, rows: readonly Row[]): WireShape
  program(work: Work, rows: readonly Row[]): RowProgram
  readonly side?: Omit<WireSide, 'guides'>
  /** Lines that it can have at most, where each costs much to lay; far more than anyone works. */
  readonly mostLines?: number
}

/** Gauges that are offered, by their numbers as they are kept; the first may be left to the holes. */
export const GAUGE_NUMBERS = ['16', '18', '20', '21', '22', '24', '26', '28', '30', '32', '34'] as const
export const AS_HOLES_ALLOW = 'holes'
export const gaugeSetting = z.enum(GAUGE_NUMBERS)
export const gaugeOrHoles = z.enum([AS_HOLES_ALLOW, ...GAUGE_NUMBERS])

/** A gauge as a number; 0 where it is left to the holes. */
export const gaugeNumber = (gauge: string): number => (gauge === AS_HOLES_ALLOW ? 0 : Number(gauge))

/** A gauge, or the thickest that goes easily through every bead of some lines so many times. */
export const gaugeThrough = (gauge: number, noThicker: number, lines: readonly Row[], passes = 1): number =>
  gauge ||
  thickestThrough(
    noThicker,
    [...new Map(lines.flat().map((bead) => [bead.id, bead])).values()].map(({ h }) => ({ holeMm: h, passes })),
  )

/** A choice of gauge, between two of them; or as the holes allow. */
export const gaugeField = (
  key: string,
  label: string,
  help: string,
  [thick, thin]: readonly [number, number],
  byHoles = false,
): SettingField => ({
  ...{ key, label, help, kind: 'choice' as const },
  choices: [
    ...(byHoles ? [{ value: AS_HOLES_ALLOW, label: 'as the holes allow' }] : []),
    ...GAUGE_NUMBERS.filter((gauge) => Number(gauge) >= thick && Number(gauge) <= thin).map((value) => ({
      ...{ value, label: `${value} · ${plainNumber(Math.round(wireDiameterMm(Number(value)) * 100) / 100)} mm` },
    })),
  ],
})

export const hardnessField: SettingField = {
  key: 'hardness',
  label: 'Hardness',
  help: 'Soft wire bends and wraps easily; half hard keeps its shape.',
  kind: 'choice',
  choices: HARDNESS.map((value) => ({ value, label: HARDNESS_NAMES[value] })),
}

/** Whether any of some settings is another than before; where nothing is known of before, all of them are. */
export const differs = (from: Settings | undefined, to: Settings, keys: readonly string[]): boolean =>
  from === undefined || keys.some((key) => from[key] !== to[key])

/** A length in words, to a tenth: “24.3 mm”. */
export const inMm = (value: number): string => `${tenths(value)} mm`

/** Eyes and ends, for all work on wire (usual cautions). */
const SPRINGS =
  'Wear eye protection and hold both ends when you cut: pieces of wire fly. A long wire springs: keep it under your ' +
  'palm.'
export const SLIPS = 'Keep your face away from the free end: wire that slips out of the pliers springs.'
export const TUCKED =
  'Tuck every end in between beads or file it smooth: run a finger and a piece of cloth over the work before it is ' +
  'worn.'
export const WIRE_CAUTIONS = [SPRINGS, TUCKED] as const

/** A value that follows from the lengths of lines and their beads’ sizes, kept as long as these stay. */
export function keptByShape<T>(
  make: (work: Work, rows: readonly Row[]) => T,
): (work: Work, rows?: readonly Row[]) => T {
  const kept = new WeakMap<object, { readonly value: T }>()
  return (work, rows = rowsOfWork(work)) => {
    if (!work.shape) return make(work, rows)
    let known = kept.get(work.shape)
    if (!known) {
      known = { value: make(work, rows) }
      kept.set(work.shape, known)
    }
    return known.value
  }
}

/** Work on wire as a technique of lines. */
export function wireWork(own: WireWork): Strung {
  const shapeOf = keptByShape((work, rows) => own.shape(work, rows))
  const range = (mm: number): Range => rangeOf(mm, SPREAD)
  return rowWork({
    ...own,
    making: 'wire',
    layout: (work, rows) => shapeOf(work, rows).layout,
    extent(work): Extent {
      const shape = shapeOf(work)
      return {
        lengthMm: range(shape.lengthMm),
        widthMm: range(shape.widthMm),
        thicknessMm: shape.thicknessMm,
        basis: { kind: 'nominal', spread: SPREAD },
        lengthFormula: shape.lengthFormula,
        widthFormula: shape.widthFormula,
      }
    },
    runs: (work) =>
      shapeOf(work).wires.map(({ key, name, gauge, hardness, lengthMm, formula }): ThreadRun => ({
        id: 'wire',
        key,
        name,
        count: 1,
        joined: false,
        lengthMm,
        stepMm: CUT_STEP_MM,
        shopName: wireName(gauge, hardness),
        formula,
      })),
    grams: (work) =>
      shapeOf(work).wires.reduce(
        (sum, { gauge, lengthMm }) => sum + (Math.PI / 4) * wireDiameterMm(gauge) ** 2 * lengthMm * BRASS_G_PER_MM3,
        0,
      ),
    findings: (work) => [...shapeOf(work).findings],
    check: ({ rows }) =>
      rows > (own.mostLines ?? Infinity)
        ? [
            problem(
              'wire-lines',
              'lines',
              `${own.name} can have ${own.mostLines} lines, not ${rows}. Take some out, or make two parts of it.`,
            ),
          ]
        : [],
    wire: { ...own.side, guides: (work) => shapeOf(work).guides },
  })
}

// ---- what guides are made of

/** Points round a circle, closed. */
export const ringPoints = (x: number, y: number, r: number, corners = 40) =>
  Array.from({ length: corners + 1 }, (_, k) => {
    const turn = (2 * Math.PI * k) / corners
    return { x: x + r * Math.sin(turn), y: y - r * Math.cos(turn) }
  })

/** Longest wire that is drawn straight on a guide, mm: what a page holds. */
const STRAIGHT_MM = 170

/** Straight wire at true size with marks where something begins; null where it is longer than a page is wide. */
export function markedWire(
  title: string,
  lengthMm: number,
  thickMm: number,
  marks: readonly { readonly at: number; readonly says: string }[],
): Guide {
  // Longer wire is drawn in rows, one below the other.
  const rows = Math.max(1, Math.ceil(lengthMm / STRAIGHT_MM - 1e-9))
  const pitch = 20
  const at = (mm: number) => {
    const row = Math.min(rows - 1, Math.floor(mm / STRAIGHT_MM))
    return { x: mm - row * STRAIGHT_MM, y: 6 + row * pitch }
  }
  return {
    title,
    widthMm: Math.min(lengthMm, STRAIGHT_MM),
    lengthMm: rows * pitch,
    lines: [
      ...Array.from({ length: rows }, (_, row) => ({
        kind: 'wire' as const,
        thickMm,
        points: [
          { x: 0, y: 6 + row * pitch },
          { x: Math.min(STRAIGHT_MM, lengthMm - row * STRAIGHT_MM), y: 6 + row * pitch },
        ],
      })),
      ...marks.map(({ at: mm }) => {
        const { x, y } = at(mm)
        return {
          kind: 'mark' as const,
          thickMm: 0.2,
          points: [
            { x, y: y - 2.5 },
            { x, y: y + 2.5 },
          ],
        }
      }),
    ],
    // Words of marks that stand close together lie below each other.
    labels: marks.map(({ at: mm, says }, k) => {
      const { x, y } = at(mm)
      return { x, y: y + 5.5 + (k % 3) * 3.6, says: `${tenths(mm)} ${says}` }
    }),
    says: [`Cut ${tenths(lengthMm)} mm, and mark it where the lines stand.`],
  }
}
