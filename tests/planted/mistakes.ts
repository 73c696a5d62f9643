import { cellsFrom, flatten, type Cells } from '#core/grid/cells'
import { columnsOf, type Part } from '#core/piece/piece'
import type { Design } from './designs'
import { Chance } from './random'

/** Mistakes as hands and eyes make them, planted in a design. */
export const MISTAKES = [
  ...(['one bead', 'swap', 'run shifted', 'row shifted', 'patch', 'colours swapped'] as const),
  ...(['row missing', 'row doubled'] as const),
] as const
export type MistakeKind = (typeof MISTAKES)[number]

export interface Mistake {
  readonly kind: MistakeKind
  /** Cells of the repeat as it is now, that are not as they were. */
  readonly cells: readonly number[]
  /** Row of the repeat, of one that is missing (the next) or doubled. */
  readonly row: number | null
}

export interface Planted {
  readonly design: Design
  readonly part: Part
  readonly mistakes: readonly Mistake[]
}

const strands = (part: Part): boolean => part.technique.startsWith('braid')

/** Plants one mistake in a list of cells; null where chance chose a place at which nothing would change. */
function plant(
  chance: Chance,
  kind: MistakeKind,
  cells: number[],
  columns: number,
  byStrand: boolean,
): Mistake | null {
  const rows = cells.length / columns
  const [r, c] = [chance.whole(1, rows - 2), chance.whole(0, columns - 1)]
  const colours = [...new Set(cells)]
  const before = [...cells]
  const changed = (): number[] => cells.flatMap((v, k) => (v === before[k] ? [] : [k]))
  const wrong = (k: number) => {
    const others = colours.filter((v) => v !== cells[k])
    cells[k] = chance.of(others)
  }
  const done = (): Mistake | null => {
    const at = changed()
    return at.length > 0 ? { kind, cells: at, row: null } : null
  }
  switch (kind) {
    case 'one bead':
      wrong(r * columns + c)
      return done()
    case 'swap': {
      const other = byStrand ? (r + 1) * columns + c : r * columns + ((c + 1) % columns)
      const k = r * columns + c
      ;[cells[k], cells[other]] = [cells[other]!, cells[k]!]
      return done()
    }
    case 'run shifted':
    case 'row shifted': {
      const line = byStrand
        ? Array.from({ length: Math.min(rows, 12) }, (_, k) => ((r + k) % rows) * columns + c)
        : Array.from({ length: columns }, (_, k) => r * columns + k)
      const run =
        kind === 'row shifted' ? line : line.slice(0, Math.max(3, chance.whole(3, Math.max(3, line.length >> 1))))
      const values = run.map((k) => cells[k]!)
      run.forEach((k, i) => {
        cells[k] = values[(i + values.length - 1) % values.length]!
      })
      return done()
    }
    case 'patch': {
      const v = chance.of(colours)
      const beads = chance.whole(2, 5)
      let [x, y] = [c, r]
      for (let k = 0; k < beads; k++) {
        cells[y * columns + x] = v
        if (chance.is(0.5)) x = Math.max(0, Math.min(columns - 1, x + 1))
        else y = Math.min(rows - 2, y + 1)
      }
      return done()
    }
    case 'colours swapped': {
      const a = cells[r * columns + c]!
      const others = colours.filter((v) => v !== a)
      const b = chance.of(others)
      for (let y = r; y < Math.min(rows, r + 3); y++)
        for (let x = c; x < Math.min(columns, c + 4); x++) {
          const k = y * columns + x
          if (cells[k] === a) cells[k] = b
          else if (cells[k] === b) cells[k] = a
        }
      const at = changed()
      return at.length > 0 && at.length <= 8 ? { kind, cells: at, row: null } : null
    }
    case 'row missing':
    case 'row doubled': {
      if (byStrand || rows < 16) return null
      const at = chance.whole(3, rows - 4)
      const row = cells.slice(at * columns, (at + 1) * columns)
      const like = (other: number) => row.every((v, k) => v === cells[other * columns + k])
      if (new Set(row).size < 1) return null
      // A row among rows like it is a stripe: one more or less of them is seen as well.
      if (kind === 'row missing') cells.splice(at * columns, columns)
      else cells.splice(at * columns, 0, ...row)
      void like
      return { kind, cells: [], row: at }
    }
  }
}

const ROW_KINDS: readonly MistakeKind[] = ['row missing', 'row doubled']

/** A design with one to three mistakes; of rows missing or doubled one only, as a first mistake. */
export function planted(design: Design, seed: number): Planted {
  const chance = new Chance(seed + 500_009)
  const { part } = design
  const columns = columnsOf(part)
  const cells = [...flatten(part.repeat as Cells)]
  const mistakes: Mistake[] = []
  const count = chance.whole(1, 3)
  for (let tries = 0; mistakes.length < count && tries < 60; tries++) {
    const rowsNow = mistakes.some((m) => ROW_KINDS.includes(m.kind))
    const kind = chance.of(MISTAKES)
    if (ROW_KINDS.includes(kind) && (mistakes.length > 0 || rowsNow)) continue
    const copy = [...cells]
    const made = plant(chance, kind, copy, columns, strands(part))
    if (!made) continue
    // Mistakes lie apart.
    const apart = made.cells.every((k) =>
      mistakes.every((m) =>
        m.row === null
          ? m.cells.every((o) => Math.abs(Math.floor(o / columns) - Math.floor(k / columns)) > 3)
          : Math.abs(m.row - Math.floor(k / columns)) > 6,
      ),
    )
    if (!apart) continue
    cells.splice(0, cells.length, ...copy)
    mistakes.push(made)
  }
  return { design, part: { ...part, repeat: cellsFrom(columns, cells.length / columns, cells) }, mistakes }
}
