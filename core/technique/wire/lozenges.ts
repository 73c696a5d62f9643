import { lozengeOfThree, lozengeOfTwo } from '../../wire/cross'
import type { BeadSpec } from '../../bead/spec'
import type { Lacing } from '../../recipe/laced'
import type { Row } from '../../recipe/rows'
import {
  highOfRow,
  lineOf,
  longOfRow,
  places,
  profileOf,
  straightWay,
  type FilledSpan,
  type Filling,
  type Pose,
} from './filling'

/** Bands of lozenges: wires part, carry a bead or two each, and meet in one. */

/** Beads of a lozenge besides the one that it begins with. */
const EACH = 5

/** Lozenges that a line is made up of; the rest of it goes on in a straight run. */
const countOf = (row: Row): number => Math.max(0, Math.floor((row.length - 1) / EACH))

/** A line of so many lozenges: which bead each of its places is. */
function proposed(count: number, ring: readonly number[], joint: number): number[] {
  return [joint, ...Array.from({ length: count }, () => [...ring, joint]).flat()]
}

/** A row too short for a lozenge, or with nothing in it, is a straight run on all of its wires. */
function run(row: Row, freeMm: number, wires: number): FilledSpan {
  return {
    longMm: longOfRow(row),
    highMm: highOfRow(row),
    profile: profileOf(row),
    poses: lineOf(row, -freeMm / 2, freeMm / 2),
    wires: Array.from({ length: wires }, () => ({ points: straightWay(freeMm), moreMm: 0 })),
    lacing: (names) => together(places(0, row.length), names),
    says: [],
  }
}

/** Beads that all wires go through: the first picks them up. */
const together = (at: readonly number[], names: readonly string[], note?: string): Lacing[] =>
  at.length === 0
    ? []
    : [
        { do: 'pick', by: names[0]!, at, ...(note ? { note } : {}) },
        ...names.slice(1).map((by): Lacing => ({ do: 'pass', by, at, way: 'on' })),
      ]

/** What is told of one lozenge, begun at x. */
interface Laid {
  readonly poses: readonly Pose[]
  /** Points of each wire from its beginning to its end. */
  readonly ways: readonly (readonly { readonly x: number; readonly y: number }[])[]
  readonly longMm: number
  readonly highMm: number
  readonly moreMm: readonly number[]
}

function band(row: Row, freeMm: number, wires: number, lay: (beads: Row, x: number) => Laid): FilledSpan {
  const count = countOf(row)
  if (count === 0) return run(row, freeMm, wires)
  const joints = row[0]!.l
  const laid: Laid[] = []
  // Once to know how long it is, and once about its middle.
  let long = joints
  for (let k = 0; k < count; k++) long += lay(row.slice(1 + k * EACH, 1 + (k + 1) * EACH), 0).longMm
  const rest = row.slice(1 + count * EACH)
  long += longOfRow(rest)
  let x = -long / 2 + joints
  for (let k = 0; k < count; k++) {
    const one = lay(row.slice(1 + k * EACH, 1 + (k + 1) * EACH), x)
    laid.push(one)
    x += one.longMm
  }
  const first: Pose = { x: -long / 2 + joints / 2, y: 0, turnDegrees: 0 }
  const end = freeMm / 2
  const highMm = laid.reduce((most, one) => Math.max(most, one.highMm), highOfRow(rest))
  return {
    longMm: long,
    highMm,
    profile: [
      { highMm: row[0]!.d, outerMm: 0 },
      { highMm, outerMm: rest.length > 0 ? 0 : Math.min(joints, row.at(-1)!.l) },
    ],
    poses: [first, ...laid.flatMap(({ poses }) => poses), ...lineOf(rest, x, x + longOfRow(rest))],
    wires: Array.from({ length: wires }, (_, w) => ({
      points: [{ x: -end, y: 0 }, ...laid.flatMap(({ ways }) => ways[w]!), { x: end, y: 0 }],
      moreMm: laid.reduce((sum, { moreMm }) => sum + moreMm[w]!, 0),
    })),
    lacing: (names) => [
      ...together([0], names, 'all wires through one'),
      ...laid.flatMap((_, k) => lozengeLacing(1 + k * EACH, names)),
      ...together(places(1 + count * EACH, row.length), names),
    ],
    says: [],
  }
}

/** Of three wires one bead goes on each outer one and two on the middle one; of two wires two on each. */
function lozengeLacing(from: number, names: readonly string[]): Lacing[] {
  const [a, b, c] = names as [string, string, string?]
  const on: Lacing[] =
    c === undefined
      ? [
          { do: 'pick', by: a, at: [from, from + 2] },
          { do: 'pick', by: b, at: [from + 1, from + 3] },
        ]
      : [
          { do: 'pick', by: a, at: [from] },
          { do: 'pick', by: b, at: [from + 1, from + 2] },
          { do: 'pick', by: c, at: [from + 3] },
        ]
  return [...on, ...together([from + 4], names, 'the wires meet')]
}

export const lozengesOfThree: Filling = {
  id: 'lozenges-3',
  name: 'Lozenges on three wires',
  says: 'One bead above, two in the middle, one below; then all three wires through one seed.',
  wires: 3,
  passes: { small: 3, large: 1 },
  propose: (freeMm, small, large) =>
    proposed(
      Math.max(1, Math.floor((freeMm - small.l) / lozengeOfThree(large, small.l).pitchMm + 1e-9)),
      [1, 1, 1, 1],
      0,
    ),
  lay: (row, freeMm) =>
    band(row, freeMm, 3, ([top, left, right, bottom, joint], x) => {
      const { asideMm, tallMm, wiresMm } = lozengeOfThree(thickest([top!, left!, right!, bottom!]), joint!.l)
      const middle = left!.l + right!.l
      const long = middle + joint!.l
      const at = (px: number, y: number): Pose => ({ x: x + px, y, turnDegrees: 0 })
      const outer = (y: number) => [
        { x, y: 0 },
        { x: x + left!.l - top!.l / 2, y },
        { x: x + left!.l + top!.l / 2, y },
        { x: x + middle, y: 0 },
      ]
      const more = wiresMm[1]! - wiresMm[0]!
      return {
        poses: [
          at(left!.l, -asideMm),
          at(left!.l / 2, 0),
          at(left!.l + right!.l / 2, 0),
          at(left!.l, asideMm),
          at(middle + joint!.l / 2, 0),
        ],
        ways: [outer(-asideMm), [{ x, y: 0 }], outer(asideMm)],
        longMm: long,
        highMm: tallMm,
        moreMm: [more, 0, more],
      }
    }),
}

export const lozengesOfTwo: Filling = {
  id: 'lozenges-2',
  name: 'Lozenges on two wires',
  says: 'One on both wires, two on each, one on both: the wires part and meet.',
  wires: 2,
  passes: { small: 2, large: 2 },
  propose: (freeMm, _small, large) =>
    proposed(Math.max(1, Math.floor((freeMm - large.l) / lozengeOfTwo(large, large).pitchMm + 1e-9)), [1, 1, 1, 1], 1),
  lay: (row, freeMm) =>
    band(row, freeMm, 2, ([up, down, upper, lower, joint], x) => {
      const bead = thickest([up!, down!, upper!, lower!])
      const { sideMm, tallMm } = lozengeOfTwo(bead, joint!)
      const corner = sideMm / Math.SQRT2
      const wide = 2 * corner
      const at = (px: number, y: number, turnDegrees: number): Pose => ({ x: x + px, y, turnDegrees })
      // Beads lie in the middles of their sides.
      const middle = corner / 2
      return {
        poses: [
          at(middle, -middle, -45),
          at(middle, middle, 45),
          at(wide - middle, -middle, 45),
          at(wide - middle, middle, -45),
          at(wide + joint!.l / 2, 0, 0),
        ],
        ways: [-1, 1].map((side) => [
          { x, y: 0 },
          { x: x + corner, y: side * corner },
          { x: x + wide, y: 0 },
        ]),
        longMm: wide + joint!.l,
        highMm: tallMm,
        moreMm: [2 * sideMm - wide, 2 * sideMm - wide],
      }
    }),
}

const thickest = (beads: readonly BeadSpec[]): BeadSpec => beads.reduce((most, one) => (one.d > most.d ? one : most))
