import type { Piece } from '../piece/piece'
import { pathOf, threadCuts } from './thread'

/** Wire to buy: lengths of each kind together, and the spool that holds them. Lengths in mm. */

export interface WireKind {
  /** What to ask for: “Wire, 22 gauge (0.64 mm), half hard”. */
  readonly name: string
  readonly cuts: readonly {
    readonly part: string
    readonly name: string
    readonly count: number
    readonly cutMm: number
  }[]
  readonly totalMm: number
  /** The smallest spool that is usually sold and holds it, mm; how many of the largest where none does. */
  readonly spoolMm: number
  readonly spools: number
}

/** Spools that wire is mostly sold in, mm (from memory). */
export const SPOOLS_MM = [2000, 5000, 10_000, 20_000] as const

/** The wire of a piece, so many times over, by kind: the thickest first, as its name has it. */
export function wireList(piece: Piece, times = 1): WireKind[] {
  const kinds = new Map<string, { cuts: WireKind['cuts'][number][]; totalMm: number }>()
  for (const part of piece.parts) {
    const cuts = threadCuts(piece, part)
    pathOf(part, piece).runs.forEach((run, k) => {
      const cut = cuts[k]
      if (run.id !== 'wire' || !cut || cut.pieces === 0) return
      const name = run.shopName ?? run.name
      const there = kinds.get(name) ?? { cuts: [], totalMm: 0 }
      there.cuts.push({ part: part.name, name: cut.name, count: cut.pieces * times, cutMm: cut.cutMm })
      kinds.set(name, { cuts: there.cuts, totalMm: there.totalMm + cut.totalMm * times })
    })
  }
  return [...kinds]
    .sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true }))
    .map(([name, { cuts, totalMm }]) => {
      const spoolMm = SPOOLS_MM.find((mm) => mm >= totalMm) ?? SPOOLS_MM.at(-1)!
      return { name, cuts, totalMm, spoolMm, spools: Math.max(1, Math.ceil(totalMm / spoolMm)) }
    })
}
