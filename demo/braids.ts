import { cellsFrom, emptyCells } from '../core/grid/cells'
import { loadingCells, type LoadingWish } from '../core/pattern/loading'
import { usualClosure, type ClosureKind } from '../core/wear/closure'
import type { FitKind } from '../core/wear/kind'
import { rowsWanted } from '../core/fit/reckon'
import type { Piece } from '../core/piece/piece'
import { costSchema, fitSchema, supplySchema } from '../core/piece/schema'
import { spotOf } from '../core/technique/braid/surface'
import { requireTechnique } from '../core/technique/registry'
import type { Settings } from '../core/technique/technique'
import { trayOf, type Dish } from './plan'

/** Braids of the demo workshop, all invented: graduated, with a motif, in bands. */
interface BraidPlan {
  readonly name: string
  readonly kind?: FitKind
  readonly wearer: string
  readonly bodyMm: number
  readonly easeMm: number
  readonly closure: ClosureKind
  readonly strands: number
  /** A round braid of that many strands by this school, or another technique by its own settings. */
  readonly school?: 'A' | 'B'
  readonly other?: { readonly technique: string; readonly settings: Settings }
  readonly spec: string
  readonly notes: string
  readonly tray: readonly Dish[]
  /** Rounds of one repeat, and the tray number of bead k of strand s in it; or a loading. */
  readonly repeat:
    | { readonly rounds: number; readonly at: (s: number, k: number) => number }
    | (LoadingWish & { readonly rounds: number })
  /** Rounds of start and end, the end mirrored from the start: r counts from the outside. */
  readonly ends: { readonly rounds: number; readonly at: (s: number, r: number) => number }
}

export function braidOf(plan: BraidPlan): Piece {
  const technique = plan.other?.technique ?? `braid-${plan.strands}`
  const school = plan.school ?? 'A'
  const n = plan.strands
  const cells = (rounds: number, at: (s: number, k: number) => number) =>
    rounds === 0
      ? emptyCells(n, 0)
      : cellsFrom(
          n,
          rounds,
          Array.from({ length: rounds * n }, (_, key) => at(key % n, Math.floor(key / n))),
        )
  const { repeat, ends } = plan
  const fit = fitSchema.parse({
    kind: plan.kind ?? 'bracelet',
    wearer: plan.wearer,
    bodyMm: plan.bodyMm,
    easeMm: plan.easeMm,
    closure: usualClosure(plan.closure),
    widthMm: 9,
  })
  const settings = requireTechnique(technique).settings.parse(plan.other?.settings ?? { school })
  const disc = requireTechnique(technique).disc!
  const part = {
    id: 'band',
    name: 'Rope',
    technique,
    settings,
    spec: plan.spec,
    times: 1,
    on: null,
    start: cells(ends.rounds, ends.at),
    end: cells(ends.rounds, (s, k) => ends.at(s, ends.rounds - 1 - k)),
    repeat:
      'loading' in repeat
        ? cellsFrom(n, repeat.rounds, loadingCells(repeat, repeat.rounds, n, disc.surface(settings)!))
        : cells(repeat.rounds, repeat.at),
  }
  const piece = {
    name: plan.name,
    notes: plan.notes,
    tray: trayOf(plan.spec, plan.tray),
    fit,
    gauges: [],
    meant: [],
    supply: supplySchema.parse({}),
    cost: costSchema.parse({}),
    parts: [part],
  }
  const times = Math.max(1, Math.round((rowsWanted(piece) - 2 * ends.rounds) / repeat.rounds))
  return { ...piece, parts: [{ ...part, times }] }
}

const headOf = (fit: Record<string, unknown>) => ({
  fit: fitSchema.parse(fit),
  gauges: [],
  meant: [],
  supply: supplySchema.parse({}),
  cost: costSchema.parse({}),
})

/** A plain cord bracelet: two fat strands wind round six fine ones. */
function cordOf(): Piece {
  const tray = trayOf('cord-1-5', [
    ['Ink cord', '#28324a', 'matte'],
    ['Hay cord', '#c9a35b', 'matte'],
  ])
  tray.push({
    ...trayOf('cord-2-5', [
      ['', '', 'matte'],
      ['', '', 'matte'],
      ['Brick cord', '#9c4a35', 'matte'],
    ])[2]!,
  })
  const part = {
    id: 'band',
    name: 'Cord',
    technique: 'braid-cord',
    settings: requireTechnique('braid-cord').settings.parse({ school: 'A', doubled: '', folded: true }),
    spec: 'cord-1-5',
    times: 1,
    on: null,
    start: emptyCells(8, 0),
    repeat: cellsFrom(8, 1, [3, 1, 2, 1, 3, 1, 2, 1]),
    end: emptyCells(8, 0),
  }
  const piece = {
    name: 'Harbour cord',
    notes: 'No beads: six fine cords and two fat ones, folded in their middles.',
    tray,
    ...headOf({
      kind: 'bracelet',
      wearer: 'The stall, large',
      bodyMm: 185,
      easeMm: 13,
      closure: usualClosure('magnet'),
      widthMm: 5,
    }),
    parts: [part],
  }
  return { ...piece, parts: [{ ...part, times: Math.round(rowsWanted(piece)) }] }
}

/**
 * A coiled rope: eleven beads of the string in an order that never meets a whole turn, so that it climbs as a spiral.
 */
function coilOf(): Piece {
  const tray = trayOf('round-8', [
    ['Moss', '#5f7440', 'matte'],
    ['Honey', '#d9a441', 'transparent'],
    ['Bark', '#5a4334', 'lustre'],
  ])
  const part = {
    id: 'band',
    name: 'Coil',
    technique: 'coil',
    settings: requireTechnique('coil').settings.parse({ coreMm: 3.5 }),
    spec: 'round-8',
    times: 1,
    on: null,
    start: emptyCells(11, 1, 1),
    repeat: cellsFrom(11, 1, [1, 1, 1, 1, 1, 1, 3, 2, 2, 2, 3]),
    end: emptyCells(11, 1, 1),
  }
  const piece = {
    name: 'Beehive coil',
    notes: 'Beads on wire round a core of soft cord.',
    tray,
    ...headOf({
      kind: 'choker',
      wearer: 'window',
      bodyMm: 350,
      easeMm: 62,
      closure: usualClosure('hook'),
      widthMm: 9,
    }),
    parts: [part],
  }
  return { ...piece, parts: [{ ...part, times: Math.round(rowsWanted(piece) - 2) }] }
}

export const BRAID_PIECES: readonly Piece[] = [
  braidOf({
    name: 'Evening tide rope',
    wearer: 'The stall, medium',
    bodyMm: 170,
    easeMm: 13,
    closure: 'magnet',
    strands: 8,
    school: 'A',
    spec: 'round-8',
    notes: 'Painted on the surface: a wave that climbs round the rope.',
    tray: [
      ['Bone', '#efe8d8', 'matte'],
      ['Sky glaze', '#7fb2b5', 'lustre'],
      ['Deep water', '#1d4f73', 'transparent'],
      ['Plum skin', '#4c3a5c', 'lustre'],
      ['Saffron', '#c98a1b', 'opaque'],
    ],
    repeat: {
      rounds: 12,
      at: (s, k) => {
        const { row, col } = spotOf(s, k, 8, 'A')
        const t = (row / 4 + 3 * Math.sin(2 * Math.PI * (col / 4 + row / 48)) + 24) % 6
        return t < 0.6 ? 4 : t < 2.2 ? 3 : t < 3.1 ? 2 : row % 24 === 7 && col === 1 ? 5 : 1
      },
    },
    ends: { rounds: 7, at: () => 1 },
  }),
  cordOf(),
  coilOf(),
]
