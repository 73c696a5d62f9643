import { requireLattice } from '#core/technique/stitch'
import { GLYPH_IDS } from '../core/bead/glyph'
import { trayLetter, type Finish, type TrayBead } from '../core/bead/bead'
import { requireSpec } from '../core/bead/spec'
import { usualClosure, type Closure, type ClosureKind } from '../core/wear/closure'
import { fitKindOf, type FitKind } from '../core/wear/kind'
import { rowsWanted } from '../core/fit/reckon'
import { cellsFrom, emptyCells } from '../core/grid/cells'
import { nearestTimes } from '../core/begin/begin'
import type { Part, Piece } from '../core/piece/piece'
import {
  costSchema,
  fitSchema,
  supplySchema,
  type Cost,
  type Fit,
  type Gauge,
  type Supply,
} from '../core/piece/schema'
import { requireTechnique } from '../core/technique/registry'
import type { Settings } from '../core/technique/technique'
import { sampled, type Design } from './motif'

/** How a piece of the demo workshop is described: its band, its beads and a design that is a function of place. */
/** A bead of the tray; of another size than the band's where a spec is named. */
export type Dish = readonly [name: string, colour: string, finish: Finish, spec?: string]

export const trayOf = (spec: string, dishes: readonly Dish[]): TrayBead[] =>
  dishes.map(([name, colour, finish, own], k) => ({
    number: k + 1,
    letter: trayLetter(k),
    glyph: GLYPH_IDS[k]!,
    name,
    spec: own ?? spec,
    colour,
    finish,
  }))

interface Plan {
  readonly name: string
  readonly notes: string
  readonly wearer: string
  /** A bracelet if left out. */
  readonly kind?: FitKind
  readonly bodyMm: number
  readonly easeMm: number
  readonly closure: ClosureKind
  readonly closureMore?: Partial<Closure>
  readonly fitMore?: Partial<Fit>
  readonly gauges?: readonly Gauge[]
  readonly supply?: Partial<Supply>
  readonly cost?: Partial<Cost>
  readonly technique: string
  readonly spec: string
  readonly columns: number
  readonly repeatRows: number
  readonly endRows: number
  readonly tray: readonly Dish[]
  readonly design: Design
  readonly settings?: Settings
  /** The ends, where they are not plain: r counts from the outer edge inward. */
  readonly end?: (c: number, r: number) => number
}

export function pieceOf(plan: Plan, more: readonly Part[] = []): Piece {
  const technique = requireTechnique(plan.technique)
  const settings = technique.settings.parse(plan.settings ?? {})
  const bead = requireSpec(plan.spec)
  const lattice = requireLattice(technique, { bead, settings, columns: plan.columns })
  const tray = trayOf(plan.spec, plan.tray)
  const endOf = (inward: (r: number) => number) =>
    plan.end
      ? cellsFrom(
          plan.columns,
          plan.endRows,
          Array.from({ length: plan.columns * plan.endRows }, (_, key) =>
            plan.end!(key % plan.columns, inward(Math.floor(key / plan.columns))),
          ),
        )
      : emptyCells(plan.columns, plan.endRows, 1)
  const partOf = (rows: number): Part => ({
    id: 'band',
    name: 'Band',
    technique: plan.technique,
    settings,
    spec: plan.spec,
    times: 1,
    on: null,
    start: endOf((r) => r),
    repeat: sampled(lattice, plan.columns, rows, plan.design),
    end: endOf((r) => plan.endRows - 1 - r),
  })
  const widthMm = Math.round(technique.growth.widthOf({ columns: plan.columns, bead, settings }))
  const fit = fitSchema.parse({
    kind: plan.kind ?? 'bracelet',
    wearer: plan.wearer,
    bodyMm: plan.bodyMm,
    easeMm: plan.easeMm,
    closure: { ...usualClosure(plan.closure), ...plan.closureMore },
    widthMm,
    ...plan.fitMore,
  })
  const base = {
    name: plan.name,
    notes: plan.notes,
    tray,
    fit,
    gauges: plan.gauges ?? [],
    meant: [],
    supply: supplySchema.parse({ needle: '13', ...plan.supply }),
    cost: costSchema.parse(plan.cost ?? {}),
  }
  // The design is stretched a little, so that whole repeats end where the measure does.
  const first = { ...base, parts: [partOf(plan.repeatRows), ...more] }
  const times = nearestTimes(first)
  const step = technique.growth.repeatRows
  const rows = step * Math.max(1, Math.round((rowsWanted(first) - 2 * plan.endRows) / times / step))
  return {
    ...base,
    parts: [{ ...partOf(rows), ...(fitKindOf(fit.kind).kind === 'earrings' ? { name: 'Drop' } : {}), times }, ...more],
  }
}
