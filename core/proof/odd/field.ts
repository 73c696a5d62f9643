import { flatten, type Cells } from '../../grid/cells'
import { modulo } from '../../modulo'
import { freeOf, latticeOf } from '../../piece/drawing'
import { ropeOf } from '../../piece/nature'
import { columnsOf, isGrid, techniqueOf, type GridPart, type Part } from '../../piece/piece'
import { neighbourOffsets, type Lattice } from '../../technique/lattice'

/**
 * The surface of a part in whole steps of its lattice: each bead that is kept has a place (X, Y) in steps across and
 * along, and a place has a bead or none. Copies of a repeat agree with themselves and prove nothing: each kept bead is
 * there once, and a repeat that is worked again is endless along.
 */
export interface Field {
  readonly columns: number
  readonly rows: number
  /** Tray number of cell r · columns + c; VOID where the stitch has none. */
  readonly colour: Uint16Array
  readonly X: Int32Array
  readonly Y: Int32Array
  readonly minX: number
  readonly spanX: number
  readonly spanY: number
  /** spanX × spanY, line after line: which cell lies at a place, or −1. */
  readonly table: Int32Array
  /** Round a tube (X + x, Y + y) is the same place; x is 0 of what is flat. */
  readonly wrap: { readonly x: number; readonly y: number }
  /** Steps after which it comes again along; 0 if it is open. */
  readonly cyclic: number
  /** Steps along of one row. */
  readonly rowStep: number
  /** What is worked one after the other and can slip by a bead: a row, or a strand of a braid. */
  readonly line: 'row' | 'column'
  /** 1 where a cell touches one of another colour: only there does an agreement say anything. */
  readonly edges: Uint8Array
  /** First row of it in the rows of the whole that is kept. */
  readonly firstRow: number
}

/** The colour of a cell that the stitch does not have. */
export const VOID = 0xffff

/** How a lattice counts in whole steps: every second column half a row on, every second row half a column aside. */
type Stagger = 'straight' | 'up' | 'aside'

const near = (a: number, b: number, of: number): boolean => Math.abs(a - b) < of * 0.1

/** A lattice as steps, its climb round a tube taken out; by index where it is none of them. */
function staggerOf({ sites, period, pitchX, pitchY }: Lattice, climb: number, columns: number): Stagger {
  if (period.rows === 1 && period.columns > 1) {
    const lift = (c: number) => sites[c]!.dy - ((climb * pitchY) / columns) * (climb < 0 ? c - columns + 1 : c)
    const lifts = sites.map((_, c) => lift(c))
    const least = Math.min(...lifts)
    const halves = lifts.map((dy) => (near(dy - least, 0, pitchY) ? 0 : near(dy - least, pitchY / 2, pitchY) ? 1 : -1))
    if (halves.includes(1) && !halves.includes(-1)) return 'up'
  }
  if (period.rows === 2 && period.columns === 1)
    return near(Math.abs(sites[1]!.dx - sites[0]!.dx), pitchX / 2, pitchX) ? 'aside' : 'straight'
  return 'straight'
}

interface Placing {
  readonly wrap: Field['wrap']
  readonly rowStep: number
  readonly line: Field['line']
  at(c: number, r: number): readonly [x: number, y: number]
}

function placingOf(part: GridPart): Placing {
  const columns = columnsOf(part)
  const technique = techniqueOf(part)
  const rope = ropeOf(part)
  if (rope)
    return {
      ...{ wrap: { x: rope.steps, y: 0 }, rowStep: rope.steps, line: 'column' },
      at(s, k) {
        const { col, row } = rope.spot({ s, k })
        return [col, row]
      },
    }
  const round = technique.round ? columns : 0
  if (technique.disc) return { ...{ wrap: { x: round, y: 0 }, rowStep: 1, line: 'column' }, at: (c, r) => [c, r] }
  const lattice = latticeOf(part)
  const climb = technique.climbs?.(part.settings) ?? 0
  const stagger = lattice.touching ? 'straight' : staggerOf(lattice, climb, columns)
  const { sites, period, pitchX, pitchY } = lattice
  if (stagger === 'up') {
    const wrap = { x: round, y: round > 0 ? -2 * climb : 0 }
    const lifted = (c: number) =>
      sites[c % period.columns]!.dy - ((climb * pitchY) / columns) * (climb < 0 ? c - columns + 1 : c)
    const least = Math.min(...sites.map((_, c) => lifted(c)))
    const up = Array.from({ length: columns }, (_, c) => (lifted(c) - least > pitchY / 4 ? 1 : 0))
    return { ...{ wrap, rowStep: 2, line: 'row' }, at: (c, r) => [c, 2 * r + up[c]!] }
  }
  if (stagger === 'aside') {
    const least = Math.min(sites[0]!.dx, sites[1]!.dx)
    const aside = sites.map(({ dx }) => (dx - least > pitchX / 4 ? 1 : 0))
    return {
      ...{ wrap: { x: 2 * round, y: 0 }, rowStep: 1, line: 'row' },
      at: (c, r) => [2 * c + aside[r % 2]!, r],
    }
  }
  return { ...{ wrap: { x: round, y: round > 0 ? -climb : 0 }, rowStep: 1, line: 'row' }, at: (c, r) => [c, r] }
}

/** Which cells touch one of another colour. */
function edgesOf(part: GridPart, colour: Uint16Array, rows: number, cyclic: boolean): Uint8Array {
  const lattice = latticeOf(part)
  const columns = columnsOf(part)
  const { period, round = false } = lattice
  const offsets = Array.from({ length: period.columns * period.rows }, (_, k) =>
    neighbourOffsets(lattice, k % period.columns, Math.floor(k / period.columns)),
  )
  const edges = new Uint8Array(colour.length)
  for (let k = 0, r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++, k++) {
      const own = colour[k]!
      if (own === VOID) continue
      for (const o of offsets[(r % period.rows) * period.columns + (c % period.columns)]!) {
        let [nc, nr] = [c + o.c, r + o.r]
        if (nc < 0 || nc >= columns) {
          if (!round) continue
          nc = modulo(nc, columns)
        }
        if (nr < 0 || nr >= rows) {
          if (!cyclic) continue
          nr = modulo(nr, rows)
        }
        const other = colour[nr * columns + nc]!
        if (other !== VOID && other !== own) {
          edges[k] = 1
          break
        }
      }
    }
  return edges
}

/** Whether a part is a grid whose surface can be read. */
export const hasField = (part: Part): part is GridPart => isGrid(part) && freeOf(part) === null

/** Lines of more steps are not laid out as places: so many that no work is as long. */
const MOST_PLACES = 60_000_000

/** Cells in whole steps, whatever lies in them. */
interface Ground {
  readonly X: Int32Array
  readonly Y: Int32Array
  readonly minX: number
  readonly spanX: number
  readonly maxY: number
}

function groundOf({ wrap, at }: Placing, columns: number, rows: number): Ground {
  const X = new Int32Array(columns * rows)
  const Y = new Int32Array(columns * rows)
  let [minX, maxX, maxY] = [Infinity, -Infinity, 0]
  for (let k = 0, r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++, k++) {
      const [x, y] = at(c, r)
      X[k] = x
      Y[k] = y
      if (x < minX) minX = x
      if (x > maxX) maxX = x
      if (y > maxY) maxY = y
    }
  return { X, Y, minX, spanX: wrap.x > 0 ? wrap.x : maxX - minX + 1, maxY }
}

/** A field of cells of a part: `colour` row after row; `endless`: it comes again along. */
export function fieldFrom(
  part: GridPart,
  colour: Uint16Array,
  { endless = false, firstRow = 0 }: { readonly endless?: boolean; readonly firstRow?: number } = {},
): Field | null {
  const columns = columnsOf(part)
  const rows = colour.length / columns
  if (rows === 0) return null
  const placing = placingOf(part)
  const { wrap, rowStep, line } = placing
  const { X, Y, minX, spanX, maxY } = groundOf(placing, columns, rows)
  const cyclic = endless ? rows * rowStep : 0
  const spanY = endless ? cyclic : maxY + 1
  if (spanX * spanY > MOST_PLACES) return null
  const table = new Int32Array(spanX * spanY).fill(-1)
  for (let k = 0; k < colour.length; k++)
    if (colour[k] !== VOID) {
      const x = X[k]! - minX
      if (x < spanX) table[(endless ? modulo(Y[k]!, cyclic) : Y[k]!) * spanX + x] = k
    }
  const edges = edgesOf(part, colour, rows, endless)
  return { columns, rows, colour, X, Y, minX, spanX, spanY, table, wrap, cyclic, rowStep, line, edges, firstRow }
}

/** The beads of some sections of a part, one after the other; VOID where the stitch has none. */
function coloursOf(part: GridPart, sections: readonly Cells[], once: boolean): Uint16Array {
  const columns = columnsOf(part)
  const rows = sections.reduce((sum, section) => sum + section.rows, 0)
  const colour = new Uint16Array(columns * rows)
  let to = 0
  for (const section of sections) {
    colour.set(flatten(section), to)
    to += columns * section.rows
  }
  const { voids } = techniqueOf(part)
  if (voids && once) for (const key of voids({ columns, rows, settings: part.settings })) colour[key] = VOID
  return colour
}

/** The beads of the repeat; where it is all that there is, without those that the stitch does not have. */
export const repeatColours = (part: GridPart): Uint16Array =>
  coloursOf(part, [part.repeat], part.times === 1 && part.start.rows + part.end.rows === 0)

/**
 * `repeat`: the repeat alone, endless along if it is worked again. `all`: start, the repeat once, and end, open. Null
 * where nothing lies.
 */
export const fieldOf = (part: GridPart, which: 'repeat' | 'all'): Field | null =>
  which === 'repeat'
    ? fieldFrom(part, repeatColours(part), { endless: part.times > 1, firstRow: part.start.rows })
    : fieldFrom(part, coloursOf(part, [part.start, ...(part.times > 0 ? [part.repeat] : []), part.end], true))

/** The places of a part of so many rows, as a field without colours. */
export function blankOf(part: GridPart, rows: number): Field {
  return fieldFrom(part, new Uint16Array(columnsOf(part) * rows).fill(1))!
}

/** The cell at a place, round a tube and along a repeat; −1 where there is none. */
export function cellAt(f: Field, x: number, y: number): number {
  if (f.wrap.x > 0) {
    const turns = Math.floor((x - f.minX) / f.wrap.x)
    if (turns !== 0) {
      x -= turns * f.wrap.x
      y -= turns * f.wrap.y
    }
  }
  if (f.cyclic > 0) y = modulo(y, f.cyclic)
  const at = x - f.minX
  return at < 0 || at >= f.spanX || y < 0 || y >= f.spanY ? -1 : f.table[y * f.spanX + at]!
}
