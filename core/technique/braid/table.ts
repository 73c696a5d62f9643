import { z } from 'zod'
import { problem, type Problem } from '../../problem'
import { showNumber } from '../../units/length'
import type { Lattice, Site } from '../lattice'
import { touchingOnRope } from '../unrolled'
import { filledShare, rangeOf, type Settings, type Technique } from '../technique'
import { reader } from '../weave/setting'
import { SEVEN, walked, type BraidPlan, type Laid } from './plan'
import { CORD_KNOTS_MM, CORD_TIMES, coverMm } from './round'
import { planText, readPlan } from './text'

/** Size is known less well than for the round braids (common practice: measure a test inch). */
const SPREAD = 0.15

/** A table played until its strands lie as at the start: which bead of which strand lies where, in the order of laying. */
interface Played {
  readonly plan: BraidPlan
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

function play(plan: BraidPlan): Played | Problem {
  const n = plan.load.length
  const laid = walked(plan, n * MOST_ROUNDS)
  const at = new Map<string, number>()
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const seen = new Set<number>()
    for (let j = 0; j < n; j++) {
      const { strand } = laid[round * n + j]!
      if (seen.has(strand)) return problem('strands-uneven', 'table', `Strand ${strand + 1} moves again before every other strand has moved once: strands would carry different counts. Change the table.`)
      seen.add(strand)
      at.set(`${strand}/${round}`, round * n + j)
    }
  }
  const same = (rounds: number) => Array.from({ length: n * (MOST_ROUNDS - rounds) }, (_, i) => i).every(i => laid[i]!.strand === laid[i + rounds * n]!.strand && laid[i]!.slot === laid[i + rounds * n]!.slot)
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

/** A braid by a table of moves: surface and strands follow from playing it. */
function tableBraid(own: { readonly id: string, readonly name: string, readonly summary: string, readonly table: string, readonly typed: boolean }): Technique {
  const cord = z.strictObject({ cordMm: z.number().min(0.1).max(3).default(0.5).describe('Thickness of the cord that the beads are strung on') })
  const typed = cord.extend({ table: z.string().max(590).default(own.table).describe('Slots, load, moves and turns') })
  const settings: z.ZodType<Settings> = own.typed ? typed : cord
  const readTyped = reader(typed)
  const readCord = reader(cord)
  const tableOf = (s: Settings): string => (own.typed ? readTyped(s).table : own.table)
  const cordOf = (s: Settings): number => (own.typed ? readTyped(s) : readCord(s)).cordMm
  const playOf = (s: Settings): Played => {
    const found = played(tableOf(s))
    return isPlayed(found) ? found : played(own.table) as Played
  }
  const roundMm = (s: Settings, bead: { id: string, d: number }) => coverMm(playOf(s).strands, linesFor(playOf(s).strands), bead)
  const outerMm = (s: Settings, d: number) => linesFor(playOf(s).strands) * 1.9 / 6 * d + d

  const self: Technique = {
    id: own.id, family: 'braid', form: 'tube', name: own.name, summary: own.summary, settings,
    fields: [
      ...own.typed ? [{ key: 'table', label: 'Table of moves', kind: 'text' as const, help: 'Like: slots 8; load 2 3 4 5 6 7 8; move 4 1; turn 3. It is checked by playing it.' }] : [],
      { key: 'cordMm', label: 'Cord, thick', kind: 'length', help: 'Bead cord is 0.4 or 0.5 mm; it passes each bead once.' },
    ],
    repeatRows: 1,
    braid: { strands: playOf(settings.parse({})).strands, plan: s => playOf(s).plan },

    lattice({ bead, settings: s }): Lattice {
      const key = `${tableOf(s)}/${bead.id}`
      let lattice = lattices.get(key)
      if (lattice) return lattice
      const { plan, strands, rounds, laid, at } = playOf(s)
      const pitchX = linesFor(strands) * bead.d * 1.9 * Math.PI / 6 / strands
      const round = roundMm(s, bead)
      const sites: Site[] = []
      for (let k = 0; k < rounds; k++) {
        for (let strand = 0; strand < strands; strand++) {
          const order = at.get(`${strand}/${k}`)!
          // Where the strand left, round the rope; the order of laying along it.
          const x = (laid[order]!.slot - 1) / plan.slots * strands * pitchX
          sites.push({ dx: x - strand * pitchX, dy: (order - k * strands) * round / strands, turnDegrees: -30 })
        }
      }
      const grid = { pitchX, pitchY: round, period: { columns: strands, rows: rounds }, sites }
      lattice = { ...grid, touching: touchingOnRope(grid), originX: bead.d / 2, originY: bead.d / 2, beadX: bead.l, beadY: bead.d, hole: 'across', round: true }
      lattices.set(key, lattice)
      return lattice
    },
    extent(work) {
      const length = self.lengthOf(work)
      const outer = outerMm(work.settings, work.bead.d)
      return {
        lengthMm: rangeOf(length, SPREAD), widthMm: rangeOf(outer, SPREAD), thicknessMm: outer, basis: { kind: 'nominal', spread: SPREAD },
        lengthFormula: `${work.rows} rounds × ${showNumber(roundMm(work.settings, work.bead), 2)} mm`,
        widthFormula: `${showNumber(linesFor(playOf(work.settings).strands), 1)} lines × ${showNumber(1.9 / 6, 3)} × ${work.bead.d} mm + ${work.bead.d} mm`,
      }
    },
    lengthOf: ({ rows, bead, settings: s }) => rows * roundMm(s, bead),
    rowsFor: (lengthMm, { bead, settings: s }) => lengthMm / roundMm(s, bead),
    widthOf: ({ bead, settings: s }) => outerMm(s, bead.d),
    columnsFor: (_, { settings: s }) => playOf(s).strands,
    beads: ({ columns, rows }) => columns * rows,
    path(work) {
      const { strands } = playOf(work.settings)
      const length = self.lengthOf(work)
      const rule = CORD_TIMES * length + CORD_KNOTS_MM
      const model = work.rows * (work.bead.l * filledShare(self, work) + Math.hypot(outerMm(work.settings, work.bead.d) - work.bead.d, roundMm(work.settings, work.bead))) + CORD_KNOTS_MM
      const cordMm = cordOf(work.settings)
      return {
        passes: 1, cord: { name: `cord ${cordMm} mm`, diameterMm: cordMm, flattens: true },
        runs: [{ id: 'cord', name: 'Cords', count: strands, joined: false, lengthMm: work.rows === 0 ? 0 : Math.max(rule, model), formula: `${strands} cords: by rule ${CORD_TIMES} × ${showNumber(length, 1)} + ${CORD_KNOTS_MM} = ${showNumber(rule)} mm, by model ${showNumber(model)} mm; the larger` }],
      }
    },
    workingRows: ({ rows }) => rows,
    workingRow(i, { columns, settings: s }) {
      const { laid, strands, rounds } = playOf(s)
      const from = (i % rounds) * strands
      return { from: i + 1, to: i + 1, direction: '→', keys: Int32Array.from(laid.slice(from, from + strands), l => i * columns + l.strand) }
    },
    workingRowOf: ({ r }) => r,
    rowBefore: i => i - 1,
    countedRows: rows => rows,
    nearestColumns: (_, s) => playOf(s).strands,
    check({ columns, settings: s }) {
      const found = played(tableOf(s))
      if (!isPlayed(found)) return [found]
      return columns === found.strands ? [] : [problem('strands', 'columns', `This braid has ${found.strands} strands, so ${found.strands} columns; here are ${columns}. Take ${found.strands}.`)]
    },
  }
  return self
}

/** Any table that a person types; it begins as the seven strands. */
export const braidOwn = tableBraid({ id: 'braid-own', name: 'Braid by your own table', summary: 'Slots, load and moves as you type them; the table is checked by playing it.', table: planText(SEVEN), typed: true })

export const braid7 = tableBraid({ id: 'braid-7', name: 'Braid, 7 strands', summary: 'Seven beaded strands on eight slots with one empty: one strand comes over at a time.', table: planText(SEVEN), typed: false })
