import { z } from 'zod'
import { plainNumber, showNumber } from '../../units/length'
import { STRAIGHT } from '../lattice'
import { meeting, nominalExtent } from '../technique'
import { sumsOf, type Stitch } from '../stitch'
import { reader, startField, startSide, wholeRow, ROW_BY_ROW } from './setting'

const settings = z.strictObject({
  start: startSide,
  warpMm: z.number().min(0.05).max(2).default(0.2).describe('Diameter of the warp thread, mm'),
  doubleEdge: z.boolean().default(true).describe('Whether the outer warp on each side is doubled'),
  spareWarpMm: z.number().min(50).max(1000).default(200).describe('Warp left over at each end for the loom, mm'),
})
const read = reader(settings)

/** N beads need N + 1 warps, and one more at each edge if the edge is doubled. */
export const warpCount = (columns: number, doubleEdge: boolean): number => columns + 1 + (doubleEdge ? 2 : 0)

/**
 * Beads in straight rows between warp threads: the warp stands between beads, so a loomed band is wider than the same
 * count stitched.
 */
export const loom: Stitch = {
  id: 'loom',
  family: 'weave',
  form: 'flat',
  heldBy: 'warps',
  repeatRows: 1,
  name: 'Loom',
  summary: 'Straight rows between warp threads; every row is picked up at once.',
  settings,
  fields: [
    startField('Rows are picked up from the', 'Each row of a loomed band is strung in the same direction.'),
    { key: 'warpMm', label: 'Warp thread', help: 'Its thickness stands between the beads.', kind: 'length' },
    {
      key: 'doubleEdge',
      label: 'Doubled edge warps',
      help: 'A second warp at each edge makes it firm.',
      kind: 'flag',
    },
    {
      key: 'spareWarpMm',
      label: 'Warp left at each end',
      help: 'What your loom needs to hold and to finish off.',
      kind: 'length',
    },
  ],

  lattice({ bead, settings: own }) {
    const { warpMm } = read(own)
    return {
      pitchX: bead.l + warpMm,
      pitchY: bead.d,
      originX: warpMm + bead.l / 2,
      originY: bead.d / 2,
      ...STRAIGHT,
      beadX: bead.l,
      beadY: bead.d,
      hole: 'across',
    }
  },
  extent(work) {
    return nominalExtent(loom.lengthOf(work), loom.widthOf(work), work.bead, {
      lengthFormula: `${work.rows} rows × ${work.bead.d} mm`,
      widthFormula:
        `${work.columns} beads × ${work.bead.l} mm + ${work.columns + 1} warps × ${read(work.settings).warpMm} ` +
        'mm',
    })
  },
  lengthOf: ({ rows, bead }) => rows * bead.d,
  rowsFor: (lengthMm, { bead }) => lengthMm / bead.d,
  widthOf: ({ columns, bead, settings: own }) => columns * bead.l + (columns + 1) * read(own).warpMm,
  columnsFor: (widthMm, { bead, settings: own }) => (widthMm - read(own).warpMm) / (bead.l + read(own).warpMm),
  beads: ({ columns, rows }) => columns * rows,

  /**
   * Weft: 2 W + 2 d a row, out under the warps and back over them. Warps: the band and what the loom holds at both
   * ends.
   */
  path(work) {
    const { doubleEdge, spareWarpMm, warpMm } = read(work.settings)
    const { l, d } = work.bead
    const { rows, places } = sumsOf(loom, work)
    const warps = warpCount(work.columns, doubleEdge)
    return {
      passes: 2,
      runs: [
        {
          id: 'weft',
          name: 'Weft',
          count: 1,
          joined: true,
          lengthMm: 2 * places * (l + warpMm) + rows * 2 * (warpMm + d),
          formula: work.laid
            ? `2 × ${places} places × (${l} + ${warpMm}) + ${rows} rows × 2 × (${warpMm} + ${d}) mm`
            : `${rows} rows × (2 × ${plainNumber(loom.widthOf(work))} + 2 × ${d}) mm`,
        },
        {
          id: 'warp',
          name: 'Warps',
          count: warps,
          joined: false,
          lengthMm: loom.lengthOf(work) + 2 * spareWarpMm,
          formula: `${warps} warps × (${plainNumber(loom.lengthOf(work))} + 2 × ${showNumber(spareWarpMm)}) mm`,
        },
      ],
    }
  },

  join: () => meeting('Lay the ends against each other and sew the last row to the first with the warps.'),

  ...ROW_BY_ROW,
  workingRow(i, { columns, settings: own }) {
    const left = read(own).start === 'left'
    return wholeRow({ from: i + 1, to: i + 1 }, left, columns, i)
  },

  nearestColumns: (columns) => Math.max(1, Math.round(columns)),
  check: () => [],
}
