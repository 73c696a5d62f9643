import { keyOf } from '../../grid/key'
import { z } from 'zod'
import { problem } from '../../problem'
import { plainNumber } from '../../units/length'
import type { BeadSpec } from '../../bead/spec'
import { nominalExtent, type Work } from '../technique'
import type { Stitch } from '../stitch'
import { mirroredKeys, reader, startField, startSide } from './setting'

const settings = z.strictObject({ start: startSide })
const read = reader(settings)

/** Side of a unit: p = √2 (l + d) / 2. */
const unitPitch = ({ l, d }: Pick<BeadSpec, 'l' | 'd'>): number => (Math.SQRT2 * (l + d)) / 2

/** Units across and along of a grid of 2U + 1 columns and V + 1 rows. */
const units = ({ columns, rows }: { readonly columns: number; readonly rows: number }) => ({
  u: (columns - 1) / 2,
  v: Math.max(0, rows - 1),
})

/** Thread for a unit, mm: about 6 l + 4 (d / 2), round its four beads and on through two of them. */
const unitThreadMm = ({ l, d }: Pick<BeadSpec, 'l' | 'd'>): number => 6 * l + 2 * d

/** Units whose four beads are laid; of the whole grid, all. */
function laidUnits(work: Work): number {
  const { u, v } = units(work)
  const { laid } = work
  if (!laid) return u * v
  let found = 0
  for (let r = 0; r < v; r++)
    for (let c = 1; c < laid.across; c += 2)
      if (laid.holds(c, r) && laid.holds(c, r + 1) && laid.holds(c - 1, r) && laid.holds(c + 1, r)) found++
  return found
}

/**
 * Beads on the edges of squares; every edge is a cell. In row r the odd columns are the beads that lie across, on the
 * upper edges of unit row r; the even columns are the upright beads between its units, half a unit further along. The
 * last row has only the lower edges: its even columns are void. U × V units hold 2UV + U + V beads.
 */
export const rightAngle: Stitch = {
  id: 'right-angle',
  family: 'weave',
  form: 'flat',
  name: 'Right-angle weave',
  summary: 'Squares of four beads that share their sides; soft and even as cloth.',
  settings,
  fields: [
    startField('The first row runs from the', 'Rows of units run to and fro. Choose right to mirror the work.'),
  ],
  repeatRows: 1,

  lattice({ bead }) {
    const p = unitPitch(bead)
    return {
      pitchX: p / 2,
      pitchY: p,
      originX: bead.d / 2,
      originY: bead.d / 2,
      period: { columns: 2, rows: 1 },
      sites: [
        { dx: 0, dy: p / 2, turnDegrees: 90 },
        { dx: 0, dy: 0, turnDegrees: 0 },
      ],
      beadX: bead.l,
      beadY: bead.d,
      hole: 'across',
      touching: [
        [
          { c: -1, r: 0 },
          { c: 1, r: 0 },
          { c: -1, r: 1 },
          { c: 1, r: 1 },
        ],
        [
          { c: -1, r: -1 },
          { c: 1, r: -1 },
          { c: -1, r: 0 },
          { c: 1, r: 0 },
        ],
      ],
    }
  },
  voids({ columns, rows }) {
    // A single row makes no unit, so nothing of it can be worked.
    if (rows === 1) return Array.from({ length: columns }, (_, c) => c)
    return rows === 0 ? [] : Array.from({ length: (columns + 1) / 2 }, (_, k) => keyOf(columns, 2 * k, rows - 1))
  },

  extent(work) {
    const { u, v } = units(work)
    const p = unitPitch(work.bead)
    return nominalExtent(rightAngle.lengthOf(work), rightAngle.widthOf(work), work.bead, {
      lengthFormula: `${v} units × ${plainNumber(p)} mm`,
      widthFormula: `${plainNumber(u)} units × ${plainNumber(p)} mm`,
    })
  },
  lengthOf: ({ rows, bead }) => Math.max(0, rows - 1) * unitPitch(bead),
  rowsFor: (lengthMm, { bead }) => lengthMm / unitPitch(bead) + 1,
  widthOf: ({ columns, bead }) => ((columns - 1) / 2) * unitPitch(bead),
  columnsFor: (widthMm, { bead }) => (2 * widthMm) / unitPitch(bead) + 1,
  beads(work) {
    const { u, v } = units(work)
    return v === 0 ? 0 : 2 * u * v + u + v
  },

  /** About 6 l + 4 (d / 2) a unit: round the four beads, and on through two of them to the next unit. */
  path(work) {
    const each = unitThreadMm(work.bead)
    const laid = laidUnits(work)
    return {
      passes: 4,
      runs: [
        {
          id: 'thread',
          name: 'Thread',
          count: 1,
          joined: true,
          lengthMm: laid * each,
          formula:
            `${plainNumber(laid)} units × (6 × ${work.bead.l} + 4 × ${work.bead.d} ÷ 2 = ${plainNumber(each)}) ` +
            'mm, about',
        },
      ],
    }
  },
  /**
   * Between the ends lies one more row of units: both have their beads across, so only its U + 1 upright beads are
   * new.
   */
  join(work) {
    const { columns, rows, bead } = work
    const p = unitPitch(bead)
    const u = (columns - 1) / 2
    return {
      joins: true,
      says:
        `Join with one more row of units: its ${plainNumber(u + 1)} upright beads are new, the beads across are ` +
        'those of the two ends.',
      addsMm: rows < 2 ? 0 : p,
      formula: `+ 1 unit × ${plainNumber(p)} mm to join the ends`,
      keys: rows < 2 ? [] : Array.from({ length: Math.floor(u) + 1 }, (_, k) => keyOf(columns, 2 * k, rows - 1)),
      threadMm: rows < 2 ? 0 : u * unitThreadMm(bead),
    }
  },

  workingRows: ({ rows }) => Math.max(0, rows - 1),
  /**
   * Thread goes round one unit one way and round the next the other way, so the order within units alternates. Written
   * for a row that runs to the right; the others are its mirror image.
   */
  workingRow(i, { columns, settings: own }) {
    const u = (columns - 1) / 2
    const right = (i % 2 === 0) === (read(own).start === 'left')
    const keys: number[] = []
    const upright = (k: number) => keyOf(columns, 2 * k, i)
    const upper = (k: number) => keyOf(columns, 2 * k + 1, i)
    const lower = (k: number) => keyOf(columns, 2 * k + 1, i + 1)
    for (let k = 0; k < u; k++) {
      if (i === 0) {
        if (k === 0) keys.push(upright(0))
        keys.push(...(k % 2 === 0 ? [upper(k), upright(k + 1), lower(k)] : [lower(k), upright(k + 1), upper(k)]))
      } else if (k === 0) keys.push(upright(0), lower(0), upright(1))
      else keys.push(...(k % 2 === 1 ? [upright(k + 1), lower(k)] : [lower(k), upright(k + 1)]))
    }
    const ordered = Int32Array.from(keys)
    return {
      from: i + 1,
      to: i + 1,
      direction: right ? '→' : '←',
      keys: right ? ordered : mirroredKeys(columns, ordered),
    }
  },
  workingRowOf: ({ c, r }) => (Math.abs(c) % 2 === 1 ? Math.max(0, r - 1) : r),
  rowBefore: (i) => i - 1,
  countedRows: (rows) => Math.max(0, rows - 1),

  nearestColumns: (columns) => Math.max(3, 2 * Math.round((columns - 1) / 2) + 1),
  check({ columns }) {
    if (columns < 3)
      return [
        problem('units-none', 'columns', 'Right-angle weave needs at least one unit: three columns of beads. Take 3.'),
      ]
    return columns % 2 === 1
      ? []
      : [
          problem(
            'columns-even',
            'columns',
            `Right-angle weave of U units has 2U + 1 columns of beads; ${columns} is even. Take ` +
              `${columns - 1} or ${columns + 1}.`,
          ),
        ]
  },
}
