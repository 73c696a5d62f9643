import { z } from 'zod'
import { requireSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { wrapped, type Row } from '../../recipe/rows'
import { plainNumber } from '../../units/length'
import type { Carrier } from '../drawing'
import type { Point } from '../lattice'
import { BEADS } from '../material'
import { rowWork, rowsOfWork, type RowLayout, type RowWork } from '../row-work'
import type { Settings } from '../setting'
import { rangeOf, type Finding, type ThreadRun, type Work } from '../technique'
import { LEAST_STEP, lined, longOf, resized, stacked, thickOf, tenths } from './line'

/**
 * Rows of beads stitched between two cords on a board or a lap loom: the thread goes under the cords, up, through the
 * row, round the far cord and back above it. It begins with rows of one, two, three beads, goes on in rows of any run,
 * and narrows again; the cord is folded round a button at one end and knotted to one or more openings at the other.
 */
const settings = z.strictObject({
  row: z.int().min(1).max(30).default(3).describe('Beads of a row between the tapers, of rows that are put in'),
  cord: z.number().min(0.5).max(6).default(1.5).describe('Thickness of the cord, mm'),
  button: z.number().min(4).max(40).default(15).describe('Width of the button, mm: each opening is as long'),
  bind: z.int().min(0).max(40).default(10).describe('Turns that bind the thread to a cord at both ends'),
})

const read = (own: Settings) => settings.parse(own)

/** Rows of one, two, three beads at each end. */
const TAPER = 3

/** Size of the small beads at both ends of a row and in the tapers, where nothing lies yet. */
const USUAL_SEED = 'round-8'

/** Spread of the figures until a gauge stands: rows are pushed together by hand. */
const SPREAD = 0.07

/** Cord between two openings, at the ends of which they are knotted, and for both tails and the fold, mm. */
const CORD = { between: 25, tails: 200, fold: 25, clasp: 75 } as const

/** Length along the work and width of rows that lie against each other between two cords. */
function measure(work: Work, rows: readonly Row[]) {
  const { cord } = read(work.settings)
  const { at, lengthMm } = stacked(rows.map((row) => Math.max(LEAST_STEP, thickOf(row))))
  const widest = rows.reduce((most, row) => Math.max(most, longOf(row)), 0)
  return { at, lengthMm, widest, widthMm: widest + 2 * cord }
}

/** Points of half an ellipse, from one point of the middle line to another, bulging to one side. */
const BOW = 16
const bow = (x: number, from: number, to: number, out: number): Point[] =>
  Array.from({ length: BOW + 1 }, (_, k) => ({
    x: x + out * Math.sin((Math.PI * k) / BOW),
    y: from + ((to - from) * (1 - Math.cos((Math.PI * k) / BOW))) / 2,
  }))

/** How far a cord runs bare from its last row to where both meet, mm. */
const BARE_MM = 5

function layout(work: Work, rows: readonly Row[]): RowLayout {
  const { cord, button } = read(work.settings)
  const { at, lengthMm, widthMm } = measure(work, rows)
  // The cord bows round a button above the first row, and to an opening behind the last.
  const first = button * 0.7
  const top = first + BARE_MM
  const bottom = top + lengthMm
  const open = bottom + BARE_MM
  const wide = Math.max(widthMm, button * 0.8 + cord)
  const middle = wide / 2
  const places = rows.map((row, r) => ({ half: longOf(row) / 2, y: top + at[r]! }))
  const placed = rows.flatMap((row, r) =>
    lined(row, { x: middle - places[r]!.half, y: places[r]!.y }, { x: middle + places[r]!.half, y: places[r]!.y }).map(
      (one, c) => ({ key: keyOf(work.columns, c, r), ...one }),
    ),
  )
  const threads = places.map(({ half, y }): Carrier => {
    const reach = half + cord / 2
    return {
      kind: 'thread',
      thickMm: 0.25,
      points: [
        { x: middle - reach, y },
        { x: middle + reach, y },
      ],
    }
  })
  const beside = cord * 0.55
  const side = (sign: number): Point[] => [
    // Both sides begin in the fold, and lie beside each other below the button.
    ...bow(middle, 0, first, (sign * button) / 2).map((p, k) => ({ ...p, x: p.x + (sign * beside * k) / BOW })),
    ...places.map(({ half, y }) => ({ x: middle + sign * (half + cord / 2), y })),
    ...bow(middle + sign * beside, open, open + button, (sign * button) / 2.6),
    { x: middle + sign * beside * 2, y: open + button + BARE_MM * 1.6 },
  ]
  // One cord, folded at the button.
  const cords: Carrier[] = [{ kind: 'cord', thickMm: cord, points: [...side(-1).toReversed(), ...side(1).slice(1)] }]
  const knots = [open, open + button].map((y): Carrier => {
    const half = cord * 1.1
    return {
      kind: 'cord',
      thickMm: cord * 1.5,
      points: [
        { x: middle - half, y },
        { x: middle + half, y },
      ],
    }
  })
  return {
    placed,
    carriers: [...threads, ...cords, ...knots],
    widthMm: wide,
    lengthMm: open + button + BARE_MM * 1.6,
  }
}

/** How thick a row between the tapers is, mm. */
const pitchMm = ({ bead, usual }: Omit<Work, 'rows'>): number =>
  Math.max(LEAST_STEP, usual ? thickOf(usual) : Math.max(bead.d, requireSpec(USUAL_SEED).d))

/** Length of the rows at both ends that taper, so many of so many, mm. */
const taperMm = (rows: number): number => Math.min(rows, 2 * TAPER) * requireSpec(USUAL_SEED).d

const usualMm = (rows: number, work: Omit<Work, 'rows'>): number =>
  taperMm(rows) + Math.max(0, rows - 2 * TAPER) * pitchMm(work)

/** Beads that the r-th of so many rows begins with. */
const firstOf = (r: number, count: number, row: number): number => Math.min(row, r + 1, count - r, TAPER + 1)

const isTaper = (r: number, count: number): boolean => Math.min(r + 1, count - r) <= TAPER

/** Cord for so many mm of rows: folded round the button and knotted to its openings, or two lengths. */
function cordRun(work: Work, lengthMm: number): ThreadRun {
  const { button } = read(work.settings)
  const openings = work.openings ?? 0
  const own = { id: 'cord', joined: false } as const
  if (openings === 0)
    return {
      ...own,
      name: 'Cord',
      count: 2,
      lengthMm: lengthMm + 2 * CORD.clasp,
      formula: `${tenths(lengthMm)} mm of rows + 2 × ${CORD.clasp} mm to hold and to set into the closure`,
    }
  const each = button + CORD.between
  return {
    ...own,
    name: 'Cord, folded at the button',
    count: 1,
    lengthMm: 2 * lengthMm + 2 * openings * each + CORD.tails + CORD.fold,
    formula:
      `2 × ${tenths(lengthMm)} mm of rows + 2 × ${openings} × (${plainNumber(button)} mm opening + ` +
      `${CORD.between} mm to the next knot) + ${CORD.tails} mm tails + ${CORD.fold} mm fold`,
  }
}

/** Rows whose ends leave their neighbours by more than two beads: the cords spread, and show. */
function spreads(work: Work): Finding[] {
  const rows = rowsOfWork(work)
  const found = rows.flatMap((row, r) => {
    const next = rows[r + 1]
    if (!next || row.length === 0 || next.length === 0) return []
    const step = Math.abs(longOf(next) - longOf(row))
    const bead = Math.max(...row.map((b) => b.l), ...next.map((b) => b.l))
    return step > 2 * bead + 1e-9 ? [{ r, step }] : []
  })
  const [first] = found
  return first
    ? [
        {
          code: 'rows-spread',
          weight: 'looks',
          lines: found.map(({ r }) => r + 1),
          says:
            `Row ${first.r + 2} is ${tenths(first.step)} mm longer or shorter than row ${first.r + 1}` +
            `${found.length > 1 ? `, and so in ${found.length - 1} more places` : ''}: the cords spread there and ` +
            'show. Lay rows between that grow by a bead or two.',
        },
      ]
    : []
}

const corded: RowWork = {
  id: 'cord-ladder',
  name: 'Ladder between cords',
  summary: 'Rows of beads stitched between two cords, with a button at one end and knotted openings at the other.',
  settings,
  fields: [
    { key: 'row', label: 'Beads in a row', help: 'Between the tapers, of rows that are put in.', kind: 'number' },
    { key: 'cord', label: 'Thickness of the cord', help: 'Leather is 1.5 or 2 mm.', kind: 'length' },
    { key: 'button', label: 'Width of the button', help: 'Every opening is as long.', kind: 'length' },
    { key: 'bind', label: 'Binding turns', help: 'At both ends, then pulled under.', kind: 'number' },
  ],
  plan: z.strictObject({}),
  material: { ...BEADS, usualSpec: 'faceted-4-mm' },
  making: 'held',
  sideBySide: true,
  kinds: ['bracelet', 'anklet', 'choker', 'necklace'],
  closure: 'button',
  first: {
    sizes: [USUAL_SEED],
    edge: TAPER,
    parts(r, count, work) {
      const { row } = read(work.settings)
      const many = firstOf(r, count, row)
      // Small, large, small between the tapers; small ones in them.
      return Array.from({ length: many }, (_, c) =>
        isTaper(r, count) || (row > 1 && (c === 0 || c === many - 1)) ? 1 : 0,
      )
    },
  },
  words: {
    line: 'row',
    place: 'bead',
    across: 'in the longest row',
    acrossTitle: 'Longest row',
    thing: 'Ladder',
    sample: {
      name: 'sample',
      how: 'Lay a rule along the rows, pushed together, and count rows in the middle.',
      counted: 'Rows counted',
      where: 'In the middle, pushed together as they will be worn.',
      wide: false,
    },
  },
  relined(line, { r, count }, from, to) {
    const [was, now] = [read(from).row, read(to).row]
    // Of a repeat no line is told to be the first or the last: none of them tapers.
    const tapers = Number.isFinite(count) && isTaper(r, count)
    if (tapers || line.length !== was || was === now) return line
    // The ends of a row stay; its middle grows or shrinks.
    const head = line.slice(0, Math.ceil(Math.min(was, now) / 2))
    const tail = line.slice(was - Math.floor(Math.min(was, now) / 2))
    const middle = resized([], now - head.length - tail.length, line[Math.floor(was / 2)] ?? 0)
    return [...head, ...middle, ...tail]
  },
  program(work, rows) {
    const { cord, bind } = read(work.settings)
    return wrapped(rows, { cordMm: cord, bindTurns: bind })
  },
  layout,
  extent(work) {
    const rows = rowsOfWork(work)
    const { lengthMm, widest, widthMm } = measure(work, rows)
    const { cord } = read(work.settings)
    return {
      lengthMm: rangeOf(lengthMm, SPREAD),
      widthMm: rangeOf(widthMm, SPREAD),
      thicknessMm: rows.reduce((most, row) => Math.max(most, thickOf(row)), cord),
      basis: { kind: 'nominal', spread: SPREAD },
      lengthFormula: `${rows.length} rows, each as thick as its thickest bead: ${tenths(lengthMm)} mm`,
      widthFormula: `longest row ${tenths(widest)} mm + 2 cords × ${plainNumber(cord)} mm`,
    }
  },
  lengthOf: (work) => (work.lineLength ? measure(work, rowsOfWork(work)).lengthMm : usualMm(work.rows, work)),
  rowsFor(lengthMm, work) {
    const tapers = taperMm(2 * TAPER)
    return lengthMm <= tapers
      ? Math.max(0, lengthMm / requireSpec(USUAL_SEED).d)
      : 2 * TAPER + (lengthMm - tapers) / pitchMm(work)
  },
  firstLines: (count, work) => Array.from({ length: count }, (_, r) => firstOf(r, count, read(work.settings).row)),
  runs(work, ways) {
    const mm = [...ways.values()].reduce((a, b) => a + b, 0)
    const { lengthMm } = measure(work, rowsOfWork(work))
    return [
      cordRun(work, lengthMm),
      {
        id: 'thread',
        name: 'Thread',
        count: 1,
        joined: true,
        lengthMm: mm,
        formula: `twice through every row, half a turn round each cord, and bound: ${tenths(mm)} mm`,
      },
    ]
  },
  workplace(work) {
    const { button, bind } = read(work.settings)
    const openings = work.openings ?? 0
    return {
      tools: ['Board with clips, or lap loom', 'Beading needle', 'Scissors', 'Wax'],
      needs: [],
      ready: [
        {
          id: 'board',
          text: 'Stretch the cords on the board, a little further apart than a row is long',
          minutes: 15,
        },
      ],
      begin: {
        title: openings > 0 ? 'Fold the cord round the button' : 'Stretch the cords',
        says: [
          ...(openings > 0
            ? ['Thread the button to the middle of the cord, fold the cord there, and clip both ends to the board.']
            : ['Clip both cords to the board side by side, an equal tail at both ends.']),
          ...(bind > 0 ? [`Knot the thread on, and wind it ${bind} times round the cord.`] : []),
        ],
        minutes: 5,
      },
      fasten: {
        title: 'Bind the end',
        says: [`Wind the thread ${bind} times round the cord behind the last row, and pull its end under the turns.`],
        minutes: 4,
      },
      clasp: (name) =>
        openings > 0
          ? {
              title: openings === 1 ? 'Knot the opening' : `Knot ${openings} openings`,
              says: [
                `Knot both cords together close behind the rows, and again ${tenths(button)} mm on: ` +
                  'the button passes with a little push.',
                ...(openings > 1 ? [`Leave ${CORD.between} mm to the next opening.`] : []),
              ],
              minutes: 4 + 3 * openings,
            }
          : { title: `Set the cords into: ${name}`, says: ['Trim both cords, and set them in.'], minutes: 8 },
      glued: true,
    }
  },
  findings: spreads,
  check: () => [],
}

export const cordLadder = rowWork(corded)
