import { z } from 'zod'
import type { BeadSpec } from '../../bead/spec'
import { problem } from '../../problem'
import { showNumber } from '../../units/length'
import type { Lattice, Place, Site } from '../lattice'
import { filledShare, type Extent, type Settings, type Technique, type Work } from '../technique'
import { reader } from '../weave/setting'
import { roundPlan, walked, type BraidPlan, type School } from './plan'
import { beadAt, lineOf, linesOf, modulo, neighbourSteps, spotOf, stepOf } from './surface'

const settings = z.strictObject({
  school: z.enum(['A', 'B']).default('A').describe('A moves from the left of the lower pair, B from the left of the upper; each mirrors the other'),
  cordMm: z.number().min(0.1).max(3).default(0.5).describe('Thickness of the cord that the beads are strung on'),
})
const read = reader(settings)

/** Nominal length of a round of eight strands, mm, with how far it may be off below and above (common practice); 1.27 d ± 15 % for others. */
const ROUND_OF_EIGHT: Readonly<Record<string, readonly [mm: number, below: number, above: number]>> = {
  'round-15': [1.9, 0.15, 0.15], 'round-11': [2.8, 0.1, 0.1], 'round-8': [3.81, 0.1, 0.1], 'round-6': [5.1, 0.05, 0.2],
}

/** Lines of beads lie so far apart round the rope, in bead diameters: eight strands come to an outside of 2.9 d. */
const LINE_PITCH = 1.9 * Math.PI / 6

/** Each strand is cut to three times the finished length, and so much for knots, mm (common practice: 8–10 cm). */
export const CORD_TIMES = 3
export const CORD_KNOTS_MM = 90

/** Model of the twist of the rope, degrees a round (about; school B turns the other way). */
export const TWIST_DEGREES = -96

/**
 * Length of one round, mm, of so many strands whose beads lie in so many lines round the rope. Beads cover the surface equally closely
 * whatever the braid, so it follows from what is known of eight strands in six lines.
 */
export function coverMm(strands: number, lines: number, bead: Pick<BeadSpec, 'id' | 'd'>): number {
  return (ROUND_OF_EIGHT[bead.id]?.[0] ?? 1.27 * bead.d) * strands * 6 / (8 * lines)
}

export const roundMm = (strands: number, bead: Pick<BeadSpec, 'id' | 'd'>): number => coverMm(strands, linesOf(strands), bead)

/** Outside diameter of the rope, mm, on thin cord: its lines of beads side by side round the middle circle. */
export const ropeMm = (strands: number, bead: Pick<BeadSpec, 'd'>): number => linesOf(strands) * LINE_PITCH * bead.d / Math.PI + bead.d

const lattices = new Map<string, Lattice>()

/** The surface unrolled in lines that run nearly straight along the rope: cell (s, k) is bead k of strand s. */
function latticeFor(strands: number, school: School, bead: BeadSpec): Lattice {
  const key = `${strands}/${school}/${bead.id}`
  let lattice = lattices.get(key)
  if (lattice) return lattice
  const lines = linesOf(strands)
  const pitch = LINE_PITCH * bead.d
  const round = roundMm(strands, bead)
  const pairs = strands / 2
  const rows = periodOf(strands)
  const sites: Site[] = []
  const touching: Place[][] = []
  for (let k = 0; k < rows; k++) {
    for (let s = 0; s < strands; s++) {
      const spot = spotOf(s, k, strands, school)
      sites.push({ dx: lineOf(spot, strands, school) * pitch - s * lines * pitch / strands, dy: stepOf(s, strands, school) * round / pairs, turnDegrees: school === 'A' ? -30 : 30 })
      touching.push(neighbourSteps(strands, school).map(({ dc, dt }) => {
        const there = beadAt({ row: spot.row + dt, col: modulo(spot.col + dc, pairs) }, strands, school)!
        return { c: there.s - s, r: there.k - k }
      }))
    }
  }
  lattice = {
    pitchX: lines * pitch / strands, pitchY: round, originX: pitch / 2, originY: bead.d / 2, period: { columns: strands, rows }, sites, touching,
    beadX: bead.l, beadY: bead.d, hole: 'across', round: true,
  }
  lattices.set(key, lattice)
  return lattice
}

/** Rounds after which every strand lies in its line of the chart again: lines move on by H − 1 a round. */
function periodOf(strands: number): number {
  const lines = linesOf(strands)
  let rows = 1
  while (modulo(rows * (strands / 4 - 1), lines) !== 0) rows++
  return rows
}

/** A braid of n beaded strands on a slotted disc: a cell of the grid is bead k of strand s, so every strand carries the same count by its nature. */
function roundBraid(strands: number, slots: number): Technique {
  const plans: Record<School, BraidPlan> = { A: roundPlan(strands, slots, 'A'), B: roundPlan(strands, slots, 'B') }
  /** Strands in the order in which a round moves them: the same in every round. */
  const order: Record<School, readonly number[]> = { A: walked(plans.A, strands).map(l => l.strand), B: walked(plans.B, strands).map(l => l.strand) }

  const self: Technique = {
    id: `braid-${strands}`,
    family: 'braid',
    form: 'tube',
    name: `Round braid, ${strands} strands`,
    summary: `${strands} beaded strands on a disc with ${slots} slots; each move slides one bead down and tucks it under the crossing strand.`,
    settings,
    fields: [
      { key: 'school', label: 'School', kind: 'choice', choices: [{ value: 'A', label: 'A: bottom left up first' }, { value: 'B', label: 'B: top left down first' }], help: 'Two ways to move, each the other’s mirror image. Keep to your own.' },
      { key: 'cordMm', label: 'Cord, thick', kind: 'length', help: 'Bead cord is 0.4 or 0.5 mm; it passes each bead once.' },
    ],
    repeatRows: periodOf(strands),
    braid: { strands, plan: own => plans[read(own).school] },

    lattice: ({ bead, settings: own }) => latticeFor(strands, read(own).school, bead),

    extent(work): Extent {
      const [, below, above] = ROUND_OF_EIGHT[work.bead.id] ?? [0, 0.15, 0.15]
      const length = self.lengthOf(work)
      const outer = ropeMm(strands, work.bead)
      return {
        lengthMm: { least: length * (1 - below), nominal: length, most: length * (1 + above) },
        widthMm: { least: outer * 0.9, nominal: outer, most: outer * 1.1 },
        thicknessMm: outer,
        basis: { kind: 'nominal', spread: Math.max(below, above) },
        lengthFormula: `${work.rows} rounds × ${showNumber(roundMm(strands, work.bead), 2)} mm`,
        widthFormula: `${linesOf(strands)} lines × ${showNumber(LINE_PITCH, 3)} × ${work.bead.d} mm ÷ π + ${work.bead.d} mm`,
      }
    },
    lengthOf: ({ rows, bead }) => rows * roundMm(strands, bead),
    rowsFor: (lengthMm, { bead }) => lengthMm / roundMm(strands, bead),
    widthOf: ({ bead }) => ropeMm(strands, bead),
    columnsFor: () => strands,
    beads: ({ columns, rows }) => columns * rows,

    /** Cord by the rule of thumb, and by a model of the way that a strand takes through beads and across the rope; the larger is proposed. */
    path(work) {
      const round = roundMm(strands, work.bead)
      const length = self.lengthOf(work)
      const rule = CORD_TIMES * length + CORD_KNOTS_MM
      const model = work.rows * (work.bead.l * filledShare(self, work) + Math.hypot(ropeMm(strands, work.bead) - work.bead.d, round)) + CORD_KNOTS_MM
      return {
        passes: 1, cord: { name: `cord ${read(work.settings).cordMm} mm`, diameterMm: read(work.settings).cordMm, flattens: true },
        runs: [{
          id: 'cord', name: 'Cords', count: strands, joined: false, lengthMm: work.rows === 0 ? 0 : Math.max(rule, model),
          formula: `${strands} cords: by rule ${CORD_TIMES} × ${showNumber(length, 1)} + ${CORD_KNOTS_MM} = ${showNumber(rule)} mm, by model ${showNumber(model)} mm; the larger`,
        }],
      }
    },

    workingRows: ({ rows }) => rows,
    workingRow: (i, { columns, settings: own }) => ({ from: i + 1, to: i + 1, direction: '→', keys: Int32Array.from(order[read(own).school], s => i * columns + s) }),
    workingRowOf: ({ r }) => r,
    rowBefore: i => i - 1,
    countedRows: rows => rows,
    nearestColumns: () => strands,
    check: ({ columns }: Pick<Work, 'columns' | 'rows'> & { settings: Settings }) =>
      (columns === strands ? [] : [problem('strands', 'columns', `This braid has ${strands} strands, so ${strands} columns; here are ${columns}. Take ${strands}.`)]),
  }
  return self
}

export const braid8 = roundBraid(8, 32)
export const braid12 = roundBraid(12, 48)
export const braid16 = roundBraid(16, 32)
