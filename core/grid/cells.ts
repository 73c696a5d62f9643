import { keyOf } from './key'

/**
 * The cells of one section of a weave: `columns` across, `rows` along, each a tray number (0 = no bead).
 * An immutable value: rows are kept in blocks of a few dozen, and an edit copies only the blocks that it touches,
 * so a stroke on a million beads costs a few kilobytes. Two bytes a cell.
 */
export interface Cells {
  readonly columns: number
  readonly rows: number
  readonly blocks: readonly Uint16Array[]
  /** Lines of their own lengths have ends (lines.ts); rows of a grid are all as long as it is wide. */
  readonly ends?: undefined
}

/** Rows in a block; the last block may hold fewer. */
export const BLOCK_ROWS = 64

function assertSize(columns: number, rows: number): void {
  if (!Number.isInteger(columns) || columns < 1)
    throw new RangeError(`columns must be a whole number of at least 1, not ${columns}`)
  if (!Number.isInteger(rows) || rows < 0)
    throw new RangeError(`rows must be a whole number of at least 0, not ${rows}`)
}

function cut(columns: number, rows: number, flat: Uint16Array): Cells {
  const blocks: Uint16Array[] = []
  const size = BLOCK_ROWS * columns
  for (let at = 0; at < flat.length; at += size) blocks.push(flat.slice(at, at + size))
  return { columns, rows, blocks }
}

export function emptyCells(columns: number, rows: number, number = 0): Cells {
  assertSize(columns, rows)
  return cut(columns, rows, new Uint16Array(columns * rows).fill(number))
}

/** Cells from one row-major array of columns × rows tray numbers; the array is copied. */
export function cellsFrom(columns: number, rows: number, flat: ArrayLike<number>): Cells {
  assertSize(columns, rows)
  if (flat.length !== columns * rows)
    throw new RangeError(`${columns} × ${rows} cells need ${columns * rows} numbers, not ${flat.length}`)
  return cut(columns, rows, Uint16Array.from(flat))
}

/** All cells in one row-major array (a copy). */
export function flatten(cells: Cells): Uint16Array {
  const flat = new Uint16Array(cells.columns * cells.rows)
  let at = 0
  for (const block of cells.blocks) {
    flat.set(block, at)
    at += block.length
  }
  return flat
}

/** The tray number at column c, row r; both must lie inside. */
export function cellAt(cells: Cells, c: number, r: number): number {
  return cells.blocks[Math.floor(r / BLOCK_ROWS)]![keyOf(cells.columns, c, r % BLOCK_ROWS)]!
}

/** One row as a view: do not write to it. */
export function rowAt(cells: Cells, r: number): Uint16Array {
  const from = (r % BLOCK_ROWS) * cells.columns
  return cells.blocks[Math.floor(r / BLOCK_ROWS)]!.subarray(from, from + cells.columns)
}

/** The same cells with some replaced. `write` gets a function that sets the cell at a row-major index. */
export function withCells(cells: Cells, write: (set: (index: number, number: number) => void) => void): Cells {
  const size = BLOCK_ROWS * cells.columns
  const blocks = cells.blocks.slice()
  const fresh = new Set<number>()
  write((index, number) => {
    const at = Math.floor(index / size)
    if (!fresh.has(at)) {
      const block = blocks[at]
      if (!block) throw new RangeError(`index ${index} lies outside ${cells.columns} × ${cells.rows} cells`)
      blocks[at] = block.slice()
      fresh.add(at)
    }
    blocks[at]![index - at * size] = number
  })
  return fresh.size === 0 ? cells : { ...cells, blocks }
}

/** New cells with `rows` (row-major, a whole number of rows) put in before row `at`. */
export function insertRows(cells: Cells, at: number, rows: Uint16Array): Cells {
  const flat = flatten(cells)
  const split = at * cells.columns
  const next = new Uint16Array(flat.length + rows.length)
  next.set(flat.subarray(0, split))
  next.set(rows, split)
  next.set(flat.subarray(split), split + rows.length)
  return cut(cells.columns, cells.rows + rows.length / cells.columns, next)
}

export function removeRows(cells: Cells, at: number, count: number): Cells {
  const flat = flatten(cells)
  const next = new Uint16Array(flat.length - count * cells.columns)
  next.set(flat.subarray(0, at * cells.columns))
  next.set(flat.subarray((at + count) * cells.columns), at * cells.columns)
  return cut(cells.columns, cells.rows - count, next)
}

/** The rectangle of `columns` × `rows` cells from (c, r), row-major. */
export function copyBox(cells: Cells, c: number, r: number, columns: number, rows: number): Uint16Array {
  const out = new Uint16Array(columns * rows)
  for (let i = 0; i < rows; i++) out.set(rowAt(cells, r + i).subarray(c, c + columns), i * columns)
  return out
}

/** New cells with `inserted` (row-major, count × rows) put in before column `at`. */
export function insertColumns(cells: Cells, at: number, count: number, inserted: Uint16Array): Cells {
  const columns = cells.columns + count
  const next = new Uint16Array(columns * cells.rows)
  for (let r = 0; r < cells.rows; r++) {
    const row = rowAt(cells, r)
    next.set(row.subarray(0, at), r * columns)
    next.set(inserted.subarray(r * count, (r + 1) * count), keyOf(columns, at, r))
    next.set(row.subarray(at), keyOf(columns, at + count, r))
  }
  return cut(columns, cells.rows, next)
}

export function removeColumns(cells: Cells, at: number, count: number): Cells {
  const columns = cells.columns - count
  const next = new Uint16Array(columns * cells.rows)
  for (let r = 0; r < cells.rows; r++) {
    const row = rowAt(cells, r)
    next.set(row.subarray(0, at), r * columns)
    next.set(row.subarray(at + count), keyOf(columns, at, r))
  }
  return cut(columns, cells.rows, next)
}

export function sameCells(a: Cells, b: Cells): boolean {
  return (
    a.columns === b.columns &&
    a.rows === b.rows &&
    a.blocks.every((block, i) => {
      const other = b.blocks[i]!
      return block === other || block.every((number, j) => number === other[j])
    })
  )
}
