import { z } from 'zod'
import { plainNumber } from '../../units/length'
import type { ThreadRun } from '../technique'
import { sumsOf, type Stitch } from '../stitch'
import { reader, startSide, toAndFro } from './setting'
import { square } from './square'

const settings = z.strictObject({
  start: startSide,
  cordMm: z.number().min(0).max(4).default(0).describe('Cord or leather on either side, mm; 0 for none'),
})
const read = reader(settings)

/** Cord for the knots at its ends, mm. */
const CORD_KNOTS_MM = 200

/**
 * Cord for one opening that a button goes through, mm: both sides of an inch, and the knot that ends it (common
 * practice: 30 inches for 7 with two).
 */
const CORD_OPENING_MM = 100

const openingsFormula = (openings: number): string =>
  openings > 0 ? ` + ${openings} ${openings === 1 ? 'opening' : 'openings'} × ${CORD_OPENING_MM} mm` : ''

/**
 * Rungs side by side, each of one or more beads on a common hole line: a strip of its own, laced between two cords,
 * and the base row of brick and herringbone. Here a rung is a row of the grid, so that the strip runs along the
 * length: columns are the beads of a rung.
 */
export const ladder: Stitch = {
  ...square,
  sampleColumns: 2,
  id: 'ladder',
  name: 'Ladder',
  summary:
    'Rungs side by side, each sewn to the one before: a strip, laced between cords, or the base of brick and ' +
    'herringbone.',
  settings,
  fields: [
    {
      ...square.fields[0]!,
      label: 'The first rung runs from the',
      help: 'Rungs run to and fro. Choose right to mirror the work.',
    },
    {
      key: 'cordMm',
      label: 'Laced between cords, thick',
      help: '0 for none. Leather is 1.5 or 2 mm; the cord is folded double round the button.',
      kind: 'length',
    },
  ],

  asLines: {
    technique: 'cord-ladder',
    act: 'Weave it between cords',
    settings: (own) => ({ cord: Math.max(0.5, read(own).cordMm || 1.5) }),
  },
  workingRow: (i, { columns, settings: own }) => toAndFro(i, columns, read(own).start),
  widthOf: (work) => work.columns * work.bead.l + 2 * read(work.settings).cordMm,
  columnsFor: (widthMm, work) => (widthMm - 2 * read(work.settings).cordMm) / work.bead.l,

  extent(work) {
    const { cordMm } = read(work.settings)
    const flat = square.extent(work)
    const widthMm = {
      least: flat.widthMm.least + 2 * cordMm,
      nominal: flat.widthMm.nominal + 2 * cordMm,
      most: flat.widthMm.most + 2 * cordMm,
    }
    return {
      ...flat,
      widthMm,
      lengthFormula: `${work.rows} rungs × ${work.bead.d} mm`,
      widthFormula: `${work.columns} beads a rung × ${work.bead.l} mm${cordMm > 0 ? ` + 2 cords × ${cordMm} mm` : ''}`,
    }
  },
  /**
   * 2 m l + d a rung: through its beads, back through the rung before, and over to the next. Between cords: through
   * the beads, round one cord, back through the beads and round the other, 2 m l + 2 cords + d; the cord itself twice
   * the length and its knots (common practice: thread about twice the cord).
   */
  path(work) {
    const { cordMm } = read(work.settings)
    const { l, d } = work.bead
    const { rows, places } = sumsOf(ladder, work)
    const each = `${cordMm > 0 ? `2 × ${cordMm} + ` : ''}${d}`
    const thread: ThreadRun = {
      id: 'thread',
      name: 'Thread',
      count: 1,
      joined: true,
      lengthMm: 2 * places * l + rows * (2 * cordMm + d),
      formula: work.laid
        ? `2 × ${places} places × ${l} + ${rows} rungs × (${each}) mm`
        : `${rows} rungs × (2 × ${work.columns} × ${l} + ${each}) mm`,
    }
    if (cordMm === 0) return { passes: 3, runs: [thread] }
    const length = square.lengthOf(work)
    const openings = work.openings ?? 0
    return {
      passes: 2,
      runs: [
        thread,
        {
          id: 'cord',
          name: 'Cord, folded double',
          count: 1,
          joined: false,
          lengthMm: 2 * length + CORD_KNOTS_MM + openings * CORD_OPENING_MM,
          formula: `2 × ${plainNumber(length)} + ${CORD_KNOTS_MM} mm for knots${openingsFormula(openings)}`,
        },
      ],
    }
  },
}
