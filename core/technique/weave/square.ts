import { z } from 'zod'
import { plainNumber } from '../../units/length'
import { STRAIGHT } from '../lattice'
import { meeting, nominalExtent } from '../technique'
import { sumsOf, type Stitch } from '../stitch'
import { reader, startField, startSide, ROW_BY_ROW, toAndFro } from './setting'

const settings = z.strictObject({ start: startSide })
const read = reader(settings)

/**
 * Straight rows without warps: each bead is sewn to the one below it. Looks like loom work and is worked with one
 * thread.
 */
export const square: Stitch = {
  id: 'square',
  family: 'weave',
  form: 'flat',
  heldBy: 'rows',
  name: 'Square stitch',
  summary: 'Straight rows without a loom; each bead is sewn to the one before it.',
  settings,
  fields: [
    startField(
      'Odd rows run from the',
      'Even rows run back. Choose right to mirror the work, as many left-handed weavers do.',
    ),
  ],
  repeatRows: 1,

  lattice({ bead }) {
    return {
      pitchX: bead.l,
      pitchY: bead.d,
      originX: bead.l / 2,
      originY: bead.d / 2,
      ...STRAIGHT,
      beadX: bead.l,
      beadY: bead.d,
      hole: 'across',
    }
  },
  extent(work) {
    return nominalExtent(square.lengthOf(work), square.widthOf(work), work.bead, {
      lengthFormula: `${work.rows} rows × ${work.bead.d} mm`,
      widthFormula: `${work.columns} beads × ${work.bead.l} mm`,
    })
  },
  lengthOf: ({ rows, bead }) => rows * bead.d,
  rowsFor: (lengthMm, { bead }) => lengthMm / bead.d,
  widthOf: ({ columns, bead }) => columns * bead.l,
  columnsFor: (widthMm, { bead }) => widthMm / bead.l,
  beads: ({ columns, rows }) => columns * rows,

  /** 3 l + 2 d a bead: through the new bead, back round through the one below, and through the new bead again. */
  path(work) {
    const { beads } = sumsOf(square, work)
    const each = 3 * work.bead.l + 2 * work.bead.d
    return {
      passes: 4,
      runs: [
        {
          id: 'thread',
          name: 'Thread',
          count: 1,
          joined: true,
          lengthMm: beads * each,
          formula: `${beads} beads × (3 × ${work.bead.l} + 2 × ${work.bead.d} = ${plainNumber(each)}) mm`,
        },
      ],
    }
  },
  join: () => meeting('Lay the ends against each other and sew the last row to the first, bead to bead.'),

  ...ROW_BY_ROW,
  workingRow: (i, { columns, settings: own }) => toAndFro(i, columns, read(own).start),

  nearestColumns: (columns) => Math.max(1, Math.round(columns)),
  check: () => [],
}
