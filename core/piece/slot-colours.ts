import { nextOnTray, type TrayBead } from '../bead/bead'
import { linesOf } from '../grid/lines'
import { bad, good, problem, type Result } from '../problem'
import { requireTechnique } from '../technique/registry'
import { setStep } from './edit'
import { gcd, MOST_LINES, unrolled } from './picked'
import { rowsOf, type Part, type Piece } from './piece'
import { linesSteps } from './recast'
import type { Step } from './step'

/**
 * Beads by the part that they play: which beads a part is laid in, in which order along the motif and from motif to
 * motif.
 */

/**
 * How a sequence goes over the beads of a part: anew in each motif, one bead further on in each, on and on from motif
 * to motif, or one bead of the sequence for a whole motif.
 */
export const SEQUENCE_WAYS = ['anew', 'shifted', 'on', 'motif'] as const
export type SequenceWay = (typeof SEQUENCE_WAYS)[number]

export interface Sequence {
  readonly way: SequenceWay
  /** Tray numbers, in order. */
  readonly numbers: readonly number[]
}

/** A part that beads play, as it is laid. */
export interface LaidSlot {
  readonly slot: string
  readonly called: string
  /** Beads of it in the whole part. */
  readonly count: number
  /** Beads of it in the first motif that picks it up. */
  readonly each: number
  /** Bead size in which it is laid; that which its technique asks for where none is. */
  readonly spec: string
  /** The sequence that it follows; null where it follows none that is short. */
  readonly sequence: Sequence | null
  /** Its beads by how many they are, the most first. */
  readonly numbers: readonly number[]
}

/** Places of a line that a slot has, and where these begin in its order over the whole part. */
interface Stretch {
  readonly r: number
  readonly places: readonly number[]
  /** Which of the lines that have the slot it is, and how many beads of the slot lie before it. */
  readonly nth: number
  readonly before: number
}

/** Lines of a part written out, with the slot of each place. */
function writtenOut(part: Part) {
  const technique = requireTechnique(part.technique)
  const all: number[][] = []
  const push = (lines: Part['start'], times: number): void => {
    const own = linesOf(lines).map((line) => [...line])
    for (let k = 0; k < times; k++) all.push(...own)
  }
  push(part.start, 1)
  push(part.repeat, part.times)
  push(part.end, 1)
  const ends = technique.picks!(part, 2)
  const [starts, stops] = [ends.start.length > 0 ? 1 : 0, ends.end.length > 0 ? 1 : 0]
  const picks = technique.picks!(part, Math.max(0, rowsOf(part) - starts - stops))
  const beadsOf = (r: number) =>
    r < starts ? picks.start : stops > 0 && r === all.length - 1 ? picks.end : picks.motif(r - starts)
  return { all, beadsOf, isMotif: (r: number) => r >= starts && r < all.length - stops }
}

/** Where a slot lies, line by line. */
function stretchesOf({ all, beadsOf }: ReturnType<typeof writtenOut>, slot: string): Stretch[] {
  let nth = 0
  let before = 0
  return all.flatMap((line, r): Stretch[] => {
    const places = beadsOf(r).flatMap((bead, c) => (bead.slot === slot && c < line.length ? [c] : []))
    if (places.length === 0) return []
    const stretch = { r, places, nth, before }
    nth++
    before += places.length
    return [stretch]
  })
}

/** Which bead of a sequence lies at the k-th place of a stretch. */
function placeIn({ way, numbers }: Sequence, { nth, before }: Pick<Stretch, 'nth' | 'before'>, k: number): number {
  const at = { anew: k, shifted: nth + k, on: before + k, motif: nth }[way]
  return numbers[at % numbers.length]!
}

/** Sequences of more beads than this are told bead by bead. */
const LONGEST = 12

/** The shortest sequence that some beads follow; null where none is short. */
function sequenceOf(lines: readonly (readonly number[])[]): Sequence | null {
  if (lines.length === 0) return null
  let before = 0
  const stretches = lines.map((numbers, nth) => {
    const stretch = { nth, before, numbers }
    before += numbers.length
    return stretch
  })
  const longest = lines.reduce((most, line) => (line.length > most.length ? line : most))
  const flat = lines.flat()
  for (let length = 1; length <= LONGEST; length++)
    for (const way of SEQUENCE_WAYS) {
      const own = { anew: longest, shifted: longest, on: flat, motif: lines.map(([first]) => first!) }[way]
      // A sequence that is shifted may be longer than a motif shows: what it lacks is in the motifs behind.
      const numbers = Array.from({ length }, (_, k) =>
        way === 'shifted' && k >= longest.length ? stretches[k - longest.length + 1]?.numbers.at(-1) : own[k],
      )
      if (numbers.some((n) => n === undefined)) continue
      const sequence: Sequence = { way, numbers: numbers as number[] }
      const follows = stretches.every((stretch) =>
        stretch.numbers.every((number, k) => placeIn(sequence, stretch, k) === number),
      )
      if (follows) return sequence
    }
  return null
}

/** The parts that beads play in a part of lines, in the order in which they are picked up. */
export function laidSlots({ tray }: Pick<Piece, 'tray'>, part: Part): LaidSlot[] {
  if (!requireTechnique(part.technique).picks) return []
  const written = writtenOut(part)
  const known = new Map<string, { called: string; spec: string }>()
  for (const r of written.all.keys())
    for (const { slot, called, spec } of written.beadsOf(r)) if (!known.has(slot)) known.set(slot, { called, spec })
  const specOf = new Map(tray.map((bead) => [bead.number, bead.spec]))
  return [...known].map(([slot, { called, spec }]): LaidSlot => {
    const stretches = stretchesOf(written, slot)
    const counts = new Map<number, number>()
    for (const { r, places } of stretches)
      for (const c of places) {
        const number = written.all[r]![c]!
        counts.set(number, (counts.get(number) ?? 0) + 1)
      }
    const numbers = [...counts].sort((a, b) => b[1] - a[1]).map(([number]) => number)
    const lines = stretches.map(({ r, places }) => places.map((c) => written.all[r]![c]!))
    const inMotifs = stretches.filter(({ r }) => written.isMotif(r))
    return {
      ...{ slot, called, numbers },
      count: stretches.reduce((sum, { places }) => sum + places.length, 0),
      each: (inMotifs[0] ?? stretches[0])?.places.length ?? 0,
      spec: specOf.get(numbers[0] ?? 0) ?? spec,
      sequence: sequenceOf(lines),
    }
  })
}

/** Lays the beads of a slot in a sequence. A repeat is written out as often as the sequence needs to end whole. */
export function sequenceSteps(piece: Piece, part: Part, slot: string, sequence: Sequence): Result<Step[]> {
  const technique = requireTechnique(part.technique)
  if (!technique.picks || sequence.numbers.length === 0) return good([])
  const length = sequence.numbers.length
  const kinds = technique.first?.period?.(part) ?? 1
  // What a stretch of motifs of every kind has of the slot: after how many such stretches the sequence begins again.
  const lines = technique.picks(part, 2 * kinds + 2)
  const own = Array.from({ length: kinds }, (_, m) => lines.motif(kinds + m).filter((b) => b.slot === slot).length)
  const [motifs, beads] = [own.filter((n) => n > 0).length, own.reduce((sum, n) => sum + n, 0)]
  const on = { anew: 0, shifted: motifs, on: beads, motif: motifs }[sequence.way]
  const period = kinds * (on === 0 ? 1 : length / gcd(length, on))
  const rows = Math.max(1, part.repeat.rows)
  if ((rows * period) / gcd(rows, period) > MOST_LINES)
    return bad(
      problem(
        'too-long',
        'sequence',
        `This sequence begins again only after ${(rows * period) / gcd(rows, period)} motifs; the repeat takes at ` +
          `most ${MOST_LINES}. Choose one of fewer beads, or lay it anew in each motif.`,
      ),
    )
  const next = unrolled(part, period)
  const count = { start: next.start.length, repeat: next.repeat.length }
  // The whole part as it will be, to know the place of every line in the order.
  const [start, repeat, end] = [next.start, next.repeat, next.end].map((section) => section.map((line) => [...line]))
  const written = { ...writtenOut(part), all: [...next.start, ...copies(next.repeat, next.times), ...next.end] }
  for (const stretch of stretchesOf(written, slot)) {
    const { r } = stretch
    const inside = r - count.start
    const line =
      inside < 0
        ? start![r]!
        : inside < count.repeat * next.times
          ? inside < count.repeat
            ? repeat![inside]!
            : null
          : end![inside - count.repeat * next.times]!
    if (line) stretch.places.forEach((c, k) => (line[c] = placeIn(sequence, stretch, k)))
  }
  return good(linesSteps(piece, part, { start: start!, repeat: repeat!, end: end!, times: next.times }))
}

const copies = (lines: readonly number[][], times: number): number[][] =>
  Array.from({ length: times }, () => lines).flat()

/**
 * Lays a slot in another size of bead: beads of the tray that lie in no other part become of that size, others stay
 * and get a fellow of that size in the same colour.
 */
export function slotSizeSteps(piece: Piece, part: Part, slot: string, spec: string): Step[] {
  const written = writtenOut(part)
  const own = new Set(stretchesOf(written, slot).flatMap(({ r, places }) => places.map((c) => written.all[r]![c]!)))
  const elsewhere = new Set<number>()
  for (const other of piece.parts)
    if (other.id === part.id)
      written.all.forEach((line, r) => {
        const beads = written.beadsOf(r)
        line.forEach((number, c) => beads[c]?.slot !== slot && elsewhere.add(number))
      })
    else
      for (const section of [other.start, other.repeat, other.end])
        for (const line of linesOf(section)) for (const number of line) elsewhere.add(number)
  const tray: TrayBead[] = [...piece.tray]
  const steps: Step[] = []
  const instead = new Map<number, number>()
  for (const number of own) {
    const bead = piece.tray.find((b) => b.number === number)
    if (!bead || bead.spec === spec) continue
    if (!elsewhere.has(number)) {
      steps.push(setStep(piece, ['tray', number, 'spec'], spec))
      continue
    }
    const fellow = tray.find((b) => b.spec === spec && b.colour === bead.colour && b.finish === bead.finish)
    const put = fellow ?? { ...bead, ...nextOnTray(tray), spec }
    if (!fellow) {
      steps.push({ type: 'tray', do: 'insert', at: tray.length, bead: put })
      tray.push(put)
    }
    instead.set(number, put.number)
  }
  // A part is named by the size that it was begun in, as long as something of it is laid so.
  const others = laidSlots(piece, part).filter((one) => one.slot !== slot)
  if (own.size > 0 && part.spec !== spec && others.every((one) => one.spec !== part.spec))
    steps.push(setStep(piece, ['parts', part.id, 'spec'], spec))
  if (instead.size === 0) return steps
  const { start, repeat, end, times } = unrolled(part, 1)
  const sections = { start, repeat, end }
  const first = { start: 0, repeat: start.length, end: start.length + repeat.length * times }
  for (const name of ['start', 'repeat', 'end'] as const)
    sections[name] = sections[name].map((line, k) => {
      const beads = written.beadsOf(first[name] + k)
      return line.map((number, c) => (beads[c]?.slot === slot ? (instead.get(number) ?? number) : number))
    })
  return [...steps, ...linesSteps(piece, part, { ...sections, times })]
}
