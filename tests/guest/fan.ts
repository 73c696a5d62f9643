import { z } from 'zod'
import { plainNumber } from '#core/units/length'
import { keyOf } from '#core/grid/key'
import { problem } from '#core/problem'
import { freeDrawing, type Carrier, type PlacedBead } from '#core/technique/drawing'
import { lineTechnique, type Strung } from '#core/technique/strung'
import { lengthOfRow, rangeOf, NOMINAL_SPREAD, type Plan, type Settings, type Work } from '#core/technique/technique'

/**
 * Strands that hang from a bar side by side, each leaning a little to one side or the other: a technique that only
 * tests know, worked on lines of their own lengths. Its first beads lie at the bar; the thread goes out through all of
 * them, round the last, and back.
 */
const settings = z.strictObject({
  gapMm: z.number().min(0).max(10).default(0.6).describe('Room between strands at the bar'),
})
const plan = z.strictObject({
  lean: z.number().min(0).max(40).default(12).describe('How far strands lean, degrees: every other one the other way'),
  turning: z.boolean().default(true).describe('The thread goes round the last bead and back through the others'),
})

const read = (own: Settings) => settings.parse(own)
const planOf = ({ plan: own }: { readonly plan?: Plan }) => plan.parse(own ?? {})

/** Step from one strand to the next along the bar, mm. */
const pitchMm = ({ bead, settings: own }: Pick<Work, 'bead' | 'settings'>): number => bead.d + read(own).gapMm

/** The bar lies so far from the edge of the work, mm. */
const BAR_MM = 2

const leanOf = (work: Pick<Work, 'plan'>, r: number): number => (r % 2 === 0 ? 1 : -1) * planOf(work).lean

function placedBeads(work: Work): PlacedBead[] {
  const out: PlacedBead[] = []
  for (let r = 0; r < work.rows; r++) {
    const turnDegrees = leanOf(work, r)
    const turn = (turnDegrees * Math.PI) / 180
    for (let c = 0; c < lengthOfRow(work, r); c++) {
      const far = (c + 0.5) * work.bead.l
      out.push({
        key: keyOf(work.columns, c, r),
        x: BAR_MM + far * Math.cos(turn),
        y: (r + 0.5) * pitchMm(work) + far * Math.sin(turn),
        turnDegrees,
      })
    }
  }
  return out
}

/** How far the beads reach across and along, mm; the first strand may lean out before the bar begins. */
function roomOf(work: Work) {
  const half = Math.hypot(work.bead.l, work.bead.d) / 2
  const beads = placedBeads(work)
  const least = Math.min(0, ...beads.map((b) => b.y - half))
  return {
    shift: 0 - least,
    width: Math.max(BAR_MM, ...beads.map((b) => b.x + half)),
    length: Math.max(work.rows * pitchMm(work), ...beads.map((b) => b.y + half)) - least,
  }
}

const fan: Strung = {
  id: 'fan',
  making: 'hang',
  name: 'Fan of strands',
  summary: 'Strands of their own lengths side by side on a bar.',
  settings,
  fields: [
    {
      key: 'gapMm',
      label: 'Room between strands',
      help: 'At the bar, between one strand and the next.',
      kind: 'length',
    },
  ],
  plan,
  words: {
    line: 'strand',
    place: 'bead',
    across: 'in the longest strand',
    acrossTitle: 'Longest strand',
    thing: 'Fan',
    sample: {
      name: 'sample',
      how: 'Count strands along the bar and measure them.',
      counted: 'Strands counted',
      where: 'Along the bar.',
      wide: false,
    },
  },
  drawing(work) {
    const { shift, width, length } = roomOf(work)
    const placed = placedBeads(work).map((b) => ({ ...b, y: b.y + shift }))
    const bar: Carrier = {
      kind: 'bar',
      thickMm: 1.2,
      points: [
        { x: BAR_MM / 2, y: shift },
        { x: BAR_MM / 2, y: shift + work.rows * pitchMm(work) },
      ],
    }
    const threads = Array.from({ length: work.rows }, (_, r): Carrier => {
      const turn = (leanOf(work, r) * Math.PI) / 180
      const far = lengthOfRow(work, r) * work.bead.l
      const y = shift + (r + 0.5) * pitchMm(work)
      return {
        kind: 'thread',
        thickMm: 0.2,
        points: [
          { x: BAR_MM / 2, y },
          { x: BAR_MM + far * Math.cos(turn), y: y + far * Math.sin(turn) },
        ],
      }
    })
    return freeDrawing({ placed, carriers: [bar, ...threads], widthMm: width, lengthMm: length, bead: work.bead })
  },
  extent(work) {
    const longest = Math.max(0, ...Array.from({ length: work.rows }, (_, r) => lengthOfRow(work, r)))
    return {
      lengthMm: rangeOf(fan.lengthOf(work), NOMINAL_SPREAD),
      widthMm: rangeOf(BAR_MM + longest * work.bead.l, NOMINAL_SPREAD),
      thicknessMm: work.bead.d,
      basis: { kind: 'nominal', spread: NOMINAL_SPREAD },
      lengthFormula: `${work.rows} strands × ${plainNumber(pitchMm(work))} mm`,
      widthFormula: `${BAR_MM} mm + ${longest} beads × ${work.bead.l} mm`,
    }
  },
  lengthOf: (work) => work.rows * pitchMm(work),
  rowsFor: (lengthMm, work) => lengthMm / pitchMm(work),
  firstLines: (count) =>
    Array.from({ length: count }, (_, r) => 5 + Math.round(4 * Math.sin((Math.PI * (r + 1)) / (count + 1)))),
  /** Out through each strand and back through all but its last bead, and over to the next: 2 n l + pitch. */
  path(work) {
    const beads = Array.from({ length: work.rows }, (_, r) => lengthOfRow(work, r)).reduce((a, b) => a + b, 0)
    const there = work.laid?.beads ?? beads
    return {
      passes: 2,
      passesAt: (c, r) => (planOf(work).turning && c === lengthOfRow(work, r) - 1 ? 1 : 2),
      runs: [
        {
          id: 'thread',
          name: 'Thread',
          count: 1,
          joined: true,
          lengthMm: 2 * there * work.bead.l + work.rows * pitchMm(work),
          formula: `2 × ${there} beads × ${work.bead.l} + ${work.rows} × ${plainNumber(pitchMm(work))} mm`,
        },
      ],
    }
  },
  acts(i, work, keys) {
    const { turning } = planOf(work)
    const back = turning ? keys.slice(0, -1) : keys
    return [
      { do: 'pick', by: 'thread', keys },
      ...Array.from(back.toReversed(), (key) => ({ do: 'pass', by: 'thread', key, hole: 'a', way: 'back' }) as const),
      { do: 'fix', by: 'thread', to: 'the bar' },
    ]
  },
  check({ rows, plan: own }) {
    const read = plan.safeParse(own ?? {})
    return read.success || rows === 0 ? [] : [problem('plan', 'plan', 'A fan leans by 0 to 40 degrees.')]
  },
}

export const fanTechnique = lineTechnique(fan)
