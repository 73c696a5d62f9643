import { CORDS } from '../material'
import { keyOf } from '../../grid/key'
import { z } from 'zod'
import { problem } from '../../problem'
import { plainNumber, showNumber } from '../../units/length'
import { unjoined, type Settings, type Work } from '../technique'
import type { Stitch } from '../stitch'
import { reader, ROW_BY_ROW } from '../weave/setting'
import { roundOrder, type DiscPlan } from '../disc'
import { roundHands, SEVEN, TABLE_HANDS } from './plan'
import { FOLDED_FIELD, CORD_KNOTS_MM, CORD_TIMES, coverMm, LINE_PITCH, outsideMm, STRAND_WORDS } from './rope'
import { latticeFor, ROUND_CHARTS, roundPlans } from './round'
import { linesOf, roundSurface } from './surface'
import { SEVEN_MOVES } from './table'

const BRAIDS = ['8', '12', '16', '7'] as const

const settings = z.strictObject({
  braid: z.enum(BRAIDS).default('8').describe('How many strands, and by which moves'),
  school: z.enum(['A', 'B']).default('A').describe('Which way the round braids are moved'),
  doubled: z.string().max(120).default('').describe('Numbers of the strands that are two cords in one slot'),
  folded: z.boolean().default(false).describe('One long cord, folded in its middle, makes two strands'),
})
const read = reader(settings)

const ROUNDS = { 8: roundPlans(8, 32), 12: roundPlans(12, 48), 16: roundPlans(16, 32) } as const

/** How a plain braid comes out is known less well than beads: measure a test inch. */
const SPREAD = 0.2

const strandsOf = (own: Settings): number => Number(read(own).braid)
/** Seven strands are moved by a table; the others are round braids, of either school. */
const isTable = (own: Settings): boolean => read(own).braid === '7'
const lines = (own: Settings): number => (isTable(own) ? SEVEN_MOVES.lines : linesOf(strandsOf(own)))

/** Strands (from 0) that are two cords in one slot. */
function doubledStrands(own: Settings): ReadonlySet<number> {
  const numbers = read(own)
    .doubled.split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number)
  return new Set(numbers.filter((n) => Number.isInteger(n) && n >= 1 && n <= strandsOf(own)).map((n) => n - 1))
}

function planOf(own: Settings): DiscPlan {
  const { braid, school } = read(own)
  return braid === '7' ? SEVEN : ROUNDS[braid][school]
}

const roundOf = ({ bead, settings: own }: Pick<Work, 'bead' | 'settings'>) => coverMm(strandsOf(own), lines(own), bead)

/**
 * A braid of plain cords: a cell is where strand s crosses to the outside in round k. A cord keeps its colour from end
 * to end, so the grid is one row, repeated. Size by the model of the beaded braid with the thickness of the cord for
 * that of a bead; less sure.
 */
export const cordBraid: Stitch = {
  id: 'braid-cord',
  family: 'braid',
  form: 'tube',
  words: { ...STRAND_WORDS, thing: 'Cord' },
  material: CORDS,
  name: 'Plain cord braid',
  summary: 'Cords without beads on the disc: colours and thickness by slot make the pattern.',
  settings,
  fields: [
    {
      key: 'braid',
      label: 'Strands',
      kind: 'choice',
      choices: BRAIDS.map((value) => ({ value, label: value === '7' ? '7, one slot empty' : value })),
      help: 'Round braids of 8, 12 and 16, or seven strands on eight slots.',
    },
    {
      key: 'school',
      label: 'School',
      kind: 'choice',
      choices: [
        { value: 'A', label: 'A: bottom left up first' },
        { value: 'B', label: 'B: top left down first' },
      ],
      help: 'Two ways to move, each the other’s mirror image. Keep to your own.',
    },
    {
      key: 'doubled',
      label: 'Doubled strands',
      kind: 'text',
      help: 'Numbers of strands that are two cords in one slot, like 1 5: they act as one fat cord.',
    },
    FOLDED_FIELD,
  ],
  disc: {
    strands: 8,
    plan: planOf,
    hands: (own) => (isTable(own) ? TABLE_HANDS : roundHands(strandsOf(own), read(own).school)),
    way: (own) => (isTable(own) ? '' : `school ${read(own).school}`),
    surface: (own) => (isTable(own) ? null : roundSurface(strandsOf(own), read(own).school, own)),
    doubled: {
      of: doubledStrands,
      with: (own, strands) => ({
        ...own,
        doubled: [...strands]
          .map((s) => s + 1)
          .sort((a, b) => a - b)
          .join(' '),
      }),
    },
  },
  charts: ROUND_CHARTS,
  repeatRows: 1,
  lattice: ({ bead, settings: own, chart }) =>
    isTable(own) ? SEVEN_MOVES.lattice(bead) : latticeFor(strandsOf(own), read(own).school, bead, chart),
  extent(work) {
    const length = cordBraid.lengthOf(work)
    const outer = cordBraid.widthOf(work)
    const range = (mm: number, spread: number) => ({ least: mm * (1 - spread), nominal: mm, most: mm * (1 + spread) })
    return {
      lengthMm: { least: length * (1 - 0.15), nominal: length, most: length * (1 + SPREAD) },
      widthMm: range(outer, 0.15),
      thicknessMm: outer,
      basis: { kind: 'nominal', spread: SPREAD },
      lengthFormula: `${work.rows} rounds × ${showNumber(roundOf(work), 2)} mm`,
      widthFormula:
        `${showNumber(lines(work.settings), 1)} lines × ${showNumber(LINE_PITCH, 3)} × ${work.bead.d} mm ÷ π + ` +
        `${work.bead.d} mm`,
    }
  },
  lengthOf: (work) => work.rows * roundOf(work),
  rowsFor: (lengthMm, work) => lengthMm / roundOf(work),
  widthOf: ({ bead, settings: own }) => outsideMm(lines(own), bead.d),
  columnsFor: (_, { settings: own }) => strandsOf(own),
  beads: ({ columns, rows }) => columns * rows,
  /**
   * Each strand by the rule of thumb; doubled strands are a cord more, folded ones half the pieces at twice the
   * length.
   */
  path(work) {
    const length = cordBraid.lengthOf(work)
    const one = work.rows === 0 ? 0 : CORD_TIMES * length + CORD_KNOTS_MM
    return {
      passes: 0,
      runs: [
        {
          id: 'cord',
          name: 'Cords',
          count: strandsOf(work.settings) + doubledStrands(work.settings).size,
          joined: false,
          each: { knotsMm: CORD_KNOTS_MM, folded: read(work.settings).folded },
          lengthMm: one,
          formula: `${CORD_TIMES} × ${plainNumber(length)} + ${CORD_KNOTS_MM} mm`,
        },
      ],
    }
  },
  join: () =>
    unjoined(
      'A braid is bound at both ends: close it with end caps and a closure, or slide a bead with a large hole ' +
        'over both ends.',
    ),
  ...ROW_BY_ROW,
  workingRow: (i, { columns, settings: own }) => ({
    from: i + 1,
    to: i + 1,
    direction: '→',
    keys: Int32Array.from(roundOrder(planOf(own), i), (s) => keyOf(columns, s, i)),
  }),
  nearestColumns: (_, own) => strandsOf(own),
  check({ columns, settings: own }) {
    const strands = strandsOf(own)
    const odd = read(own)
      .doubled.split(/[\s,;]+/)
      .filter(Boolean)
      .find((word) => !doubledStrands(own).has(Number(word) - 1))
    if (odd !== undefined)
      return [problem('doubled', 'doubled', `“${odd}” is no strand: write numbers from 1 to ${strands}, like 1 5.`)]
    return columns === strands
      ? []
      : [
          problem(
            'strands',
            'columns',
            `This braid has ${strands} strands, so ${strands} columns; here are ${columns}. Take ${strands}.`,
          ),
        ]
  },
}
