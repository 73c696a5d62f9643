import { keyOf } from '../../grid/key'
import { z } from 'zod'
import type { BeadSpec } from '../../bead/spec'
import { problem, type Problem } from '../../problem'
import { plainNumber, showNumber } from '../../units/length'
import { unjoined, type SettingField, type Settings, type TechniqueWords, type Work } from '../technique'
import { sumsOf, type Stitch } from '../stitch'
import { ROW_BY_ROW } from '../weave/setting'
import { roundOrder, type DiscPlan, type DiscWork } from '../disc'
import { TABLE_HANDS } from './plan'

/**
 * Nominal length of a round of eight beaded strands, mm, with how far it may be off below and above (common practice);
 * 1.27 d ± 15 % for others.
 */
const ROUND_OF_EIGHT: Readonly<Record<string, readonly [mm: number, below: number, above: number]>> = {
  'round-15': [1.9, 0.15, 0.15],
  'round-11': [2.8, 0.1, 0.1],
  'round-8': [3.81, 0.1, 0.1],
  'round-6': [5.1, 0.05, 0.2],
}

/** Lines of beads lie so far apart round the rope, in bead diameters: eight strands come to an outside of 2.9 d. */
export const LINE_PITCH = (1.9 * Math.PI) / 6

/** Each strand is cut to three times the finished length, and so much for knots, mm (common practice: 8–10 cm). */
export const CORD_TIMES = 3
export const CORD_KNOTS_MM = 90

/**
 * Plain braid that shows between the beads and an end cap, mm at each end; as much again goes into the cap (common
 * practice: 1–2 cm in all).
 */
const PLAIN_MM = { least: 5, usual: 8, most: 20 } as const

/**
 * Length of one round, mm, of so many strands whose beads lie in so many lines round the rope. Beads cover the surface
 * equally closely whatever the braid, so it follows from what is known of eight strands in six lines.
 */
export function coverMm(strands: number, lines: number, bead: Pick<BeadSpec, 'id' | 'd'>): number {
  return ((ROUND_OF_EIGHT[bead.id]?.[0] ?? 1.27 * bead.d) * strands * 6) / (8 * lines)
}

/**
 * Outside diameter of a rope of so many lines, mm, on thin cord: its lines of beads side by side round the middle
 * circle.
 */
export const outsideMm = (lines: number, d: number): number => (lines * LINE_PITCH * d) / Math.PI + d

/** How far a round may be off what `coverMm` says, as shares below and above. */
export const spreadOf = ({ id }: Pick<BeadSpec, 'id'>): { readonly below: number; readonly above: number } => {
  const [, below, above] = ROUND_OF_EIGHT[id] ?? [0, 0.15, 0.15]
  return { below, above }
}

/** A braid is counted in rounds of its strands, and measured by a test inch. */
export const STRAND_WORDS: TechniqueWords = {
  line: 'round',
  place: 'strand',
  across: 'strands',
  acrossTitle: 'Strands',
  thing: 'Rope',
  sample: {
    name: 'test inch',
    how: 'Braid a little more than an inch, lay a rule on it and count the rounds, and sizes stand on your hand.',
    counted: 'Rounds counted',
    where: 'Rounds of the whole braid: count along one strand. Not its plain ends.',
    wide: false,
  },
}

/** Settings that every beaded braid has. */
export const BEADED = {
  cordMm: z.number().min(0.1).max(3).default(0.5).describe('Thickness of the cord that the beads are strung on'),
  folded: z.boolean().default(false).describe('One long cord, folded in its middle, makes two strands'),
  plainMm: z.number().min(0).max(60).default(PLAIN_MM.usual).describe('Plain braid that shows at each end'),
}

const PLAIN_FIELD: SettingField = {
  key: 'plainMm',
  label: 'Plain braid at each end',
  kind: 'length',
  help: 'Without beads, what shows before the end cap; braid as much again to go into the cap.',
}

export const FOLDED_FIELD: SettingField = {
  key: 'folded',
  label: 'Fold the cords',
  kind: 'flag',
  help: 'One cord twice as long, folded in its middle, gives two strands.',
}

export const BEADED_FIELDS: readonly SettingField[] = [
  {
    key: 'cordMm',
    label: 'Cord, thick',
    kind: 'length',
    help: 'Bead cord is 0.4 or 0.5 mm; it passes each bead once.',
  },
  PLAIN_FIELD,
  FOLDED_FIELD,
]

interface Beaded {
  readonly cordMm: number
  readonly plainMm: number
  readonly folded: boolean
}

/** A braid by a table: its moves are told one by one, and its surface is known by playing it only. */
const BY_TABLE: Pick<DiscWork, 'hands' | 'way' | 'surface'> = {
  hands: () => TABLE_HANDS,
  way: () => '',
  surface: () => null,
}

/** What tells one braid from another. */
interface Rope extends Pick<
  Stitch,
  'id' | 'name' | 'summary' | 'settings' | 'fields' | 'repeatRows' | 'lattice' | 'charts'
> {
  strandsOf(settings: Settings): number
  linesOf(settings: Settings): number
  plan(settings: Settings): DiscPlan
  /** How the moves are told, and what is known of the surface; of a braid by a table nothing more. */
  told?: Pick<DiscWork, 'hands' | 'way' | 'surface'>
  /** Shares that a round may be off, below and above. */
  spread(bead: BeadSpec): { readonly below: number; readonly above: number }
  /** Plain braid at each end, mm; beaded braids only. */
  read(settings: Settings): Beaded
  /** What is wrong with the settings themselves. */
  wrong?(settings: Settings): Problem | null
}

/**
 * A braid of beaded strands on a slotted disc: a cell of the grid is bead k of strand s, so every strand carries the
 * same count by its nature. Size and cord follow from how many lines of beads lie round the rope.
 */
export function ropeBraid(rope: Rope): Stitch {
  const { id, name, summary, settings, fields, repeatRows, lattice, charts, strandsOf, linesOf } = rope
  const roundOf = ({ bead, settings: own }: Pick<Work, 'bead' | 'settings'>) =>
    coverMm(strandsOf(own), linesOf(own), bead)
  const outerOf = ({ bead, settings: own }: Pick<Work, 'bead' | 'settings'>) => outsideMm(linesOf(own), bead.d)

  const self: Stitch = {
    id,
    name,
    summary,
    settings,
    fields,
    repeatRows,
    lattice,
    ...(charts ? { charts } : {}),
    family: 'braid',
    form: 'tube',
    words: STRAND_WORDS,
    disc: {
      strands: strandsOf(settings.parse({})),
      plan: (own) => rope.plan(own),
      ...(rope.told ?? BY_TABLE),
    },
    plain: { key: 'plainMm', ...PLAIN_MM, ofMm: (own) => 2 * rope.read(own).plainMm },

    extent(work) {
      const { below, above } = rope.spread(work.bead)
      const length = self.lengthOf(work)
      const outer = outerOf(work)
      return {
        lengthMm: { least: length * (1 - below), nominal: length, most: length * (1 + above) },
        widthMm: { least: outer * 0.9, nominal: outer, most: outer * 1.1 },
        thicknessMm: outer,
        basis: { kind: 'nominal', spread: Math.max(below, above) },
        lengthFormula: `${work.rows} rounds × ${showNumber(roundOf(work), 2)} mm`,
        widthFormula:
          `${showNumber(linesOf(work.settings), 1)} lines × ${showNumber(LINE_PITCH, 3)} × ${work.bead.d} mm ÷ ` +
          `π + ${work.bead.d} mm`,
      }
    },
    lengthOf: (work) => work.rows * roundOf(work),
    rowsFor: (lengthMm, work) => lengthMm / roundOf(work),
    widthOf: outerOf,
    columnsFor: (_, { settings: own }) => strandsOf(own),
    beads: ({ columns, rows }) => columns * rows,

    /**
     * Cord by the rule of thumb, and by a model of the way that a strand takes through beads and across the rope; the
     * larger is proposed.
     */
    path(work) {
      const { cordMm, plainMm, folded } = rope.read(work.settings)
      const strands = strandsOf(work.settings)
      const finished = self.lengthOf(work) + 2 * plainMm
      const rule = CORD_TIMES * finished + CORD_KNOTS_MM
      // As many beads as a strand carries in the mean, and the way across the rope in each round.
      const strung = sumsOf(self, work).beads / strands
      const over = Math.hypot(outerOf(work) - work.bead.d, roundOf(work))
      const ends = CORD_TIMES * 2 * plainMm + CORD_KNOTS_MM
      const model = strung * work.bead.l + work.rows * over + ends
      return {
        passes: 1,
        cord: { name: `cord ${cordMm} mm`, diameterMm: cordMm, flattens: true },
        runs: [
          {
            id: 'cord',
            name: 'Cords',
            count: folded ? Math.ceil(strands / 2) : strands,
            joined: false,
            shopName: `Cord ${cordMm} mm`,
            lengthMm: work.rows === 0 ? 0 : Math.max(rule, model) * (folded ? 2 : 1),
            formula:
              `${strands} ${folded ? 'strands, folded in pairs' : 'cords'}: by rule ${CORD_TIMES} × ` +
              `${plainNumber(finished)} + ${CORD_KNOTS_MM} = ${showNumber(rule)} mm, by model ` +
              `${plainNumber(strung)} beads × ${work.bead.l} + ${work.rows} rounds × ${plainNumber(over)} + ` +
              `${plainNumber(ends)} = ${showNumber(model)} mm; the larger${folded ? ', twice' : ''}`,
          },
        ],
      }
    },

    join: () =>
      unjoined(
        'A braid is bound at both ends: close it with end caps and a closure, or slide a bead with a large ' +
          'hole over both ends.',
      ),

    ...ROW_BY_ROW,
    workingRow: (i, { columns, settings: own }) => ({
      from: i + 1,
      to: i + 1,
      direction: '→',
      keys: Int32Array.from(roundOrder(rope.plan(own), i), (s) => keyOf(columns, s, i)),
    }),
    nearestColumns: (_, own) => strandsOf(own),
    check({ columns, settings: own }) {
      const wrong = rope.wrong?.(own)
      if (wrong) return [wrong]
      const strands = strandsOf(own)
      return columns === strands
        ? []
        : [
            problem(
              'strands',
              'columns',
              `This braid has ${strands} strands, so ${strands} columns; here are ${columns}. Take ${strands}.`,
            ),
          ]
    },
  }
  return self
}
