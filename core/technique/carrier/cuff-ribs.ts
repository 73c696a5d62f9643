import { z } from 'zod'
import { keyOf } from '../../grid/key'
import { groupsBetween, ribbed, type Row } from '../../recipe/rows'
import { plainNumber } from '../../units/length'
import { wireDiameterMm } from '../../units/wire-gauge'
import type { Carrier, PlacedBead } from '../drawing'
import { BEADS } from '../material'
import { rowWork, rowsOfWork, type RowLayout, type RowWork } from '../row-work'
import type { Settings } from '../setting'
import { rangeOf, type Finding, type Work } from '../technique'
import { LEAST_STEP, lined, longOf, resized, thickOf, tenths } from './line'

/**
 * Ribs on a cuff: wire that is wound on a rigid cuff carries short columns of beads across it. Each rib runs up and
 * the wire comes back behind the cuff; or beads with two holes are shared, up through their first holes in one rib and
 * down through their second in the next.
 */
const settings = z.strictObject({
  cuff: z.number().min(5).max(80).default(15).describe('Width of the cuff, mm'),
  thick: z.number().min(0.3).max(6).default(1).describe('Thickness of the cuff, mm'),
  bare: z.number().min(2).max(40).default(10).describe('Bare cuff at each end beyond the windings, mm'),
  gauge: z.int().min(20).max(34).default(28).describe('Wire, by its American gauge'),
  turns: z.int().min(0).max(10).default(0).describe('Bare turns between one rib and the next'),
  ends: z.int().min(0).max(20).default(3).describe('Turns at each end'),
  shared: z.boolean().default(false).describe('Beads with two holes belong to two ribs'),
})

const read = (own: Settings) => settings.parse(own)

/** Spread of the figures: ribs crowd. */
const SPREAD = 0.05

/** Wire at each end, to hold it and to tuck it in, mm. */
const TAIL_MM = 50

const wireOf = (own: Settings): number => wireDiameterMm(read(own).gauge)

/** Width along the cuff of turns that lie side by side, mm. */
const turnsMm = (turns: number, own: Settings): number => turns * wireOf(own)

const isTwoHoled = (row: Row): boolean => row.some((bead) => bead.spacing !== undefined)

/** Where ribs lie along the work: one by one, or two that share their beads. */
interface Rib {
  /** First row of it, and whether the next is its second half. */
  readonly r: number
  readonly pair: boolean
  readonly at: number
  readonly thick: number
}

/** Places of the ribs, windings at both ends and between them, mm along the cuff from the bare end. */
function measure(work: Work, rows: readonly Row[]) {
  const { shared, turns, ends, cuff } = read(work.settings)
  const ribs: Rib[] = []
  let y = rows.length > 0 ? turnsMm(ends, work.settings) : 0
  for (let r = 0; r < rows.length; r++) {
    const pair = shared && r % 2 === 0 && r + 1 < rows.length && isTwoHoled(rows[r]!)
    const row = rows[r]!
    const spacing = row.reduce((most, bead) => Math.max(most, bead.spacing ?? 0), 0)
    const plain = (list: Row) => thickOf(list.filter((bead) => bead.spacing === undefined))
    const thick = Math.max(
      LEAST_STEP,
      pair ? Math.max(thickOf(row), spacing + (plain(row) + plain(rows[r + 1]!)) / 2) : thickOf(row),
    )
    if (r > 0) y += turnsMm(turns, work.settings)
    ribs.push({ r, pair, at: y + thick / 2, thick })
    y += thick
    if (pair) r++
  }
  const longest = rows.reduce((most, row) => Math.max(most, longOf(row)), 0)
  return { ribs, lengthMm: y + (rows.length > 0 ? turnsMm(ends, work.settings) : 0), longest, widthMm: cuff }
}

function layout(work: Work, rows: readonly Row[]): RowLayout {
  const { cuff, bare, ends } = read(work.settings)
  const { ribs, lengthMm, longest } = measure(work, rows)
  const wide = Math.max(cuff, longest)
  const middle = wide / 2
  const wire = wireOf(work.settings)
  const placed: PlacedBead[] = []
  const carriers: Carrier[] = [
    {
      kind: 'bar',
      thickMm: cuff,
      points: [
        { x: middle, y: 0 },
        { x: middle, y: 2 * bare + lengthMm },
      ],
    },
  ]
  const across = (y: number): void => {
    carriers.push({
      kind: 'wire',
      thickMm: wire,
      points: [
        { x: middle - cuff / 2, y },
        { x: middle + cuff / 2, y },
      ],
    })
  }
  for (let k = 0; k < ends; k++) for (const y of [(k + 0.5) * wire, lengthMm - (k + 0.5) * wire]) across(bare + y)
  const lay = (row: Row, r: number, from: number, y: number, x0: number, x1: number): void => {
    for (const [k, one] of lined(row, { x: x0, y }, { x: x1, y }).entries())
      placed.push({ key: keyOf(work.columns, from + k, r), ...one })
  }
  for (const { r, pair, at } of ribs) {
    const row = rows[r]!
    const y = bare + at
    const half = longOf(row) / 2
    if (!pair) {
      across(y)
      lay(row, r, 0, y, middle - half, middle + half)
      continue
    }
    const spacing = row.reduce((most, bead) => Math.max(most, bead.spacing ?? 0), 0)
    across(y - spacing / 2)
    across(y + spacing / 2)
    // What is shared lies over both columns; seeds lie on the column of their own rib.
    const stops: { from: number; to: number }[] = []
    let x = middle - half
    row.forEach((bead, c) => {
      const own = bead.spacing === undefined ? y - spacing / 2 : y
      placed.push({ key: keyOf(work.columns, c, r), x: x + bead.l / 2, y: own, turnDegrees: 0, bead })
      if (bead.spacing !== undefined) stops.push({ from: x, to: x + bead.l })
      x += bead.l
    })
    const gaps = [middle - half, ...stops.map((s) => s.to)].map((from, k) => ({
      from,
      to: stops[k]?.from ?? middle + half,
    }))
    let taken = 0
    groupsBetween(row, rows[r + 1]!).forEach((group, k) => {
      const gap = gaps[gaps.length - 1 - k] ?? gaps[0]!
      // The rib goes back: its first beads lie at the far edge.
      const list = group.toReversed()
      const turned = lined(list, { x: gap.from, y: y + spacing / 2 }, { x: gap.to, y: y + spacing / 2 })
      turned.forEach((one, i) => placed.push({ key: keyOf(work.columns, taken + list.length - 1 - i, r + 1), ...one }))
      taken += group.length
    })
  }
  return { placed, carriers, widthMm: wide, lengthMm: 2 * bare + lengthMm }
}

/** A rib as it mostly is, in mm along the cuff. */
function usualStep({ bead, usual, settings: own }: Omit<Work, 'rows'>): number {
  const thick = Math.max(LEAST_STEP, usual ? thickOf(usual) : bead.d)
  const { turns, shared } = read(own)
  // Two ribs that share a bead lie within its thickness.
  const two = shared && (usual ? isTwoHoled(usual) : bead.spacing !== undefined)
  return two ? (thick + turnsMm(turns, own)) / 2 : thick + turnsMm(turns, own)
}

const endsMm = (own: Settings): number => 2 * turnsMm(read(own).ends, own)

function findings(work: Work): Finding[] {
  const { cuff } = read(work.settings)
  const rows = rowsOfWork(work)
  const out: Finding[] = []
  const long = rows.flatMap((row, r) => (longOf(row) > cuff + 1e-9 ? [r] : []))
  const first = long[0]
  if (first !== undefined)
    out.push({
      code: 'rib-long',
      weight: 'stops',
      lines: long,
      says:
        `Rib ${first + 1} is ${tenths(longOf(rows[first]!))} mm long, and the cuff ` +
        `${tenths(cuff)} mm wide${long.length > 1 ? `; ${long.length - 1} more are too long` : ''}: ` +
        'take a bead out, or take a wider cuff.',
    })
  return out
}

const ribs: RowWork = {
  id: 'cuff-ribs',
  name: 'Ribs on a cuff',
  summary: 'Wire wound on a rigid cuff carries short columns of beads across it, side by side.',
  settings,
  fields: [
    { key: 'cuff', label: 'Width of the cuff', help: 'As long as a rib can be.', kind: 'length' },
    { key: 'thick', label: 'Thickness of the cuff', help: 'The wire goes round it.', kind: 'length' },
    { key: 'bare', label: 'Bare at each end', help: 'Beyond the windings; ribs crowd near the end.', kind: 'length' },
    { key: 'gauge', label: 'Wire, gauge', help: '28 is 0.32 mm; a larger number is thinner.', kind: 'number' },
    { key: 'turns', label: 'Turns between ribs', help: 'Bare wire between one and the next.', kind: 'number' },
    { key: 'ends', label: 'Turns at each end', help: 'Three or four hold it.', kind: 'number' },
    {
      key: 'shared',
      label: 'Beads shared by two ribs',
      help: 'Beads with two holes: up through one, down the next rib through the other.',
      kind: 'flag',
    },
  ],
  plan: z.strictObject({}),
  material: { ...BEADS, usualSpec: 'round-8' },
  making: 'held',
  sideBySide: true,
  kinds: ['cuff'],
  first: {
    sizes: [],
    edge: 0,
    parts: (_r, _count, work) => Array<number>(ribOf(work)).fill(0),
  },
  words: {
    line: 'rib',
    place: 'bead',
    across: 'in the longest rib',
    acrossTitle: 'Longest rib',
    thing: 'Cuff',
    sample: {
      name: 'sample',
      how: 'Lay a rule along the cuff and count ribs in the middle.',
      counted: 'Ribs counted',
      where: 'In the middle, from rib to rib.',
      wide: false,
    },
  },
  relined(line, _at, from, to) {
    const [was, now] = [read(from).cuff, read(to).cuff]
    if (was === now || line.length === 0) return line
    return resized(line, Math.max(1, Math.floor((line.length * now) / was + 1e-9)), line.at(-1)!)
  },
  program(work, rows) {
    const { cuff, thick, turns, ends, shared } = read(work.settings)
    return ribbed(rows, {
      wireMm: wireOf(work.settings),
      widthMm: cuff,
      thickMm: thick,
      turns,
      endTurns: ends,
      shared,
    })
  },
  layout,
  turnsAcross: true,
  extent(work) {
    const rows = rowsOfWork(work)
    const { ribs: placed, lengthMm, widthMm } = measure(work, rows)
    const { ends, turns, thick } = read(work.settings)
    return {
      lengthMm: rangeOf(lengthMm, SPREAD),
      widthMm: rangeOf(widthMm, 0),
      thicknessMm: rows.reduce((most, row) => Math.max(most, thickOf(row)), 0) + thick,
      basis: { kind: 'nominal', spread: SPREAD },
      lengthFormula:
        `${rows.length} ribs${placed.length < rows.length ? ' that share their beads' : ''}, each as wide as its ` +
        `beads${turns > 0 ? `, ${turns} ${turns === 1 ? 'turn' : 'turns'} between` : ''}, ${ends} turns at each ` +
        `end: ${tenths(lengthMm)} mm`,
      widthFormula: `the cuff: ${tenths(widthMm)} mm`,
    }
  },
  lengthOf: (work) =>
    work.lineLength
      ? measure(work, rowsOfWork(work)).lengthMm
      : work.rows === 0
        ? 0
        : endsMm(work.settings) + work.rows * usualStep(work) - turnsMm(read(work.settings).turns, work.settings),
  rowsFor: (lengthMm, work) =>
    Math.max(
      0,
      (lengthMm - endsMm(work.settings) + turnsMm(read(work.settings).turns, work.settings)) / usualStep(work),
    ),
  firstLines: (count, work) => Array<number>(count).fill(ribOf(work)),
  runs(work, ways) {
    const { gauge, ends } = read(work.settings)
    const mm = [...ways.values()].reduce((a, b) => a + b, 0)
    return work.rows === 0
      ? []
      : [
          {
            id: 'wire',
            name: `Wire, ${gauge} gauge`,
            count: 1,
            joined: false,
            lengthMm: mm + 2 * TAIL_MM,
            shopName: `Wire, ${gauge} gauge (${plainNumber(Math.round(wireOf(work.settings) * 100) / 100)} mm)`,
            formula:
              `through the ribs and round the cuff, ${ends} turns at each end: ${tenths(mm)} mm + 2 × ` +
              `${TAIL_MM} mm to tuck in`,
          },
        ]
  },
  strungOn: (work) => ({
    diameterMm: wireOf(work.settings),
    flattens: false,
    name: `wire of ${read(work.settings).gauge} gauge`,
  }),
  workplace(work) {
    const { cuff, ends } = read(work.settings)
    return {
      tools: ['Wire cutters', 'Chain-nose pliers', 'File', 'Eye protection'],
      needs: [{ name: `Rigid cuff, ${tenths(cuff)} mm wide`, count: 1, says: 'bent to the wrist' }],
      ready: [
        { id: 'cuff', text: 'Wipe the cuff and file its edges smooth, so that they do not cut the wire', minutes: 5 },
      ],
      begin: {
        title: 'Wind the beginning',
        says: [`Hold the end of the wire behind the cuff and wind ${ends} turns over it, close together.`],
        minutes: 4,
      },
      fasten: {
        title: 'Wind the end',
        says: [
          `Wind ${ends} turns close together, cut the wire behind the cuff, and press its end flat.`,
          'Ribs crowd near the end: push them together before the last ones, and leave one out rather than force it.',
        ],
        minutes: 5,
      },
      glued: false,
    }
  },
  plain: { key: 'bare', least: 2, most: 40, ofMm: (own) => 2 * read(own).bare },
  findings,
  check: () => [],
}

/** Beads of one size that a rib takes: as many as lie across the cuff. */
function ribOf({ bead, settings: own }: Pick<Work, 'bead' | 'settings'>): number {
  return Math.max(1, Math.floor(read(own).cuff / bead.l + 1e-9))
}

export const cuffRibs = rowWork(ribs)
