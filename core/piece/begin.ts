import { nextOnTray, type Finish, type TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import { fitBracelet, rowsForLength } from '../fit/bracelet'
import { closureOf, type ClosureKind } from '../fit/closure'
import { cellsFrom, emptyCells, type Cells } from '../grid/cells'
import { motifCells, type MotifId } from '../pattern/motif'
import { requireTechnique } from '../technique/registry'
import type { Settings } from '../technique/technique'
import type { Part, Piece } from './piece'
import { LIMITS, supplySchema } from './schema'

/** What a person says to begin a bracelet; everything can be changed later. */
export interface BraceletWish {
  readonly name: string
  readonly wearer: string
  readonly wristMm: number
  readonly easeMm: number
  readonly closure: { readonly kind: ClosureKind, readonly lengthMm: number }
  readonly widthMm: number
  readonly technique: string
  readonly spec: string
  readonly motif: MotifId
  readonly start: 'left' | 'right'
  /** Settings of the stitch beyond the side it starts from; defaults where left out. */
  readonly settings?: Settings
}

const bead = (tray: readonly TrayBead[], name: string, spec: string, colour: string, finish: Finish): TrayBead => ({ ...nextOnTray(tray), name, spec, colour, finish })

/** Four beads that go together, to begin with. */
export function firstTray(spec: string): TrayBead[] {
  const tray: TrayBead[] = []
  tray.push(bead(tray, 'Fog', spec, '#d9d4c7', 'lustre'))
  tray.push(bead(tray, 'Kingfisher', spec, '#1b7fa3', 'transparent'))
  tray.push(bead(tray, 'Rust', spec, '#b5512b', 'matte'))
  tray.push(bead(tray, 'Old gold', spec, '#b98a2e', 'metallic'))
  return tray
}

/** A small piece of a stitch in the colours of the first tray, to choose by: bands of colour, so that the lie of the beads shows. */
export function sampleOf(technique: string, spec: string): Part {
  const t = requireTechnique(technique)
  const settings = t.settings.parse({})
  const columns = t.nearestColumns(t.id === 'ladder' ? 2 : t.form === 'tube' ? 6 : 7, settings)
  const flat = Array.from({ length: columns * 48 }, (_, key) => (Math.floor(key / columns / 6) % 2 === 0 ? 2 : 1))
  return { id: 'sample', name: 'Sample', technique, settings, spec, times: 1, start: emptyCells(columns, 0), repeat: cellsFrom(columns, 48, flat), end: emptyCells(columns, 0) }
}

/** Plain rows at each end, so that a closure can be sewn on without crowding the pattern. */
export const PLAIN_END_ROWS = 2

/** Columns that come nearest to a width, of a count that the stitch allows. */
export function columnsForWidth(technique: string, settings: Settings, spec: string, widthMm: number): number {
  const t = requireTechnique(technique)
  return Math.min(LIMITS.columns - 1, t.nearestColumns(t.columnsFor(widthMm, { bead: requireSpec(spec), settings }), settings))
}

/** A first bracelet: as many whole repeats of a motif as the wrist takes, and plain ends that make up the rest, so that it closes at once. */
export function beginBracelet(wish: BraceletWish): Piece {
  const technique = requireTechnique(wish.technique)
  const settings = technique.settings.parse({ ...wish.settings, start: wish.start })
  const columns = columnsForWidth(wish.technique, settings, wish.spec, wish.widthMm)
  const tray = firstTray(wish.spec)
  const lattice = technique.lattice({ bead: requireSpec(wish.spec), settings, columns })
  const plain = (rows: number) => emptyCells(columns, rows, tray[0]!.number)
  const part: Part = {
    id: 'band', name: 'Band', technique: wish.technique, settings, spec: wish.spec, times: 1,
    start: plain(PLAIN_END_ROWS), repeat: motifCells(wish.motif, lattice, columns, tray.map(b => b.number)), end: plain(PLAIN_END_ROWS),
  }
  const fit = { kind: 'bracelet' as const, wearer: wish.wearer, wristMm: wish.wristMm, easeMm: wish.easeMm, closure: wish.closure, widthMm: wish.widthMm }
  return { name: wish.name, notes: '', tray, fit, supply: supplySchema.parse({}), parts: [withEnds(fit, part, plain)] }
}

function withEnds(fit: Piece['fit'], part: Part, plain: (rows: number) => Cells): Part {
  const rows = Math.round(rowsForLength(part, fitBracelet(fit, part).targetMm))
  const per = part.repeat.rows
  const times = Math.min(LIMITS.times, Math.max(1, Math.floor((rows - 2 * PLAIN_END_ROWS) / per)))
  const spare = Math.max(2 * PLAIN_END_ROWS, rows - times * per)
  return { ...part, times, start: plain(Math.ceil(spare / 2)), end: plain(Math.floor(spare / 2)) }
}

/** Whole repeats that come nearest to what the wrist takes, at least one. */
export function nearestTimes(fit: Piece['fit'], part: Part, tray: Piece['tray'] = []): number {
  const { targetMm } = fitBracelet(fit, part)
  const rows = rowsForLength(part, targetMm, tray) - part.start.rows - part.end.rows
  return Math.min(LIMITS.times, Math.max(1, Math.round(rows / part.repeat.rows)))
}

export const usualClosure = (kind: ClosureKind): BraceletWish['closure'] => ({ kind, lengthMm: closureOf(kind).lengthMm })
