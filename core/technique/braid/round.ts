import { modulo } from '../../modulo'
import { z } from 'zod'
import type { BeadSpec } from '../../bead/spec'
import type { Chart, Lattice, Place, Site } from '../lattice'
import type { Stitch } from '../stitch'
import { reader } from '../weave/setting'
import type { DiscPlan } from '../disc'
import { roundHands, roundPlan, type School } from './plan'
import { BEADED, BEADED_FIELDS, coverMm, LINE_PITCH, ropeBraid, spreadOf } from './rope'
import {
  beadAt,
  lineOf,
  linesOf,
  neighbourSteps,
  periodOf,
  roundSurface,
  spotOf,
  stepOf,
  strandLineOf,
} from './surface'

const school = z
  .enum(['A', 'B'])
  .default('A')
  .describe('A moves from the left of the lower pair, B from the left of the upper; each mirrors the other')
const settings = z.strictObject({ school, ...BEADED })
const read = reader(settings)

const roundMm = (strands: number, bead: Pick<BeadSpec, 'id' | 'd'>): number => coverMm(strands, linesOf(strands), bead)

/**
 * Ways to unroll the surface: in lines that run nearly straight, in one line for each strand, or place by place as the
 * columns lie.
 */
export const ROUND_CHARTS: readonly Chart[] = [
  { id: 'lines', name: 'nearly straight lines', says: 'Lines run nearly straight along the rope.' },
  { id: 'strands', name: 'a line for each strand', says: 'Every strand keeps its own line.' },
  { id: 'columns', name: 'columns as laid', says: 'Two beads a step on opposite sides, where the strands left.' },
]

const lattices = new Map<string, Lattice>()

/** The surface unrolled: cell (s, k) is bead k of strand s. */
export function latticeFor(strands: number, school: School, bead: BeadSpec, chart = 'lines'): Lattice {
  const key = `${strands}/${school}/${bead.id}/${chart}`
  let lattice = lattices.get(key)
  if (lattice) return lattice
  const pairs = strands / 2
  const round = roundMm(strands, bead)
  const girth = linesOf(strands) * LINE_PITCH * bead.d
  // Columns go clockwise seen from above; seen from outside, the length running to the right, that is upward. Lines of
  // A run against them, of B with them.
  const outward = (line: number, of: number) => (school === 'A' ? line : modulo(0 - line, of)) / of
  const across =
    {
      lines: (s: number, k: number) =>
        outward(lineOf(spotOf(s, k, strands, school), strands, school), linesOf(strands)),
      strands: (s: number, k: number) =>
        outward(strandLineOf(spotOf(s, k, strands, school), strands, school), strands),
      columns: (s: number, k: number) => modulo(0 - spotOf(s, k, strands, school).col, pairs) / pairs,
    }[chart] ?? (() => 0)
  const rows = periodOf(strands)
  const sites: Site[] = []
  const touching: Place[][] = []
  for (let k = 0; k < rows; k++) {
    for (let s = 0; s < strands; s++) {
      const spot = spotOf(s, k, strands, school)
      sites.push({
        dx: (across(s, k) - s / strands) * girth,
        dy: (stepOf(s, strands, school) * round) / pairs,
        turnDegrees: school === 'A' ? -30 : 30,
      })
      touching.push(
        neighbourSteps(strands, school).map(({ dc, dt }) => {
          const there = beadAt({ row: spot.row + dt, col: modulo(spot.col + dc, pairs) }, strands, school)!
          return { c: there.s - s, r: there.k - k }
        }),
      )
    }
  }
  lattice = {
    pitchX: girth / strands,
    pitchY: round,
    originX: (LINE_PITCH * bead.d) / 2,
    originY: bead.d / 2,
    period: { columns: strands, rows },
    sites,
    touching,
    beadX: bead.l,
    beadY: bead.d,
    hole: 'across',
    round: true,
  }
  lattices.set(key, lattice)
  return lattice
}

/** Plans of a shipped round braid, by school. */
export const roundPlans = (strands: number, slots: number): Record<School, DiscPlan> => ({
  A: roundPlan(strands, slots, 'A'),
  B: roundPlan(strands, slots, 'B'),
})

function roundBraid(strands: number, slots: number): Stitch {
  const plans = roundPlans(strands, slots)
  return ropeBraid({
    id: `braid-${strands}`,
    name: `Round braid, ${strands} strands`,
    summary:
      `${strands} beaded strands on a disc with ${slots} slots; each move slides one bead down and tucks it ` +
      'under the crossing strand.',
    settings,
    told: {
      hands: (own) => roundHands(strands, read(own).school),
      way: (own) => `school ${read(own).school}`,
      surface: (own) => roundSurface(strands, read(own).school, own),
    },
    fields: [
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
      ...BEADED_FIELDS,
    ],
    repeatRows: periodOf(strands),
    strandsOf: () => strands,
    linesOf: () => linesOf(strands),
    plan: (own) => plans[read(own).school],
    spread: spreadOf,
    read,
    charts: ROUND_CHARTS,
    lattice: ({ bead, settings: own, chart }) => latticeFor(strands, read(own).school, bead, chart),
  })
}

export const braid8 = roundBraid(8, 32)
export const braid12 = roundBraid(12, 48)
export const braid16 = roundBraid(16, 32)
