import type { z } from 'zod'
import { keyOf } from '../grid/key'
import type { Problem } from '../problem'
import type { Act } from './act'
import type { Drawing } from './drawing'
import { BEADS, type Material } from './material'
import {
  lengthOfRow,
  unjoined,
  type Extent,
  type FirstLines,
  type Growth,
  type Join,
  type Plan,
  type SettingField,
  type Settings,
  type Technique,
  type TechniqueWords,
  type ThreadPath,
  type Work,
  type WorkingRow,
} from './technique'

/**
 * A technique whose parts are lines of their own lengths, as its file says it: what a line means is in its plan. A
 * line is one thing to do, and its beads are picked up one after the other, unless it says otherwise.
 */
export interface Strung {
  readonly id: string
  readonly name: string
  readonly summary: string
  readonly settings: z.ZodType<Settings>
  readonly fields: readonly SettingField[]
  readonly plan: z.ZodType<Plan>
  readonly words: TechniqueWords
  /** What line i is called, where it is one of a kind. */
  lineTitle?(i: number, work: Work): string
  readonly material?: Material
  readonly script?: Technique['script']
  planKey?: Technique['planKey']
  readonly recipe?: Technique['recipe']
  readonly making?: Technique['making']
  readonly kinds?: Technique['kinds']
  readonly closure?: Technique['closure']
  readonly anyOrder?: boolean
  readonly sideBySide?: boolean
  awaits?: Technique['awaits']
  readonly hangs?: boolean
  holds?: Technique['holds']
  apart?: Technique['apart']
  alike?: Technique['alike']
  readonly strands?: Technique['strands']
  readonly wire?: Technique['wire']
  readonly begins?: Technique['begins']
  readonly graded?: Technique['graded']
  eyeAcross?: Technique['eyeAcross']
  grams?: Technique['grams']
  drawing(work: Work): Drawing
  extent(work: Work): Extent
  path(work: Work): ThreadPath
  join?(work: Work): Join
  /** Length of so many lines, mm, and back: lines (a real number) for a length. */
  lengthOf(work: Work): number
  rowsFor(lengthMm: number, work: Omit<Work, 'rows'>): number
  /** Lengths of the lines that a work of so many begins with. */
  firstLines(count: number, work: Omit<Work, 'rows'>): readonly number[]
  readonly first?: FirstLines
  relined?: Technique['relined']
  picks?: Technique['picks']
  readonly tunes?: Technique['tunes']
  readonly meets?: Technique['meets']
  /** All that is done in line i, picking its beads up among it; `keys` are those beads. */
  acts?(i: number, work: Work, keys: Int32Array): readonly Act[]
  /** Line i as it is worked, where its beads are picked up in another order, or told step by step. */
  row?(i: number, work: Work): Pick<WorkingRow, 'keys' | 'acts' | 'told'>
  pictures?: Technique['pictures']
  sums?: Technique['sums']
  workplace?: Technique['workplace']
  findings?: Technique['findings']
  check(work: Omit<Work, 'bead'>): Problem[]
  /** Lines after which its plan begins again; 1 if not said. */
  readonly repeatRows?: number
  readonly plain?: Growth['plain']
}

const beadsIn = (work: Omit<Work, 'bead' | 'settings'>): number => {
  let beads = 0
  for (let r = 0; r < work.rows; r++) beads += lengthOfRow(work, r)
  return beads
}

/** What the rest of Weben asks of a technique, answered by lines of their own lengths. */
export function lineTechnique(strung: Strung): Technique {
  const { id, name, summary, settings, fields, plan, words } = strung
  return {
    id,
    family: 'strung',
    rowsLieBeside: false,
    round: false,
    name,
    summary,
    settings,
    fields,
    store: 'lines',
    plan,
    words,
    material: strung.material ?? BEADS,
    firstLines: (count, work) => strung.firstLines(count, work),
    ...(strung.script ? { script: strung.script } : {}),
    ...(strung.planKey ? { planKey: strung.planKey } : {}),
    ...(strung.recipe ? { recipe: strung.recipe } : {}),
    ...(strung.making ? { making: strung.making } : {}),
    ...(strung.kinds ? { kinds: strung.kinds } : {}),
    ...(strung.closure ? { closure: strung.closure } : {}),
    ...(strung.anyOrder ? { anyOrder: true } : {}),
    ...(strung.sideBySide ? { sideBySide: true } : {}),
    ...(strung.first ? { first: strung.first } : {}),
    ...(strung.tunes ? { tunes: strung.tunes } : {}),
    ...(strung.meets ? { meets: strung.meets } : {}),
    ...(strung.picks ? { picks: strung.picks } : {}),
    ...(strung.relined ? { relined: strung.relined } : {}),
    ...(strung.awaits ? { awaits: strung.awaits } : {}),
    ...(strung.hangs ? { hangs: true } : {}),
    ...(strung.holds ? { holds: strung.holds } : {}),
    ...(strung.apart ? { apart: strung.apart } : {}),
    ...(strung.alike ? { alike: strung.alike } : {}),
    ...(strung.strands ? { strands: strung.strands } : {}),
    ...(strung.wire ? { wire: strung.wire } : {}),
    ...(strung.begins ? { begins: strung.begins } : {}),
    ...(strung.graded ? { graded: strung.graded } : {}),
    ...(strung.eyeAcross ? { eyeAcross: strung.eyeAcross } : {}),
    ...(strung.grams ? { grams: strung.grams } : {}),
    drawing: (work) => strung.drawing(work),
    growth: {
      lengthOf: (work) => strung.lengthOf(work),
      rowsFor: (lengthMm, work) => strung.rowsFor(lengthMm, work),
      // No count across is chosen: how wide it is follows from its lines.
      widthOf: () => 0,
      columnsFor: () => 1,
      nearestColumns: (columns) => Math.max(1, Math.round(columns)),
      repeatRows: strung.repeatRows ?? 1,
      countedRows: (rows) => rows,
      beads: beadsIn,
      ...(strung.plain ? { plain: strung.plain } : {}),
      sampleColumns: 1,
    },
    extent: (work) => strung.extent(work),
    path: (work) => strung.path(work),
    join: (work) => strung.join?.(work) ?? unjoined('Lines of their own lengths have no ends that meet.'),
    order: {
      count: ({ rows }) => rows,
      row(i, work) {
        const own = strung.row?.(i, work)
        const title = strung.lineTitle?.(i, work)
        const named = title ? { title } : {}
        if (own) return { from: i + 1, to: i + 1, ...named, direction: '→', ...own }
        const length = lengthOfRow(work, i)
        const from = keyOf(work.columns, 0, i)
        const keys = Int32Array.from({ length }, (_, c) => from + c)
        const acts = strung.acts?.(i, work, keys)
        return {
          from: i + 1,
          to: i + 1,
          ...named,
          direction: '→',
          keys,
          even: { from, stride: 1, count: length },
          ...(acts ? { acts } : {}),
        }
      },
      rowOf: ({ r }) => r,
      before: (i) => i - 1,
    },
    ...(strung.workplace ? { workplace: strung.workplace } : {}),
    ...(strung.pictures ? { pictures: strung.pictures } : {}),
    ...(strung.sums ? { sums: strung.sums } : {}),
    ...(strung.findings ? { findings: strung.findings } : {}),
    check: (work) => strung.check(work),
  }
}
