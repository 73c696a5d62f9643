import { discOf, ropeOf } from '../piece/nature'
import { cellAt, cellsFrom, flatten, type Cells } from '../grid/cells'
import { columnOfKey, keyOf, rowOfKey } from '../grid/key'
import { modulo } from '../modulo'
import { insertRowsStep, layingSteps, removeRowsStep, setStep, type Laying } from '../piece/edit'
import { asGrid, columnsOf, rowsOf, sectionStart, type Part, type Piece } from '../piece/piece'
import { LIMITS } from '../piece/schema'
import { replaceGridSteps } from '../piece/recast'
import type { Step } from '../piece/step'
import type { RopeMove, RopeSurface } from '../technique/disc'
import { loadingCells, loadingRounds, type LoadingWish } from './loading'

/**
 * Moves the colours of the repeat round or along the rope. The repeat is taken as endless, so its copies move with it;
 * each of the three carries every bead onto a bead. A rope whose surface is not known is moved along only.
 */
export function ropeMoveSteps(part: Part, move: RopeMove): Step[] {
  const strands = columnsOf(part)
  const { repeat } = asGrid(part)
  const from = sectionStart(part, 'repeat')
  const rope = ropeOf(part)
  const laying = new Map<number, number>()
  if (part.times === 0) return []
  for (let k = 0; k < repeat.rows; k++) {
    for (let s = 0; s < strands; s++) {
      const to = rope ? rope.moved({ s, k }, move) : { s, k: k + 1 }
      laying.set(keyOf(strands, to.s, from + modulo(to.k, repeat.rows)), cellAt(repeat, s, k))
    }
  }
  return layingSteps(part, laying)
}

/**
 * The mirror image of a rope, which is worked the other way: the strand in slot x becomes that in slot N
 * + 1 − x, in every section. Done twice it is as before.
 */
export function mirrorRopeSteps(piece: Piece, part: Part): Step[] {
  const [disc, rope] = [discOf(part), ropeOf(part)]
  if (!disc || !rope) return []
  const { settings } = rope.mirror
  const [here, there] = [disc.plan(part.settings), disc.plan(settings)]
  const strands = columnsOf(part)
  const image = here.load.map((slot) => there.load.indexOf(here.slots + 1 - slot))
  const laying = new Map<number, number>()
  const mirrored = (cells: Cells, from: number) => {
    for (let k = 0; k < cells.rows; k++)
      for (let s = 0; s < strands; s++) laying.set(keyOf(strands, image[s]!, from + k), cellAt(cells, s, k))
  }
  const { start, repeat, end } = asGrid(part)
  mirrored(start, 0)
  if (part.times > 0) mirrored(repeat, sectionStart(part, 'repeat'))
  mirrored(end, sectionStart(part, 'end'))
  return [...layingSteps(part, laying), setStep(piece, ['parts', part.id, 'settings'], settings)]
}

/** Lays a loading as the whole rope: as many of its rounds as the part has now, in whole repeats. */
export function loadingSteps(
  piece: Piece,
  part: Part,
  rope: RopeSurface,
  wish: LoadingWish,
): { readonly steps: Step[]; readonly rounds: number; readonly times: number } {
  const strands = columnsOf(part)
  const rounds = loadingRounds(wish, rope)
  const times = Math.max(1, Math.min(LIMITS.times, Math.round(rowsOf(part) / rounds)))
  const { steps, id } = replaceGridSteps(
    piece,
    part,
    { columns: strands, rows: rounds, numbers: loadingCells(wish, rounds, strands, rope) },
    part.technique,
    part.settings,
  )
  return {
    steps: times > 1 ? [...steps, { type: 'set', path: ['parts', id, 'times'], before: 1, after: times }] : steps,
    rounds,
    times,
  }
}

interface GraduationWish {
  /** Tray numbers: what the ends are made of, and what grows out of it. */
  readonly main: number
  readonly accent: number
  /** Rounds of the main bead before the first accent. */
  readonly plainRounds: number
  /** Rounds from one more strand with accents to the next. */
  readonly eachRounds: number
}

/**
 * Strands in an order that spreads them round the rope: the first half against the second, quarter against quarter.
 */
export function spreadStrands(strands: number): number[] {
  const left = Array.from({ length: strands }, (_, s) => s)
  const out: number[] = []
  while (left.length > 0) {
    // The strand furthest, round the ring, from those chosen already.
    const far = (s: number) =>
      Math.min(strands, ...out.map((o) => Math.min(modulo(s - o, strands), modulo(o - s, strands))))
    const next = left.reduce((best, s) => (far(s) > far(best) ? s : best), left[0]!)
    out.push(next)
    left.splice(left.indexOf(next), 1)
  }
  return out
}

/**
 * A graduation, row-major: rounds of the main bead, then one strand after the other takes the accent, until all have
 * it.
 */
function graduationCells(
  { main, accent, plainRounds, eachRounds }: GraduationWish,
  strands: number,
): { readonly rounds: number; readonly numbers: number[] } {
  const order = spreadStrands(strands)
  const rounds = plainRounds + strands * eachRounds
  const since = new Map(order.map((s, j) => [s, plainRounds + j * eachRounds]))
  return {
    rounds,
    numbers: Array.from({ length: rounds * strands }, (_, key) =>
      rowOfKey(strands, key) >= since.get(columnOfKey(strands, key))! ? accent : main,
    ),
  }
}

/**
 * Steps that make start and end of a braid a graduation toward its middle, the end in reverse; the repeat between
 * stays as it is.
 */
export function graduationSteps(part: Part, wish: GraduationWish): Step[] {
  const strands = columnsOf(part)
  const { rounds, numbers } = graduationCells(wish, strands)
  const up = cellsFrom(strands, rounds, numbers)
  const down = cellsFrom(
    strands,
    rounds,
    Array.from(
      { length: rounds * strands },
      (_, key) => numbers[keyOf(strands, columnOfKey(strands, key), rounds - 1 - rowOfKey(strands, key))]!,
    ),
  )
  const replaced = (section: 'start' | 'end', cells: Cells): Step[] => [
    ...(part[section].rows > 0 ? [removeRowsStep(part, section, 0, part[section].rows)] : []),
    insertRowsStep({ ...part, [section]: cellsFrom(strands, 0, []) }, section, 0, rounds, flatten(cells)),
  ]
  return [...replaced('start', up), ...replaced('end', down)]
}

/**
 * Lays one bead in so many neighbouring lines of the rope: the side that faces the wrist, made flat and smooth with
 * it.
 */
export function wristSideLaying(part: Part, number: number, lines: number): Laying {
  const laying = new Map<number, number>()
  const rope = ropeOf(part)
  if (!rope) return laying
  const strands = columnsOf(part)
  for (let k = 0; k < rowsOf(part); k++) {
    for (let s = 0; s < strands; s++) {
      if (rope.line({ s, k }) < Math.min(lines, rope.lines)) laying.set(keyOf(strands, s, k), number)
    }
  }
  return laying
}
