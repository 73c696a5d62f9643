import { z } from 'zod'
import { problem } from '../../problem'
import { showNumber } from '../../units/length'
import { columnStagger, type Place } from '../lattice'
import { nominalExtent, type Technique } from '../technique'

const settings = z.strictObject({
  start: z.enum(['left', 'right']).default('left').describe('The edge from which odd rows run, after the first string'),
})
const read = (value: unknown): z.infer<typeof settings> => settings.parse(value)

/**
 * Which columns lie low (make row 1). The first string ends at the edge where row 3 starts; the bead at that edge is the
 * first to be skipped, so its column is a low one. Started at the left that is column 0; mirrored, column N − 1, which for
 * an even N is odd.
 */
const lowParity = (own: unknown): 0 | 1 => (read(own).start === 'left' ? 0 : 1)

/**
 * Flat even-count peyote. Cell (c, r) is bead r of column c; half of the columns lie half a bead further along. R bead rows
 * are 2R working rows of N / 2; the first string of N makes rows 1 and 2.
 */
export const peyote: Technique = {
  id: 'peyote',
  family: 'weave',
  name: 'Flat peyote, even count',
  summary: 'Staggered like bricks on end; each row fills every other gap of the one before.',
  settings,
  fields: [
    { key: 'start', label: 'Odd rows run from the', help: 'The first string is picked up toward this edge. Choose right to mirror the work, as many left-handed weavers do.', kind: 'choice', choices: [{ value: 'left', label: 'left' }, { value: 'right', label: 'right' }] },
  ],

  lattice({ bead, settings: own }) {
    return {
      pitchX: bead.l, pitchY: bead.d, originX: bead.l / 2, originY: bead.d / 2,
      ...columnStagger(lowParity(own), bead.d / 2), beadX: bead.l, beadY: bead.d, hole: 'across',
    }
  },
  extent(work) {
    return nominalExtent(peyote.lengthOf(work), peyote.widthOf(work), work.bead, {
      lengthFormula: `(${work.rows} beads along a column + ½) × ${work.bead.d} mm`,
      widthFormula: `${work.columns} beads × ${work.bead.l} mm`,
    })
  },
  lengthOf: ({ rows, bead }) => (rows === 0 ? 0 : (rows + 0.5) * bead.d),
  rowsFor: (lengthMm, { bead }) => Math.max(0, lengthMm / bead.d - 0.5),
  widthOf: ({ columns, bead }) => columns * bead.l,
  columnsFor: (widthMm, { bead }) => widthMm / bead.l,

  /** Every crossing is W + d: through the width and round the edge bead. The first string makes two rows in one crossing. */
  path(work) {
    const width = peyote.widthOf(work)
    const d = work.bead.d
    const crossings = Math.max(0, peyote.workingRows(work))
    return {
      passes: 2,
      runs: [{ id: 'thread', name: 'Thread', count: 1, joined: true, lengthMm: crossings * (width + d), formula: `${crossings} crossings × (${showNumber(width, 1)} + ${d}) mm` }],
    }
  },

  workingRows: ({ rows }) => (rows === 0 ? 0 : 2 * rows - 1),
  workingRow(i, { columns, settings: own }) {
    const fromLeft = read(own).start === 'left'
    // Written for a start at the left; the other start is its mirror image.
    const ordered: Place[] = []
    if (i === 0) {
      for (let c = columns - 1; c >= 0; c--) ordered.push({ c, r: 0 })
    }
    else {
      const r = Math.floor((i + 1) / 2)
      if (i % 2 === 1) for (let c = 0; c < columns; c += 2) ordered.push({ c, r })
      else for (let c = columns - 1; c >= 0; c -= 2) ordered.push({ c, r })
    }
    const places = fromLeft ? ordered : ordered.map(({ c, r }) => ({ c: columns - 1 - c, r }))
    return { from: i === 0 ? 1 : i + 2, to: i + 2, direction: (i % 2 === 1) === fromLeft ? '→' : '←', places }
  },
  workingRowOf({ c, r }, { settings: own }) {
    if (r === 0) return 0
    return 2 * r - 1 + (Math.abs(c) % 2 === lowParity(own) ? 0 : 1)
  },
  countedRows: rows => 2 * rows,

  nearestColumns: columns => Math.max(2, 2 * Math.round(columns / 2)),
  check({ columns }) {
    return columns % 2 === 0
      ? []
      : [problem('columns-odd', 'columns', `Even-count peyote needs an even number of beads across; ${columns} is odd. Take ${columns - 1 || 2} or ${columns + 1}.`)]
  },
}
