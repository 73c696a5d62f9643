import { z } from 'zod'
import { problem } from '../../problem'
import { plainNumber } from '../../units/length'
import { nominalExtent, tubeExtent } from '../technique'
import { sumsOf, type Stitch } from '../stitch'
import { reader, startField, startSide, wholeRow, ROW_BY_ROW, toAndFro } from './setting'

const settings = z.strictObject({ start: startSide })
const read = reader(settings)

/** Lean of the two beads of a pair against each other, degrees (common practice: about 18). */
const LEAN_DEGREES = 18

const COS = Math.cos((LEAN_DEGREES * Math.PI) / 180)
const SIN = Math.sin((LEAN_DEGREES * Math.PI) / 180)

/**
 * Pairs of beads that lean together, two added at a time. Length: R rows of l cos 18°, and the lean of the last, d sin
 * 18°.
 */
export const herringbone: Stitch = {
  id: 'herringbone',
  family: 'weave',
  form: 'flat',
  heldBy: 'rows',
  name: 'Herringbone',
  summary: 'Leaning pairs in columns, two beads a stitch, on a ladder.',
  settings,
  fields: [
    startField(
      'Odd rows run from the',
      'Even rows run back. Choose right to mirror the work, as many left-handed weavers do.',
    ),
  ],
  repeatRows: 1,

  lattice({ bead }) {
    const lean = (turnDegrees: number) => ({ dx: 0, dy: 0, turnDegrees })
    return {
      pitchX: bead.d,
      pitchY: bead.l * COS,
      originX: bead.d / 2,
      originY: (bead.l * COS + bead.d * SIN) / 2,
      period: { columns: 2, rows: 1 },
      sites: [lean(LEAN_DEGREES), lean(-LEAN_DEGREES)],
      beadX: bead.d,
      beadY: bead.l,
      hole: 'along',
    }
  },
  extent(work) {
    return nominalExtent(herringbone.lengthOf(work), herringbone.widthOf(work), work.bead, {
      lengthFormula:
        `${work.rows} rows × ${work.bead.l} mm × cos ${LEAN_DEGREES}°` + ` + ${work.bead.d} mm × sin ${LEAN_DEGREES}°`,
      widthFormula: `${work.columns} beads × ${work.bead.d} mm`,
    })
  },
  lengthOf: ({ rows, bead }) => (rows === 0 ? 0 : rows * bead.l * COS + bead.d * SIN),
  rowsFor: (lengthMm, { bead }) => Math.max(0, (lengthMm - bead.d * SIN) / (bead.l * COS)),
  widthOf: ({ columns, bead }) => columns * bead.d,
  columnsFor: (widthMm, { bead }) => widthMm / bead.d,
  beads: ({ columns, rows }) => columns * rows,

  /** W + d a row, and d for every pair, where the thread dips between columns. */
  path(work) {
    const { d } = work.bead
    const { rows, places } = sumsOf(herringbone, work)
    const full = `${rows} rows × (${work.columns} × ${d} + ${d} + ${plainNumber(work.columns / 2)} pairs × ${d}) mm`
    const laid = `${places} places × ${d} + ${rows} rows × ${d} + ${plainNumber(places / 2)} pairs × ${d} mm`
    return {
      passes: 2,
      runs: [
        {
          id: 'thread',
          name: 'Thread',
          count: 1,
          joined: true,
          lengthMm: (places + rows + places / 2) * d,
          formula: work.laid ? laid : full,
        },
      ],
    }
  },
  /** The lean of the last row falls into the first: joined, every row is as long as any other. */
  join: ({ rows, bead }) => ({
    joins: true,
    says: 'Sew the last row to the first, pair to pair, as any row to the one before.',
    addsMm: rows === 0 ? 0 : -bead.d * SIN,
    formula: `− ${bead.d} mm × sin ${LEAN_DEGREES}°, because the ends lean into each other`,
  }),

  ...ROW_BY_ROW,
  workingRow: (i, { columns, settings: own }) => toAndFro(i, columns, read(own).start),

  nearestColumns: (columns) => Math.max(2, 2 * Math.round(columns / 2)),
  check({ columns }) {
    return columns % 2 === 0
      ? []
      : [
          problem(
            'columns-odd',
            'columns',
            `Herringbone is worked in pairs; ${columns} beads across is odd. Take ${columns - 1 || 2} or ` +
              `${columns + 1}.`,
          ),
        ]
  },
}

/** Herringbone in rounds, with a step up after each. */
export const tubularHerringbone: Stitch = {
  ...herringbone,
  id: 'herringbone-tube',
  form: 'tube',
  heldBy: 'rows',
  name: 'Tubular herringbone',
  summary: 'Leaning pairs in rounds: a supple rope. Each round ends with a step up.',
  fields: [
    startField(
      'Rounds run from the',
      'Right-handed weavers mostly work to the right as the chart shows it. Choose right to mirror the work.',
    ),
  ],

  lattice: (work) => ({ ...herringbone.lattice(work), round: true }),
  extent(work) {
    return tubeExtent(herringbone.lengthOf(work), tubularHerringbone.widthOf(work), {
      lengthFormula:
        `${work.rows} rounds × ${work.bead.l} mm × cos ${LEAN_DEGREES}° + ${work.bead.d} mm × sin ` +
        `${LEAN_DEGREES}°`,
      widthFormula: `${work.columns} beads × ${work.bead.d} mm ÷ π + ${work.bead.d} mm`,
    })
  },
  widthOf: ({ columns, bead }) => (columns * bead.d) / Math.PI + bead.d,
  columnsFor: (widthMm, { bead }) => ((widthMm - bead.d) * Math.PI) / bead.d,
  workingRow(i, { columns, settings: own }) {
    const right = read(own).start === 'left'
    return wholeRow({ from: i + 1, to: i + 1 }, right, columns, i, 'step up')
  },
  nearestColumns: (columns) => Math.max(4, 2 * Math.round(columns / 2)),
}
