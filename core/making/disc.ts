import { discOf } from '../piece/nature'
import { columnsOf, partRow, rowsOf, techniqueOf, type Part } from '../piece/piece'
import { acted, playOf, slotOf, strandOfMove, type BraidPlan, type Disc, type School } from '../technique/braid/plan'

/** One move of a braid as the hands do it, with the disc as it lies before. */
interface DiscMove {
  /** Counted from 0 through the whole part. */
  readonly index: number
  /** Round and move in it, from 1. */
  readonly round: number
  readonly move: number
  readonly movesInRound: number
  readonly strand: number
  /** Slots as they are printed on the foam. */
  readonly from: number
  readonly to: number
  /** Tray number of the bead that is slid down; 0 for none. */
  readonly number: number
  /** In words: where the strand lies, and where it goes. */
  readonly words: string
  readonly disc: Disc
  /** How far the disc is turned in the hand, degrees clockwise, so that the pairs that move lie above and below. */
  readonly turn: number
}

const movesOf = (plan: BraidPlan): number => plan.cycle.filter((a) => a.do === 'move').length

/** Moves of the whole part: one for each bead. */
export function discMoves(part: Part): number {
  const { disc } = techniqueOf(part)
  return disc ? rowsOf(part) * disc.plan(part.settings).load.length : 0
}

/** Turn of the disc per act of turning in one cycle. */
const drift = (plan: BraidPlan): number => plan.cycle.reduce((sum, a) => sum + (a.do === 'turn' ? a.by : 0), 0)

const WORDS: Record<School, readonly [string, string]> = {
  A: [
    'from the bottom left up to the top, left of the pair',
    'from the top right down to the bottom, right of the pair',
  ],
  B: [
    'from the top left down to the bottom, left of the pair',
    'from the bottom right up to the top, right of the pair',
  ],
}

/** The i-th move of a braid; null beyond its end, or for other work. */
export function discMove(part: Part, index: number): DiscMove | null {
  const work = discOf(part)
  if (!work || index < 0 || index >= discMoves(part)) return null
  const plan = work.plan(part.settings)
  const moves = movesOf(plan)
  // A cycle is a whole round for the round braids, a single move for others.
  const cycle = Math.floor(index / moves)
  const inRound = index % moves
  const round = Math.floor(index / plan.load.length)
  const { discs } = playOf(plan)
  let disc = discs[cycle % discs.length]!
  disc = { ...disc, turned: drift(plan) * cycle }
  let seen = 0
  for (const act of plan.cycle) {
    if (act.do === 'move' && seen++ === inRound) {
      const strand = strandOfMove(plan, index)
      const school: School = part.settings.school === 'B' ? 'B' : 'A'
      const strands = plan.load.length
      const step = (cycle * moves) / 2 + Math.floor(inRound / 2)
      const quarter = !part.settings.school ? 0 : strands === 8 ? 90 : -360 / (strands / 2)
      return {
        index,
        round: round + 1,
        move: (index % plan.load.length) + 1,
        movesInRound: plan.load.length,
        strand,
        from: slotOf(act.from + disc.turned, plan.slots),
        to: slotOf(act.to + disc.turned, plan.slots),
        number: partRow(part, round)[strand]!,
        words: part.settings.school ? WORDS[school][inRound % 2]! : 'over to the empty slot',
        disc, // The pairs drift round the foam; the hands turn that back too.
        turn: (school === 'A' ? 1 : -1) * quarter * step - (drift(plan) * cycle * 360) / plan.slots,
      }
    }
    const next = acted(disc, act)
    if (!next.ok) throw new Error(next.problems[0]!.says)
    disc = next.value
  }
  return null
}

/**
 * What the disc looks like at a pause, so that the place is found again: after the first move of a step one side holds
 * three strands.
 */
export function pauseWords(part: Part, index: number): string {
  const move = discMove(part, index)
  if (!move)
    return index <= 0 ? 'Nothing braided yet: two strands at each dot.' : 'All beads are used: the braid is done.'
  if (!part.settings.school) return `Strand ${move.strand + 1} moves next, from slot ${move.from} to slot ${move.to}.`
  if (index % 2 === 0) return 'Two strands lie at every dot: a step is finished, turn the disc and begin the next.'
  return part.settings.school === 'B'
    ? 'Three strands at the bottom, one at the top: the second move of the step is next.'
    : 'Three strands at the top, one at the bottom: the second move of the step is next.'
}

/** Tray number of the bead that comes next on each strand before move `index`; 0 where none is left. */
export function nextBeads(part: Part, index: number): number[] {
  const strands = columnsOf(part)
  const move = discMove(part, index)
  const round = move ? move.round - 1 : rowsOf(part)
  const used = new Set<number>()
  for (let i = round * strands; i < index; i++) used.add(discMove(part, i)!.strand)
  return Array.from({ length: strands }, (_, s) => {
    const k = round + (used.has(s) ? 1 : 0)
    return k < rowsOf(part) ? partRow(part, k)[s]! : 0
  })
}
