import { BLOCK_ROWS, cellAt, insertRows, removeRows, rowAt, withCells, type Cells } from './cells'
import { columnOfKey, keyOf, rowOfKey } from './key'

/**
 * Lines of their own lengths, each a list of tray numbers (0 = no bead): the strands of a fringe, rungs, rows on wire,
 * the beads that one motif picks up. An immutable value, in blocks of a few dozen lines like the cells of a grid.
 *
 * A slot is known by its line r and its place c in it, and has two numbers: its *key* in the part written out
 * (grid/key.ts, counted as if every line were as long as the longest), by which tools and views speak of it, and its
 * *index* in what is kept, line after line without room between, by which patches do.
 */
export interface Ragged {
  /** Places of the longest line; 1 where there is none. */
  readonly columns: number
  /** Lines. */
  readonly rows: number
  readonly blocks: readonly Uint16Array[]
  /** Index behind the last place of each line. */
  readonly ends: Uint32Array
}

/** What a section keeps: the cells of a grid, or lines of their own lengths. */
export type Lines = Cells | Ragged

export const isRagged = (lines: Lines): lines is Ragged => lines.ends !== undefined

/** Lines from the numbers of each; they are copied. */
export function raggedFrom(lines: readonly ArrayLike<number>[]): Ragged {
  const ends = new Uint32Array(lines.length)
  let [end, columns] = [0, 1]
  for (const [r, line] of lines.entries()) {
    end += line.length
    ends[r] = end
    columns = Math.max(columns, line.length)
  }
  const blocks: Uint16Array[] = []
  for (let from = 0; from < lines.length; from += BLOCK_ROWS) {
    const base = from === 0 ? 0 : ends[from - 1]!
    const block = new Uint16Array(ends[Math.min(lines.length, from + BLOCK_ROWS) - 1]! - base)
    for (let r = from; r < lines.length && r < from + BLOCK_ROWS; r++)
      block.set(lines[r]!, (r === 0 ? 0 : ends[r - 1]!) - base)
    blocks.push(block)
  }
  return { columns, rows: lines.length, blocks, ends }
}

const startOf = ({ ends }: Ragged, r: number): number => (r === 0 ? 0 : ends[r - 1]!)

/** Places that line r has. */
export const lineLength = (lines: Lines, r: number): number =>
  isRagged(lines) ? lines.ends[r]! - startOf(lines, r) : lines.columns

/** Places that are kept, all lines together. */
export const slotCount = (lines: Lines): number =>
  isRagged(lines) ? startOf(lines, lines.rows) : lines.columns * lines.rows

/** One line as a view: do not write to it. */
export function lineAt(lines: Lines, r: number): Uint16Array {
  if (!isRagged(lines)) return rowAt(lines, r)
  const base = startOf(lines, r - (r % BLOCK_ROWS))
  return lines.blocks[Math.floor(r / BLOCK_ROWS)]!.subarray(startOf(lines, r) - base, lines.ends[r]! - base)
}

/** All lines as views, in order. */
export const linesOf = (lines: Lines): Uint16Array[] => Array.from({ length: lines.rows }, (_, r) => lineAt(lines, r))

/** Index of the slot at place c of line r; both must lie inside. */
export const indexOf = (lines: Lines, c: number, r: number): number =>
  isRagged(lines) ? startOf(lines, r) + c : keyOf(lines.columns, c, r)

/** Line of an index: the first that ends behind it. */
function lineOfIndex({ ends }: Ragged, index: number): number {
  let [low, high] = [0, ends.length]
  while (low < high) {
    const middle = (low + high) >>> 1
    if (ends[middle]! > index) high = middle
    else low = middle + 1
  }
  return low
}

/** Place and line of an index, which must lie inside. */
export function placeOfIndex(lines: Lines, index: number): { readonly c: number; readonly r: number } {
  if (!isRagged(lines)) return { c: columnOfKey(lines.columns, index), r: rowOfKey(lines.columns, index) }
  const r = lineOfIndex(lines, index)
  return { c: index - startOf(lines, r), r }
}

/** The tray number at place c of line r; both must lie inside. */
export const numberIn = (lines: Lines, c: number, r: number): number =>
  isRagged(lines) ? lineAt(lines, r)[c]! : cellAt(lines, c, r)

/** The tray number at an index, which must lie inside. */
export function numberAtIndex(lines: Lines, index: number): number {
  if (!isRagged(lines)) {
    const size = BLOCK_ROWS * lines.columns
    return lines.blocks[Math.floor(index / size)]![index % size]!
  }
  const { c, r } = placeOfIndex(lines, index)
  return lineAt(lines, r)[c]!
}

/** The same lines with some numbers replaced. `write` gets a function that sets the number at an index. */
export function withNumbers<L extends Lines>(
  lines: L,
  write: (set: (index: number, number: number) => void) => void,
): L {
  if (!isRagged(lines)) return withCells(lines, write) as L
  const blocks = lines.blocks.slice()
  const fresh = new Set<number>()
  const size = slotCount(lines)
  write((index, number) => {
    if (index < 0 || index >= size) throw new RangeError(`index ${index} lies outside ${size} places`)
    const at = Math.floor(lineOfIndex(lines, index) / BLOCK_ROWS)
    if (!fresh.has(at)) {
      blocks[at] = blocks[at]!.slice()
      fresh.add(at)
    }
    blocks[at]![index - startOf(lines, at * BLOCK_ROWS)] = number
  })
  return fresh.size === 0 ? lines : { ...lines, blocks }
}

/** New lines with some put in before line `at`; into a grid only rows of its own width. */
export function insertLines<L extends Lines>(lines: L, at: number, inserted: readonly ArrayLike<number>[]): L {
  if (!isRagged(lines)) {
    const flat = Uint16Array.from(inserted.flatMap((line) => Array.from(line)))
    if (inserted.some((line) => line.length !== lines.columns))
      throw new RangeError(`rows of a grid must hold ${lines.columns} numbers each`)
    return insertRows(lines, at, flat) as L
  }
  return raggedFrom(linesOf(lines).toSpliced(at, 0, ...inserted.map((line) => Uint16Array.from(line)))) as Lines as L
}

export function removeLines<L extends Lines>(lines: L, at: number, count: number): L {
  if (!isRagged(lines)) return removeRows(lines, at, count) as L
  return raggedFrom(linesOf(lines).toSpliced(at, count)) as Lines as L
}

/** New lines with numbers put into line r before its place c. */
export function insertSlots(lines: Ragged, r: number, c: number, numbers: ArrayLike<number>): Ragged {
  const line = Array.from(lineAt(lines, r))
  return raggedFrom(linesOf(lines).with(r, Uint16Array.from(line.toSpliced(c, 0, ...Array.from(numbers)))))
}

export function removeSlots(lines: Ragged, r: number, c: number, count: number): Ragged {
  const line = Array.from(lineAt(lines, r))
  return raggedFrom(linesOf(lines).with(r, Uint16Array.from(line.toSpliced(c, count))))
}

/**
 * Lines of one number to be put in before line `at`: as long as the line that they come to lie behind, or before where
 * there is none; of `usual` places among no lines.
 */
export function plainLines(lines: Lines, at: number, count: number, number: number, usual: number): Uint16Array[] {
  const beside = at > 0 ? at - 1 : at
  const length = lines.rows === 0 ? usual : lineLength(lines, beside)
  return Array.from({ length: count }, () => new Uint16Array(length).fill(number))
}
