import { modulo } from '../../modulo'
import { slotOf, type DiscAct, type DiscHands, type DiscPlan } from '../disc'

/** Two ways to move a round braid, each the other’s mirror image. */
export type School = 'A' | 'B'

/**
 * A round braid of n strands on N slots: P = n / 2 pairs, H = P / 2; step t moves the pairs of every H-th column, one
 * strand of each to the other side. School A moves from the left of a pair up, B from the right; each is the other's
 * mirror image (slot x ↔ N + 1 − x). A round is P steps, in which every strand moves once; the pairs drift by two
 * slots, which the last turn takes back.
 */
export function roundPlan(strands: number, slots: number, school: School): DiscPlan {
  const pairs = strands / 2
  const half = pairs / 2
  const gap = slots / pairs
  const load = Array.from({ length: strands }, (_, s) =>
    slotOf(gap * (Math.floor((s + 1) / 2) % pairs) + (s % 2 === 0 ? 1 : 0), slots),
  )
  const cycle: DiscAct[] = []
  for (let t = 0; t < pairs; t++) {
    // Two opposite columns a step. School A begins below, B above; eight strands turn a quarter back each time, more
    // go on by one pair.
    const first = school === 'A' ? (strands === 8 ? half - t : half + t) : strands === 8 ? t : -t
    for (const column of [first, first + half].map((c) => modulo(c, pairs))) {
      const from = school === 'A' ? gap * column + 1 - Math.floor(t / half) : gap * column + Math.floor(t / half)
      cycle.push({
        do: 'move',
        from: slotOf(from, slots),
        to: slotOf(from + (school === 'A' ? 1 : -1) * (slots / 2 - 2), slots),
      })
    }
  }
  cycle.push({ do: 'turn', by: school === 'A' ? -2 : 2 })
  return { slots, load, cycle }
}

/**
 * Seven strands on eight slots with one empty: the fourth from the empty slot comes over, and the disc turns on by
 * three.
 */
export const SEVEN: DiscPlan = {
  slots: 8,
  load: [2, 3, 4, 5, 6, 7, 8],
  cycle: [
    { do: 'move', from: 4, to: 1 },
    { do: 'turn', by: 3 },
  ],
}

/** Where the two strands of a step go. */
const MOVE_WORDS: Record<School, readonly [first: string, second: string]> = {
  A: [
    'from the bottom left up to the top, left of the pair',
    'from the top right down to the bottom, right of the pair',
  ],
  B: [
    'from the top left down to the bottom, left of the pair',
    'from the bottom right up to the top, right of the pair',
  ],
}

/**
 * Moves of a round braid: two strands a step, the disc turned on so that each pair that moves lies above and below;
 * after the first of a step one side holds three strands.
 */
export const roundHands = (strands: number, school: School): DiscHands => ({
  move: (i) => MOVE_WORDS[school][i % 2]!,
  turn: (i) => (school === 'A' ? 1 : -1) * (strands === 8 ? 90 : -360 / (strands / 2)) * Math.floor(i / 2),
  pause(i) {
    if (i % 2 === 0) return 'Two strands lie at every dot: a step is finished, turn the disc and begin the next.'
    const [full, other] = school === 'A' ? ['top', 'bottom'] : ['bottom', 'top']
    return `Three strands at the ${full}, one at the ${other}: the second move of the step is next.`
  },
})

/** Moves of a braid by a table: one strand at a time comes over, as the disc lies. */
export const TABLE_HANDS: DiscHands = {
  move: () => 'over to the empty slot',
  turn: () => 0,
  pause: (_, { strand, from, to }) => `Strand ${strand + 1} moves next, from slot ${from} to slot ${to}.`,
}
