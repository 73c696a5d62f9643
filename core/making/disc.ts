import { discOf } from '../piece/nature'
import { columnsOf, partRow, rowsOf, type Part } from '../piece/piece'
import { acted, playOf, slotOf, strandOfMove, type Disc, type DiscPlan } from '../technique/disc'

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

const movesOf = (plan: DiscPlan): number => plan.cycle.filter((a) => a.do === 'move').length

/** Moves of the whole part: one for each bead. */
export function discMoves(part: Part): number {
  const disc = discOf(part)
  return disc ? rowsOf(part) * disc.plan(part.settings).load.length : 0
}

/** Turn of the disc per act of turning in one cycle. */
const drift = (plan: DiscPlan): number => plan.cycle.reduce((sum, a) => sum + (a.do === 'turn' ? a.by : 0), 0)

/** The i-th move of a braid; null beyond its end, or for other work. */
export function discMove(part: Part, index: number): DiscMove | null {
  const work = discOf(part)
  if (!work || index < 0 || index >= discMoves(part)) return null
  const plan = work.plan(part.settings)
  const hands = work.hands(part.settings)
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
      return {
        index,
        round: round + 1,
        move: (index % plan.load.length) + 1,
        movesInRound: plan.load.length,
        strand,
        from: slotOf(act.from + disc.turned, plan.slots),
        to: slotOf(act.to + disc.turned, plan.slots),
        number: partRow(part, round)[strand]!,
        words: hands.move(index),
        disc,
        // The strands drift round the foam; the hands turn that back too.
        turn: hands.turn(index) - (drift(plan) * cycle * 360) / plan.slots,
      }
    }
    const next = acted(disc, act)
    if (!next.ok) throw new Error(next.problems[0]!.says)
    disc = next.value
  }
  return null
}

/** What the disc looks like at a pause, so that the place is found again. */
export function pauseWords(part: Part, index: number): string {
  const move = discMove(part, index)
  if (move) return discOf(part)!.hands(part.settings).pause(index, move)
  return index <= 0 ? 'Nothing braided yet: the disc is as it was loaded.' : 'All beads are used: the braid is done.'
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
