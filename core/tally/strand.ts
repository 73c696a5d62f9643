import { modulo } from '../modulo'
import { discOf } from '../piece/nature'
import { keyOf } from '../grid/key'
import type { TrayBead } from '../bead/bead'
import type { Laying } from '../piece/edit'
import { requireSpec } from '../bead/spec'
import { latticeOf } from '../piece/drawing'
import { neighbourOffsets, siteOf } from '../technique/lattice'
import { tallyPart } from './tally'
import { laidOf } from '../piece/laid'
import {
  columnsOf,
  isInside,
  numberAt,
  partRow,
  rowsOf,
  sectionStart,
  techniqueOf,
  trayByNumber,
  type Part,
  type Piece,
  type SectionName,
} from '../piece/piece'
import { bad, good, problem, type Result } from '../problem'

/**
 * What to string on one strand: runs of beads, in the order in which they are used; the first lies nearest the centre.
 */
interface StrandList {
  /** Bobbin number, from 1. */
  readonly bobbin: number
  /** Slot in which the strand is loaded. */
  readonly slot: number
  /** Where that lies on the disc. */
  readonly place: string
  readonly runs: readonly { readonly number: number; readonly count: number }[]
  readonly beads: number
}

/**
 * Sides of the disc as it lies before one, clockwise from the top, each with its half before the dot and its half
 * behind it.
 */
const SIDES = [
  ['top left', 'top right'],
  ['right upper', 'right lower'],
  ['bottom right', 'bottom left'],
  ['left lower', 'left upper'],
] as const

/**
 * Where a slot lies on the disc, as it is seen and as the moves name it: the dot that it lies beside, and on which
 * side of it.
 */
export function placeOfSlot(slot: number, slots: number): string {
  const turn = ((slot - 0.5) / slots) * 4
  return SIDES[Math.round(turn) % 4]![turn > Math.round(turn) ? 1 : 0]
}

/** Lists of all strands of a braid, of the whole part or of one section (one repeat of it); empty for other work. */
export function strandLists(grid: Part, section?: SectionName): StrandList[] {
  const { disc } = techniqueOf(grid)
  if (!disc) return []
  // Of the whole braid, what is laid; of a section, every round of it, as it is typed.
  const part = section ? grid : laidOf(grid).part
  const plan = disc.plan(part.settings)
  const from = section ? sectionStart(part, section) : 0
  const until = section ? from + (section === 'repeat' && part.times === 0 ? 0 : part[section].rows) : rowsOf(part)
  // Round by round, all strands at once: a round is one row of the grid.
  const strands = plan.load.map((slot, s) => ({
    bobbin: s + 1,
    slot,
    place: placeOfSlot(slot, plan.slots),
    runs: [] as { number: number; count: number }[],
    beads: 0,
  }))
  for (let r = from; r < until; r++) {
    const row = partRow(part, r)
    for (let s = 0; s < strands.length; s++) {
      const { runs } = strands[s]!
      const last = runs[runs.length - 1]
      if (last && last.number === row[s]) last.count++
      else runs.push({ number: row[s]!, count: 1 })
      if (row[s] !== 0) strands[s]!.beads++
    }
  }
  return strands
}

interface StrandTrouble {
  readonly bobbin: number
  readonly more: number
}

/** Strands that carry more or fewer beads than most: the braid would stop early at them. */
export function unevenStrands(lists: readonly StrandList[]): StrandTrouble[] {
  const counts = new Map<number, number>()
  for (const { beads } of lists) counts.set(beads, (counts.get(beads) ?? 0) + 1)
  const usual = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0
  return lists.flatMap(({ bobbin, beads }) => (beads === usual ? [] : [{ bobbin, more: beads - usual }]))
}

/** More stops than these are not told one by one. */
const MOST_STOPS = 6

/**
 * What shaped beads ask of the stringing: drops must face one way, and a bead with two holes joins two strands, so
 * that the lists of both stop there. The strand that it takes besides is the one that lays the next bead beside it.
 */
export function shapeNotes(piece: Pick<Piece, 'tray'>, part: Part): string[] {
  if (!discOf(part)) return []
  const notes: string[] = []
  const counts = tallyPart(part)
  const used = piece.tray
    .filter((b) => (counts.get(b.number) ?? 0) > 0)
    .map((b) => ({ bead: b, spec: requireSpec(b.spec) }))
  const drops = used.filter((u) => u.spec.hangs !== undefined)
  if (drops.length > 0)
    notes.push(
      `${drops.map((u) => u.bead.letter).join(' and ')}: thread every drop from the same side, so that they ` +
        'all face the same way.',
    )
  const joining = new Map(used.filter((u) => u.spec.spacing !== undefined).map((u) => [u.bead.number, u.bead]))
  if (joining.size === 0) return notes
  const lattice = latticeOf(part)
  const stops: string[] = []
  for (let k = 0; k < rowsOf(part); k++) {
    for (const [s, number] of partRow(part, k).entries()) {
      const bead = joining.get(number)
      if (!bead) continue
      const next = neighbourOffsets(lattice, s, k)
        .filter((o) => isInside(part, { c: modulo(s + o.c, columnsOf(part)), r: k + o.r }))
        .map((o) => ({
          ...o,
          later: o.r * lattice.pitchY + siteOf(lattice, s + o.c, k + o.r).dy - siteOf(lattice, s, k).dy,
        }))
        .filter((o) => o.later > 1e-9)
        .sort((a, b) => a.later - b.later)[0]
      if (!next) continue
      const other = modulo(s + next.c, columnsOf(part))
      const left =
        numberAt(part, other, k + next.r) === 0
          ? ''
          : `; leave the place of strand ${other + 1} beside it empty, since the same bead fills it`
      stops.push(
        `Strand ${s + 1} stops after ${k} ${k === 1 ? 'bead' : 'beads'}: ${bead.letter} has two holes and ` +
          `takes strand ${other + 1} as well. String strand ${other + 1} only up to there, and go on when both ` +
          `are through${left}.`,
      )
    }
  }
  notes.push(...stops.slice(0, MOST_STOPS))
  if (stops.length > MOST_STOPS)
    notes.push(
      `And ${stops.length - MOST_STOPS} more beads with two holes: string section by section, each ending at ` +
        'such a bead.',
    )
  return notes
}

/** A strand's list in words: `3A 1B 2C`. */
export function strandWords(list: Pick<StrandList, 'runs'>, tray: readonly TrayBead[], reversed = false): string {
  const letters = trayByNumber(tray)
  const runs = reversed ? list.runs.toReversed() : list.runs
  return runs
    .map(({ number, count }) => `${count}${number === 0 ? '–' : (letters.get(number)?.letter ?? '?')}`)
    .join(' ')
}

/** A longer list than this is a slip. */
const MOST_TYPED = 20_000

/** Reads a typed list such as `3A 1B`: tray numbers, one for each bead. `where` names the field. */
export function readBeads(tray: readonly TrayBead[], text: string, where: string): Result<number[]> {
  const byLetter = new Map(tray.map((b) => [b.letter, b.number]))
  const numbers: number[] = []
  for (const word of text
    .trim()
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean)) {
    const match = /^(\d*)([A-Z]{1,2}|[–-])$/.exec(word)
    const number = match ? (/[–-]/.test(match[2]!) ? 0 : byLetter.get(match[2]!)) : undefined
    if (!match || number === undefined)
      return bad(
        problem(
          'strand-unread',
          where,
          `“${word}” is not a count and a letter of the tray. Type the list like 3A 1B.`,
        ),
      )
    const count = match[1] === '' ? 1 : Number(match[1])
    if (count < 1 || numbers.length + count > MOST_TYPED)
      return bad(problem('strand-unread', where, `“${word}” is no count that can be.`))
    for (let k = 0; k < count; k++) numbers.push(number)
  }
  return good(numbers)
}

/**
 * Reads a typed list such as `3A 1B 2C` for one strand of a section: exactly as many beads as the section has rounds.
 * Returns what is to be laid in the whole part, in the first copy of a repeat.
 */
export function readStrand(
  piece: Piece,
  part: Part,
  section: SectionName,
  bobbin: number,
  text: string,
): Result<Laying> {
  const read = readBeads(piece.tray, text, String(bobbin))
  if (!read.ok) return read
  const numbers = read.value
  const rounds = part[section].rows
  if (numbers.length !== rounds)
    return bad(
      problem(
        'strand-count',
        String(bobbin),
        `Strand ${bobbin} has ${numbers.length} beads, ${Math.abs(numbers.length - rounds)} ` +
          `${numbers.length > rounds ? 'more' : 'fewer'} than the ${rounds} rounds of this section. Every ` +
          'strand must carry the same.',
      ),
    )
  const from = sectionStart(part, section)
  const columns = columnsOf(part)
  return good(new Map(numbers.map((number, k) => [keyOf(columns, bobbin - 1, from + k), number])))
}
