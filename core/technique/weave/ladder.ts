import { showNumber } from '../../units/length'
import { filledShare, type Technique } from '../technique'
import { square } from './square'

/**
 * Rungs side by side, each of one or more beads on a common hole line: a strip of its own, and the base row of brick and
 * herringbone. Here a rung is a row of the grid, so that the strip runs along the length: columns are the beads of a rung.
 */
export const ladder: Technique = {
  ...square,
  id: 'ladder',
  name: 'Ladder',
  summary: 'Rungs side by side, each sewn to the one before: a strip, or the base of brick and herringbone.',
  fields: [{ ...square.fields[0]!, label: 'The first rung runs from the', help: 'Rungs run to and fro. Choose right to mirror the work.' }],

  extent(work) {
    return {
      ...square.extent(work),
      lengthFormula: `${work.rows} rungs × ${work.bead.d} mm`,
      widthFormula: `${work.columns} beads a rung × ${work.bead.l} mm`,
    }
  },
  /** 2 m l + d a rung: through its beads, back through the rung before, and over to the next. */
  path(work) {
    const each = 2 * work.columns * work.bead.l + work.bead.d
    return { passes: 3, runs: [{ id: 'thread', name: 'Thread', count: 1, joined: true, lengthMm: filledShare(ladder, work) * work.rows * each, formula: `${work.rows} rungs × (2 × ${work.columns} × ${work.bead.l} + ${work.bead.d} = ${showNumber(each, 1)}) mm` }] }
  },
}
