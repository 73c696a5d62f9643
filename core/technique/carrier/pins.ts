import { z } from 'zod'
import { keyOf } from '../../grid/key'
import { pinned, unequalRows, type Row } from '../../recipe/rows'
import { plainNumber } from '../../units/length'
import type { Carrier } from '../drawing'
import { BEADS } from '../material'
import { rowWork, rowsOfWork, type RowLayout, type RowWork } from '../row-work'
import type { Settings } from '../setting'
import { rangeOf, type Finding, type Work } from '../technique'
import { LEAST_STEP, lined, longOf, resized, stacked, thickOf, tenths } from './line'

/**
 * Rows on pins: each pin carries a row from its head to the loop at its foot, and two elastics run through heads and
 * feet. Pins stand all one way, with a ring between, or head and foot in turn. Nothing is stitched: pins are filled in
 * any order.
 */
const settings = z.strictObject({
  pin: z.number().min(5).max(120).default(20).describe('Usable length of a pin, mm: what beads may fill'),
  stand: z.enum(['one way', 'in turn']).default('in turn').describe('All heads at one side, or head and foot in turn'),
  ring: z.number().min(0).max(10).default(1).describe('Thickness of the ring between pins that stand one way, mm'),
})

const read = (own: Settings) => settings.parse(own)

/** Pins are this thick, mm (common practice: 0.6–0.7). */
const PIN_MM = 0.7

/** Head or loop beyond the beads, mm. */
const HEAD_MM = 2.2

/** Cord at each end, to knot or to set in, where no elastic closes it, mm. */
const TAIL_MM = 75

/** Spread of the figures until a gauge stands. */
const SPREAD = 0.05

/** What stands between two pins, mm. */
const ringOf = (own: Settings): number => {
  const { stand, ring } = read(own)
  return stand === 'one way' ? ring : 0
}

const pitchOf = (thick: number, own: Settings): number => Math.max(LEAST_STEP, thick, PIN_MM) + ringOf(own)

/** Beads of one size that a pin of so many mm holds. */
const beadsOnPin = (usableMm: number, beadMm: number): number =>
  beadMm > 0 ? Math.floor(usableMm / beadMm + 1e-9) : 0

function measure(work: Work, rows: readonly Row[]) {
  const { at, lengthMm } = stacked(rows.map((row) => pitchOf(thickOf(row), work.settings)))
  const longest = rows.reduce((most, row) => Math.max(most, longOf(row)), 0)
  return { at, lengthMm, longest, widthMm: longest + 2 * HEAD_MM }
}

function layout(work: Work, rows: readonly Row[]): RowLayout {
  const { stand } = read(work.settings)
  const { at, lengthMm, longest, widthMm } = measure(work, rows)
  const [left, right] = [HEAD_MM, HEAD_MM + longest]
  const placed = rows.flatMap((row, r) => {
    // Beads are pushed up to the head: on every other pin that is the other side.
    const from = stand === 'in turn' && r % 2 === 1 ? right - longOf(row) : left
    return lined(row, { x: from, y: at[r]! }, { x: from + longOf(row), y: at[r]! }).map((one, c) => ({
      key: keyOf(work.columns, c, r),
      ...one,
    }))
  })
  const pins = at.flatMap((y, r): Carrier[] => {
    const headRight = stand === 'in turn' && r % 2 === 1
    const head = headRight ? widthMm - HEAD_MM * 0.4 : HEAD_MM * 0.4
    return [
      {
        kind: 'wire',
        thickMm: PIN_MM,
        points: [
          { x: HEAD_MM * 0.4, y },
          { x: widthMm - HEAD_MM * 0.4, y },
        ],
      },
      // The head is a flat knob.
      {
        kind: 'wire',
        thickMm: 0.7,
        points: [
          { x: head, y: y - 0.9 },
          { x: head, y: y + 0.9 },
        ],
      },
    ]
  })
  const elastics = [HEAD_MM * 0.75, widthMm - HEAD_MM * 0.75].map((x): Carrier => ({
    kind: 'cord',
    thickMm: 0.8,
    points: [
      { x, y: 0 },
      { x, y: lengthMm },
    ],
  }))
  return { placed, carriers: [...elastics, ...pins], widthMm, lengthMm: Math.max(LEAST_STEP, lengthMm) }
}

const usualPitch = ({ bead, usual, settings: own }: Omit<Work, 'rows'>): number =>
  pitchOf(usual ? thickOf(usual) : bead.d, own)

/** Rows that are longer than their pins, those that hold another count than most, and heads that meet. */
function findings(work: Work): Finding[] {
  const { pin, stand } = read(work.settings)
  const rows = rowsOfWork(work)
  const out: Finding[] = []
  const long = rows.flatMap((row, r) => (longOf(row) > pin + 1e-9 ? [r] : []))
  if (long.length > 0) {
    const first = long[0]!
    out.push({
      code: 'pin-short',
      weight: 'stops',
      lines: long,
      says:
        `Pin ${first + 1} holds ${tenths(longOf(rows[first]!))} mm of beads and has room for ` +
        `${tenths(pin)} mm${long.length > 1 ? `, and ${long.length - 1} more are too long` : ''}: ` +
        'take a bead off, or take longer pins.',
    })
  }
  const odd = unequalRows(rows.map((row) => row.length))
  if (odd.length > 0)
    out.push({
      code: 'pin-uneven',
      weight: 'looks',
      lines: odd,
      says:
        (odd.length === 1 ? `Pin ${odd[0]! + 1} holds ` : `${odd.length} pins, first of them ${odd[0]! + 1}, hold `) +
        'another count than the rest: its elastic will not run straight.',
    })
  if (stand === 'in turn' && rows.length % 2 === 1 && work.stretches)
    out.push({
      code: 'pin-odd',
      weight: 'note',
      says: `${rows.length} pins are an odd number: where the ring closes, two stand alike. Take one more or less.`,
    })
  return out
}

const pinWork: RowWork = {
  id: 'pins',
  name: 'Rows on pins',
  summary: 'Every row on a pin of its own; two elastics run through heads and feet. Nothing is stitched.',
  settings,
  fields: [
    { key: 'pin', label: 'Room on a pin', help: 'From the head to where its loop begins.', kind: 'length' },
    {
      key: 'stand',
      label: 'Pins stand',
      help: 'In turn they lie closer; one way needs a ring between.',
      kind: 'choice',
      choices: [
        { value: 'in turn', label: 'head and foot in turn' },
        { value: 'one way', label: 'all one way' },
      ],
    },
    { key: 'ring', label: 'Ring between', help: 'Its thickness, where all stand one way.', kind: 'length' },
  ],
  plan: z.strictObject({}),
  material: { ...BEADS, usualSpec: 'round-11' },
  making: 'held',
  sideBySide: true,
  kinds: ['bracelet', 'anklet', 'choker', 'necklace', 'ring'],
  closure: 'elastic',
  anyOrder: true,
  first: {
    sizes: [],
    edge: 0,
    parts: (_r, _count, work) => Array<number>(Math.max(1, beadsOnPin(read(work.settings).pin, work.bead.l))).fill(0),
  },
  words: {
    line: 'pin',
    place: 'bead',
    across: 'on the fullest pin',
    acrossTitle: 'Fullest pin',
    thing: 'Bracelet',
    sample: {
      name: 'sample',
      how: 'Push some filled pins together and lay a rule across them.',
      counted: 'Pins counted',
      where: 'From the middle of a pin to the middle of the last.',
      wide: false,
    },
  },
  relined(line, _at, from, to) {
    const [was, now] = [read(from).pin, read(to).pin]
    if (was === now || line.length === 0) return line
    // As many more beads as there is more room, in proportion; what lies stays.
    return resized(line, Math.max(1, Math.floor((line.length * now) / was + 1e-9)), line.at(-1)!)
  },
  program: (work, rows) => pinned(rows, { alternating: read(work.settings).stand === 'in turn' }),
  layout,
  extent(work) {
    const rows = rowsOfWork(work)
    const { lengthMm, longest, widthMm } = measure(work, rows)
    const ring = ringOf(work.settings)
    return {
      lengthMm: rangeOf(lengthMm, SPREAD),
      widthMm: rangeOf(widthMm, SPREAD),
      thicknessMm: rows.reduce((most, row) => Math.max(most, thickOf(row)), PIN_MM),
      basis: { kind: 'nominal', spread: SPREAD },
      lengthFormula:
        `${rows.length} pins, each as thick as its thickest bead` +
        `${ring > 0 ? ` + ${plainNumber(ring)} mm ring` : ''}: ${tenths(lengthMm)} mm`,
      widthFormula: `longest row ${tenths(longest)} mm + 2 × ${plainNumber(HEAD_MM)} mm for head and loop`,
    }
  },
  lengthOf: (work) => (work.lineLength ? measure(work, rowsOfWork(work)).lengthMm : work.rows * usualPitch(work)),
  rowsFor: (lengthMm, work) => Math.max(0, lengthMm / usualPitch(work)),
  firstLines: (count, work) =>
    Array<number>(count).fill(Math.max(1, beadsOnPin(read(work.settings).pin, work.bead.l))),
  // Elastic is cut with the closure; where another closes it, two cords take its place.
  runs(work) {
    const { lengthMm } = measure(work, rowsOfWork(work))
    return work.stretches || work.rows === 0
      ? []
      : [
          {
            id: 'cord',
            name: 'Cord through heads and feet',
            count: 2,
            joined: false,
            lengthMm: lengthMm + 2 * TAIL_MM,
            formula: `${tenths(lengthMm)} mm of pins + 2 × ${TAIL_MM} mm to knot and set in`,
          },
        ]
  },
  strungOn: () => ({ diameterMm: PIN_MM, flattens: false, name: 'pin' }),
  workplace(work) {
    const { pin, stand } = read(work.settings)
    const pins = `Pins with ${tenths(pin)} mm of room`
    return {
      tools: ['Tray or board with a slot for each pin', 'Wire cutters', 'Round-nose pliers', 'Eye protection'],
      needs: [
        { name: pins, count: work.rows, says: 'one for each row' },
        ...(stand === 'one way'
          ? [{ name: 'Rings between pins', count: 2 * work.rows, says: 'one at the head and one at the foot' }]
          : []),
      ],
      ready: [
        { id: 'pins', text: `Lay out ${work.rows} pins and look whether their heads stop the first bead`, minutes: 5 },
      ],
      cautions: [
        'Cut ends of pins fly and scratch: wear eye protection, cut them pointing away, and close every loop fully.',
      ],
      fasten: {
        title: 'String the pins',
        says: [
          stand === 'in turn'
            ? 'Lay the pins in order, head and foot in turn; lead one elastic through each side.'
            : 'Lay the pins in order, heads at one side; one elastic goes through heads and rings, one through feet.',
        ],
        minutes: 20,
      },
      glued: true,
    }
  },
  findings,
  check: () => [],
}

export const pins = rowWork(pinWork)
