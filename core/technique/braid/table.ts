import { z } from 'zod'
import type { BeadSpec } from '../../bead/spec'
import { problem, type Problem } from '../../problem'
import type { Lattice, Site } from '../lattice'
import type { Settings } from '../technique'
import type { Stitch } from '../stitch'
import { touchingOnRope } from '../unrolled'
import { reader } from '../weave/setting'
import { walked, type DiscPlan, type Laid } from '../disc'
import { SEVEN } from './plan'
import { BEADED, BEADED_FIELDS, coverMm, LINE_PITCH, ropeBraid } from './rope'
import { planText, readPlan } from './text'

/** Size is known less well than for the round braids (common practice: measure a test inch). */
const SPREAD = 0.15

/**
 * A table played until its strands lie as at the start: which bead of which strand lies where, in the order of laying.
 */
interface Played {
  readonly plan: DiscPlan
  readonly strands: number
  /** Beads of one round: as many as there are strands, each once. */
  readonly laid: readonly Laid[]
  /** Rounds until everything repeats. */
  readonly rounds: number
  /** Strand s, bead k of the played rounds: its place in the order. */
  readonly at: ReadonlyMap<string, number>
}

/** Rounds that a table may take until it repeats. */
const MOST_ROUNDS = 64

function play(plan: DiscPlan): Played | Problem {
  const n = plan.load.length
  const laid = walked(plan, n * MOST_ROUNDS)
  const at = new Map<string, number>()
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const seen = new Set<number>()
    for (let j = 0; j < n; j++) {
      const { strand } = laid[round * n + j]!
      if (seen.has(strand))
        return problem(
          'strands-uneven',
          'table',
          `Strand ${strand + 1} moves again before every other strand has moved once: strands would carry ` +
            'different counts. Change the table.',
        )
      seen.add(strand)
      at.set(`${strand}/${round}`, round * n + j)
    }
  }
  const same = (rounds: number) =>
    Array.from({ length: n * (MOST_ROUNDS - rounds) }, (_, i) => i).every(
      (i) => laid[i]!.strand === laid[i + rounds * n]!.strand && laid[i]!.slot === laid[i + rounds * n]!.slot,
    )
  let rounds = 1
  while (rounds < MOST_ROUNDS / 2 && !same(rounds)) rounds++
  return { plan, strands: n, laid: laid.slice(0, n * rounds), rounds, at }
}

const lattices = new Map<string, Lattice>()
const plays = new Map<string, Played | Problem>()

function played(table: string): Played | Problem {
  let known = plays.get(table)
  if (!known) {
    const plan = readPlan(table)
    known = plan.ok ? play(plan.value) : plan.problems[0]!
    plays.set(table, known)
  }
  return known
}

const isPlayed = (p: Played | Problem): p is Played => 'laid' in p

/** Lines of beads round the rope, in bead diameters apart: about as many as half the strands and two. */
const linesFor = (strands: number): number => strands / 2 + 2

function tableLattice(table: string, { plan, strands, rounds, laid, at }: Played, bead: BeadSpec): Lattice {
  const key = `${table}/${bead.id}`
  let lattice = lattices.get(key)
  if (lattice) return lattice
  const pitchX = (linesFor(strands) * LINE_PITCH * bead.d) / strands
  const round = coverMm(strands, linesFor(strands), bead)
  const sites: Site[] = []
  for (let k = 0; k < rounds; k++) {
    for (let strand = 0; strand < strands; strand++) {
      const order = at.get(`${strand}/${k}`)!
      // Where the strand left, round the rope; the order of laying along it.
      const x = ((laid[order]!.slot - 1) / plan.slots) * strands * pitchX
      sites.push({ dx: x - strand * pitchX, dy: ((order - k * strands) * round) / strands, turnDegrees: -30 })
    }
  }
  const grid = { pitchX, pitchY: round, period: { columns: strands, rows: rounds }, sites }
  lattice = {
    ...grid,
    touching: touchingOnRope(grid),
    originX: bead.d / 2,
    originY: bead.d / 2,
    beadX: bead.l,
    beadY: bead.d,
    hole: 'across',
    round: true,
  }
  lattices.set(key, lattice)
  return lattice
}

/** The moves of seven strands, for braids that are not beaded. */
export const SEVEN_MOVES = {
  lines: linesFor(7),
  lattice: (bead: BeadSpec): Lattice => tableLattice(planText(SEVEN), played(planText(SEVEN)) as Played, bead),
}

/** A braid by a table of moves: surface and strands follow from playing it. */
function tableBraid(own: {
  readonly id: string
  readonly name: string
  readonly summary: string
  readonly table: string
  readonly typed: boolean
}): Stitch {
  const fixed = z.strictObject(BEADED)
  const typed = fixed.extend({
    table: z.string().max(590).default(own.table).describe('Slots, load, moves and turns'),
  })
  const readTyped = reader(typed)
  const readFixed = reader(fixed)
  const tableOf = (s: Settings): string => (own.typed ? readTyped(s).table : own.table)
  const playOf = (s: Settings): Played => {
    const found = played(tableOf(s))
    return isPlayed(found) ? found : (played(own.table) as Played)
  }
  return ropeBraid({
    id: own.id,
    name: own.name,
    summary: own.summary,
    settings: own.typed ? typed : fixed,
    fields: [
      ...(own.typed
        ? [
            {
              key: 'table',
              label: 'Table of moves',
              kind: 'text' as const,
              help: 'Like: slots 8; load 2 3 4 5 6 7 8; move 4 1; turn 3. It is checked by playing it.',
            },
          ]
        : []),
      ...BEADED_FIELDS,
    ],
    repeatRows: 1,
    strandsOf: (s) => playOf(s).strands,
    linesOf: (s) => linesFor(playOf(s).strands),
    plan: (s) => playOf(s).plan,
    spread: () => ({ below: SPREAD, above: SPREAD }),
    read: own.typed ? readTyped : readFixed,
    wrong(s) {
      const found = played(tableOf(s))
      return isPlayed(found) ? null : found
    },
    lattice: ({ bead, settings: s }) => tableLattice(tableOf(s), playOf(s), bead),
  })
}

/** Any table that a person types; it begins as the seven strands. */
export const braidOwn = tableBraid({
  id: 'braid-own',
  name: 'Braid by your own table',
  summary: 'Slots, load and moves as you type them; the table is checked by playing it.',
  table: planText(SEVEN),
  typed: true,
})

export const braid7 = tableBraid({
  id: 'braid-7',
  name: 'Braid, 7 strands',
  summary: 'Seven beaded strands on eight slots with one empty: one strand comes over at a time.',
  table: planText(SEVEN),
  typed: false,
})
