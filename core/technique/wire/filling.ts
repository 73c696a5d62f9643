import type { BeadSpec } from '../../bead/spec'
import type { Lacing } from '../../recipe/laced'
import type { Row } from '../../recipe/rows'
import type { Point } from '../lattice'

/** What fills a wire across a frame: one file each, and a line in fillings.ts. */

/** A bead of a filling, from the middle of its span: x along it, y down. */
export interface Pose extends Point {
  readonly turnDegrees: number
}

export interface FilledSpan {
  /** What it takes along the span, and how high it is, mm. */
  readonly longMm: number
  readonly highMm: number
  /** How high it is where, from its ends inward: a part of it, and how much of it lies outside that on each side. */
  readonly profile: readonly { readonly highMm: number; readonly outerMm: number }[]
  /** In the order of the line. */
  readonly poses: readonly Pose[]
  /** The way of each of its wires between the walls, as it is seen, and what it takes beyond the straight way, mm. */
  readonly wires: readonly { readonly points: readonly Point[]; readonly moreMm: number }[]
  /** What is done between the wraps at both ends; wires by their number from 0. */
  lacing(wires: readonly string[]): readonly Lacing[]
  /** What of its own wants a look. */
  readonly says: readonly string[]
}

export interface Filling {
  readonly id: string
  readonly name: string
  readonly says: string
  /** Wires side by side in each of its gaps. */
  readonly wires: number
  /** How often its small beads and its large ones are passed at most. */
  readonly passes: { readonly small: number; readonly large: number }
  /** Beads for so much room: 0 a small one, 1 a large one. */
  propose(freeMm: number, small: BeadSpec, large: BeadSpec): number[]
  /** The same with a small bead more on each side; left out where it cannot be had by one. */
  widened?(parts: readonly number[]): number[]
  lay(row: Row, freeMm: number): FilledSpan
}

export const longOfRow = (row: Row): number => row.reduce((sum, { l }) => sum + l, 0)
export const highOfRow = (row: Row): number => row.reduce((most, { d }) => Math.max(most, d), 0)

/** A small bead more at both ends of a run. */
export const atBothEnds = (parts: readonly number[]): number[] => [0, ...parts, 0]

/** Beads in a straight line between two points on the axis, what is left over shared among their joints. */
export function lineOf(row: Row, from: number, to: number): Pose[] {
  const slack = Math.max(0, to - from - longOfRow(row)) / (row.length + 1)
  const start = slack > 0 ? from : (from + to - longOfRow(row)) / 2
  let x = start
  return row.map(({ l }) => {
    x += slack + l
    return { x: x - l / 2, y: 0, turnDegrees: 0 }
  })
}

/** The profile of a straight run: each thickness where it comes nearest to an end. */
export function profileOf(row: Row): FilledSpan['profile'] {
  const whole = longOfRow(row)
  const outer = new Map<number, number>()
  let before = 0
  for (const { d, l } of row) {
    const near = Math.min(before, whole - before - l)
    outer.set(d, Math.min(outer.get(d) ?? Infinity, near))
    before += l
  }
  return [...outer].map(([highMm, outerMm]) => ({ highMm, outerMm }))
}

/** The large bead of a row: the first of its thickest. */
export const largeIn = (row: Row): number => row.findIndex(({ d }) => d === highOfRow(row))

/** Places from one to before another. */
export const places = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from) }, (_, k) => from + k)

/** A straight wire between the walls. */
export const straightWay = (freeMm: number): Point[] => [
  { x: -freeMm / 2, y: 0 },
  { x: freeMm / 2, y: 0 },
]
