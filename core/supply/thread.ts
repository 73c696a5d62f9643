import { checkHole, type HoleCheck } from '../bead/hole'
import { requireSpec } from '../bead/spec'
import { closureOf } from '../fit/closure'
import { techniqueOf, workOf, type Part, type Piece } from '../piece/piece'
import type { Supply } from '../piece/schema'
import { tallyPart, totalOf } from '../tally/tally'
import type { ThreadPath } from '../technique/technique'
import { requireNeedle, requireThread } from './catalogue'

/** Thread lies in waves and is pulled tight by hand: path × 1.05 (common practice). */
export const SLACK = 1.05

/** Cut lengths are rounded up to this, mm. */
export const CUT_STEP_MM = 100

export interface ThreadCut {
  readonly id: string
  readonly name: string
  /** Pieces to cut, each `cutMm` long; for joined thread the last may be shorter. */
  readonly pieces: number
  readonly cutMm: number
  readonly totalMm: number
  readonly joins: number
  /** What of the total is not in the path, the tails or the closure: to spare, mm. */
  readonly spareMm: number
  readonly pathMm: number
  readonly formula: string
}

const roundUp = (mm: number): number => Math.ceil(mm / CUT_STEP_MM - 1e-9) * CUT_STEP_MM

export function pathOf(part: Part): ThreadPath {
  return techniqueOf(part).path({ ...workOf(part), beads: totalOf(tallyPart(part)) })
}

export interface ThreadNeed { readonly pathMm: number, readonly sewingMm: number, readonly supply: Supply }

/**
 * Working lengths for a path: path × slack + sewing on the closure + two tails, and two more tails for each join. As many
 * joins as the longest handled thread makes needful; the total is rounded up to 10 cm. Doubled thread takes twice the
 * length, in the same handled lengths folded.
 */
export function cutThread({ pathMm, sewingMm, supply }: ThreadNeed): { joins: number, totalMm: number, spareMm: number } {
  if (pathMm <= 0) return { joins: 0, totalMm: 0, spareMm: 0 }
  const fold = supply.doubled ? 2 : 1
  const handled = supply.workingLengthMm
  const need = pathMm * SLACK + sewingMm + 2 * supply.claspTailMm
  const perJoin = 2 * supply.tailMm
  const joins = Math.max(0, Math.ceil((need - handled) / Math.max(1, handled - perJoin) - 1e-9))
  const exact = (need + joins * perJoin) * fold
  const totalMm = roundUp(exact)
  return { joins, totalMm, spareMm: totalMm - (pathMm * fold + sewingMm * fold + (2 * supply.claspTailMm + joins * perJoin) * fold) }
}

export function threadCuts(piece: Piece, part: Part): ThreadCut[] {
  const { supply, fit } = piece
  return pathOf(part).runs.map((run) => {
    if (!run.joined) {
      const cutMm = roundUp(run.lengthMm)
      return { id: run.id, name: run.name, pieces: run.count, cutMm, totalMm: cutMm * run.count, joins: 0, spareMm: (cutMm - run.lengthMm) * run.count, pathMm: run.lengthMm * run.count, formula: run.formula }
    }
    const { joins, totalMm, spareMm } = cutThread({ pathMm: run.lengthMm, sewingMm: closureOf(fit.closure.kind).sewingMm, supply })
    return { id: run.id, name: run.name, pieces: totalMm === 0 ? 0 : joins + 1, cutMm: Math.min(totalMm, supply.workingLengthMm * (supply.doubled ? 2 : 1)), totalMm, joins, spareMm, pathMm: run.lengthMm, formula: run.formula }
  })
}

export interface SpecHoleCheck extends HoleCheck {
  readonly spec: string
  /** What would make it easier, best first. */
  readonly helps: readonly ('thinner thread' | 'smaller needle' | 'fewer passes')[]
}

/** Needle and hole for every spec that the part uses. Doubled thread fills a hole as two threads at each pass. */
export function holeChecks(piece: Piece, part: Part): SpecHoleCheck[] {
  const { supply, tray } = piece
  const counts = tallyPart(part)
  const used = new Set(tray.filter(b => (counts.get(b.number) ?? 0) > 0).map(b => b.spec))
  if (used.size === 0) used.add(part.spec)
  const passes = pathOf(part).passes + supply.reinforce
  const threads = passes * (supply.doubled ? 2 : 1)
  const thread = requireThread(supply.thread)
  const { eyeMm } = requireNeedle(supply.needle)
  return [...used].map((id) => {
    const hole = requireSpec(id).h
    const check = checkHole(hole, threads, thread, eyeMm)
    const rank = { no: 0, tight: 1, easy: 2 }
    const helps: SpecHoleCheck['helps'][number][] = []
    if (check.verdict !== 'easy') {
      const better = (other: HoleCheck) => rank[other.verdict] > rank[check.verdict]
      if (better(checkHole(hole, threads, thread, 0.35))) helps.push('smaller needle')
      if (better(checkHole(hole, threads, { ...thread, diameterMm: 0.1 }, eyeMm))) helps.push('thinner thread')
      if (supply.reinforce > 0 || supply.doubled) helps.push('fewer passes')
    }
    return { ...check, passes, spec: id, helps }
  })
}
