import { cellsFrom, emptyCells } from '../core/grid/cells'
import { raggedFrom } from '../core/grid/lines'
import { strandRuleSchema, strandByRule, type StrandRule } from '../core/hang/rule'
import { requireSpec } from '../core/bead/spec'
import type { TrayBead } from '../core/bead/bead'
import { hung } from '../core/piece/held'
import type { Part, Piece } from '../core/piece/piece'
import { costSchema, fitSchema, supplySchema, type Joint } from '../core/piece/schema'
import { sized } from '../core/piece/sizes'
import { requireTechnique } from '../core/technique/registry'
import type { Settings } from '../core/technique/technique'
import { usualClosure, type ClosureKind } from '../core/wear/closure'
import type { FitKind } from '../core/wear/kind'
import { trayOf, type Dish } from './plan'

/** What hangs: a chandelier on a bar of holes, a hoop with fringe, dangles on pins, a pendant, studs with drops. */

interface Hangs {
  readonly name: string
  readonly notes: string
  readonly wearer: string
  readonly kind: FitKind
  readonly bodyMm: number
  readonly closure: ClosureKind
  readonly spec: string
  readonly tray: readonly Dish[]
  readonly part: string
  readonly parts: (tray: readonly TrayBead[]) => readonly Part[]
}

const under = (part: string, more: Partial<Joint> = {}): Joint => ({
  part,
  at: 'end',
  by: 'start',
  holes: [],
  link: null,
  ...more,
})

const findingPart = (id: string, name: string, settings: Settings, on: Joint | null = null): Part => ({
  id,
  name,
  technique: 'finding',
  settings: requireTechnique('finding').settings.parse(settings),
  spec: 'round-11',
  times: 0,
  on,
  plan: {},
  start: raggedFrom([]),
  repeat: raggedFrom([]),
  end: raggedFrom([]),
})

const gridPart = (
  head: Pick<Part, 'id' | 'name' | 'technique' | 'spec' | 'on'>,
  columns: number,
  rows: number,
  number: (c: number, r: number) => number,
): Part => ({
  ...head,
  settings: requireTechnique(head.technique).settings.parse({}),
  times: 1,
  start: emptyCells(columns, 0),
  repeat: cellsFrom(
    columns,
    rows,
    Array.from({ length: columns * rows }, (_, key) => number(key % columns, Math.floor(key / columns))),
  ),
  end: emptyCells(columns, 0),
})

/** Strands made by a rule, which stays beside them. */
function fringePart(
  head: Pick<Part, 'id' | 'name' | 'spec' | 'on'>,
  tray: readonly TrayBead[],
  rule: Parameters<typeof strandRuleSchema.parse>[0],
  settings: Settings = {},
): Part {
  const parsed: StrandRule = strandRuleSchema.parse(rule)
  const lengthOf = (number: number) => requireSpec(tray.find((b) => b.number === number)!.spec).l
  return {
    ...head,
    technique: 'fringe',
    settings: requireTechnique('fringe').settings.parse(settings),
    times: 1,
    plan: requireTechnique('fringe').plan!.parse({ rule: parsed }),
    start: raggedFrom([]),
    repeat: raggedFrom(
      Array.from({ length: parsed.strands }, (_, i) =>
        Uint16Array.from(strandByRule(parsed, i, { startMm: 0, lengthOf })),
      ),
    ),
    end: raggedFrom([]),
  }
}

function hanging(plan: Hangs): Piece {
  const tray = trayOf(plan.spec, plan.tray)
  return hung(
    sized({
      name: plan.name,
      notes: plan.notes,
      tray,
      fit: fitSchema.parse({
        kind: plan.kind,
        part: plan.part,
        wearer: plan.wearer,
        bodyMm: plan.bodyMm,
        closure: usualClosure(plan.closure),
        widthMm: 30,
      }),
      gauges: [],
      supply: supplySchema.parse({ needle: '13' }),
      cost: costSchema.parse({}),
      parts: plan.parts(tray),
    }),
  )
}

export const HANGING_PIECES: readonly Piece[] = [
  hanging({
    name: 'Weir chandelier',
    notes: 'Fifteen strands on the bar with eleven holes: the third, fifth, seventh and ninth holes take two.',
    wearer: 'the fair',
    kind: 'earrings',
    bodyMm: 74,
    closure: 'ear-wire',
    spec: 'round-11',
    part: 'fall',
    tray: [
      ['Spray', '#e9e4d6', 'lustre'],
      ['Deep pool', '#1d5c6b', 'transparent'],
      ['Alder bark', '#6b4a34', 'matte'],
      ['Kingcup', '#d9a520', 'opaque'],
      ['Weir drop', '#58a7a5', 'transparent', 'drop-3-4-mm'],
    ],
    parts: (tray) => [
      findingPart('bar', 'Bar with eleven holes', { kind: 'holes', holes: 11, pitch: 3, tall: 9, grams: 0.9 }),
      gridPart({ id: 'top', name: 'Crest', technique: 'brick', spec: 'round-11', on: under('bar') }, 15, 2, (c, r) =>
        r === 1 && c === 14 ? 0 : (c + r) % 3 === 0 ? 4 : 2,
      ),
      fringePart({ id: 'fall', name: 'Fall', spec: 'round-11', on: under('top') }, tray, {
        strands: 14,
        edge: 'point',
        zones: [
          { beads: [1], grow: 'step', from: 3, step: 2 },
          { beads: [4], grow: 'keep', from: 1 },
          { beads: [2], grow: 'step', from: 4, step: 1 },
          { beads: [3, 1], grow: 'keep', from: 4 },
        ],
        end: [5],
      }),
    ],
  }),
  hanging({
    name: 'Millwheel hoops',
    notes: 'The brick rows go round the lower half of the hoop.',
    wearer: 'Ines',
    kind: 'earrings',
    bodyMm: 70,
    closure: 'ear-wire',
    spec: 'cylinder-11',
    part: 'rush',
    tray: [
      ['Flour', '#e6dcc6', 'matte'],
      ['Wheel rust', '#a4532f', 'matte'],
      ['Race', '#2f6f8f', 'transparent'],
      ['Moss', '#5f7a3c', 'opaque'],
    ],
    parts: (tray) => [
      findingPart('hoop', 'Hoop of 25 mm', { kind: 'hoop', across: 25, thick: 1, grams: 0.8 }),
      gridPart(
        { id: 'rim', name: 'Rim', technique: 'brick', spec: 'cylinder-11', on: under('hoop') },
        19,
        3,
        (c, r) => [2, 1, 4][(Math.floor(c / 2) + r) % 3]!,
      ),
      fringePart({ id: 'rush', name: 'Rush', spec: 'cylinder-11', on: under('rim') }, tray, {
        strands: 19,
        edge: 'arc',
        zones: [
          { beads: [3], grow: 'to', from: 6, to: 14 },
          { beads: [1, 4], grow: 'keep', from: 4 },
        ],
        end: [2],
      }),
    ],
  }),
]
