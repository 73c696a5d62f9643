import { keyOf } from '../../grid/key'
import { z } from 'zod'
import { problem } from '../../problem'
import type { Lattice } from '../lattice'
import { nominalExtent, type Join, type ThreadPath, type Work, type WorkingRow } from '../technique'
import { sumsOf, type Stitch } from '../stitch'
import { evenRow, mirroredKeys, reader, startField, startSide } from './setting'

export const numbering = z
  .enum(['first-two', 'first-one'])
  .default('first-two')
  .describe('Whether the first string counts as rows 1 and 2, or as row 1')

const settings = z.strictObject({ start: startSide, numbering, drop: z.int().min(2).max(6).optional() })
const read = reader(settings)

type Own = Work['settings']

const START = startField(
  'Odd rows run from the',
  'The first string is picked up toward this edge. Choose right to mirror the work, as many left-handed weavers do.',
)

export const NUMBERING_FIELD: Stitch['fields'][number] = {
  key: 'numbering',
  label: 'The first string counts as',
  help: 'Weavers count it either way; the work is the same.',
  kind: 'choice',
  choices: [
    { value: 'first-two', label: 'rows 1 and 2' },
    { value: 'first-one', label: 'row 1' },
  ],
}

/** Columns that move together: one, or as many as the drop. */
const dropOf = (own: Own): number => read(own).drop ?? 1

/**
 * Whether a column lies low (in the row picked up first) in work that starts at the left. The first string ends at the
 * edge where row 3 starts; the beads at that edge are the first to be skipped, so they lie low. Columns go in groups
 * of the drop.
 */
const isLow = (c: number, drop: number): boolean => Math.floor(c / drop) % 2 === 0

/** Numbers of the rows that the i-th string makes: the first one makes two, or counts as one. */
export function peyoteNumbers(i: number, own: Own): Pick<WorkingRow, 'from' | 'to'> {
  const first = read(own).numbering === 'first-one' ? 1 : 2
  return { from: i === 0 ? 1 : i + first, to: i + first }
}

export const countedPeyote = (rows: number, own: Own): number =>
  rows === 0 ? 0 : read(own).numbering === 'first-one' ? 2 * rows - 1 : 2 * rows

/**
 * Sites of staggered columns: one group low, the next half a bead further along. Mirrored work begins from the other
 * edge.
 */
export function peyoteSites(
  columns: number,
  drop: number,
  fromLeft: boolean,
  half: number,
): Pick<Lattice, 'period' | 'sites'> {
  const period = { columns: 2 * drop, rows: 1 }
  const sites = Array.from({ length: 2 * drop }, (_, c) => {
    const own = fromLeft ? c : (((columns - 1 - c) % (2 * drop)) + 2 * drop) % (2 * drop)
    return { dx: 0, dy: isLow(own, drop) ? 0 : half, turnDegrees: 0 }
  })
  return { period, sites }
}

/**
 * The i-th string of flat work: the first is everything in row 0; then the low groups from the starting edge, then the
 * others back.
 */
function flatRow(i: number, columns: number, own: Own, longTurn: boolean): WorkingRow {
  const fromLeft = read(own).start === 'left'
  const drop = dropOf(own)
  const numbers = peyoteNumbers(i, own)
  const low = i % 2 === 1
  const direction = low === fromLeft ? '→' : '←'
  if (i === 0) return evenRow(numbers, direction, columns, 0, columns - 1, -1, columns, !fromLeft)
  const r = Math.floor((i + 1) / 2)
  if (drop === 1) {
    const count = low ? (columns + 1) >> 1 : columns >> 1
    return low
      ? evenRow(numbers, direction, columns, r, 0, 2, count, !fromLeft, longTurn ? 'long turn' : undefined)
      : evenRow(numbers, direction, columns, r, 2 * count - 1, -2, count, !fromLeft)
  }
  const group = Array.from({ length: columns }, (_, c) => c).filter((c) => isLow(c, drop) === low)
  const ordered = Int32Array.from(low ? group : group.reverse(), (c) => keyOf(columns, c, r))
  return { ...numbers, direction, keys: fromLeft ? ordered : mirroredKeys(columns, ordered) }
}

/**
 * Thread of crossings: each is W + d, through the width and round the edge bead; the first string makes two rows in
 * one. A bead that is added and the one that is passed beside it make the width, so where rows are narrower each place
 * counts two lengths of bead, one in the first string.
 */
export function peyotePath(technique: Stitch, work: Work, name: string): ThreadPath {
  const { l, d } = work.bead
  const { rows, places, firstPlaces } = sumsOf(technique, work)
  const full = `${rows} ${name} × (${work.columns} × ${l} + ${d}) mm`
  const laid = `(2 × ${places - firstPlaces} + ${firstPlaces}) places × ${l} + ${rows} ${name} × ${d} mm`
  return {
    passes: 2,
    runs: [
      {
        id: 'thread',
        name: 'Thread',
        count: 1,
        joined: true,
        lengthMm: (2 * places - firstPlaces) * l + rows * d,
        formula: work.laid ? laid : full,
      },
    ],
  }
}

/**
 * The ends of peyote interlock like a zip: the half bead of each goes into the other, so a ring of R bead rows is R d
 * long.
 */
export const zipped = ({ rows, bead }: Pick<Work, 'rows' | 'bead'>): Join => ({
  joins: true,
  zips: true,
  says: 'Zip the ends: the beads of each end fall into the gaps of the other; pass through them in turn.',
  addsMm: rows === 0 ? 0 : -bead.d / 2,
  formula: `− ½ × ${bead.d} mm, because the ends interlock`,
})

interface Kind {
  readonly id: string
  readonly name: string
  readonly summary: string
  readonly fields: Stitch['fields']
  readonly settings: Stitch['settings']
  readonly nearestColumns: Stitch['nearestColumns']
  readonly check: Stitch['check']
  /** Whether rows that end over the last low column need the longer turn. */
  readonly longTurn: boolean
  readonly quarter?: () => string
}

/**
 * Flat peyote. Cell (c, r) is bead r of column c; half of the columns lie half a bead further along. R bead rows are
 * 2R working rows; the first string makes rows 1 and 2.
 */
function flatPeyote(kind: Kind): Stitch {
  const self: Stitch = {
    family: 'weave',
    form: 'flat',
    heldBy: 'rows',
    repeatRows: 1,
    ...kind,

    lattice({ bead, settings: own, columns }) {
      return {
        pitchX: bead.l,
        pitchY: bead.d,
        originX: bead.l / 2,
        originY: bead.d / 2,
        ...peyoteSites(columns, dropOf(own), read(own).start === 'left', bead.d / 2),
        beadX: bead.l,
        beadY: bead.d,
        hole: 'across',
      }
    },
    extent(work) {
      return nominalExtent(self.lengthOf(work), self.widthOf(work), work.bead, {
        lengthFormula: `(${work.rows} beads along a column + ½) × ${work.bead.d} mm`,
        widthFormula: `${work.columns} beads × ${work.bead.l} mm`,
      })
    },
    lengthOf: ({ rows, bead }) => (rows === 0 ? 0 : (rows + 0.5) * bead.d),
    rowsFor: (lengthMm, { bead }) => Math.max(0, lengthMm / bead.d - 0.5),
    widthOf: ({ columns, bead }) => columns * bead.l,
    columnsFor: (widthMm, { bead }) => widthMm / bead.l,
    beads: ({ columns, rows }) => columns * rows,

    path: (work) => peyotePath(self, work, 'crossings'),
    join: zipped,

    workingRows: ({ rows }) => (rows === 0 ? 0 : 2 * rows - 1),
    workingRow: (i, { columns, settings: own }) => flatRow(i, columns, own, kind.longTurn),
    workingRowOf({ c, r }, { columns, settings: own }) {
      if (r === 0) return 0
      return 2 * r - 1 + (isLow(read(own).start === 'left' ? c : columns - 1 - c, dropOf(own)) ? 0 : 1)
    },
    rowBefore: (i) => i - 2,
    countedRows: countedPeyote,
  }
  return self
}

const odd = (columns: number): boolean => columns % 2 === 1

export const peyote = flatPeyote({
  id: 'peyote',
  name: 'Flat peyote, even count',
  summary: 'Staggered like bricks on end; each row fills every other gap of the one before.',
  settings: z.strictObject({ start: startSide, numbering }),
  fields: [START, NUMBERING_FIELD],
  longTurn: false,
  quarter: () => 'brick',
  nearestColumns: (columns) => Math.max(2, 2 * Math.round(columns / 2)),
  check({ columns }) {
    return odd(columns)
      ? [
          problem(
            'columns-odd',
            'columns',
            `Even-count peyote needs an even number of beads across; ${columns} is odd. Take ` +
              `${columns - 1 || 2} or ${columns + 1}.`,
          ),
        ]
      : []
  },
})

/**
 * Odd count: low and high rows of (N + 1) / 2 and (N − 1) / 2 beads; at one edge the thread has no bead to pass and
 * turns the longer way.
 */
export const oddPeyote = flatPeyote({
  id: 'peyote-odd',
  name: 'Flat peyote, odd count',
  summary: 'Peyote with a middle column, so that points and motifs sit on the centre; a longer turn at one edge.',
  settings: z.strictObject({ start: startSide, numbering }),
  fields: [START, NUMBERING_FIELD],
  longTurn: true,
  quarter: () => 'brick',
  nearestColumns: (columns) => Math.max(3, 2 * Math.round((columns - 1) / 2) + 1),
  check({ columns }) {
    if (columns < 3)
      return [
        problem(
          'columns-few',
          'columns',
          'Peyote needs beads to pass between: at least 3 across for an odd count; here ' +
            `${columns === 1 ? 'is 1' : `are ${columns}`}. Take 3.`,
        ),
      ]
    return odd(columns)
      ? []
      : [
          problem(
            'columns-even',
            'columns',
            `Odd-count peyote needs an odd number of beads across; ${columns} is even. Take ${columns - 1} or ` +
              `${columns + 1}.`,
          ),
        ]
  },
})

const dropSettings = z.strictObject({
  start: startSide,
  numbering,
  drop: z.int().min(2).max(6).default(2).describe('Beads that are taken at a time'),
})

/** Two-drop and n-drop: groups of columns move together, an even number of groups. */
export const dropPeyote = flatPeyote({
  id: 'peyote-drop',
  name: 'Two-drop peyote',
  summary: 'Peyote with two or more beads at a time: quicker, with a bolder stagger.',
  settings: dropSettings,
  fields: [
    START,
    { key: 'drop', label: 'Beads at a time', help: 'Two for two-drop, three for three-drop.', kind: 'count' },
    NUMBERING_FIELD,
  ],
  longTurn: false,
  nearestColumns(columns, own) {
    const pair = 2 * dropOf(own)
    return Math.max(pair, pair * Math.round(columns / pair))
  },
  check({ columns, settings: own }) {
    const pair = 2 * dropOf(own)
    const down = Math.max(pair, columns - (columns % pair))
    return columns % pair === 0
      ? []
      : [
          problem(
            'columns-drop',
            'columns',
            `${dropOf(own)}-drop peyote needs a multiple of ${pair} beads across; ${columns} is not. Take ` +
              `${down} or ${down + pair}.`,
          ),
        ]
  },
})
