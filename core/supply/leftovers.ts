import { requireSpec } from '../bead/spec'
import { difference } from '../colour/colour'
import type { Piece } from '../piece/piece'
import type { ShelfBead } from '../shelf/shelf'
import { tallyPiece } from '../tally/tally'
import { fitKindOf } from '../wear/kind'
import { cullOf, timesMade } from './beads'
import { freeFor, tubeOf, type Box, type BoxItem } from './box'

/** What can still be made from what is left. */
export interface Makeable {
  /** Whole ones; 0 if a bead is missing. */
  readonly times: number
  /** The bead that runs out first, or that is missing; null for a piece without beads. */
  readonly limit: {
    readonly name: string
    readonly spec: string
    readonly colour: string
    readonly needGrams: number
    readonly haveGrams: number
  } | null
}

/** Grams of one, culls included: a few beads of every tube break. */
const gramsFor = (count: number, spec: string, cull: number): number => count / (1 - cull) / requireSpec(spec).perGram

/** How many whole ones of a saved piece (of earrings: pairs) the box can make, and which bead limits it. */
export function makeable(piece: Piece, box: Box): Makeable {
  const counts = tallyPiece(piece)
  const times = timesMade({ ...piece, supply: { ...piece.supply, batch: 1 } })
  let best: Makeable = { times: Infinity, limit: null }
  // Two beads of the tray may be one tube: what they need together counts.
  const needs = new Map<string, { needGrams: number; haveGrams: number; name: string; spec: string; colour: string }>()
  for (const bead of piece.tray) {
    const count = (counts.get(bead.number) ?? 0) * times
    if (count === 0) continue
    const tube = tubeOf(box, bead)
    const key = tube?.id ?? `none ${bead.number}`
    const need = gramsFor(count, bead.spec, cullOf(piece.supply, bead.spec))
    const there = needs.get(key)
    needs.set(key, {
      name: bead.name,
      spec: bead.spec,
      colour: bead.colour,
      needGrams: (there?.needGrams ?? 0) + need,
      haveGrams: tube ? freeFor(box, tube, undefined) : 0,
    })
  }
  for (const need of needs.values()) {
    const can = Math.floor(need.haveGrams / need.needGrams + 1e-9)
    if (can < best.times) best = { times: can, limit: need }
  }
  return best.limit === null ? { times: 0, limit: null } : best
}

/**
 * A small thing that can be made of any beads of one size: so many of each colour for one (of earrings: for the pair).
 */
export interface SmallDesign {
  readonly id: string
  readonly name: string
  readonly kind: 'earrings' | 'pendant' | 'ring' | 'bracelet'
  /** From the uppermost down, each hanging on the one before. */
  readonly parts: readonly SmallPart[]
}

interface SmallPart {
  readonly name: string
  readonly technique: string
  /** Rows of letters, or strands from left to right: a is the bead that is used most; a dot is no bead. */
  readonly rows: readonly string[]
}

/** Strands that grow to the middle by so many beads each, of one letter, with a foot. */
const falling = (strands: number, shortest: number, step: number, letter: string, foot: string): SmallPart => ({
  name: 'Fringe',
  technique: 'fringe',
  rows: Array.from(
    { length: strands },
    (_, i) => letter.repeat(shortest + step * Math.min(i, strands - 1 - i)) + foot,
  ),
})

const bricks = (...rows: readonly string[]): SmallPart => ({ name: 'Top', technique: 'brick', rows })

/** Small designs of our own, earrings first. */
export const SMALL_DESIGNS: readonly SmallDesign[] = [
  small('leaf', 'Leaf earrings', 'earrings', 'brick', [
    // A bead more with every row and a bead less again: odd rows lie half a bead to the right.
    '..a..',
    '.aa..',
    '.aba.',
    'abba.',
    'abcba',
    'abba.',
    '.aba.',
    '.aa..',
    '..a..',
  ]),
  hanging('rain', 'Rain earrings', 'earrings', [bricks('.bcb.', 'bccb.', 'bcacb'), falling(5, 4, 3, 'a', 'bcb')]),
  hanging('reeds', 'Reed earrings', 'earrings', [bricks('bcbcbcb'), falling(7, 10, 2, 'a', 'b')]),
  small('window', 'Window earrings', 'earrings', 'square', [
    'bbbbbb',
    'baaaab',
    'bacacb',
    'bacacb',
    'baaaab',
    'bbbbbb',
  ]),
  small('ladder', 'Ladder sticks', 'earrings', 'ladder', [
    'aa',
    'aa',
    'bb',
    'aa',
    'aa',
    'bb',
    'aa',
    'aa',
    'cc',
    'aa',
    'aa',
  ]),
  hanging('pennant', 'Pennant pendant', 'pendant', [
    {
      name: 'Panel',
      technique: 'square',
      rows: Array.from({ length: 14 }, (_, r) =>
        Array.from({ length: 9 }, (__, c) => ((c + r) % 7 === 3 || (8 - c + r) % 7 === 3 ? 'b' : 'a')).join(''),
      ),
    },
    falling(9, 5, 2, 'a', 'cbc'),
  ]),
  small(
    'ripple',
    'Ripple band ring',
    'ring',
    'peyote',
    Array.from({ length: 34 }, (_, k) => ['aaba', 'abaa', 'baaa', 'abaa'][k % 4]!),
  ),
  small(
    'thread',
    'Thin stripe bracelet',
    'bracelet',
    'peyote',
    Array.from({ length: 104 }, (_, k) => (k % 8 === 0 ? 'bbbb' : k % 8 === 4 ? 'caac' : 'aaaa')),
  ),
]

function hanging(id: string, name: string, kind: SmallDesign['kind'], parts: readonly SmallPart[]): SmallDesign {
  return { id, name, kind, parts }
}

function small(
  id: string,
  name: string,
  kind: SmallDesign['kind'],
  technique: string,
  rows: readonly string[],
): SmallDesign {
  return { id, name, kind, parts: [{ name: kind === 'earrings' ? 'Drop' : 'Band', technique, rows }] }
}

/** Beads by letter of one such thing, most used first. */
export function lettersOf({ parts, kind }: SmallDesign): { letter: string; count: number }[] {
  const counts = new Map<string, number>()
  const many = fitKindOf(kind).pieces
  for (const ch of parts.flatMap(({ rows }) => rows).join(''))
    if (ch !== '.') counts.set(ch, (counts.get(ch) ?? 0) + many)
  return [...counts]
    .map(([letter, count]) => ({ letter, count }))
    .sort((a, b) => b.count - a.count || a.letter.localeCompare(b.letter))
}

export interface SmallMakeable {
  readonly design: SmallDesign
  readonly spec: string
  /** The tubes that serve, in the order of `lettersOf`. */
  readonly tubes: readonly BoxItem<ShelfBead>[]
  readonly times: number
  /** The tube that runs out first. */
  readonly limit: BoxItem<ShelfBead>
}

const CULL = 0.05

/** Colours nearer than this, ΔE00, are hard to tell apart in a small pattern. */
const APART = 22

/**
 * The first `count` tubes whose colours can be told from one another; where there are too few of these, the next in
 * order.
 */
function apart(tubes: readonly BoxItem<ShelfBead>[], count: number): BoxItem<ShelfBead>[] {
  const chosen: BoxItem<ShelfBead>[] = []
  for (const tube of tubes)
    if (chosen.length < count && chosen.every((c) => difference(c.value.colour, tube.value.colour) >= APART))
      chosen.push(tube)
  for (const tube of tubes) if (chosen.length < count && !chosen.includes(tube)) chosen.push(tube)
  return chosen
}

/**
 * Small designs that the box can make, each in the size of bead that makes most of them: the fullest tubes of a size
 * that can be told apart take the letters that are used most. Designs that cannot be made once are left out.
 */
export function smallFromBox(box: Box, designs: readonly SmallDesign[] = SMALL_DESIGNS): SmallMakeable[] {
  const bySpec = new Map<string, BoxItem<ShelfBead>[]>()
  for (const item of box.items) {
    if (item.value.kind === 'bead')
      bySpec.set(item.value.spec, [...(bySpec.get(item.value.spec) ?? []), item as BoxItem<ShelfBead>])
  }
  return designs.flatMap((design) => {
    const letters = lettersOf(design)
    const ways = [...bySpec].flatMap(([spec, all]): SmallMakeable[] => {
      const tubes = apart(
        [...all].sort((a, b) => freeFor(box, b, undefined) - freeFor(box, a, undefined)),
        letters.length,
      )
      if (tubes.length < letters.length) return []
      const can = letters.map(({ count }, k) =>
        Math.floor(freeFor(box, tubes[k]!, undefined) / gramsFor(count, spec, CULL) + 1e-9),
      )
      const times = Math.min(...can)
      return times < 1 ? [] : [{ design, spec, tubes, times, limit: tubes[can.indexOf(times)]! }]
    })
    const best = ways.sort((a, b) => b.times - a.times)[0]
    return best ? [best] : []
  })
}
