import { bad, good, problem, type Problem, type Result } from '../problem'
import { modulo } from '../modulo'
import type { Settings } from './setting'

/**
 * Work on a slotted disc is data: how many slots, which strand begins in which, and a cycle of moves and turns. Slots
 * are numbered 1 … slots clockwise, seen from above, as the hands see the disc; a turn gives every slot another label,
 * as if the disc were turned.
 */
export type DiscAct =
  | { readonly do: 'move'; readonly from: number; readonly to: number }
  /** Turns the disc by so many slots: what lay at slot x lies at x − by afterwards. */
  | { readonly do: 'turn'; readonly by: number }

export interface DiscPlan {
  readonly slots: number
  /** Slot in which strand s begins, s = 0, 1, 2 …, in bobbin order. */
  readonly load: readonly number[]
  readonly cycle: readonly DiscAct[]
}

/** A slot number brought into 1 … slots. */
export const slotOf = (slot: number, slots: number): number => modulo(slot - 1, slots) + 1

/** The disc at some moment: which strand lies in which slot, as labelled now. */
export interface Disc {
  readonly slots: number
  /** Strand by slot, index 0 for slot 1; −1 where the slot is empty. */
  readonly strands: readonly number[]
  /** Turns so far: slot x of now was slot x + turned of the disc at the start. */
  readonly turned: number
}

export function loadedDisc({ slots, load }: DiscPlan): Disc {
  const strands = Array.from({ length: slots }, () => -1)
  for (const [s, slot] of load.entries()) strands[slot - 1] = s
  return { slots, strands, turned: 0 }
}

/** The disc after one act; a move from an empty slot or to a full one is refused with words. */
export function acted(disc: Disc, act: DiscAct): Result<Disc> {
  const { slots, strands } = disc
  if (act.do === 'turn') {
    const by = modulo(act.by, slots)
    return good({ slots, strands: strands.map((_, i) => strands[(i + by) % slots]!), turned: disc.turned + act.by })
  }
  const strand = strands[act.from - 1]
  if (strand === undefined || strand < 0)
    return bad(
      problem(
        'slot-empty',
        String(act.from),
        `Slot ${act.from} is empty: there is no strand to move. Check the table.`,
      ),
    )
  if (strands[act.to - 1] !== -1)
    return bad(problem('slot-full', String(act.to), `Slot ${act.to} holds a strand already. Check the table.`))
  return good({ ...disc, strands: strands.map((s, i) => (i === act.from - 1 ? -1 : i === act.to - 1 ? strand : s)) })
}

/**
 * A bead that a move lays: the strand it is of, and the slot that strand left, counted on the disc as it lay at the
 * start.
 */
export interface Laid {
  readonly strand: number
  readonly slot: number
  readonly to: number
}

/** Walks through `moves` moves and says what each lays; the plan must be sound. */
export function walked(plan: DiscPlan, moves: number): Laid[] {
  const out: Laid[] = []
  let disc = loadedDisc(plan)
  for (let i = 0; out.length < moves; i++) {
    const act = plan.cycle[i % plan.cycle.length]!
    if (act.do === 'move')
      out.push({
        strand: disc.strands[act.from - 1]!,
        slot: slotOf(act.from + disc.turned, plan.slots),
        to: slotOf(act.to + disc.turned, plan.slots),
      })
    const next = acted(disc, act)
    if (!next.ok) throw new Error(next.problems[0]!.says)
    disc = next.value
  }
  return out
}

/** A plan played until its strands lie as at the start; after that all repeats, turned further. */
interface Play {
  /** The disc at the beginning of each cycle. */
  readonly discs: readonly Disc[]
  /** Strand of each move, cycle after cycle. */
  readonly strands: readonly number[]
}

const plays = new WeakMap<DiscPlan, Play>()

/** Cycles after which a plan is taken to repeat at the latest. */
const MOST_CYCLES = 200

/** Plays a sound plan, once for each. */
export function playOf(plan: DiscPlan): Play {
  let play = plays.get(plan)
  if (!play) {
    const discs: Disc[] = []
    const strands: number[] = []
    let disc = loadedDisc(plan)
    do {
      discs.push(disc)
      for (const act of plan.cycle) {
        if (act.do === 'move') strands.push(disc.strands[act.from - 1]!)
        const next = acted(disc, act)
        if (!next.ok) throw new Error(next.problems[0]!.says)
        disc = next.value
      }
    } while (discs.length < MOST_CYCLES && !disc.strands.every((s, i) => s === discs[0]!.strands[i]))
    play = { discs, strands }
    plays.set(plan, play)
  }
  return play
}

/** The strand that move i of a plan takes, i from 0: the one source of words, cards and disc. */
export function strandOfMove(plan: DiscPlan, i: number): number {
  const { strands } = playOf(plan)
  return strands[i % strands.length]!
}

/**
 * Strands in the order in which round i moves them. A braid of two strands a step moves them in another order every
 * other round.
 */
export const roundOrder = (plan: DiscPlan, round: number): number[] =>
  Array.from({ length: plan.load.length }, (_, k) => strandOfMove(plan, round * plan.load.length + k))

/**
 * What is wrong with a table: slots out of range or loaded twice, moves that cannot be made, a cycle that does not
 * come back.
 */
export function checkPlan(plan: DiscPlan): Problem[] {
  const { slots, load, cycle } = plan
  if (!Number.isInteger(slots) || slots < 4 || slots > 64)
    return [problem('slots', 'slots', 'A disc has 4 to 64 slots.')]
  if (load.length < 3 || load.length >= slots)
    return [problem('load', 'load', `Load at least three strands, and fewer than the ${slots} slots.`)]
  const outside = load.find((s) => !Number.isInteger(s) || s < 1 || s > slots)
  if (outside !== undefined)
    return [problem('load-range', 'load', `There is no slot ${outside}: the disc has ${slots}.`)]
  const twice = load.find((s, i) => load.indexOf(s) !== i)
  if (twice !== undefined)
    return [problem('load-twice', 'load', `Two strands are loaded in slot ${twice}. Give each its own.`)]
  if (!cycle.some((a) => a.do === 'move'))
    return [problem('cycle-empty', 'cycle', 'The cycle has no move: write which slot goes to which.')]
  let disc = loadedDisc(plan)
  for (const [i, act] of cycle.entries()) {
    if (act.do === 'move' && [act.from, act.to].some((s) => !Number.isInteger(s) || s < 1 || s > slots))
      return [problem('move-range', String(i + 1), `Act ${i + 1}: there is no such slot; the disc has ${slots}.`)]
    const next = acted(disc, act)
    if (!next.ok) return next.problems.map((p) => problem(p.code, String(i + 1), `Act ${i + 1}: ${p.says}`))
    disc = next.value
  }
  const begun = loadedDisc(plan).strands.map((s) => s >= 0)
  const ended = disc.strands.map((s) => s >= 0)
  const shift = begun.findIndex((_, by) => begun.every((full, i) => full === ended[(i + by) % slots]))
  if (shift < 0)
    return [
      problem(
        'cycle-open',
        'cycle',
        'After the cycle the strands do not lie as at the start, not even turned. Add the moves that are missing.',
      ),
    ]
  if (shift > 0)
    return [
      problem(
        'cycle-shift',
        'cycle',
        `After the cycle the strands lie ${shift === 1 ? 'a slot' : `${shift} slots`} further on. Add “turn ` +
          `${shift}” at its end.`,
      ),
    ]
  // Every strand must come to move within as many cycles as there are strands.
  const moved = new Set(walked(plan, cycle.filter((a) => a.do === 'move').length * load.length).map((l) => l.strand))
  return moved.size < load.length
    ? [
        problem(
          'strand-idle',
          'cycle',
          `Strand ${load.findIndex((_, s) => !moved.has(s)) + 1} never moves. Check the table.`,
        ),
      ]
    : []
}

/** How the moves of a disc are told to the hands. Moves are counted from 0 through the whole work. */
export interface DiscHands {
  /** Where the strand of move i lies and where it goes. */
  move(i: number): string
  /**
   * How far the disc is turned in the hand before move i, so that what moves lies above and below: degrees clockwise,
   * besides what its plan turns it.
   */
  turn(i: number): number
  /** How the disc looks before move i, so that the place is found again. */
  pause(i: number, next: { readonly strand: number; readonly from: number; readonly to: number }): string
}

/** Bead k (from 0, along the strand) of strand s. */
export interface StrandBead {
  readonly s: number
  readonly k: number
}

/**
 * What a rope can be moved by onto itself: half round, along by a round, or along by one step and on by one column.
 */
export type RopeMove = 'half turn' | 'along' | 'screw'

/** The surface of a rope, where it is known in closed form. */
export interface RopeSurface {
  /** Whole steps of its unrolled lattice once round, as many as a round goes along. */
  readonly steps: number
  /** Where a bead lies in that lattice: steps round, and along. */
  spot(bead: StrandBead): { readonly col: number; readonly row: number }
  /** Lines that run nearly straight along it. */
  readonly lines: number
  /** Rounds after which every strand lies in its line again. */
  readonly rounds: number
  /** Which of these lines, from 0, a bead lies in. */
  line(bead: StrandBead): number
  /** Place of its strand round the rope: each strand keeps one. */
  strandLine(bead: StrandBead): number
  /** Pair that a strand lies in as it is loaded, clockwise. */
  pair(s: number): number
  /** The beads that touch a bead; before the beginning k is negative. */
  touching(bead: StrandBead): readonly StrandBead[]
  /** The bead onto which a move of the rope carries a bead. */
  moved(bead: StrandBead, move: RopeMove): StrandBead
  /** How its mirror image is worked. */
  readonly mirror: { readonly settings: Settings; readonly says: string }
  /** Twist of the rope as a model, degrees a round against the columns; `hand` is the way it turns. */
  readonly twist: { readonly usual: number; readonly hand: 1 | -1 }
  /** How far the nearly straight lines wind round the rope in a round, degrees, for such a twist. */
  wind(twistDegrees: number): number
}

/** Work on a slotted disc, with strands that are loaded before it begins: columns of the grid are strands then. */
export interface DiscWork {
  /** How many strands. */
  readonly strands: number
  /** How they are moved. */
  plan(settings: Settings): DiscPlan
  hands(settings: Settings): DiscHands
  /** Which of several ways to work it is meant, beside its name: “school A”; empty where there is one only. */
  way(settings: Settings): string
  /** Its surface where that is known in closed form. */
  surface(settings: Settings): RopeSurface | null
  /** Strands, from 0, that are two cords in one slot, and the settings that make them so; left out if none can be. */
  readonly doubled?: {
    of(settings: Settings): ReadonlySet<number>
    with(settings: Settings, strands: Iterable<number>): Settings
  }
}

/** Two cords in a slot act as one fat cord: as thick as both their sections together. */
export const DOUBLED_TIMES = Math.SQRT2
