import { z } from 'zod'
import { plainNumber } from '../../units/length'
import type { Lattice } from '../lattice'
import { meeting, nominalExtent, tubeExtent } from '../technique'
import { sumsOf, type Stitch } from '../stitch'
import { reader, startField, startSide, wholeRow, ROW_BY_ROW, toAndFro } from './setting'

const settings = z.strictObject({ start: startSide })
const read = reader(settings)

/** A lattice whose odd rows (or, mirrored, even ones) lie half a bead to the right. */
function rowStagger(low: 0 | 1, half: number): Pick<Lattice, 'period' | 'sites'> {
  const plain = { dx: 0, dy: 0, turnDegrees: 0 }
  const aside = { dx: half, dy: 0, turnDegrees: 0 }
  return { period: { columns: 1, rows: 2 }, sites: low === 0 ? [plain, aside] : [aside, plain] }
}

const startsLeft = (own: Parameters<typeof read>[0]): boolean => read(own).start === 'left'

/**
 * Beads upright in rows that lie like bricks: each hangs on the loop of thread between two beads of the row before.
 */
export const brick: Stitch = {
  id: 'brick',
  family: 'weave',
  form: 'flat',
  heldBy: 'rows',
  name: 'Brick stitch',
  summary: 'Upright beads laid like bricks, on a ladder; takes increases and decreases gladly.',
  quarter: (rows) => (rows % 2 === 1 ? 'peyote-odd' : 'peyote'),
  settings,
  fields: [
    startField(
      'Odd rows run from the',
      'Even rows run back. Choose right to mirror the work, as many left-handed weavers do.',
    ),
  ],
  repeatRows: 2,

  lattice({ bead, settings: own }) {
    return {
      pitchX: bead.d,
      pitchY: bead.l,
      originX: bead.d / 2,
      originY: bead.l / 2,
      ...rowStagger(startsLeft(own) ? 0 : 1, bead.d / 2),
      beadX: bead.d,
      beadY: bead.l,
      hole: 'along',
    }
  },
  extent(work) {
    // A single row does not lie to both sides.
    const wide = work.rows > 1 ? brick.widthOf(work) : work.columns * work.bead.d
    return nominalExtent(brick.lengthOf(work), wide, work.bead, {
      lengthFormula: `${work.rows} rows × ${work.bead.l} mm`,
      widthFormula: `${work.rows > 1 ? `(${work.columns} beads + ½)` : work.columns} × ${work.bead.d} mm`,
    })
  },
  lengthOf: ({ rows, bead }) => rows * bead.l,
  rowsFor: (lengthMm, { bead }) => lengthMm / bead.l,
  widthOf: ({ columns, bead }) => (columns + 0.5) * bead.d,
  columnsFor: (widthMm, { bead }) => widthMm / bead.d - 0.5,
  beads: ({ columns, rows }) => columns * rows,

  /** 2 l + d a bead: up through it, over the loop, and back down. */
  path(work) {
    const { beads } = sumsOf(brick, work)
    const each = 2 * work.bead.l + work.bead.d
    return {
      passes: 3,
      runs: [
        {
          id: 'thread',
          name: 'Thread',
          count: 1,
          joined: true,
          lengthMm: beads * each,
          formula: `${beads} beads × (2 × ${work.bead.l} + ${work.bead.d} = ${plainNumber(each)}) mm`,
        },
      ],
    }
  },
  join: ({ rows }) =>
    meeting(
      rows % 2 === 0
        ? 'Sew the last row to the first, bead to loop, as any row to the one before.'
        : 'Work one row more or one less: with an even number of rows the bricks of both ends meet. Then sew ' +
            'the last row to the first.',
    ),

  ...ROW_BY_ROW,
  workingRow: (i, { columns, settings: own }) => toAndFro(i, columns, read(own).start),

  nearestColumns: (columns) => Math.max(1, Math.round(columns)),
  check: () => [],
}

/** What rounds share with rows: all but the quarter turn, which would open the round. */
const { quarter: _, ...rows } = brick

/** Brick in closed rounds: the ladder is joined to a ring, and every round is joined at its end. */
export const tubularBrick: Stitch = {
  ...rows,
  id: 'brick-tube',
  form: 'tube',
  heldBy: 'rows',
  name: 'Tubular brick',
  summary: 'Brick in rounds on a ladder joined to a ring; each round is joined at its end.',
  fields: [
    startField(
      'Rounds run from the',
      'Right-handed weavers mostly work to the right as the chart shows it. Choose right to mirror the work.',
    ),
  ],

  lattice: (work) => ({ ...brick.lattice(work), round: true }),
  extent(work) {
    return tubeExtent(brick.lengthOf(work), tubularBrick.widthOf(work), {
      lengthFormula: `${work.rows} rounds × ${work.bead.l} mm`,
      widthFormula: `${work.columns} beads × ${work.bead.d} mm ÷ π + ${work.bead.d} mm`,
    })
  },
  widthOf: ({ columns, bead }) => (columns * bead.d) / Math.PI + bead.d,
  columnsFor: (widthMm, { bead }) => ((widthMm - bead.d) * Math.PI) / bead.d,
  workingRow(i, { columns, settings: own }) {
    const right = startsLeft(own)
    return wholeRow({ from: i + 1, to: i + 1 }, right, columns, i, 'join')
  },
  nearestColumns: (columns) => Math.max(3, Math.round(columns)),
}
