import { columnsOf, type GridPart, type Part } from '#core/piece/piece'
import { oddOnesOf, type OddFindings } from '#core/proof/odd/odd'
import { chanceBlend, designOf, FAMILY_NAMES, picture } from './designs'
import { planted, type Mistake, type Planted } from './mistakes'

/** What was found of what was planted, and what was found where nothing is. */
export interface Score {
  readonly family: string
  readonly kind: string
  readonly found: boolean
}

/** The cells of a finding as cells of the repeat. */
const inRepeat = (part: Part, cells: readonly number[]): number[] =>
  cells.map((k) => k - part.start.rows * columnsOf(part))

/** Rows that a slip names at most for its place to be said. */
const MOST_RANGE = 12

/** Whether findings name a mistake: its place, with at most twice its cells (a bead beside counts). */
export function isNamed(part: Part, { cells, row }: Mistake, found: OddFindings): boolean {
  if (row !== null) {
    const { slip } = found
    if (!slip) return false
    const [from, to] = [slip.row - part.start.rows, slip.to - part.start.rows]
    // Rows like it on both sides would do as well.
    return from - 1 <= row && row <= to + 1 && to - from + 1 <= MOST_RANGE
  }
  const own = new Set(cells)
  return found.beads.some((one) => {
    const named = inRepeat(part, one.cells)
    return named.some((k) => own.has(k)) && (one.pair ? named.length / 2 : named.length) <= 2 * cells.length
  })
}

/** Findings that name no mistake. */
export function alarms(p: Planted, found: OddFindings): number {
  const { part } = p
  const columns = columnsOf(part)
  const rowOf = (k: number) => Math.floor(k / columns)
  const near = (k: number) =>
    p.mistakes.some((m) =>
      m.row === null ? m.cells.some((o) => Math.abs(rowOf(o) - rowOf(k)) <= 1) : Math.abs(rowOf(k) - m.row) <= 12,
    )
  return (
    found.beads.filter((one) => !inRepeat(part, one.cells).some(near)).length +
    (found.slip && !p.mistakes.some((m) => m.row !== null) ? 1 : 0)
  )
}

export const read = (part: Part): OddFindings => oddOnesOf(part as GridPart)

/** 95 % interval of a share (Wilson 1927), as percent. */
export function interval(hits: number, of: number): readonly [number, number] {
  if (of === 0) return [0, 100]
  const z = 1.96
  const p = hits / of
  const d = 1 + (z * z) / of
  const mid = p + (z * z) / (2 * of)
  const half = z * Math.sqrt((p * (1 - p)) / of + (z * z) / (4 * of * of))
  return [(100 * (mid - half)) / d, (100 * (mid + half)) / d]
}

export { chanceBlend, designOf, FAMILY_NAMES, picture, planted }
