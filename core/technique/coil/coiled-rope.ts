import { z } from 'zod'
import type { BeadSpec } from '../../bead/spec'
import { problem } from '../../problem'
import { plainNumber } from '../../units/length'
import type { Lattice, Site } from '../lattice'
import { rangeOf, unjoined, WOVEN_WORDS, type Work } from '../technique'
import { sumsOf, type Stitch } from '../stitch'
import { touchingOnRope } from '../unrolled'
import { reader, ROW_BY_ROW, wholeRow } from '../weave/setting'

const settings = z.strictObject({
  coreMm: z.number().min(1).max(20).default(3.5).describe('Diameter of the core that the wire is wound round'),
  wireMm: z.number().min(0.2).max(1.2).default(0.4).describe('Thickness of the wire that the beads are strung on'),
  spacing: z
    .number()
    .min(1)
    .max(2)
    .default(1.13)
    .describe('From turn to turn, in widths of the bead: 1 where turns touch'),
  way: z.enum(['right', 'left']).default('right').describe('Which way the coil climbs, seen from outside'),
})
const read = reader(settings)

/** A coil is wound by hand: turns lie a little closer or more open (common practice: measure a test inch). */
const SPREAD = 0.1

/**
 * Beads of one size differ, so a string of them needs more wire than their nominal lengths come to (common practice: 5
 * %).
 */
const UNEVEN = 1.05

/** Wire left bare at each end, to anchor it in the cap, mm (from memory). */
const WIRE_END_MM = 40
/** Core that goes into the two end caps together, mm (from memory). */
const CORE_ENDS_MM = 20

/** What of its settings decides how a coil lies. */
interface Coil {
  readonly coreMm: number
  readonly spacing: number
}

/**
 * From turn to turn along the core, mm: turns of a real coil lie a little apart (common practice: about 6 to 1 for 8/0
 * on 3 to 4 mm).
 */
const pitchMm = ({ spacing }: Pick<Coil, 'spacing'>, { d }: Pick<BeadSpec, 'd'>): number => spacing * d

/**
 * One turn: √((π (D + d))² + p²) of strung beads round a core D with the pitch p; the arc of a helix through the
 * middle of the beads.
 */
export const turnMm = (coil: Coil, bead: Pick<BeadSpec, 'd'>): number =>
  Math.hypot(Math.PI * (coil.coreMm + bead.d), pitchMm(coil, bead))

/** Strung beads for each mm of core. */
export const strungTimes = (coil: Coil, bead: Pick<BeadSpec, 'd'>): number => turnMm(coil, bead) / pitchMm(coil, bead)

const rowMm = ({ columns, bead, settings: own }: Pick<Work, 'columns' | 'bead' | 'settings'>): number =>
  (columns * bead.l) / strungTimes(read(own), bead)

/** Places after which the lattice of a coil is taken to repeat at the latest: near enough for a picture. */
const MOST_SITES = 1200

const lattices = new Map<string, Lattice>()

/**
 * Bead i lies i · l along the helix: so far round, and so far along the core. Cell (c, r) is bead r · columns + c of
 * the string.
 */
function latticeFor(columns: number, bead: BeadSpec, coil: Coil & { readonly way: 'right' | 'left' }): Lattice {
  const { coreMm, spacing, way } = coil
  const key = [columns, bead.id, coreMm, spacing, way].join()
  let lattice = lattices.get(key)
  if (lattice) return lattice
  const turn = turnMm(coil, bead)
  const pitch = pitchMm(coil, bead)
  const girth = Math.PI * (coreMm + bead.d)
  const rowAlong = (columns * bead.l * pitch) / turn
  // How far round a row goes beyond whole turns, as a fraction with a small denominator.
  const shift = ((columns * bead.l) / turn) % 1
  let rows = 1
  for (let n = 1, least = Infinity; n * columns <= MOST_SITES; n++) {
    const off = Math.abs(shift - Math.round(shift * n) / n)
    if (off < least - 2e-4) {
      least = off
      rows = n
    }
  }
  const near = Math.round(shift * rows) / rows
  const pitchX = girth / columns
  // The string climbs one pitch on the way round, and its beads lie along it.
  const slope = (Math.atan2(pitch, girth) * 180) / Math.PI
  const sites: Site[] = []
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const round = (r * near + (c * bead.l) / turn) % 1
      const x = (way === 'right' ? round : (1 - round) % 1) * girth
      sites.push({
        dx: x - c * pitchX,
        dy: (c * bead.l * pitch) / turn,
        turnDegrees: way === 'right' ? slope : 0 - slope,
      })
    }
  }
  const grid = { pitchX, pitchY: rowAlong, period: { columns, rows }, sites }
  lattice = {
    ...grid,
    touching: touchingOnRope(grid, bead),
    originX: bead.l / 2,
    originY: bead.d / 2,
    beadX: bead.l,
    beadY: bead.d,
    hole: 'across',
    round: true,
  }
  if (lattices.size > 200) lattices.clear()
  lattices.set(key, lattice)
  return lattice
}

/**
 * Beads strung on wire and wound round a core. A row is as many beads of the string as one likes to count, best about
 * a turn: the order of the string seen on the surface is a spiral, because a turn is rarely a whole number of beads.
 */
export const coiledRope: Stitch = {
  id: 'coil',
  family: 'coil',
  form: 'tube',
  climbs: () => 1,
  words: { ...WOVEN_WORDS.tube, across: 'in a row', acrossTitle: 'In a row', thing: 'Rope' },
  name: 'Coiled rope',
  summary: 'Beads on wire wound round a core, turn beside turn; the order of the string makes a spiral.',
  settings,
  fields: [
    {
      key: 'coreMm',
      label: 'Core, thick',
      kind: 'length',
      help: 'A cord or rope of 3 to 4 mm for beads 8/0; the coil covers it.',
    },
    {
      key: 'wireMm',
      label: 'Wire, thick',
      kind: 'length',
      help: '0.3 to 0.5 mm (28 to 24 gauge): soft enough to wind, stiff enough to stay.',
    },
    {
      key: 'spacing',
      label: 'From turn to turn',
      kind: 'number',
      help:
        'In widths of the bead: 1 where turns touch; 1.13 comes to about 6 mm of beads for 1 mm of core. Wind a ' +
        'test inch and enter it as your gauge.',
    },
    {
      key: 'way',
      label: 'The coil climbs',
      kind: 'choice',
      choices: [
        { value: 'right', label: 'to the right' },
        { value: 'left', label: 'to the left' },
      ],
      help: 'As your hand winds it.',
    },
  ],
  repeatRows: 1,
  lattice: ({ bead, settings: own, columns }) => latticeFor(columns, bead, read(own)),
  extent(work) {
    const own = read(work.settings)
    const length = coiledRope.lengthOf(work)
    const outer = own.coreMm + 2 * work.bead.d
    return {
      lengthMm: rangeOf(length, SPREAD),
      widthMm: rangeOf(outer, 0.05),
      thicknessMm: outer,
      basis: { kind: 'nominal', spread: SPREAD },
      lengthFormula:
        `${work.rows * work.columns} beads × ${work.bead.l} mm ÷ ${plainNumber(strungTimes(own, work.bead))}, ` +
        `since a turn of √((π (${own.coreMm} + ${work.bead.d}))² + ${plainNumber(pitchMm(own, work.bead))}²) mm ` +
        `covers ${plainNumber(pitchMm(own, work.bead))} mm`,
      widthFormula: `core ${own.coreMm} + 2 × ${work.bead.d} mm`,
    }
  },
  lengthOf: (work) => work.rows * rowMm(work),
  rowsFor: (lengthMm, work) => lengthMm / rowMm(work),
  widthOf: ({ bead, settings: own }) => read(own).coreMm + 2 * bead.d,
  /** The width does not follow from the count; a row of about one turn is proposed. */
  columnsFor: (_, { bead, settings: own }) => turnMm(read(own), bead) / bead.l,
  beads: ({ columns, rows }) => columns * rows,
  path(work) {
    const own = read(work.settings)
    const { beads } = sumsOf(coiledRope, work)
    const length = coiledRope.lengthOf(work)
    return {
      passes: 1,
      cord: { name: `wire ${own.wireMm} mm`, diameterMm: own.wireMm, flattens: false },
      runs: [
        {
          id: 'wire',
          name: 'Wire',
          shopName: `Wire ${own.wireMm} mm`,
          count: 1,
          joined: false,
          lengthMm: work.rows === 0 ? 0 : beads * work.bead.l * UNEVEN + 2 * WIRE_END_MM,
          formula: `${beads} beads × ${work.bead.l} mm × ${UNEVEN} for uneven beads + 2 × ${WIRE_END_MM} mm to anchor`,
        },
        {
          id: 'core',
          name: 'Core',
          shopName: `Core cord ${own.coreMm} mm`,
          count: 1,
          joined: false,
          lengthMm: work.rows === 0 ? 0 : length + CORE_ENDS_MM,
          formula: `${plainNumber(length)} mm + ${CORE_ENDS_MM} mm in the end caps`,
        },
      ],
    }
  },
  join: () =>
    unjoined(
      'The core cannot be joined so that beads cover it: finish it with end caps and a closure, or glue both ' +
        'ends into a tube bead.',
    ),
  ...ROW_BY_ROW,
  workingRow: (i, { columns }) => wholeRow({ from: i + 1, to: i + 1 }, true, columns, i),
  nearestColumns: (columns) => Math.max(1, Math.min(120, Math.round(Number.isFinite(columns) ? columns : 10))),
  check: ({ columns }) =>
    columns <= 120
      ? []
      : [
          problem(
            'columns-many',
            'columns',
            `A row of the string has at most 120 beads; here are ${columns}. Take 120.`,
          ),
        ],
}
