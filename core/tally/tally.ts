import { placeOfKey } from '../grid/key'
import { requireSpec } from '../bead/spec'
import type { TrayBead } from '../bead/bead'
import type { Lines } from '../grid/lines'
import { joinNumbers } from '../piece/join'
import {
  columnsOf,
  isGrid,
  partRow,
  rowsOf,
  SECTIONS,
  sectionStart,
  techniqueOf,
  voidsOf,
  type Part,
  type Piece,
  type SectionName,
} from '../piece/piece'

/** Beads by tray number; empty cells are not counted. */
export type Counts = ReadonlyMap<number, number>

function countBlock(block: Uint16Array): Counts {
  let most = 0
  for (let i = 0; i < block.length; i++) if (block[i]! > most) most = block[i]!
  const bins = new Uint32Array(most + 1)
  for (let i = 0; i < block.length; i++) bins[block[i]!]!++
  const counts = new Map<number, number>()
  for (let n = 1; n <= most; n++) if (bins[n]! > 0) counts.set(n, bins[n]!)
  return counts
}

/**
 * Blocks never change once they are in a document, so each is counted once; an edit brings only the blocks it copied.
 */
const counted = new WeakMap<Uint16Array, Counts>()

function addCounts(into: Map<number, number>, counts: Counts, times = 1): void {
  if (times === 0) return
  for (const [number, count] of counts) into.set(number, (into.get(number) ?? 0) + count * times)
}

/** From scratch, cell by cell: the twin that the incremental count is tested against. */
export function countCellsAfresh(cells: Lines): Counts {
  const out = new Map<number, number>()
  for (const block of cells.blocks) addCounts(out, countBlock(block))
  return out
}

export function countCells(cells: Lines): Counts {
  const out = new Map<number, number>()
  for (const block of cells.blocks) {
    let counts = counted.get(block)
    if (!counts) {
      counts = countBlock(block)
      counted.set(block, counts)
    }
    addCounts(out, counts)
  }
  return out
}

export const totalOf = (counts: Counts): number => {
  let total = 0
  for (const count of counts.values()) total += count
  return total
}

/** Cells that the stitch has no bead for lie in no row: what is kept in them, in rows [from, to), does not count. */
function withoutVoids(part: Part, counts: Map<number, number>, from: number, to: number): Counts {
  const columns = columnsOf(part)
  // Behind the end of a line nothing is kept.
  for (const key of isGrid(part) ? voidsOf(part) : []) {
    const { c, r } = placeOfKey(columns, key)
    if (r < from || r >= to) continue
    const number = partRow(part, r)[c]!
    const left = (counts.get(number) ?? 0) - 1
    if (number !== 0 && left > 0) counts.set(number, left)
    else counts.delete(number)
  }
  return counts
}

/** Beads of a part: the sections once, the repeat as often as it is worked, without walking the copies. */
export function tallyPart(part: Part): Counts {
  const out = new Map<number, number>()
  for (const section of SECTIONS) addCounts(out, countCells(part[section]), section === 'repeat' ? part.times : 1)
  return withoutVoids(part, out, 0, rowsOf(part))
}

/** Beads of one section; of the repeat, those of a copy that another row follows. */
export function tallySection(part: Part, section: SectionName): Counts {
  if (section === 'repeat') return countCells(part.repeat)
  const from = sectionStart(part, section)
  return withoutVoids(part, new Map(countCells(part[section])), from, from + part[section].rows)
}

/** Beads that only joining the ends of the piece asks for; none where a closure opens it. */
export function tallyJoin(piece: Pick<Piece, 'fit' | 'parts'>): Counts {
  const out = new Map<number, number>()
  for (const part of piece.parts) for (const number of joinNumbers(piece, part)) addCounts(out, new Map([[number, 1]]))
  return out
}

/** Beads of the whole piece, those that join its ends included; crossings of plain cords are none. */
export function tallyPiece(piece: Pick<Piece, 'fit' | 'parts'>): Counts {
  const out = new Map<number, number>()
  for (const part of piece.parts.filter((p) => techniqueOf(p).material.counted)) addCounts(out, tallyPart(part))
  addCounts(out, tallyJoin(piece))
  return out
}

/** In how many places of the piece a bead (or a cord) of the tray lies, whatever it is made of. */
export const usesOf = (piece: Pick<Piece, 'parts'>, number: number): number =>
  piece.parts.reduce((sum, part) => sum + (tallyPart(part).get(number) ?? 0), 0)

interface BeadCount {
  readonly bead: TrayBead
  readonly count: number
  readonly grams: number
}

/** Counts in tray order with their weight; beads of the tray that are not used are listed with 0. */
export function beadCounts(tray: readonly TrayBead[], counts: Counts): BeadCount[] {
  return tray.map((bead) => {
    const count = counts.get(bead.number) ?? 0
    return { bead, count, grams: count / requireSpec(bead.spec).perGram }
  })
}

interface SizeCount {
  readonly spec: string
  readonly count: number
  readonly grams: number
}

/** Counts by shape and size, colours together. */
export function sizeCounts(tray: readonly TrayBead[], counts: Counts): SizeCount[] {
  const sizes = new Map<string, SizeCount>()
  for (const { bead, count, grams } of beadCounts(tray, counts)) {
    if (count === 0) continue
    const so = sizes.get(bead.spec) ?? { spec: bead.spec, count: 0, grams: 0 }
    sizes.set(bead.spec, { spec: bead.spec, count: so.count + count, grams: so.grams + grams })
  }
  return [...sizes.values()]
}
