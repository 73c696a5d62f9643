import { z } from 'zod'
import { requireSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { chainOf, type Lies } from '../../layout/chain'
import { layRun, turnedOver } from '../../layout/laid'
import { crossed, rungOf, runRows, type Row, type RowProgram, type Rung } from '../../recipe/rows'
import type { Run } from '../../recipe/run'
import { plainNumber } from '../../units/length'
import type { Carrier, PlacedBead } from '../drawing'
import { BEADS } from '../material'
import { laidRow } from '../laid-row'
import { rowWork, rowsOfWork, type RowLayout, type RowWork } from '../row-work'
import type { Settings } from '../setting'
import { rangeOf, type Work } from '../technique'
import { LEAST_STEP, lined, longOf, resized, thickOf, tenths } from './line'

/**
 * Ladder of rungs with beads at their sides: rungs of any beads, so many seeds at each side between one rung and the
 * next, and so many to the clasp at each end. A line is a rung and what comes before it: the seeds at both sides, or
 * the leads from the clasp in the first line; the last one brings the leads behind its rung as well. Worked with two
 * needles that cross in every rung, or with one that goes round each step.
 */
const settings = z.strictObject({
  side: z.int().min(0).max(30).default(3).describe('Seeds at each side between two rungs'),
  lead: z.int().min(0).max(40).default(5).describe('Seeds on each needle to the clasp'),
  rung: z.int().min(1).max(60).default(3).describe('Beads of a rung, of the lines that are put in'),
  needles: z.enum(['two', 'one']).default('two'),
})

const read = (own: Settings) => settings.parse(own)

/** How many beads a line has at each side before its rung, and at each side behind it. */
const seedsOf = (settings: Settings, r: number, count: number): { readonly side: number; readonly tail: number } => {
  const { side, lead } = read(settings)
  return { side: r === 0 ? lead : side, tail: r === count - 1 ? lead : 0 }
}

const rungsOf = (work: Pick<Work, 'settings'>, rows: readonly Row[]): Rung[] =>
  rows.map((row, r) => {
    const { side, tail } = seedsOf(work.settings, r, rows.length)
    return rungOf(row, side, tail)
  })

/** Spread of the figures until a gauge stands: the sides lie in arcs, which this model does not know (±10 %). */
const SPREAD = 0.1

/** Where each rung lies along the work, and how wide the work is. */
interface Measure {
  readonly rungs: readonly Rung[]
  /** Middle of each rung along the work, mm. */
  readonly at: readonly number[]
  readonly widthMm: number
  /** Side beads stand out beside the rungs by so much at most, mm. */
  readonly outMm: number
  readonly lengthMm: number
}

/** Length along the work of leads of so many mm that run from the ends of a rung to the clasp in its middle. */
const leadRun = (lead: number, rungMm: number): number => Math.sqrt(Math.max(0, lead ** 2 - (rungMm / 2) ** 2))

/** From the middle of one rung to that of the next: both halves of the rungs, or the beads at the longer side. */
const pitchMm = (before: Rung, next: Rung): number =>
  Math.max((thickOf(before.rung) + thickOf(next.rung)) / 2, longOf(next.down), longOf(next.up))

/** The two sides of a ladder: which way out, and what a row has there before its rung and behind it. */
const SIDES = [
  { sign: 1, before: 'down', behind: 'tailDown' },
  { sign: -1, before: 'up', behind: 'tailUp' },
] as const

function measure(work: Work, rows: readonly Row[]): Measure {
  const rungs = rungsOf(work, rows)
  const at: number[] = []
  let y = 0
  rungs.forEach((own, r) => {
    y +=
      r === 0
        ? leadRun(Math.max(longOf(own.down), longOf(own.up)), longOf(own.rung)) + thickOf(own.rung) / 2
        : pitchMm(rungs[r - 1]!, own)
    at.push(y)
  })
  const last = rungs.at(-1)
  const end = last
    ? thickOf(last.rung) / 2 + leadRun(Math.max(longOf(last.tailDown), longOf(last.tailUp)), longOf(last.rung))
    : 0
  return {
    rungs,
    at,
    widthMm: rungs.reduce((most, { rung }) => Math.max(most, longOf(rung)), 0),
    outMm: rungs.reduce((most, own) => Math.max(most, ...SIDES.map(({ before }) => thickOf(own[before]))), 0),
    lengthMm: y + end,
  }
}

/** How a ladder lies: nothing but its thread says it. */
const LIES: Lies = { repeat: 'along', lies: {}, hangs: [] }

/** The ladder as its thread lays it, its sides in arcs; null where its rungs differ, or are too few to tell. */
function laidArcs(work: Work, rows: readonly Row[], told: () => Run): RowLayout | null {
  if (rows.length < LEAST_RUNGS) return null
  const run = told()
  const own = { run, n: rows.length }
  const chain = chainOf(own, LIES)
  if (!chain || chain.problem.cells.length > 1) return null
  const { placeOf } = program(work, rows)
  const found = layRun(own, LIES)!
  // Rungs lie from the first side to the second, as their lists have them.
  const ends = run.nodes.filter(({ name, motif }) => name === 'rung' && motif === 1).map(({ id }) => found.poses[id])
  const isOver = ends.length > 1 && ends[0]!.y > ends.at(-1)!.y
  const laid = isOver ? turnedOver(found) : found
  return laidRow(run, laid, (node) => {
    const place = placeOf(node)
    return place < rows[node.motif]!.length ? keyOf(work.columns, place, node.motif) : null
  })
}

const LEAST_RUNGS = 5

function layout(work: Work, rows: readonly Row[], run: () => Run): RowLayout {
  return laidArcs(work, rows, run) ?? straightSides(work, rows)
}

function straightSides(work: Work, rows: readonly Row[]): RowLayout {
  const { rungs, at, widthMm, outMm, lengthMm } = measure(work, rows)
  const middle = outMm + widthMm / 2
  const placed: PlacedBead[] = []
  const carriers: Carrier[] = []
  rungs.forEach((own, r) => {
    let from = 0
    const y = at[r]!
    const lay = (row: Row, start: { x: number; y: number }, stop: { x: number; y: number }) => {
      lined(row, start, stop).forEach((one, k) => placed.push({ key: keyOf(work.columns, from + k, r), ...one }))
      from += row.length
      carriers.push({ kind: 'thread', thickMm: 0.25, points: [start, stop] })
    }
    const half = longOf(own.rung) / 2
    // Leads lie beside each other at the clasp, and end at the holes of their rung.
    const clasp = (sign: number, beads: Row, where: number) => ({ x: middle + (sign * thickOf(beads)) / 2, y: where })
    const hole = (sign: number, beads: Row) => ({ x: middle + sign * Math.max(half, thickOf(beads) / 2), y })
    for (const { sign, before } of SIDES) {
      const beads = own[before]
      if (r === 0) lay(beads, clasp(sign, beads, 0), hole(sign, beads))
      else {
        const beside = (halfRung: number) => middle + sign * (halfRung + thickOf(beads) / 2)
        lay(beads, { x: beside(longOf(rungs[r - 1]!.rung) / 2), y: at[r - 1]! }, { x: beside(half), y })
      }
    }
    lay(own.rung, { x: middle - half, y }, { x: middle + half, y })
    for (const { sign, behind } of SIDES)
      if (own[behind].length > 0) lay(own[behind], hole(sign, own[behind]), clasp(sign, own[behind], lengthMm))
  })
  return {
    placed,
    carriers,
    widthMm: widthMm + 2 * outMm,
    lengthMm: Math.max(lengthMm, 0.1),
    fixtureAt: (_, row) => ({ x: middle, y: row === 0 ? 0 : lengthMm }),
  }
}

/** Size of the seeds at the sides and to the clasp where nothing lies yet. */
const USUAL_SEED = 'round-8'

/** A step of the ladder as it mostly is: of rows that are not there yet. */
function usualRung(work: Omit<Work, 'rows'>): Rung {
  const { side, rung } = read(work.settings)
  if (work.usual) return rungOf(work.usual, side)
  const seeds = Array.from({ length: side }, () => requireSpec(USUAL_SEED))
  const beads = Array.from({ length: rung }, () => work.bead)
  return { down: seeds, up: seeds, rung: beads, tailDown: [], tailUp: [] }
}

/** Lengths of so many lines: leads and the first rung, sides and rungs, and leads behind the last. */
const firstLines = (count: number, work: Pick<Work, 'settings'>): number[] =>
  Array.from({ length: count }, (_, r) => {
    const { side, tail } = seedsOf(work.settings, r, count)
    return 2 * side + read(work.settings).rung + 2 * tail
  })

const usualStep = (work: Omit<Work, 'rows'>): number => Math.max(LEAST_STEP, pitchMm(usualRung(work), usualRung(work)))

/** Length of so many lines as they mostly are: leads, rungs and sides in the usual beads. */
function usualLength(rows: number, work: Omit<Work, 'rows'>): number {
  if (rows === 0) return 0
  const own = usualRung(work)
  const seed = own.down[0] ?? requireSpec(USUAL_SEED)
  const lead = leadRun(read(work.settings).lead * seed.l, longOf(own.rung))
  return 2 * lead + thickOf(own.rung) + (rows - 1) * usualStep(work)
}

const program = (work: Work, rows: readonly Row[]): RowProgram =>
  crossed(rungsOf(work, rows), {
    needles: read(work.settings).needles === 'two' ? 2 : 1,
    fixtures: { clasp: { name: 'clasp ring', d: 4, holes: 1, pitch: 0 } },
    end: 'clasp',
  })

const ladder: RowWork = {
  id: 'rung-ladder',
  name: 'Ladder of rungs',
  summary: 'Rungs of cubes, rounds or bugles, with seeds at their sides between them and to the clasp.',
  settings,
  fields: [
    {
      key: 'needles',
      label: 'Worked with',
      help: 'Two needles cross in every rung; one goes round each step.',
      kind: 'choice',
      choices: [
        { value: 'two', label: 'two needles' },
        { value: 'one', label: 'one needle' },
      ],
    },
    { key: 'rung', label: 'Beads in a rung', help: 'Of rungs that are put in.', kind: 'number' },
    { key: 'side', label: 'Seeds at each side', help: 'Between one rung and the next.', kind: 'number' },
    { key: 'lead', label: 'Seeds to the clasp', help: 'On each needle, at both ends.', kind: 'number' },
  ],
  plan: z.strictObject({}),
  material: { ...BEADS, usualSpec: 'cube-3-mm' },
  kinds: ['bracelet', 'anklet', 'choker', 'necklace', 'earrings'],
  // Rungs of the bead that it is drawn for, seeds at the sides and to the clasp.
  first: {
    sizes: [USUAL_SEED, USUAL_SEED],
    parts(r, count, work) {
      const { side, tail } = seedsOf(work.settings, r, count)
      const many = (length: number, part: number) => Array<number>(length).fill(part)
      return [...many(2 * side, r === 0 ? 2 : 1), ...many(read(work.settings).rung, 0), ...many(2 * tail, 2)]
    },
  },
  words: {
    line: 'rung',
    place: 'bead',
    across: 'in the longest line',
    acrossTitle: 'Longest line',
    thing: 'Ladder',
    sample: {
      name: 'sample',
      how: 'Lay a rule along the ladder and count rungs in its middle.',
      counted: 'Rungs counted',
      where: 'In the middle, from rung to rung.',
      wide: false,
    },
  },
  tunes: [{ key: 'side', counts: 'seeds at each side' }],
  relined(line, { r, count }, from, to) {
    const [was, now] = [seedsOf(from, r, count), seedsOf(to, r, count)]
    const { down, up, rung, tailDown, tailUp } = rungOf(line, was.side, was.tail)
    const grown = (list: readonly number[], more: number, other: readonly number[]) =>
      resized(list, list.length + more, list.at(-1) ?? other.at(-1) ?? line[0] ?? 0)
    const [side, tail] = [now.side - was.side, now.tail - was.tail]
    return [
      ...grown(down, side, up),
      ...grown(up, side, down),
      ...grown(rung, read(to).rung - read(from).rung, down),
      ...grown(tailDown, tail, tailUp),
      ...grown(tailUp, tail, tailDown),
    ]
  },
  program,
  awaits(work) {
    const rows = rowsOfWork(work)
    if (rows.length < LEAST_RUNGS) return []
    const question = chainOf({ run: runRows(program(work, rows)), n: rows.length }, LIES)?.problem
    return question && question.cells.length === 1 ? [question] : []
  },
  layout,
  extent(work) {
    const rows = rowsOfWork(work)
    const { rungs, widthMm, outMm, lengthMm } = measure(work, rows)
    const steps = Math.max(0, rungs.length - 1)
    return {
      lengthMm: rangeOf(lengthMm, SPREAD),
      widthMm: rangeOf(widthMm + 2 * outMm, SPREAD),
      thicknessMm: rungs.reduce((most, { rung }) => Math.max(most, thickOf(rung)), work.bead.d),
      basis: { kind: 'nominal', spread: SPREAD },
      lengthFormula:
        `${steps} steps between ${rungs.length} rungs, each as long as its longer side or its rungs are thick, and ` +
        `the leads to the clasp: ${tenths(lengthMm)} mm; the sides lie in arcs, so it may come out shorter`,
      widthFormula: `longest rung ${tenths(widthMm)} mm + 2 × ${plainNumber(outMm)} mm beside it`,
    }
  },
  lengthOf: (work) => (work.lineLength ? measure(work, rowsOfWork(work)).lengthMm : usualLength(work.rows, work)),
  rowsFor: (lengthMm, work) => Math.max(0, (lengthMm - usualLength(1, work)) / usualStep(work) + 1),
  firstLines,
  runs(work, ways) {
    const sum = [...ways.values()].reduce((a, b) => a + b, 0)
    const two = ways.size > 1
    return [
      {
        id: 'thread',
        name: two ? 'Thread for both needles' : 'Thread',
        count: 1,
        joined: true,
        lengthMm: sum,
        formula: [...ways].map(([by, mm]) => `${two ? `${by} needle ` : ''}${tenths(mm)} mm`).join(' + '),
      },
    ]
  },
  check: () => [],
}

export const rungLadder = rowWork(ladder)
