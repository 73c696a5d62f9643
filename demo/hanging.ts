import { hungBelow } from '../core/begin/part'
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
import { usualClosure, type Closure, type ClosureKind } from '../core/wear/closure'
import type { FitKind } from '../core/wear/kind'
import { trayOf, type Dish } from './plan'

/** What hangs: a chandelier on a bar of holes, a hoop with fringe, dangles on pins, a pendant, studs with drops. */

interface Hangs {
  readonly name: string
  readonly notes: string
  readonly wearer: string
  readonly kind: FitKind
  readonly bodyMm: number
  readonly closure: ClosureKind | Pick<Closure, 'kind' | 'name' | 'lengthMm'>
  readonly spec: string
  readonly tray: readonly Dish[]
  readonly part: string
  readonly parts: (tray: readonly TrayBead[]) => readonly Part[]
}

const under = (part: string, more: Partial<Joint> = {}): Joint => ({ ...hungBelow(part), ...more })

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
function strandPart(
  technique: 'fringe' | 'dangles',
  head: Pick<Part, 'id' | 'name' | 'spec' | 'on'>,
  tray: readonly TrayBead[],
  rule: Parameters<typeof strandRuleSchema.parse>[0],
  settings: Settings = {},
): Part {
  const parsed: StrandRule = strandRuleSchema.parse(rule)
  const lengthOf = (number: number) => requireSpec(tray.find((b) => b.number === number)!.spec).l
  return {
    ...head,
    technique,
    settings: requireTechnique(technique).settings.parse(settings),
    times: 1,
    plan: requireTechnique(technique).plan!.parse({ rule: parsed }),
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
        closure:
          typeof plan.closure === 'string'
            ? usualClosure(plan.closure)
            : { ...usualClosure(plan.closure.kind), ...plan.closure },
        widthMm: 30,
      }),
      gauges: [],
      meant: [],
      supply: supplySchema.parse({ needle: '13' }),
      cost: costSchema.parse({}),
      parts: plan.parts(tray),
    }),
  )
}

export const HANGING_PIECES: readonly Piece[] = [
  hanging({
    name: 'Weir chandelier',
    notes: 'Fifteen strands on the bar with eleven holes: the second, fifth, seventh and tenth take two.',
    wearer: 'the fair',
    kind: 'earrings',
    bodyMm: 64,
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
      gridPart({ id: 'top', name: 'Crest', technique: 'brick', spec: 'round-11', on: under('bar') }, 15, 1, (c) =>
        Math.min(c, 14 - c) % 3 === 0 ? 4 : 2,
      ),
      strandPart('fringe', { id: 'fall', name: 'Fall', spec: 'round-11', on: under('top') }, tray, {
        strands: 15,
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
    bodyMm: 59,
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
      strandPart('fringe', { id: 'rush', name: 'Rush', spec: 'cylinder-11', on: under('rim') }, tray, {
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
  hanging({
    name: 'Sluice fives',
    notes: 'Five headpins to each; the longest stands in the middle. Balls of 6 mm weigh: for an evening, not a day.',
    wearer: 'order 31',
    kind: 'earrings',
    bodyMm: 57,
    closure: 'ear-wire',
    spec: 'ball-6-mm',
    part: 'pins',
    tray: [
      ['Mist', '#cfd6d2', 'lustre', 'ball-6-mm'],
      ['Sluice', '#2f5f7a', 'transparent', 'ball-6-mm'],
      ['Copper lock', '#9c5a33', 'metallic', 'round-11'],
      ['Reed seed', '#7d8a3f', 'opaque', 'round-11'],
    ],
    parts: (tray) => [
      findingPart('bar', 'Bar with five holes', { kind: 'holes', holes: 5, pitch: 7.2, tall: 8, grams: 0.9 }),
      strandPart(
        'dangles',
        { id: 'pins', name: 'Pins', spec: 'ball-6-mm', on: under('bar') },
        tray,
        {
          strands: 5,
          edge: 'point',
          zones: [
            { beads: [3], grow: 'keep', from: 1 },
            { beads: [2, 1], grow: 'step', from: 3, step: 2 },
            { beads: [4, 3], grow: 'keep', from: 2 },
          ],
          end: [],
        },
        { wire: 0.6 },
      ),
    ],
  }),
  hanging({
    name: 'Lighthouse pendant',
    notes: 'Weave the panel on the loom; the fringe hangs from every bead of its last row.',
    wearer: 'Maren',
    kind: 'pendant',
    bodyMm: 78,
    closure: 'bail',
    spec: 'cylinder-10',
    part: 'surf',
    tray: [
      ['Chalk', '#eae5d8', 'opaque'],
      ['Lamp', '#d8a21f', 'transparent'],
      ['Signal red', '#a5302b', 'opaque'],
      ['Night sea', '#1f3550', 'lustre'],
      ['Surf', '#7fb0b4', 'transparent'],
    ],
    parts: (tray) => [
      findingPart('cord', 'Cord', { kind: 'strap', across: 60, tall: 460, thick: 1.5, grams: 0 }),
      gridPart(
        {
          id: 'panel',
          name: 'Lighthouse',
          technique: 'loom',
          spec: 'cylinder-10',
          on: under('cord', { link: { kind: 'ring', mm: 4 } }),
        },
        13,
        18,
        (c, r) => {
          const far = Math.abs(c - 6)
          if (r < 2) return far < 2 ? 3 : 4
          if (r < 5) return far === 0 ? 2 : far < 2 ? 1 : (c + r) % 5 === 0 ? 2 : 4
          if (r > 15) return far < 5 ? 5 : 4
          return far <= 2 + (r > 11 ? 1 : 0) ? ((r - 5) % 4 < 2 ? 1 : 3) : 4
        },
      ),
      strandPart(
        'fringe',
        { id: 'surf', name: 'Surf', spec: 'cylinder-10', on: under('panel') },
        tray,
        {
          strands: 13,
          edge: 'wave',
          waves: 2,
          zones: [
            { beads: [4], grow: 'keep', from: 3 },
            { beads: [5], grow: 'to', from: 5, to: 10 },
            { beads: [1, 5], grow: 'keep', from: 4 },
          ],
          end: [1, 1, 1],
        },
        { turning: 3 },
      ),
    ],
  }),
  hanging({
    name: 'Pebble studs',
    notes: 'A beaded square on a post; one pin hangs from it by a ring, so that it faces forward.',
    wearer: 'the fair',
    kind: 'earrings',
    bodyMm: 40,
    closure: 'post',
    spec: 'cylinder-11',
    part: 'pin',
    tray: [
      ['Slate', '#4d5a66', 'matte', 'cylinder-11'],
      ['Lichen', '#a9b26a', 'opaque', 'cylinder-11'],
      ['Pebble', '#b9a58c', 'lustre', 'ball-6-mm'],
      ['Rill', '#5d93a6', 'transparent', 'ball-4-mm'],
      ['Silt', '#8a6f4d', 'metallic', 'round-11'],
    ],
    parts: (tray) => [
      gridPart({ id: 'stud', name: 'Stud', technique: 'peyote', spec: 'cylinder-11', on: null }, 8, 10, (c, r) =>
        Math.abs(2 * c - 7) + Math.abs(2 * r - 9) < 8 ? 2 : 1,
      ),
      strandPart(
        'dangles',
        { id: 'pin', name: 'Pin', spec: 'ball-6-mm', on: under('stud', { link: { kind: 'ring', mm: 3 } }) },
        tray,
        {
          strands: 1,
          edge: 'straight',
          zones: [{ beads: [5, 4, 5, 3, 5], grow: 'keep', from: 5 }],
          end: [],
        },
        { loop: 'wrapped', wire: 0.6 },
      ),
    ],
  }),
  hanging({
    name: 'Tideline front',
    notes: 'Nine pins on a chain of 163 links, every fourth link; the longest hangs from the middle one.',
    wearer: 'Ines',
    kind: 'pendant',
    bodyMm: 36,
    closure: { kind: 'own', name: 'Links of the chain', lengthMm: 0 },
    spec: 'ball-4-mm',
    part: 'pins',
    tray: [
      ['Foam', '#e3e6df', 'lustre', 'ball-4-mm'],
      ['Wrack', '#5c6b3e', 'transparent', 'ball-4-mm'],
      ['Wet sand', '#a58a63', 'matte', 'round-11'],
      ['Undertow', '#23485c', 'transparent', 'ball-6-mm'],
    ],
    parts: (tray) => [
      findingPart('chain', 'Chain', {
        ...{ kind: 'chain', pitch: 2.8, tall: 467.4, clasp: 11, across: 118, thick: 0.6, grams: 0 },
      }),
      strandPart(
        'dangles',
        { id: 'pins', name: 'Pins', spec: 'ball-4-mm', on: under('chain') },
        tray,
        {
          strands: 9,
          edge: 'arc',
          zones: [
            { beads: [3], grow: 'keep', from: 1 },
            { beads: [1, 2], grow: 'to', from: 1, to: 6 },
            { beads: [3, 4, 3], grow: 'keep', from: 3 },
          ],
          end: [],
        },
        { wire: 0.6, first: 0, every: 4 },
      ),
    ],
  }),
]
