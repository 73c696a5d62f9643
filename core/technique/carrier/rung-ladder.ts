import { z } from 'zod'
import { requireSpec } from '../../bead/spec'
import { keyOf } from '../../grid/key'
import { crossed, rungOf, type Row, type Rung } from '../../recipe/rows'
import { plainNumber } from '../../units/length'
import type { Carrier, PlacedBead } from '../drawing'
import { BEADS } from '../material'
import { rowWork, rowsOfWork, type RowLayout, type RowWork } from '../row-work'
import type { Settings } from '../setting'
import { rangeOf, type Work } from '../technique'

/**
 * Ladder of rungs with beads at their sides: rungs of any beads, so many seeds at each side between one rung and the
 * next, and so many to the clasp at each end. The first line is the leads to the clasp and the first rung; every other
 * line brings the seeds at both sides and its rung; the last the leads alone. Worked with two needles that cross in
 * every rung, or with one that goes round each step.
 */
const settings = z.strictObject({
  side: z.int().min(0).max(30).default(3).describe('Seeds at each side between two rungs'),
  lead: z.int().min(0).max(40).default(5).describe('Seeds on each needle to the clasp'),
  rung: z.int().min(1).max(60).default(3).describe('Beads of a rung, of the lines that are put in'),
  needles: z.enum(['two', 'one']).default('two'),
})

const read = (own: Settings) => settings.parse(own)

/** A row as it is worked: what lies at its sides (or leads to the clasp) and in its rung. */
function rungsOf(work: Pick<Work, 'settings' | 'rows'>, rows: readonly Row[]): Rung[] {
  const { side, lead } = read(work.settings)
  return rows.map((row, r) => {
    if (r === rows.length - 1 && rows.length > 1) {
      const half = Math.ceil(row.length / 2)
      return { down: row.slice(0, half), up: row.slice(half), rung: [] }
    }
    return rungOf(row, r === 0 ? lead : side)
  })
}

const sumOf = (row: Row, of: (bead: Row[number]) => number): number => row.reduce((sum, bead) => sum + of(bead), 0)
const longOf = (row: Row): number => sumOf(row, (bead) => bead.l)
const thickOf = (row: Row): number => row.reduce((most, bead) => Math.max(most, bead.d), 0)

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

function measure(work: Work, rows: readonly Row[]): Measure {
  const rungs = rungsOf(work, rows)
  const middle = rungs.length > 1 ? rungs.slice(0, -1) : rungs
  const at: number[] = []
  let y = 0
  middle.forEach((own, i) => {
    if (i === 0) y = leadRun(Math.max(longOf(own.down), longOf(own.up)), longOf(own.rung)) + thickOf(own.rung) / 2
    else y += pitchMm(middle[i - 1]!, own)
    at.push(y)
  })
  const last = middle.at(-1)
  const end = rungs.length > 1 ? rungs.at(-1)! : null
  const endRun = end && last ? leadRun(Math.max(longOf(end.down), longOf(end.up)), longOf(last.rung)) : 0
  return {
    rungs,
    at,
    widthMm: middle.reduce((most, { rung }) => Math.max(most, longOf(rung)), 0),
    outMm: rungs.reduce((most, { down, up }) => Math.max(most, thickOf(down), thickOf(up)), 0),
    lengthMm: y + (last ? thickOf(last.rung) / 2 : 0) + endRun,
  }
}

/** Beads one after the other from one point towards another, each half its length on from the one before. */
function strung(
  row: Row,
  from: { x: number; y: number },
  to: { x: number; y: number },
): { x: number; y: number; turnDegrees: number; bead: Row[number] }[] {
  const long = Math.hypot(to.x - from.x, to.y - from.y)
  const whole = longOf(row)
  const [ux, uy] = long > 0 ? [(to.x - from.x) / long, (to.y - from.y) / long] : [0, 1]
  // Beads that are shorter than their way lie in its middle; longer ones are pushed together on it.
  let along = (long - whole) / 2
  return row.map((bead) => {
    const here = along + bead.l / 2
    along += bead.l
    return {
      x: from.x + ux * here,
      y: from.y + uy * here,
      turnDegrees: (Math.atan2(uy, ux) * 180) / Math.PI,
      bead,
    }
  })
}

function layout(work: Work, rows: readonly Row[]): RowLayout {
  const { rungs, at, widthMm, outMm, lengthMm } = measure(work, rows)
  const middle = outMm + widthMm / 2
  const placed: PlacedBead[] = []
  const lay = (r: number, from: number, beads: ReturnType<typeof strung>) => {
    beads.forEach((one, k) => placed.push({ key: keyOf(work.columns, from + k, r), ...one }))
  }
  const endsOf = (r: number) => {
    const half = longOf(rungs[r]?.rung ?? []) / 2
    return { y: at[r] ?? lengthMm, down: middle + half, up: middle - half }
  }
  const carriers: Carrier[] = []
  const thread = (...points: { x: number; y: number }[]) => carriers.push({ kind: 'thread', thickMm: 0.25, points })
  rungs.forEach((own, r) => {
    const here = endsOf(r)
    const isLast = r === rungs.length - 1 && rungs.length > 1
    const before = r === 0 ? null : endsOf(r - 1)
    const half = (row: Row) => thickOf(row) / 2
    // Leads run to the clasp between the needles; sides stand beside the ends of their rungs.
    const sides = [
      { row: own.down, from: 0, sign: 1, x: (e: typeof here) => e.down },
      { row: own.up, from: own.down.length, sign: -1, x: (e: typeof here) => e.up },
    ] as const
    for (const { row, from, sign, x } of sides) {
      const out = sign * half(row)
      // Leads lie beside each other at the clasp, and end at the holes of their rung.
      const clasp = { x: middle + out, y: isLast ? lengthMm : 0 }
      const holeOf = (e: typeof here) => ({ x: middle + sign * Math.max(sign * (x(e) - middle), half(row)), y: e.y })
      const [start, stop] =
        r === 0
          ? [clasp, holeOf(here)]
          : isLast
            ? [holeOf(before!), clasp]
            : [
                { x: x(before!) + out, y: before!.y },
                { x: x(here) + out, y: here.y },
              ]
      lay(r, from, strung(row, start, stop))
      thread(start, stop)
    }
    if (own.rung.length > 0) {
      const [a, b] = [
        { x: here.up, y: here.y },
        { x: here.down, y: here.y },
      ]
      lay(r, own.down.length + own.up.length, strung(own.rung, a, b))
      thread(a, b)
    }
  })
  return {
    placed,
    carriers,
    widthMm: widthMm + 2 * outMm,
    lengthMm: Math.max(lengthMm, 0.1),
    fixtureAt: (_, row) => ({ x: middle, y: row > 0 && row === rungs.length - 1 ? lengthMm : 0 }),
  }
}

/** Size of the seeds at the sides and to the clasp where nothing lies yet. */
const USUAL_SEED = 'round-8'

/** A step of the ladder as it mostly is: of rows that are not there yet. */
function usualRung(work: Omit<Work, 'rows'>): Rung {
  const { side, rung } = read(work.settings)
  if (work.usual) return rungOf(work.usual, side)
  const seeds = Array.from({ length: side }, () => requireSpec(USUAL_SEED))
  return { down: seeds, up: seeds, rung: Array.from({ length: rung }, () => work.bead) }
}

/** A list made so long: cut off at its end, or gone on with in one number. */
const resized = (list: readonly number[], length: number, number: number): number[] =>
  Array.from({ length: Math.max(0, length) }, (_, k) => list[k] ?? number)

/** Lengths of so many lines: leads and the first rung, sides and rungs, leads. */
function firstLines(count: number, work: Pick<Work, 'settings'>): number[] {
  const { side, lead, rung } = read(work.settings)
  return Array.from({ length: count }, () => 2 * side + rung).map((length, r) =>
    r === 0 ? 2 * lead + rung : r === count - 1 ? 2 * lead : length,
  )
}

/** Length that a step brings at least, mm, so that a line without any bead can be reckoned with. */
const LEAST_STEP = 0.1

/** Length of so many lines as they mostly are: leads, rungs and sides in the usual beads. */
function usualLength(rows: number, work: Omit<Work, 'rows'>): number {
  if (rows === 0) return 0
  const own = usualRung(work)
  const seed = own.down[0] ?? requireSpec(USUAL_SEED)
  const lead = leadRun(read(work.settings).lead * seed.l, longOf(own.rung))
  const step = Math.max(LEAST_STEP, pitchMm(own, own))
  return lead + thickOf(own.rung) + Math.max(0, rows - 2) * step + (rows > 1 ? lead : 0)
}

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
  // Rungs of the bead that it is drawn for, seeds at the sides and to the clasp.
  first: {
    sizes: [USUAL_SEED, USUAL_SEED],
    parts(r, count, work) {
      const { side, lead, rung } = read(work.settings)
      const line = (seeds: number, part: number, rest: number) => [
        ...Array<number>(2 * seeds).fill(part),
        ...Array<number>(rest).fill(0),
      ]
      return r === 0 ? line(lead, 2, rung) : r === count - 1 ? line(lead, 2, 0) : line(side, 1, rung)
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
  relined(line, { r, count }, from, to) {
    const [was, now] = [read(from), read(to)]
    const isLast = r === count - 1 && count > 1
    const seeds = (own: typeof was) => (r === 0 || isLast ? own.lead : own.side)
    const { down, up, rung } = isLast
      ? { down: line.slice(0, Math.ceil(line.length / 2)), up: line.slice(Math.ceil(line.length / 2)), rung: [] }
      : rungOf(line, seeds(was))
    const sized = (list: readonly number[], more: number, other: readonly number[]) =>
      resized(list, list.length + more, list.at(-1) ?? other.at(-1) ?? line[0] ?? 0)
    const more = seeds(now) - seeds(was)
    return [
      ...sized(down, more, up),
      ...sized(up, more, down),
      ...(isLast ? [] : sized(rung, now.rung - was.rung, down)),
    ]
  },
  program: (work, rows) =>
    crossed(rungsOf(work, rows), {
      needles: read(work.settings).needles === 'two' ? 2 : 1,
      fixtures: { clasp: { name: 'clasp ring', d: 4, holes: 1, pitch: 0 } },
      end: 'clasp',
    }),
  layout,
  extent(work) {
    const rows = rowsOfWork(work)
    const { rungs, widthMm, outMm, lengthMm } = measure(work, rows)
    const steps = Math.max(0, rungs.length - 2)
    return {
      lengthMm: rangeOf(lengthMm, SPREAD),
      widthMm: rangeOf(widthMm + 2 * outMm, SPREAD),
      thicknessMm: rungs.reduce((most, { rung }) => Math.max(most, thickOf(rung)), work.bead.d),
      basis: { kind: 'nominal', spread: SPREAD },
      lengthFormula:
        `${steps} steps between ${steps + 1} rungs, each as long as its longer side or its rungs are thick, and the ` +
        `leads to the clasp: ${plainNumber(lengthMm)} mm; the sides lie in arcs, so it may come out shorter`,
      widthFormula: `longest rung ${plainNumber(widthMm)} mm + 2 × ${plainNumber(outMm)} mm beside it`,
    }
  },
  lengthOf: (work) => (work.lineLength ? measure(work, rowsOfWork(work)).lengthMm : usualLength(work.rows, work)),
  rowsFor(lengthMm, work) {
    const own = usualRung(work)
    return Math.max(0, (lengthMm - usualLength(2, work)) / Math.max(LEAST_STEP, pitchMm(own, own)) + 2)
  },
  firstLines,
  // The last line leads to the clasp, and is no rung.
  countedRows: (rows) => (rows > 1 ? rows - 1 : rows),
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
        formula: [...ways].map(([by, mm]) => `${two ? `${by} needle ` : ''}${plainNumber(mm)} mm`).join(' + '),
      },
    ]
  },
  check: () => [],
}

export const rungLadder = rowWork(ladder)
