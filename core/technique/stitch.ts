import type { z } from 'zod'
import type { Problem } from '../problem'
import type { DiscWork } from './disc'
import { bentDrawing } from './bent'
import type { Drawing } from './drawing'
import type { Chart, Lattice, Place } from './lattice'
import { BEADS, type Material } from './material'
import {
  wordsOf,
  type Extent,
  type Form,
  type Join,
  type LaidSums,
  type PlainEnds,
  type SettingField,
  type Settings,
  type Technique,
  type TechniqueWords,
  type ThreadPath,
  type Work,
  type WorkingRow,
} from './technique'

/**
 * A technique that is worked on a grid, as its file says it: a lattice, and formulas on counts of columns and rows.
 * `gridTechnique` answers with it what the rest of Weben asks.
 */
export interface Stitch {
  readonly id: string
  readonly family: 'weave' | 'braid' | 'coil'
  readonly form: Form
  readonly name: string
  readonly summary: string
  /** Settings of its own, with a default for each. */
  readonly settings: z.ZodType<Settings>
  readonly fields: readonly SettingField[]

  readonly disc?: DiscWork
  /** What its lines and counts are called; those of woven bands and tubes where it says nothing else (`wordsOf`). */
  readonly words?: TechniqueWords
  /** What its cells are made of; beads if not said (`materialOf`). */
  readonly material?: Material
  /** Columns of a small sample to choose by; what is usual for its form if not said. */
  readonly sampleColumns?: number
  /** Id of the stitch that it becomes when so many rows of it are turned by a quarter without losing a bead. */
  quarter?(rows: number): string
  readonly asLines?: Technique['asLines']
  climbs?: Technique['climbs']
  readonly heldBy?: Technique['heldBy']
  readonly plain?: PlainEnds

  // place
  /** Other ways to unroll the surface; the first is the one that is meant where none is named. */
  readonly charts?: readonly Chart[]
  lattice(work: Pick<Work, 'bead' | 'settings' | 'columns'> & { readonly chart?: string }): Lattice
  /**
   * Keys of cells that the grid has room for but the stitch has not; the same whatever lies in them. None if left out.
   */
  voids?(work: Pick<Work, 'columns' | 'rows' | 'settings'>): readonly number[]
  // extent, and count ↔ size (nominal mm; a real number of rows, the caller rounds)
  extent(work: Work): Extent
  lengthOf(work: Work): number
  rowsFor(lengthMm: number, work: Omit<Work, 'rows'>): number
  widthOf(work: Omit<Work, 'rows'>): number
  columnsFor(widthMm: number, work: Omit<Work, 'rows' | 'columns'>): number
  // tally
  /** Beads of a full grid, by closed formula. */
  beads(work: Pick<Work, 'columns' | 'rows'>): number
  // path
  path(work: Work): ThreadPath
  // ends
  /** Whether and how the ends join to a ring. */
  join(work: Work): Join
  // order
  workingRows(work: Pick<Work, 'rows'>): number
  /** The i-th thing to do, i from 0. */
  workingRow(i: number, work: Omit<Work, 'bead'>): WorkingRow
  /** Which working row lays cell (c, r). */
  workingRowOf(place: Place, work: Pick<Work, 'columns' | 'settings'>): number
  /** The working row before the i-th that lies in the same columns: the one that edge steps are measured against. */
  rowBefore(i: number): number
  /** Rows as weavers count them, for that many bead rows. */
  countedRows(rows: number, settings: Settings): number
  // rules
  /** Counts across that the stitch allows, nearest to what is wanted. */
  nearestColumns(columns: number, settings: Settings): number
  /** A repeat of any multiple of so many bead rows joins on without a slip sideways. */
  readonly repeatRows: number
  check(work: Omit<Work, 'bead'>): Problem[]
}

/** The sums of a work: as it is laid, or of the whole grid by closed formula. */
export function sumsOf(technique: Pick<Stitch, 'beads' | 'workingRows' | 'workingRow'>, work: Work): LaidSums {
  if (work.laid) return work.laid
  const beads = technique.beads(work)
  const rows = technique.workingRows(work)
  return { beads, rows, places: beads, firstPlaces: rows === 0 ? 0 : technique.workingRow(0, work).keys.length }
}

/** Beads of a grid that is bent at most. */
const MOST_BENT = 20_000

/** Columns of a small sample to choose by, where a stitch says nothing else: of a band, and of a round. */
const SAMPLE_ACROSS = 7
const SAMPLE_ROUND = 6

/** What the rest of Weben asks of a stitch, answered by its lattice and its formulas. */
export function gridTechnique(stitch: Stitch): Technique {
  const { id, family, form, name, summary, settings, fields, charts, disc } = stitch
  return {
    id,
    family,
    rowsLieBeside: family === 'weave',
    round: form === 'tube',
    name,
    summary,
    settings,
    fields,
    store: 'cells',
    words: wordsOf(stitch),
    material: stitch.material ?? BEADS,
    ...(charts ? { charts } : {}),
    ...(disc ? { disc } : {}),
    ...(stitch.asLines ? { asLines: stitch.asLines } : {}),
    ...(stitch.heldBy ? { heldBy: stitch.heldBy } : {}),
    ...(stitch.climbs ? { climbs: (own) => stitch.climbs!(own) } : {}),
    ...(stitch.quarter ? { quarter: (rows) => stitch.quarter!(rows) } : {}),
    drawing(work): Drawing {
      const lattice = stitch.lattice(work)
      const radiusMm = work.held?.bentMm ?? null
      // Far more than goes on any hoop is left flat: each bead of a bent grid has a place of its own.
      return radiusMm === null || form === 'tube' || work.columns * work.rows > MOST_BENT
        ? { kind: 'lattice', lattice }
        : bentDrawing({ ...work, lattice, radiusMm, voids: new Set(stitch.voids?.(work)) })
    },
    ...(stitch.voids ? { voids: (work) => stitch.voids!(work) } : {}),
    growth: {
      lengthOf: (work) => stitch.lengthOf(work),
      rowsFor: (lengthMm, work) => stitch.rowsFor(lengthMm, work),
      widthOf: (work) => stitch.widthOf(work),
      columnsFor: (widthMm, work) => stitch.columnsFor(widthMm, work),
      nearestColumns: (columns, own) => stitch.nearestColumns(columns, own),
      repeatRows: stitch.repeatRows,
      countedRows: (rows, own) => stitch.countedRows(rows, own),
      beads: (work) => stitch.beads(work),
      ...(stitch.plain ? { plain: stitch.plain } : {}),
      sampleColumns: stitch.sampleColumns ?? (form === 'tube' ? SAMPLE_ROUND : SAMPLE_ACROSS),
    },
    extent: (work) => stitch.extent(work),
    path: (work) => stitch.path(work),
    join: (work) => stitch.join(work),
    order: {
      count: (work) => stitch.workingRows(work),
      row: (i, work) => stitch.workingRow(i, work),
      rowOf: (place, work) => stitch.workingRowOf(place, work),
      before: (i) => stitch.rowBefore(i),
    },
    check: (work) => stitch.check(work),
  }
}

/** The lattice of a technique that has one; asked only where all others were led elsewhere before. */
export function requireLattice(
  { drawing, name }: Pick<Technique, 'drawing' | 'name'>,
  work: Omit<Work, 'rows'> & { readonly chart?: string },
): Lattice {
  const drawn = drawing({ rows: 0, ...work })
  if (drawn.kind !== 'lattice') throw new Error(`${name} lies on no lattice`)
  return drawn.lattice
}
