import { discOf } from '../piece/nature'
import { cellAt, cellsFrom, flatten, type Cells } from '../grid/cells'
import { keyOf } from '../grid/key'
import { insertRowsStep, layingSteps, removeRowsStep, setStep, type Laying } from '../piece/edit'
import { asGrid, columnsOf, rowsOf, sectionStart, techniqueOf, type Part, type Piece } from '../piece/piece'
import { LIMITS } from '../piece/schema'
import { replaceGridSteps } from '../piece/recast'
import type { Step } from '../piece/step'
import type { School } from '../technique/braid/plan'
import { beadAt, lineOf, linesOf, modulo, spotOf } from '../technique/braid/surface'
import { loadingCells, loadingRounds, type LoadingWish } from './loading'

/** Whether a part is one of the round braids, whose surface is known in closed form. */
export const isRoundBraid = (part: Part): boolean => roundSchool(part) !== null

const roundSchool = (part: Part): School | null => discOf(part)?.round(part.settings) ?? null

const schoolOf = (part: Part): School => roundSchool(part) ?? 'A'

/**
 * What a rope can be moved by onto itself: half round, along by a round, or along by one step and on by one column.
 */
export type RopeMove = 'half turn' | 'along' | 'screw'

/**
 * Moves the colours of the repeat round or along the rope. The repeat is taken as endless, so its copies move with it;
 * each of the three carries every bead onto a bead.
 */
export function ropeMoveSteps(part: Part, move: RopeMove): Step[] {
  const strands = columnsOf(part)
  const { repeat } = asGrid(part)
  const from = sectionStart(part, 'repeat')
  const laying = new Map<number, number>()
  if (part.times === 0) return []
  for (let k = 0; k < repeat.rows; k++) {
    for (let s = 0; s < strands; s++) {
      const to = movedTo(s, k, strands, schoolOf(part), move, isRoundBraid(part))
      laying.set(keyOf(strands, to.s, from + modulo(to.k, repeat.rows)), cellAt(repeat, s, k))
    }
  }
  return layingSteps(part, laying)
}

function movedTo(
  s: number,
  k: number,
  strands: number,
  school: School,
  move: RopeMove,
  round: boolean,
): { s: number; k: number } {
  if (move === 'along' || !round) return { s, k: k + 1 }
  const spot = spotOf(s, k, strands, school)
  const [dr, dc] = move === 'half turn' ? [0, strands / 4] : [1, school === 'A' ? 1 : -1]
  return beadAt({ row: spot.row + dr, col: modulo(spot.col + dc, strands / 2) }, strands, school)!
}

/**
 * The mirror image of a round braid, which is worked by the other school: the strand in slot x becomes that in slot N
 * + 1 − x, in every section. Done twice it is as before.
 */
export function mirrorRopeSteps(piece: Piece, part: Part): Step[] {
  const { disc } = techniqueOf(part)
  if (!disc || !isRoundBraid(part)) return []
  const settings = { ...part.settings, school: schoolOf(part) === 'A' ? 'B' : 'A' }
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

/** Lays a loading as the whole braid: as many of its rounds as the part has now, in whole repeats. */
export function loadingSteps(
  piece: Piece,
  part: Part,
  wish: LoadingWish,
): { readonly steps: Step[]; readonly rounds: number; readonly times: number } {
  const strands = columnsOf(part)
  const rounds = loadingRounds(wish, strands)
  const times = Math.max(1, Math.min(LIMITS.times, Math.round(rowsOf(part) / rounds)))
  const { steps, id } = replaceGridSteps(
    piece,
    part,
    { columns: strands, rows: rounds, numbers: loadingCells(wish, rounds, strands, schoolOf(part)) },
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
      Math.floor(key / strands) >= since.get(key % strands)! ? accent : main,
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
      (_, key) => numbers[(rounds - 1 - Math.floor(key / strands)) * strands + (key % strands)]!,
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
  if (!isRoundBraid(part)) return laying
  const strands = columnsOf(part)
  for (let k = 0; k < rowsOf(part); k++) {
    for (let s = 0; s < strands; s++) {
      if (lineOf(spotOf(s, k, strands, schoolOf(part)), strands, schoolOf(part)) < Math.min(lines, linesOf(strands)))
        laying.set(keyOf(strands, s, k), number)
    }
  }
  return laying
}
