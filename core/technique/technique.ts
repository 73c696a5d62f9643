import type { z } from 'zod'
import { placeOfKey } from '../grid/key'
import type { ThreadGauge } from '../bead/hole'
import type { BeadSpec } from '../bead/spec'
import type { ClosureKind } from '../wear/closure'
import type { FitKind } from '../wear/kind'
import type { ChainProblem } from '../layout/problem'
import type { Problem } from '../problem'
import type { DiscWork } from './disc'
import type { SettingField, Settings } from './setting'
import type { Begins, Graded } from './begins'
import type { Drawing } from './drawing'
import type { Holds, Side } from './held'
import type { Act, CarrierId, Hole } from './act'
import type { Chart, Place } from './lattice'
import type { Material } from './material'
import type { PickedLines } from './picked'
import type { Board, Told } from './recipe-board'
import type { Script } from './script'
import type { StepPicture } from './step-picture'
import type { StrandSide } from './strand-side'
import type { Plan } from './plan'
import type { Work } from './work'
import type { WireSide } from './wire-side'
import type { Workplace } from './workplace'

export type { SettingField, Settings }

export { lengthOfRow } from './work'
export type { LaidSums, LaidWork, Work } from './work'
export type { Plan }

export interface Range {
  readonly least: number
  readonly nominal: number
  readonly most: number
}

/** A size and what it stands on: nominal bead figures until someone measures. */
export interface Extent {
  readonly lengthMm: Range
  readonly widthMm: Range
  readonly thicknessMm: number
  readonly basis:
    | { readonly kind: 'nominal'; readonly spread: number }
    | { readonly kind: 'gauge'; readonly spread: number; readonly swatches: number }
  /** The models with their values: shown, so that they can be checked. */
  readonly lengthFormula: string
  readonly widthFormula: string
}

/** One thing the hands do before turning: the beads picked up, in order. */
export interface WorkingRow {
  /** Rows it makes, counted from 1 as weavers count; the first string of peyote makes two. */
  readonly from: number
  readonly to: number
  /** What it is called, where it is one of a kind among its lines: “Stem”, “Wire 2 across”. */
  readonly title?: string
  readonly direction: '→' | '←'
  /** Keys of the cells in the order in which they are picked up. */
  readonly keys: Int32Array
  /** The same as an even sequence within one bead row, where it is one: read without making the keys. */
  readonly even?: { readonly from: number; readonly stride: number; readonly count: number }
  /** All that the hands do, where picking the beads up one after the other does not say it (act.ts). */
  readonly acts?: readonly Act[]
  /** The same in words, step by step, where it is told more exactly than the acts can be read. */
  readonly told?: readonly ToldStep[]
  /** What the hands do after the last bead, beyond turning the work: named in the words. */
  readonly after?: 'step up' | 'long turn' | 'join'
}

/** One step of a row in words. */
export interface ToldStep {
  /** Which needle or wire end, where there are two; empty otherwise. */
  readonly who: string
  /** What is done: “back through all 3 beads”. */
  readonly says: string
  /** What is said besides; empty for most. */
  readonly note: string
  /** Beads that it picks up, in order. */
  readonly keys: ArrayLike<number>
}

/** The cells of a working row as places. */
export const placesOf = ({ keys }: Pick<WorkingRow, 'keys'>, columns: number): Place[] =>
  Array.from(keys, (key) => placeOfKey(columns, key))

/** Length of one kind of thread through the work, before slack, tails and joins. */
export interface ThreadRun {
  readonly id: CarrierId
  /** What tells it from others of its kind, where one part has several. */
  readonly key?: string
  readonly name: string
  /** Threads of this kind that lie side by side; each is `lengthMm` long. */
  readonly count: number
  readonly lengthMm: number
  /** Whether the run is cut in working lengths and joined, or stretched in one. */
  readonly joined: boolean
  /** Whether it is cut as it is, with nothing to round up to: whole links of a chain. */
  readonly exact?: boolean
  /** What its length is rounded up to, mm; as thread is if left out. */
  readonly stepMm?: number
  /** What to ask for in a shop, where the work itself decides it. */
  readonly shopName?: string
  /**
   * Where every strand is a cord of its own colour and thickness: what of `lengthMm` is knots, which do not grow with
   * thickness, and whether one cord, folded in its middle, makes two strands.
   */
  readonly each?: { readonly knotsMm: number; readonly folded: boolean }
  /** The model in words, with its values: shown, so that it can be checked. */
  readonly formula: string
}

/** How the two ends of a work are joined to a ring where nothing closes it. */
export interface Join {
  /** Whether they can be; if not, `says` tells what to do instead. */
  readonly joins: boolean
  readonly says: string
  /** What joining adds to the length, mm: negative where one end goes into the other. */
  readonly addsMm: number
  /** That in words, with its values; empty where it adds nothing. */
  readonly formula: string
  /** Whether the ends interlock, which only whole bead rows do. */
  readonly zips?: boolean
  /** Cells that hold beads only because the ends are joined, in the order in which they are picked up. */
  readonly keys?: readonly number[]
  /** Thread for it, mm. */
  readonly threadMm?: number
}

export interface ThreadPath {
  readonly runs: readonly ThreadRun[]
  /** How often each hole is passed, as a rule. */
  readonly passes: number
  /** How often a hole of the bead at (c, r) is passed, where beads differ. */
  passesAt?(c: number, r: number, hole: Hole): number
  /** Diameters of the wires in a hole of the bead at (c, r), mm, one for each pass; of work on wires. */
  wiresAt?(c: number, r: number, hole: Hole): readonly number[]
  /** What the beads are strung on, where the work itself decides it; the thread and needle of the piece otherwise. */
  readonly cord?: ThreadGauge & { readonly name: string }
}

/** Work that follows from a recipe, which can be read and changed step by step. */
export interface RecipeSide {
  of(work: Pick<Work, 'plan' | 'settings'>): Told
  /** Technique that keeps it once it is changed: itself, or the one that keeps recipes of one’s own. */
  readonly keptBy: string
  /** The plan of that technique. */
  plan(told: Told): Plan
  board(work: Work): Board
}

/** What a finding weighs: it stops the work, looks wrong when it is done, or is worth knowing. */
export const WEIGHTS = ['stops', 'looks', 'note'] as const
export type Weight = (typeof WEIGHTS)[number]

/** Something of a work that wants a look. */
export interface Finding {
  readonly code: string
  readonly weight: Weight
  readonly says: string
  /** Lines of the work that it is about, by their index; the work as a whole if left out. */
  readonly lines?: readonly number[]
}

/** What work that is told step by step comes to: beads and passes by the part they play, and each carrier’s way. */
export interface WorkSums {
  readonly beads: number
  /** Steps of the hands. */
  readonly steps: number
  readonly slots: readonly {
    readonly slot: string
    readonly name: string
    readonly spec: string
    readonly beads: number
    /** Passes of all its beads by each hole, and the most that one bead has. */
    readonly holes: readonly { readonly hole: Hole; readonly passes: number; readonly most: number }[]
  }[]
  /** Way of each carrier, mm: through holes, from hole to hole, round things and in knots, and in all. */
  readonly carriers: readonly {
    readonly id: string
    readonly name: string
    readonly throughMm: number
    readonly betweenMm: number
    readonly roundMm: number
    readonly lengthMm: number
  }[]
}

/** What a technique calls its lines, what is counted across them, and the sample by which a hand is measured. */
export interface TechniqueWords {
  /** A working line: “row 12”. */
  readonly line: 'row' | 'round' | 'strand' | 'rung' | 'pin' | 'line' | 'rib' | 'wire' | 'tile' | 'loop'
  /** One of those across: “strand 3”. */
  readonly place: 'column' | 'strand' | 'bead'
  /** Behind a count of them: “26 across”, “8 strands”. */
  readonly across: string
  /** Over a count of them. */
  readonly acrossTitle: string
  /** What a piece of it is called where no motif names it: “Rope”; empty where one does. */
  readonly thing: string
  readonly sample: {
    readonly name: string
    /** How it is measured, in a sentence. */
    readonly how: string
    /** What is counted of it, and where. */
    readonly counted: string
    readonly where: string
    /** Whether its width says something too: not where the count across is given. */
    readonly wide: boolean
  }
}

/** How a stitch is worked: as a band, or as a tube that closes round on itself. */
export type Form = 'flat' | 'tube'

const FLAT_WORDS: TechniqueWords = {
  line: 'row',
  place: 'column',
  across: 'across',
  acrossTitle: 'Across',
  thing: '',
  sample: {
    name: 'swatch',
    how: 'Lay a rule on a swatch, count the rows in the middle, and sizes stand on your hand.',
    counted: 'Bead rows counted',
    where: 'Rows in the middle of the work, not its edges.',
    wide: true,
  },
}

/** Words of woven work: rows of columns, round or flat. */
export const WOVEN_WORDS: Readonly<Record<Form, TechniqueWords>> = {
  flat: FLAT_WORDS,
  tube: { ...FLAT_WORDS, acrossTitle: 'Round' },
}

export const wordsOf = ({ words, form }: { readonly words?: TechniqueWords; readonly form: Form }) =>
  words ?? WOVEN_WORDS[form]

/** Whether a width can be wished for: only where the count across follows from it. */
export const choosesWidth = ({ growth }: Pick<Technique, 'growth'>, work: Omit<Work, 'rows' | 'columns'>): boolean =>
  growth.columnsFor(20, work) !== growth.columnsFor(40, work)

/** A word at the head of a line: “Row”. */
export const titled = (word: string): string => `${word.charAt(0).toUpperCase()}${word.slice(1)}`

/**
 * Work that goes on without beads at both ends: the setting that says how much at each, how far it may be changed to
 * fit, and what both come to, mm. Such ends belong to the length of the work but to none of its rows, so a gauge
 * leaves them alone.
 */
export interface PlainEnds {
  readonly key: string
  readonly least: number
  readonly most: number
  ofMm(settings: Settings): number
}

/** How a work grows: count ↔ size in nominal mm (a real number of rows, the caller rounds), and what may be added. */
export interface Growth {
  lengthOf(work: Work): number
  rowsFor(lengthMm: number, work: Omit<Work, 'rows'>): number
  widthOf(work: Omit<Work, 'rows'>): number
  columnsFor(widthMm: number, work: Omit<Work, 'rows' | 'columns'>): number
  /** Counts across that are allowed, nearest to what is wanted. */
  nearestColumns(columns: number, settings: Settings): number
  /** A repeat of any multiple of so many bead rows joins on without a slip sideways. */
  readonly repeatRows: number
  /** Rows as weavers count them, for that many bead rows. */
  countedRows(rows: number, settings: Settings): number
  /** Beads where no place is left empty. */
  beads(work: Omit<Work, 'bead' | 'settings'>): number
  readonly plain?: PlainEnds
  /** Columns of a small sample to choose by. */
  readonly sampleColumns: number
}

/** Which of how many lines. */
export interface LineAt {
  readonly r: number
  readonly count: number
}

/** How lines are begun whose beads play different parts. */
export interface FirstLines {
  /** Size for each part after the first, which is the bead that the work is drawn for. */
  readonly sizes: readonly string[]
  /** Lines at each end that are not of the repeat; 1 if left out. */
  readonly edge?: number
  /** Lines after which the same parts come again; 1 if left out. */
  period?(of: Pick<Work, 'plan' | 'settings'>): number
  /** Which part each place of a line plays, counted from 0. */
  parts(r: number, count: number, work: Omit<Work, 'rows'>): readonly number[]
}

/** In which order a work is made. */
export interface Order {
  /** How many things there are to do. */
  count(work: Omit<Work, 'bead'>): number
  /** The i-th of them, i from 0. */
  row(i: number, work: Work): WorkingRow
  /** Which of them lays the place (c, r). */
  rowOf(place: Place, work: Pick<Work, 'columns' | 'settings'>): number
  /** The one before the i-th that lies in the same columns: the one that edge steps are measured against. */
  before(i: number): number
}

/**
 * The questions that every technique answers, whatever its parts keep: cells of a grid (`gridTechnique` in stitch.ts)
 * or lines of their own lengths (`lineTechnique` in strung.ts). Tally, fit, supplies, proof, print and drawing are
 * written once on these answers; a new technique is one new file and a line in the registry.
 */
export interface Technique {
  readonly id: string
  readonly family: 'weave' | 'braid' | 'coil' | 'strung'
  /** Whether it closes round on itself: its last column lies beside its first. */
  readonly round: boolean
  /** Whether its rows lie side by side: their ends are its edges, and round a tube what lies in them must meet. */
  readonly rowsLieBeside: boolean
  readonly name: string
  readonly summary: string
  /** Settings of its own, with a default for each. */
  readonly settings: z.ZodType<Settings>
  readonly fields: readonly SettingField[]
  /** Door of the workshop behind which strung work stands (making.ts); chains if left out. */
  readonly making?: 'held' | 'chain' | 'hang' | 'wire'
  /** What it can be made for; anything if left out. */
  readonly kinds?: readonly FitKind[]
  /** The closure that it is mostly made with, where it asks for one. */
  readonly closure?: ClosureKind
  /** Whether its lines can be made in any order. */
  readonly anyOrder?: boolean
  /** Whether the places of its lines lie side by side, as those of a straight grid do: figures have a meaning then. */
  readonly sideBySide?: boolean
  /** What its parts keep: cells of a grid, or lines of their own lengths. */
  readonly store: 'cells' | 'lines'
  /** Shape of what its lines mean, with its defaults; none for most. */
  readonly plan?: z.ZodType<Plan>
  /** What gauges of it are kept under where its plan decides how long work is: eight signs, 0–9 and a–f. */
  planKey?(plan: Plan): string
  /** How its plan is written and read as a text, where people write it. */
  readonly script?: Script
  /** The recipe that it follows, where it can be read and changed step by step. */
  readonly recipe?: RecipeSide
  /** What its lines and counts are called. */
  readonly words: TechniqueWords
  readonly material: Material
  /** The disc that it is worked on, if it is. */
  readonly disc?: DiscWork
  /** Other ways to unroll the surface; the first is the one that is meant where none is named. */
  readonly charts?: readonly Chart[]
  /** Id of the stitch that it becomes when so many rows of it are turned by a quarter without losing a bead. */
  quarter?(rows: number): string
  /** Work of lines that it becomes with its rows as they are: its id, what that is called, and its settings. */
  readonly asLines?: { readonly technique: string; readonly act: string; settings(own: Settings): Settings }
  /**
   * Rows further on, in which what is worked round goes on behind its last column; back if negative. None where a
   * round closes on itself.
   */
  climbs?(settings: Settings): number
  /**
   * What holds a row: the rows laid before it, to whose beads it is sewn, or warps that are there from the beginning.
   * Left out where something else does, as cords of a braid, or where rows are not worked one upon the other.
   */
  readonly heldBy?: 'rows' | 'warps'
  /** Settings with which its ends meet in a ring, where others give it ends of their own. */
  readonly meets?: Settings
  /** Settings that may be changed by one so that it fits, and what is counted by them: “stem beads”. */
  readonly tunes?: readonly { readonly key: string; readonly counts: string }[]
  /** What its lines pick up bead by bead, for so many motifs; left out where lines are not told so. */
  picks?(of: Pick<Work, 'plan' | 'settings'>, motifs: number): PickedLines
  /** Lengths of the lines that a work of so many begins with; only of a technique that keeps lines. */
  firstLines?(count: number, work: Omit<Work, 'rows'>): readonly number[]
  /** What such lines are begun with, where not every bead plays the same part. */
  readonly first?: FirstLines
  /**
   * A line of tray numbers as it is after settings changed that say how many beads play which part; the r-th of so
   * many. Colours stay where their parts stay. Left out where settings change no line.
   */
  relined?(line: readonly number[], at: LineAt, from: Settings, to: Settings): readonly number[]
  /** Whether its lines hang from places of what it is joined to, so that it must know them. */
  readonly hangs?: boolean
  /** What a finding holds parts by on one of its sides; left out by what is made of beads. */
  holds?(work: Work, side: Side): Holds | null
  /** Whether it is what work is worn on, and no part of its measure: a strap. */
  apart?(work: Pick<Work, 'settings'>): boolean
  /** Lines that are to stay alike with a line: what is changed in one is changed in all of them. */
  alike?(r: number, work: Pick<Work, 'rows' | 'plan'>): readonly number[]
  /** Its lines as strands that a rule makes, where they are. */
  readonly strands?: StrandSide
  /** What is asked of work on wire. */
  readonly wire?: WireSide
  /** What it is begun with, where it hangs from parts of its own. */
  readonly begins?: Begins
  /** How a set of it in graded sizes is begun, where it is made in such sets. */
  readonly graded?: Graded
  /** Of a finding, whether its loop stands across its face; left out by what turns freely. */
  eyeAcross?(settings: Settings): boolean
  /** Weight besides its beads, g: of findings, wire and chain. */
  grams?(work: Work): number
  /** Questions whose answers its drawing and size stand on, where these take time: they may be asked of a worker. */
  awaits?(work: Work): readonly ChainProblem[]
  /** Where its beads lie. A lattice asks for no rows; what lies freely is asked with all its lines. */
  drawing(work: Work & { readonly chart?: string }): Drawing
  /**
   * Keys of cells that the grid has room for but the stitch has not; the same whatever lies in them. None if left out.
   */
  voids?(work: Pick<Work, 'columns' | 'rows' | 'settings'>): readonly number[]
  readonly growth: Growth
  extent(work: Work): Extent
  path(work: Work): ThreadPath
  /** Whether and how the ends join to a ring. */
  join(work: Work): Join
  readonly order: Order
  /** Pictures of the steps of the i-th thing to do, as its row tells them; null of one that shows nothing. */
  pictures?(i: number, work: Work): readonly (StepPicture | null)[]
  /** Tools, findings by number, and what is done besides beads; none of its own if left out. */
  workplace?(work: Work): Workplace
  /** Sums over what is told step by step; left out where counts say it all. */
  sums?(work: Work): WorkSums
  /** What of its own wants a look, beyond what is asked of every technique. */
  findings?(work: Work): readonly Finding[]
  check(work: Omit<Work, 'bead'>): Problem[]
}

/** ±5 % for stitched and loomed work until a gauge exists (common practice). */
export const NOMINAL_SPREAD = 0.05

export const rangeOf = (nominal: number, spread: number): Range => ({
  least: nominal * (1 - spread),
  nominal,
  most: nominal * (1 + spread),
})

/** The extent of a flat band from its nominal length and width; a flat band is as thick as its bead. */
export function nominalExtent(
  lengthMm: number,
  widthMm: number,
  bead: BeadSpec,
  formulas: Pick<Extent, 'lengthFormula' | 'widthFormula'>,
): Extent {
  return {
    lengthMm: rangeOf(lengthMm, NOMINAL_SPREAD),
    widthMm: rangeOf(widthMm, NOMINAL_SPREAD),
    thicknessMm: bead.d,
    basis: { kind: 'nominal', spread: NOMINAL_SPREAD },
    ...formulas,
  }
}

/** The extent of a tube: its width is the outer diameter, and so is its thickness. */
export function tubeExtent(
  lengthMm: number,
  outerMm: number,
  formulas: Pick<Extent, 'lengthFormula' | 'widthFormula'>,
): Extent {
  return {
    lengthMm: rangeOf(lengthMm, NOMINAL_SPREAD),
    widthMm: rangeOf(outerMm, NOMINAL_SPREAD),
    thicknessMm: outerMm,
    basis: { kind: 'nominal', spread: NOMINAL_SPREAD },
    ...formulas,
  }
}

/** A count of columns in words: beads across a band, strands of a braid, beads in a row of a coil's string. */
export const acrossWords = ({ words }: Pick<Technique, 'words'>, columns: number): string =>
  `${columns} ${words.across}`

/** Ends that meet with nothing between them and are sewn together. */
export const meeting = (says: string): Join => ({ joins: true, says, addsMm: 0, formula: '' })

/** Work whose ends cannot be joined; says what to do instead. */
export const unjoined = (says: string): Join => ({ joins: false, says, addsMm: 0, formula: '' })
