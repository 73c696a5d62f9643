import { tallyPart, totalOf } from '../tally/tally'
import { cellAt, insertRows, removeRows, type Cells } from '../grid/cells'
import { insertRowsStep, removeRowsStep, setStep } from '../piece/edit'
import type { TrayBead } from '../bead/bead'
import { columnsOf, rowsOf, techniqueOf, type Part, type Piece } from '../piece/piece'
import type { Fit } from '../piece/schema'
import type { Step } from '../piece/step'
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

/** Beads of the part with another count of repeats and that many plain rows more (or fewer) at its ends. */
function beadsWith(part: Part, times: number, startRows: number, endRows: number): number {
  const planned = { ...part, times }
  const columns = columnsOf(part)
  if (techniqueOf(part).voids === undefined) return totalOf(tallyPart(planned)) + (startRows + endRows) * columns
  // Which places the stitch has beads for follows from where the work ends, so the ends are tried out.
  const plain = (cells: Cells, at: number, rows: number) => (rows >= 0 ? insertRows(cells, at, new Uint16Array(rows * columns).fill(1)) : removeRows(cells, at + Math.min(0, at === 0 ? 0 : rows), -rows))
  return totalOf(tallyPart({ ...planned, start: plain(part.start, 0, startRows), end: plain(part.end, part.end.rows, endRows) }))
}

/** Another closure is offered only where it helps, and brings the fit this near, mm. */
const CLOSURE_REACH_MM = 12

/**
 * The counts that come near: n and n + 1 whole repeats, n with longer plain ends, n + 1 with shorter ends where the ends have rows to
 * give, and n or n + 1 with another closure at its usual length. Sorted by how far each is from what the wrist takes, whole
 * repeats first among equals (within 1 mm). The remainder is part of every choice.
 */
export function fitChoices(fit: Fit, part: Part, tray: readonly TrayBead[] = []): Choice[] {
  const per = part.repeat.rows
  if (per === 0) return []
  const ends = part.start.rows + part.end.rows
  const now = beadsWith(part, part.times, 0, 0)
  const out: Choice[] = []
  const offer = (times: number, startRows: number, endRows: number, closure: Fit['closure']) => {
    const rows = ends + times * per + startRows + endRows
    if (times < 1 || rows < 1) return
    const beads = beadsWith(part, times, startRows, endRows)
    const same = closure.kind === fit.closure.kind && closure.lengthMm === fit.closure.lengthMm
    const id = `${times}/${startRows}/${endRows}/${closure.kind}/${closure.lengthMm}`
    if (out.some(c => c.id === id)) return
    out.push({
      id, times, startRows, endRows, closure, fit: fitBracelet({ ...fit, closure }, part, rows, tray), beads, beadsMore: beads - now,
      whole: startRows + endRows === 0, current: same && times === part.times && startRows === 0 && endRows === 0,
    })
  }

  const { targetMm } = fitBracelet(fit, part)
  const exact = rowsForLength(part, targetMm, tray) - ends
  const n = Math.max(1, Math.floor(exact / per + 1e-9))
  if (rowsOf(part) > 0) offer(part.times, 0, 0, fit.closure)
  offer(n, 0, 0, fit.closure)
  offer(n + 1, 0, 0, fit.closure)

  const spare = Math.round(exact - n * per)
  if (spare > 0) offer(n, Math.ceil(spare / 2), Math.floor(spare / 2), fit.closure)
  const less = Math.round((n + 1) * per - exact)
  // Each end that has rows keeps one; what one end cannot give, the other does.
  const [startGives, endGives] = [Math.max(0, part.start.rows - 1), Math.max(0, part.end.rows - 1)]
  if (less > 0 && less <= startGives + endGives) {
    const fromEnd = Math.max(less - startGives, Math.min(Math.floor(less / 2), endGives))
    offer(n + 1, 0 - (less - fromEnd), 0 - fromEnd, fit.closure)
  }

  for (const times of [n, n + 1]) {
    const best = CLOSURES
      .filter(c => c.kind !== fit.closure.kind && c.kind !== 'none' && c.kind !== 'magnet')
      .map(c => ({ c, off: Math.abs(fitBracelet({ ...fit, closure: { kind: c.kind as ClosureKind, lengthMm: c.lengthMm } }, part, ends + times * per, tray).differenceMm) }))
      .sort((a, b) => a.off - b.off)[0]
    const asIs = Math.abs(fitBracelet(fit, part, ends + times * per, tray).differenceMm)
    if (best && best.off <= CLOSURE_REACH_MM && best.off < asIs) offer(times, 0, 0, { kind: best.c.kind, lengthMm: best.c.lengthMm })
  }

  const rank = (c: Choice) => Math.round(Math.abs(c.fit.differenceMm)) * 2 + (c.whole ? 0 : 1)
  return out.sort((a, b) => rank(a) - rank(b) || Math.abs(a.fit.differenceMm) - Math.abs(b.fit.differenceMm))
}

/** The bead that plain rows at an end are laid in: the one that lies at its outer corner, or the first of the tray. */
function plainNumber(piece: Piece, part: Part, end: 'start' | 'end'): number {
  const cells = part[end]
  const there = cells.rows > 0 ? cellAt(cells, 0, end === 'start' ? 0 : cells.rows - 1) : 0
  return there || (piece.tray[0]?.number ?? 0)
}

/** Steps that make the piece as a choice has it: plain rows at the outer edges, count of repeats, closure. */
export function choiceSteps(piece: Piece, part: Part, { times, startRows, endRows, closure }: Choice): Step[] {
  const steps: Step[] = []
  if (startRows > 0) steps.push(insertRowsStep(part, 'start', 0, startRows, plainNumber(piece, part, 'start')))
  else if (startRows < 0) steps.push(removeRowsStep(part, 'start', 0, -startRows))
  if (endRows > 0) steps.push(insertRowsStep(part, 'end', part.end.rows, endRows, plainNumber(piece, part, 'end')))
  else if (endRows < 0) steps.push(removeRowsStep(part, 'end', part.end.rows + endRows, -endRows))
  if (times !== part.times) steps.push(setStep(piece, ['parts', part.id, 'times'], times))
  if (closure.kind !== piece.fit.closure.kind || closure.lengthMm !== piece.fit.closure.lengthMm) steps.push(setStep(piece, ['fit', 'closure'], { ...closure }))
  return steps
}
