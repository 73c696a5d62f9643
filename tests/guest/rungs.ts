import { z } from 'zod'
import { plainNumber } from '#core/units/length'
import { lineTechnique, type Strung } from '#core/technique/strung'
import { square } from '#core/technique/weave/square'
import { lengthOfRow, rangeOf, NOMINAL_SPREAD, type Work } from '#core/technique/technique'

/**
 * Rungs of their own lengths side by side, like the rungs of a ladder that widens: lines that lie on a lattice after
 * all. Another technique that only tests know.
 */
const settings = z.strictObject({})
const plan = z.strictObject({ cords: z.int().min(1).max(4).default(2) })

const beadsIn = (work: Work): number =>
  work.laid?.beads ?? Array.from({ length: work.rows }, (_, r) => lengthOfRow(work, r)).reduce((a, b) => a + b, 0)

const rungs: Strung = {
  id: 'rungs',
  name: 'Rungs of any length',
  summary: 'Rungs side by side, each as long as it likes.',
  settings,
  fields: [],
  plan,
  words: {
    line: 'rung',
    place: 'bead',
    across: 'in the longest rung',
    acrossTitle: 'Longest rung',
    thing: 'Ladder',
    sample: {
      name: 'sample',
      how: 'Count rungs and measure them.',
      counted: 'Rungs counted',
      where: 'In the middle of the work.',
      wide: false,
    },
  },
  drawing: (work) => ({ kind: 'lattice', lattice: square.lattice(work) }),
  extent(work) {
    const longest = Math.max(0, ...Array.from({ length: work.rows }, (_, r) => lengthOfRow(work, r)))
    return {
      lengthMm: rangeOf(rungs.lengthOf(work), NOMINAL_SPREAD),
      widthMm: rangeOf(longest * work.bead.l, NOMINAL_SPREAD),
      thicknessMm: work.bead.d,
      basis: { kind: 'nominal', spread: NOMINAL_SPREAD },
      lengthFormula: `${work.rows} rungs × ${work.bead.d} mm`,
      widthFormula: `${longest} beads × ${work.bead.l} mm`,
    }
  },
  lengthOf: ({ rows, bead }) => rows * bead.d,
  rowsFor: (lengthMm, { bead }) => lengthMm / bead.d,
  firstLines: (count) => Array.from({ length: count }, (_, r) => 3 + (r % 3)),
  path: (work) => ({
    passes: 1,
    runs: [
      {
        id: 'thread',
        name: 'Thread',
        count: 1,
        joined: true,
        lengthMm: beadsIn(work) * work.bead.l + work.rows * work.bead.d,
        formula: `${beadsIn(work)} beads × ${work.bead.l} + ${work.rows} × ${plainNumber(work.bead.d)} mm`,
      },
    ],
  }),
  check: () => [],
}

export const rungsTechnique = lineTechnique(rungs)
