import { addCounts, tallySection, totalOf } from '../tally/tally'
import { rowsOf, type Part } from '../piece/piece'
import type { Fit } from '../piece/schema'
import { fitBracelet, rowsForLength, type BraceletFit } from './bracelet'
import { CLOSURES, type ClosureKind } from './closure'

/** What a choice changes of the piece. */
export interface Choice {
  readonly id: string
  /** Copies of the repeat. */
  readonly times: number
  /** Bead rows more (or fewer, negative) at the two ends. */
  readonly startRows: number
  readonly endRows: number
  readonly closure: Fit['closure']
  readonly fit: BraceletFit
  /** Beads of the whole part, new end rows included. */
  readonly beads: number
  readonly beadsMore: number
  /** Whether it ends on a whole repeat with nothing plain added. */
  readonly whole: boolean
  readonly current: boolean
}

function beadsWith(part: Part, times: number, extraRows: number): number {
  const counts = new Map<number, number>()
  addCounts(counts, tallySection(part, 'start'))
  addCounts(counts, tallySection(part, 'repeat'), times)
  addCounts(counts, tallySection(part, 'end'))
  return totalOf(counts) + extraRows * part.repeat.columns
}

/** Another closure is offered only where it helps, and brings the fit this near, mm. */
const CLOSURE_REACH_MM = 12

/**
 * The counts that come near: n and n + 1 whole repeats, n with longer plain ends, n + 1 with shorter ends where the ends have rows to
 * give, and n or n + 1 with another closure at its usual length. Sorted by how far each is from what the wrist takes, whole
 * repeats first among equals (within 1 mm). The remainder is part of every choice.
 */
export function fitChoices(fit: Fit, part: Part): Choice[] {
  const per = part.repeat.rows
  if (per === 0) return []
  const ends = part.start.rows + part.end.rows
  const now = beadsWith(part, part.times, 0)
  const out: Choice[] = []
  const offer = (times: number, startRows: number, endRows: number, closure: Fit['closure']) => {
    const rows = ends + times * per + startRows + endRows
    if (times < 1 || rows < 1) return
    const beads = beadsWith(part, times, startRows + endRows)
    const same = closure.kind === fit.closure.kind && closure.lengthMm === fit.closure.lengthMm
    const id = `${times}/${startRows}/${endRows}/${closure.kind}/${closure.lengthMm}`
    if (out.some(c => c.id === id)) return
    out.push({
      id, times, startRows, endRows, closure, fit: fitBracelet({ ...fit, closure }, part, rows), beads, beadsMore: beads - now,
      whole: startRows + endRows === 0, current: same && times === part.times && startRows === 0 && endRows === 0,
    })
  }

  const target = fitBracelet(fit, part).targetMm
  const exact = rowsForLength(part, target) - ends
  const n = Math.max(1, Math.floor(exact / per + 1e-9))
  if (rowsOf(part) > 0) offer(part.times, 0, 0, fit.closure)
  offer(n, 0, 0, fit.closure)
  offer(n + 1, 0, 0, fit.closure)

  const spare = Math.round(exact - n * per)
  if (spare > 0) offer(n, Math.ceil(spare / 2), Math.floor(spare / 2), fit.closure)
  const less = Math.round((n + 1) * per - exact)
  const give = Math.min(less, Math.max(0, part.start.rows - 1) + Math.max(0, part.end.rows - 1))
  if (less > 0 && give === less) {
    const fromStart = Math.min(Math.ceil(less / 2), Math.max(0, part.start.rows - 1))
    offer(n + 1, -fromStart, -(less - fromStart), fit.closure)
  }

  for (const times of [n, n + 1]) {
    const best = CLOSURES
      .filter(c => c.kind !== fit.closure.kind && c.kind !== 'none' && c.kind !== 'magnet')
      .map(c => ({ c, off: Math.abs(fitBracelet({ ...fit, closure: { kind: c.kind as ClosureKind, lengthMm: c.lengthMm } }, part, ends + times * per).differenceMm) }))
      .sort((a, b) => a.off - b.off)[0]
    const asIs = Math.abs(fitBracelet(fit, part, ends + times * per).differenceMm)
    if (best && best.off <= CLOSURE_REACH_MM && best.off < asIs) offer(times, 0, 0, { kind: best.c.kind, lengthMm: best.c.lengthMm })
  }

  const rank = (c: Choice) => Math.round(Math.abs(c.fit.differenceMm)) * 2 + (c.whole ? 0 : 1)
  return out.sort((a, b) => rank(a) - rank(b) || Math.abs(a.fit.differenceMm) - Math.abs(b.fit.differenceMm))
}
