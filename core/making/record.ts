import type { TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import { extentOf, plainEndsMm } from '../fit/extent'
import { endToEnd, swatchFactors } from '../fit/gauge'
import { laidRows } from '../piece/laid'
import { columnsOf, fittedPart, type Piece } from '../piece/piece'
import type { Swatch } from '../piece/schema'
import { closureIn, spoolOf, tubeOf, type Box, type PieceId } from '../supply/box'
import { cutList, pathOf, USUAL_SLACK } from '../supply/thread'
import { tallyPiece } from '../tally/tally'
import type { Order } from './agenda'
import type { Facts, MakingRecord, MakingState } from './event'
import { paceOf, sittingsOf, workedMs } from './sitting'

/** What a finished making took and came to, as planned. */
export interface Planned {
  readonly beads: readonly { readonly bead: TrayBead; readonly count: number }[]
  /** Thread in working lengths, tails and sewing among it, mm; 0 where none is used. */
  readonly threadMm: number
  /** The way through the beads of what is cut in working lengths, mm: what lies in waves. */
  readonly pathMm: number
  /** Length of the beadwork of the part that is fitted, mm. */
  readonly lengthMm: number
}

/** Way of what is cut in working lengths and joined, mm: of doubled thread both. */
const joinedPathMm = (piece: Piece): number =>
  piece.parts
    .flatMap((part) => pathOf(part, piece).runs)
    .filter((run) => run.joined)
    .reduce((sum, run) => sum + run.lengthMm * (piece.supply.doubled ? 2 : 1), 0)

export function plannedOf(piece: Piece, { copies }: Pick<Order, 'copies'>): Planned {
  const counts = tallyPiece(piece)
  const thread = cutList(piece).filter((cut) => cut.material === 'thread')
  return {
    beads: piece.tray.flatMap((bead) => {
      const count = (counts.get(bead.number) ?? 0) * copies
      return count > 0 ? [{ bead, count }] : []
    }),
    threadMm: copies * thread.reduce((sum, cut) => sum + cut.totalMm, 0),
    pathMm: copies * joinedPathMm(piece),
    lengthMm: extentOf(piece, fittedPart(piece)).lengthMm.nominal,
  }
}

type Counted = Pick<MakingRecord, 'beads' | 'culls' | 'threadMm'>

/** Beads of a tray number that were worked in, and that were put aside. */
export function usedOf(planned: Planned, { beads, culls }: Counted, number: number): { used: number; culled: number } {
  const count = planned.beads.find((b) => b.bead.number === number)?.count ?? 0
  const more = beads.find((b) => b.number === number)?.more ?? 0
  return { used: Math.max(0, count + more), culled: culls.find((c) => c.number === number)?.count ?? 0 }
}

/** What a making really took out of the box, in the unit of each thing: g, mm, count. */
export function usedFromBox(
  piece: Piece,
  { copies }: Pick<Order, 'copies'>,
  record: Counted,
  box: Box,
  pieceId: PieceId,
): { readonly shelfId: string; readonly amount: number }[] {
  const planned = plannedOf(piece, { copies })
  const out = new Map<string, number>()
  const use = (id: string | undefined, amount: number) => {
    if (id !== undefined && amount > 0) out.set(id, (out.get(id) ?? 0) + amount)
  }
  for (const { bead } of planned.beads) {
    const { used, culled } = usedOf(planned, record, bead.number)
    use(tubeOf(box, bead, pieceId)?.id, (used + culled) / requireSpec(bead.spec).perGram)
  }
  if (planned.threadMm > 0) use(spoolOf(box, piece.supply.thread, pieceId)?.id, record.threadMm ?? planned.threadMm)
  if (piece.fit.closure.kind !== 'none')
    use(closureIn(box, piece, pieceId)?.id, copies * Math.max(1, piece.fit.closure.openings))
  return [...out].map(([shelfId, amount]) => ({ shelfId, amount: Math.round(amount * 1000) / 1000 }))
}

/** The finished part as a swatch, measured from end to end; null where it is none. */
export const swatchOf = (piece: Piece, lengthMm: number): Swatch | null =>
  endToEnd(fittedPart(piece), {
    rows: laidRows(fittedPart(piece)),
    mm: lengthMm - plainEndsMm(fittedPart(piece)),
    from: piece.name,
  })

/** What a making says of the hand that made it. */
export function factsOf(
  piece: Piece,
  order: Pick<Order, 'copies'>,
  state: Pick<MakingState, 'presses'>,
  record: Counted & Pick<MakingRecord, 'lengthMm'>,
): Facts {
  const part = fittedPart(piece)
  const sittings = sittingsOf(state.presses)
  const planned = plannedOf(piece, order)
  const culls = new Map<string, { used: number; culled: number }>()
  // Where nothing was put aside nobody may have counted: it says nothing.
  if (record.culls.some((c) => c.count > 0))
    for (const { bead } of planned.beads) {
      const { used, culled } = usedOf(planned, record, bead.number)
      const there = culls.get(bead.spec) ?? { used: 0, culled: 0 }
      culls.set(bead.spec, { used: there.used + used, culled: there.culled + culled })
    }
  const swatch = record.lengthMm === null ? null : swatchOf(piece, record.lengthMm)
  // Tails and sewing are what they are: what is more or less than planned went into the path.
  const pathUsed =
    record.threadMm === null ? null : record.threadMm - (planned.threadMm - planned.pathMm * USUAL_SLACK)
  const slack = pathUsed === null || planned.pathMm === 0 ? null : pathUsed / planned.pathMm
  return {
    technique: part.technique,
    spec: part.spec,
    thread: piece.supply.thread,
    perHour: paceOf(sittings),
    hours: workedMs(sittings) / 3_600_000,
    along: swatch
      ? swatchFactors({ technique: part.technique, spec: part.spec }, swatch, {
          settings: part.settings,
          columns: columnsOf(part),
        }).along
      : null,
    culls: [...culls].map(([spec, counts]) => ({ spec, ...counts })),
    slack: slack !== null && slack > 0 ? slack : null,
  }
}
