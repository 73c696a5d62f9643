import { requireLattice } from '../technique/stitch'
import { nextOnTray, type Finish, type TrayBead } from '../bead/bead'
import { requireSpec } from '../bead/spec'
import { usualClosure, type Closure } from '../wear/closure'
import { gaugeKeyOf, sameGauge } from '../fit/gauge'
import { fitKindOf, type FitKind } from '../wear/kind'
import { extentOf } from '../fit/extent'
import { fitOf, rowsWanted, type Fitted } from '../fit/reckon'
import { rowOfKey } from '../grid/key'
import { cellsFrom, emptyCells, type Cells } from '../grid/cells'
import { linesOf, raggedFrom, removeLines } from '../grid/lines'
import { beginGraded } from './begin-graded'
import { beginHanging } from './begin-hanging'
import { GRADED } from './beginnings'
import { motifCells, type MotifId } from '../pattern/motif'
import { BY_LINKS } from '../technique/on-chain'
import { requireTechnique } from '../technique/registry'
import type { Settings, Technique } from '../technique/technique'
import { columnsForWidth } from '../piece/habit'
import { isRing } from '../piece/join'
import { SECTIONS, workOf, type Part, type Piece } from '../piece/piece'
import { hung } from '../piece/held'
import { sized } from '../piece/sizes'
import { costSchema, fitSchema, LIMITS, supplySchema, type Gauge } from '../piece/schema'

/** What a person says to begin a piece; everything can be changed later. */
export interface PieceWish {
  readonly kind: FitKind
  readonly name: string
  readonly wearer: string
  readonly bodyMm: number
  readonly easeMm: number
  readonly passMm?: number
  readonly wraps?: number
  readonly closure: Closure
  readonly widthMm: number
  readonly technique: string
  readonly spec: string
  readonly motif: MotifId
  readonly start: 'left' | 'right'
  /** What strands hang from, where they are begun; the first that their technique offers if left out. */
  readonly hangsFrom?: string
  /** Settings of the stitch beyond the side it starts from; defaults where left out. */
  readonly settings?: Settings
  /** Gauges of the person; the one for this stitch and bead is used. */
  readonly gauges?: readonly Gauge[]
  readonly currency?: string
}

const bead = (tray: readonly TrayBead[], name: string, spec: string, colour: string, finish: Finish): TrayBead => ({
  ...nextOnTray(tray),
  name,
  spec,
  colour,
  finish,
})

/** Four beads that go together, to begin with. */
export function firstTray(spec: string): TrayBead[] {
  const tray: TrayBead[] = []
  tray.push(bead(tray, 'Fog', spec, '#d9d4c7', 'lustre'))
  tray.push(bead(tray, 'Kingfisher', spec, '#1b7fa3', 'transparent'))
  tray.push(bead(tray, 'Rust', spec, '#b5512b', 'matte'))
  tray.push(bead(tray, 'Old gold', spec, '#b98a2e', 'metallic'))
  return tray
}

/** More beads that go with them, for work whose beads play more parts than there are first ones. */
const MORE = [
  ['Moss', '#5d7f4f', 'opaque'],
  ['Plum', '#7b3f61', 'lustre'],
  ['Shell', '#e6cfc4', 'lustre'],
  ['Slate', '#4f5b66', 'matte'],
  ['Straw', '#dcc27a', 'transparent'],
  ['Teal', '#2f7f78', 'transparent'],
] as const satisfies readonly (readonly [string, string, Finish])[]

/** A tray of so many beads: the first four, and others that go with them. */
function trayOf(first: readonly TrayBead[], spec: string, count: number): TrayBead[] {
  const tray = [...first]
  for (let k = tray.length; k < count; k++) {
    const [name, colour, finish] = MORE[(k - first.length) % MORE.length]!
    const again = Math.floor((k - first.length) / MORE.length)
    tray.push(bead(tray, again === 0 ? name : `${name} ${again + 1}`, spec, colour, finish))
  }
  return tray.slice(0, count)
}

/**
 * A small piece of a stitch in the colours of the first tray, to choose by: bands of colour, so that the lie of the
 * beads shows.
 */
export function sampleOf(technique: string, spec: string): Part {
  const t = requireTechnique(technique)
  const settings = t.settings.parse({})
  if (t.firstLines) return sampleLines(t, spec, settings)
  const columns = t.growth.nearestColumns(t.growth.sampleColumns, settings)
  const flat = Array.from({ length: columns * 48 }, (_, key) =>
    Math.floor(rowOfKey(columns, key) / 6) % 2 === 0 ? 2 : 1,
  )
  return {
    id: 'sample',
    name: 'Sample',
    technique,
    settings,
    spec,
    times: 1,
    on: null,
    start: emptyCells(columns, 0),
    repeat: cellsFrom(columns, 48, flat),
    end: emptyCells(columns, 0),
  }
}

/** A sample of lines, with the sizes that its beads have. */
function sampleLines(technique: Technique, spec: string, settings: Settings): Part {
  const parts = technique.first ? Array.from(technique.first.sizes, (_, k) => (k === 0 ? 1 : k + 2)) : [1]
  const numbers = [2, ...parts]
  // What is bent to a size is shown whole, once.
  const work = { columns: 1, bead: requireSpec(spec), settings }
  const count = technique.wire?.sizedTo ? Math.round(technique.growth.rowsFor(0, work)) : SAMPLE_LINES
  const part = { ...linesPart(technique, spec, settings, count, numbers), id: 'sample', name: 'Sample' }
  return sized({ tray: sampleTray(technique.id, spec), parts: [part] }).parts[0]!
}

/** The beads of a sample: where they play different parts, each in its size. */
export function sampleTray(technique: string, spec: string): TrayBead[] {
  const { first } = requireTechnique(technique)
  if (!first) return firstTray(spec)
  const tray = trayOf(firstTray(spec), spec, Math.max(FIRST_COUNT, first.sizes.length + 1))
  // The sample shows the second bead of the tray in its first part.
  const [one, two] = [first.sizes[0] ?? spec, spec]
  return tray.map((b, k) => ({ ...b, spec: k === 0 ? one : k === 1 ? two : (first.sizes[k - 1] ?? b.spec) }))
}

const FIRST_COUNT = 4

/** Lines of a sample, where they have lengths of their own. */
const SAMPLE_LINES = 24

/**
 * A part of so many lines as its technique begins them, each in one bead: numbers follow each other in pairs. Where
 * beads play different parts, each part has its own number, and the lines between the first and the last are one
 * repeat.
 */
function linesPart(technique: Technique, spec: string, settings: Settings, count: number, numbers: number[]): Part {
  const work = { columns: 1, bead: requireSpec(spec), settings }
  const { first } = technique
  const lengths = first ? [] : technique.firstLines!(count, work)
  const edge = first?.edge ?? 1
  const period = first?.period?.(work) ?? 1
  const times = Math.max(1, Math.round((count - 2 * edge) / period))
  const all = 2 * edge + times * period
  const line = (r: number) =>
    Uint16Array.from(first?.parts(r, all, work) ?? [], (part) => numbers[part % numbers.length]!)
  const edgeLines = (from: number) => raggedFrom(Array.from({ length: edge }, (_, k) => line(from + k)))
  const sections = first
    ? {
        times,
        start: edgeLines(0),
        repeat: raggedFrom(Array.from({ length: period }, (_, k) => line(edge + k))),
        end: edgeLines(all - edge),
      }
    : {
        times: 1,
        start: raggedFrom([]),
        repeat: raggedFrom(
          lengths.map((length, k) => new Uint16Array(length).fill(numbers[Math.floor(k / 2) % numbers.length]!)),
        ),
        end: raggedFrom([]),
      }
  return {
    id: 'band',
    name: technique.name,
    technique: technique.id,
    settings,
    spec,
    on: null,
    ...(technique.plan ? { plan: technique.plan.parse({}) } : {}),
    ...sections,
  }
}

/** The first tray of a technique whose beads play different parts: each in the size of its own. */
function trayFor(technique: Technique, tray: readonly TrayBead[]): TrayBead[] {
  const { first } = technique
  if (!first || first.sizes.length === 0) return [...tray]
  return trayOf(tray, tray[0]!.spec, first.sizes.length + 1).map((b, k) => ({
    ...b,
    spec: k === 0 ? b.spec : first.sizes[k - 1]!,
  }))
}

/** Work of lines begins with as many as its measure takes; in graded sizes where that is wished. */
function beginLines(asked: PieceWish, technique: Technique, first: readonly TrayBead[], settings: Settings): Piece {
  const graded = asked.hangsFrom === GRADED && technique.graded?.kinds.includes(asked.kind) && technique.graded
  const wish = graded ? { ...asked, closure: { ...usualClosure('own'), ...BY_LINKS } } : asked
  const tray = trayFor(technique, first)
  const numbers = tray.map((b) => b.number)
  const as = (own: Settings) => (count: number) => linesPart(technique, wish.spec, own, count, numbers)
  // What is bent to a size begins in the one that is wanted.
  const draft = headOf(wish, tray, as(settings)(1))
  const sizings = technique.wire?.sizedTo?.(
    extentOf(draft, draft.parts[0]!).lengthMm.nominal - fitOf(draft).differenceMm,
    workOf(draft.parts[0]!),
  )
  const part = as(sizings?.[0]?.settings ?? settings)
  const wanted = Math.round(rowsWanted(headOf(wish, tray, part(1))))
  const made = part(Math.min(LIMITS.rows, Math.max(1, wanted)))
  // Parts that nothing plays as it is set have no bead until they are asked for.
  const used = new Set(SECTIONS.flatMap((section) => linesOf(made[section]).flatMap((line) => [...line])))
  const laid = technique.picks ? tray.filter(({ number }) => used.has(number)) : tray
  const piece = headOf(wish, laid, made)
  return graded ? beginGraded(piece, { graded, widthMm: wish.widthMm, part: (own) => as(own)(1) }) : piece
}

/** Strands begin with what they hang from; they are what is fitted. */
function beginStrands(wish: PieceWish, technique: Technique, tray: TrayBead[], settings: Settings): Piece {
  return beginHanging(
    {
      technique,
      begins: technique.begins!,
      from: wish.hangsFrom ?? '',
      kind: wish.kind,
      settings,
      spec: wish.spec,
      widthMm: wish.widthMm,
      tray,
      bodyMm: wish.bodyMm,
      closure: wish.closure,
      around(all, parts, fit) {
        const piece = headOf(wish, all, parts.at(-1)!)
        return { ...piece, parts, fit: { ...piece.fit, ...fit } }
      },
    },
    (all) => trayOf(all, wish.spec, all.length + 1).at(-1)!,
  )
}

/** Plain rows at each end, so that a closure can be sewn on without crowding the pattern. */
const PLAIN_END_ROWS = 2

/**
 * Settings of a stitch as wished; the side to start from where the stitch knows sides, and ends that meet where
 * nothing closes a ring.
 */
export function settingsFor(
  id: string,
  { settings = {}, start, ...fit }: Pick<PieceWish, 'settings' | 'start' | 'kind' | 'closure'>,
): Settings {
  const { fields, settings: schema, meets } = requireTechnique(id)
  return schema.parse({
    ...settings,
    ...(fields.some((f) => f.key === 'start') ? { start } : {}),
    ...(isRing(fit) ? meets : {}),
  })
}

/**
 * A first piece: as many whole repeats of a motif as the measure takes, and plain ends that make up the rest, so that
 * it fits at once.
 */
export function beginPiece(wish: PieceWish): Piece {
  const technique = requireTechnique(wish.technique)
  const settings = settingsFor(wish.technique, wish)
  const columns = columnsForWidth(wish.technique, settings, wish.spec, wish.widthMm)
  const tray = firstTray(wish.spec)
  if (technique.begins) return beginStrands(wish, technique, tray, settings)
  if (technique.firstLines) return beginLines(wish, technique, tray, settings)
  if (technique.material.through) return beginCords(wish, tray, columns, settings)
  const lattice = requireLattice(technique, { bead: requireSpec(wish.spec), settings, columns })
  const plain = (rows: number) => emptyCells(columns, rows, tray[0]!.number)
  const part: Part = {
    id: 'band',
    name: fitKindOf(wish.kind).kind === 'earrings' ? 'Drop' : 'Band',
    technique: wish.technique,
    settings,
    spec: wish.spec,
    times: 1,
    on: null,
    start: plain(PLAIN_END_ROWS),
    repeat: motifCells(
      wish.motif,
      lattice,
      columns,
      tray.map((b) => b.number),
    ),
    end: plain(PLAIN_END_ROWS),
  }
  const piece = headOf(wish, tray, part)
  return { ...piece, parts: [withEnds(piece, plain)] }
}

/** The piece round a first part: what it is for, and what is known of the hand that makes it. */
function headOf(wish: PieceWish, tray: TrayBead[], part: Part): Piece {
  const fit = fitSchema.parse({
    kind: wish.kind,
    wearer: wish.wearer,
    bodyMm: wish.bodyMm,
    easeMm: wish.easeMm,
    passMm: wish.passMm ?? 0,
    wraps: wish.wraps ?? 1,
    closure: wish.closure,
    widthMm: wish.widthMm,
  })
  const supply = supplySchema.parse({})
  const key = gaugeKeyOf(part, supply.thread)
  const gauges = (wish.gauges ?? []).filter((g) => sameGauge(g, key))
  return hung(
    sized({
      name: wish.name,
      notes: '',
      tray,
      fit,
      gauges,
      meant: [],
      supply,
      cost: costSchema.parse(wish.currency ? { currency: wish.currency } : {}),
      parts: [part],
    }),
  )
}

/**
 * A plain braid begins with its cords two by two in the colours of the tray; a row is a round, and there are as many
 * as the measure takes.
 */
function beginCords(wish: PieceWish, tray: TrayBead[], strands: number, settings: Settings): Piece {
  const none = emptyCells(strands, 0)
  const repeat = cellsFrom(
    strands,
    1,
    Array.from({ length: strands }, (_, s) => tray[Math.floor((s + 1) / 2) % 2]!.number),
  )
  const part: Part = {
    id: 'band',
    name: 'Braid',
    technique: wish.technique,
    settings,
    spec: wish.spec,
    times: 1,
    on: null,
    start: none,
    repeat,
    end: none,
  }
  const piece = headOf(wish, tray, part)
  return { ...piece, parts: [{ ...part, times: Math.min(LIMITS.times, Math.max(1, Math.round(rowsWanted(piece)))) }] }
}

function withEnds(piece: Fitted, plain: (rows: number) => Cells): Part {
  const part = piece.parts[0]!
  const rows = Math.round(rowsWanted(piece))
  const per = part.repeat.rows
  const times = Math.min(LIMITS.times, Math.max(1, Math.floor((rows - 2 * PLAIN_END_ROWS) / per)))
  const spare = Math.max(2 * PLAIN_END_ROWS, rows - times * per)
  // Where the work is shorter than one repeat, the repeat itself is cut: a ring or an earring is rarely longer.
  if (rows < per + 2 * PLAIN_END_ROWS && rows > 0) {
    const step = requireTechnique(part.technique).growth.repeatRows
    const kept = Math.max(step, Math.round((rows - 2 * PLAIN_END_ROWS) / step) * step)
    const left = Math.max(2, rows - kept)
    return {
      ...part,
      times: 1,
      repeat: removeLines(part.repeat, kept, Math.max(0, per - kept)),
      start: plain(Math.ceil(left / 2)),
      end: plain(Math.floor(left / 2)),
    }
  }
  return { ...part, times, start: plain(Math.ceil(spare / 2)), end: plain(Math.floor(spare / 2)) }
}

/** Whole repeats of the first part that come nearest to what is wanted, at least one. */
export function nearestTimes(piece: Fitted): number {
  const part = piece.parts[0]!
  const rows = rowsWanted(piece) - part.start.rows - part.end.rows
  return Math.min(LIMITS.times, Math.max(1, Math.round(rows / part.repeat.rows)))
}
