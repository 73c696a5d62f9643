import { beginPiece } from '../core/begin/begin'
import { hungBelow } from '../core/begin/part'
import type { TrayBead } from '../core/bead/bead'
import { choiceSteps } from '../core/fit/choices'
import { choicesFor } from '../core/fit/hang-choices'
import { lineAt, linesOf, raggedFrom } from '../core/grid/lines'
import { hung } from '../core/piece/held'
import type { Part, Piece } from '../core/piece/piece'
import { fullLines, linesSteps, settingSteps } from '../core/piece/recast'
import { costSchema, fitSchema, supplySchema } from '../core/piece/schema'
import { sized } from '../core/piece/sizes'
import { applySteps, type Step } from '../core/piece/step'
import { changeCrossSteps, fillSteps } from '../core/piece/wire'
import { requireTechnique } from '../core/technique/registry'
import type { Settings } from '../core/technique/technique'
import { usualClosure, type ClosureKind } from '../core/wear/closure'
import type { FitKind } from '../core/wear/kind'
import { trayOf, type Dish } from './plan'

/** Work on wire: frames, a front of wound rows, a ladder, rings of tiles, studs and a flower. */

interface Wired {
  readonly name: string
  readonly notes: string
  readonly wearer: string
  readonly kind: FitKind
  readonly bodyMm: number
  readonly closure: ClosureKind
  /** What a closure of one's own is called. */
  readonly worn?: string
  readonly technique: string
  readonly spec: string
  readonly settings?: Settings
  readonly tray: readonly Dish[]
  /** What is done with the first piece, each on what the one before left. */
  readonly then?: readonly ((piece: Piece) => readonly Step[])[]
  /** Which bead lies at a place, where it is not the one that was strung; of the same size. */
  readonly colour?: (r: number, c: number, count: number) => number | null
}

const done = (piece: Piece, steps: readonly Step[]): Piece => {
  const made = applySteps(piece, [...steps])
  if (!made.ok) throw new Error(made.problems[0]!.says)
  return made.value
}

function wired({
  name,
  notes,
  wearer,
  kind,
  bodyMm,
  closure,
  technique,
  spec,
  settings = {},
  tray,
  ...own
}: Wired): Piece {
  const begun = beginPiece({
    ...{ name, wearer, kind, bodyMm, easeMm: 0, widthMm: 20, technique, spec, settings },
    ...{ closure: { ...usualClosure(closure), name: own.worn ?? '' }, motif: 'plain', start: 'left' },
  })
  const beads = trayOf(spec, tray)
  // The sizes that the technique begins with stay where a dish names none.
  const laid = beads.map((bead, k) => ({ ...bead, spec: tray[k]![3] ?? begun.tray[k]?.spec ?? spec }))
  let piece: Piece = sized<Piece>({
    ...begun,
    notes,
    tray: laid,
    supply: supplySchema.parse({}),
    cost: costSchema.parse({}),
  })
  for (const step of own.then ?? []) piece = done(piece, step(piece))
  const { colour } = own
  if (!colour) return piece
  const [part] = piece.parts as [Part]
  const lines = Array.from({ length: part.repeat.rows }, (_, r) => {
    const line = lineAt(part.repeat, r)
    return Array.from(line, (number, c) => colour(r, c, line.length) ?? number)
  })
  return sized({ ...piece, parts: [{ ...part, repeat: raggedFrom(lines) }] })
}

const first = (piece: Piece): Part => piece.parts[0]!
const fill = (piece: Piece) => fillSteps(piece, first(piece))
const cross =
  (k: number, change: Parameters<typeof changeCrossSteps>[3]) =>
  (piece: Piece): Step[] =>
    changeCrossSteps(piece, first(piece), k, change)
const set =
  (settings: Settings) =>
  (piece: Piece): Step[] =>
    settingSteps(piece, first(piece), { ...first(piece).settings, ...settings }, 1)
/** What stands on the stem that rows are wound round. */
const standing =
  (stem: readonly number[]) =>
  (piece: Piece): Step[] => {
    const [, ...rows] = linesOf(first(piece).repeat).map((line) => [...line])
    return linesSteps(piece, first(piece), { start: [], repeat: [stem, ...rows], end: [], times: 1 })
  }
/** From either end of a line. */
const inward = (c: number, count: number): number => Math.min(c, count - 1 - c)

/** A part of wound rows as full as it is, from its stem and one bead for each row. */
function wound(
  tray: readonly TrayBead[],
  head: Pick<Part, 'id' | 'name' | 'on'>,
  stem: readonly number[],
  rows: readonly number[],
): Part {
  const technique = requireTechnique('wound-rows')
  const [part] = sized({
    tray,
    parts: [
      {
        ...head,
        technique: 'wound-rows',
        settings: technique.settings.parse({ rows: rows.length, above: 'wrapped' }),
        ...{ spec: 'round-11', times: 1, plan: {} },
        start: raggedFrom([]),
        repeat: raggedFrom([[...stem], ...rows.map((number) => [number, number])]),
        end: raggedFrom([]),
      } satisfies Part,
    ],
  }).parts as [Part]
  return { ...part, repeat: raggedFrom(fullLines(part).repeat) }
}

/** A front of five on a chain, largest in the middle. */
function front(): Piece {
  const tray = trayOf('round-11', [
    ['Mother of pearl', '#e9e2d4', 'lustre', 'ball-6-mm'],
    ['Smoke', '#7d8790', 'transparent', 'ball-4-mm'],
    ['Inkstone', '#2c3a4b', 'matte', 'round-11'],
    ['Brook', '#6f9aa8', 'transparent', 'round-11'],
    ['Dull gold', '#a9853f', 'metallic', 'ball-2-mm'],
  ])
  const chain: Part = {
    ...{ id: 'chain', name: 'Chain', technique: 'finding', spec: 'round-11', times: 0, on: null, plan: {} },
    settings: requireTechnique('finding').settings.parse({
      ...{ kind: 'chain', pitch: 2.8, tall: 467.4, clasp: 11, across: 150, thick: 0.6, grams: 0 },
    }),
    ...{ start: raggedFrom([]), repeat: raggedFrom([]), end: raggedFrom([]) },
  }
  const sizes: readonly { readonly stem: readonly number[]; readonly rows: readonly number[] }[] = [
    { stem: [2], rows: [5, 3] },
    { stem: [1], rows: [5, 4, 3] },
    { stem: [1, 2], rows: [5, 4, 3, 4] },
    { stem: [1], rows: [5, 4, 3] },
    { stem: [2], rows: [5, 3] },
  ]
  const names = ['Left small', 'Left', 'Middle', 'Right', 'Right small']
  const parts = sizes.map(({ stem, rows }, k) =>
    wound(tray, { id: `wound-${k + 1}`, name: names[k]!, on: hungBelow('chain', [82 + (k - 2) * 11]) }, stem, rows),
  )
  return hung(
    sized({
      name: 'Fernbrook front',
      notes: 'Five wound rounds on a chain: the middle has four rows, those beside it three, the outer ones two.',
      tray,
      fit: fitSchema.parse({
        ...{ kind: 'pendant', wearer: 'Thekla', bodyMm: 43, widthMm: 34, part: 'wound-3' },
        closure: { ...usualClosure('own'), name: 'Links of the chain' },
      }),
      gauges: [],
      meant: [],
      supply: supplySchema.parse({}),
      cost: costSchema.parse({}),
      parts: [chain, ...parts],
    }),
  )
}

/** Whole tiles that come nearest to the finger. */
function nearest(piece: Piece): Step[] {
  const whole = choicesFor(piece).filter(({ way }) => way === 'whole')
  const best = whole.reduce((a, b) => (Math.abs(b.fit.differenceMm) < Math.abs(a.fit.differenceMm) ? b : a))
  return choiceSteps(piece, best)
}

const tiles = (name: string, notes: string, wearer: string, bodyMm: number, seed: Dish): Piece =>
  wired({
    ...{ name, notes, wearer, kind: 'ring', bodyMm, closure: 'none' },
    ...{ technique: 'tile-ring', spec: 'half-tile-5-x-2-3-mm' },
    tray: [['Slate', '#59636b', 'matte'], seed],
    then: [nearest],
  })

export const WIRE_PIECES: readonly Piece[] = [
  wired({
    name: 'Lamplight drops',
    notes: 'A drop of 8/0 with three wires across: a straight run, a bead with a curve round it, and lozenges.',
    wearer: 'Oda',
    ...{ kind: 'earrings', bodyMm: 58, closure: 'ear-wire', technique: 'wire-frame', spec: 'round-8' },
    settings: { shape: 'drop', crosses: 3 },
    tray: [
      ['Night', '#27354a', 'matte'],
      ['Lamp', '#d8a13c', 'transparent', 'round-11'],
      ['Ember', '#b4502f', 'transparent', 'bicone-4-mm'],
      ['Moonlit', '#c9d3dc', 'lustre', 'round-8'],
    ],
    then: [
      cross(0, { gap: 9 }),
      cross(1, { gap: 15, filling: 'hugged' }),
      cross(2, { gap: 20, filling: 'lozenges-2' }),
    ],
    // Every fourth bead of the frame catches the light, alike from both sides.
    colour: (r, c, count) => (r === 0 ? (inward(c, count) % 4 === 3 ? 4 : 1) : null),
  }),
  front(),
  wired({
    name: 'Alder leaves',
    notes: 'Leaves wound round a rib of small beads, pointed at both ends; the outer row is the darker.',
    wearer: 'Mila',
    ...{ kind: 'earrings', bodyMm: 36, closure: 'ear-wire', technique: 'wound-rows', spec: 'round-11' },
    settings: { pointed: 'both', tip: 40 },
    tray: [
      ['Sap', '#7f9b4e', 'transparent'],
      ['Rib', '#d8c98a', 'lustre', 'round-8'],
      ['Dew', '#dfe7dd', 'transparent', 'ball-3-mm'],
      ['Alder', '#3e5a3c', 'matte', 'round-11'],
    ],
    // A rib of six: a round bead at its foot, seeds up to its head.
    then: [standing([2, 2, 2, 2, 2, 3]), set({ rows: 2 }), fill],
    colour: (r) => (r === 2 ? 4 : null),
  }),
  wired({
    name: 'Kite pair',
    notes: 'Diamonds of two sizes on one wire each; small beads at the edges, large ones within.',
    wearer: 'Ines',
    ...{ kind: 'earrings', bodyMm: 46, closure: 'ear-wire', technique: 'wire-ladder', spec: 'round-11' },
    settings: { outline: 'diamond', widest: 13 },
    tray: [
      ['Frost', '#dfe8ea', 'lustre'],
      ['Kingfisher', '#1f7f95', 'transparent'],
    ],
    then: [fill],
  }),
  wired({
    name: 'Ferry crescent',
    notes: 'An oval left open at its top: a loop on each end, a short chain from loop to loop, a curve across it.',
    wearer: 'Ines',
    ...{ kind: 'pendant', bodyMm: 36, closure: 'bail', technique: 'wire-frame', spec: 'round-8' },
    settings: { shape: 'oval', wide: 32, long: 40, open: 40, crosses: 1, filling: 'hugged' },
    tray: [
      ['River', '#2f5d62', 'matte'],
      ['Reed', '#b7a25a', 'lustre', 'round-11'],
      ['Amber', '#c0702a', 'transparent', 'ball-4-mm'],
      ['Foam', '#d6dfd8', 'lustre', 'round-8'],
    ],
    colour: (r, c, count) => (r === 0 ? (inward(c, count) % 3 === 2 ? 4 : 1) : null),
  }),
  tiles('Millrace ring', 'Ten half tiles, two 8/0 on each wire between: a middle finger.', 'Oda', 56, [
    'Foam',
    '#c8d6cf',
    'transparent',
    'round-8',
  ]),
  tiles('Millrace ring, small', 'The same with 11/0 between: more tiles for a smaller finger.', 'Mila', 50, [
    'Foam',
    '#c8d6cf',
    'transparent',
    'round-11',
  ]),
  wired({
    name: 'Plumb line studs',
    notes: 'A bar of 8/0 that hangs from its own post; the lowest bead is gold.',
    wearer: 'Ruth',
    ...{ kind: 'earrings', bodyMm: 22, closure: 'post', technique: 'wire-shape', spec: 'round-8' },
    settings: { shape: 'bar' },
    tray: [
      ['Chalk', '#ece7db', 'matte'],
      ['Old gold', '#b98a2e', 'metallic'],
    ],
    colour: (_r, c, count) => (c === count - 1 ? 2 : null),
  }),
  wired({
    name: 'Hedge rose',
    notes: 'A flower for a comb: a ring round a yellow middle, five petals, two leaves, and a stem to wind on.',
    wearer: '',
    ...{ kind: 'pendant', bodyMm: 60, closure: 'own', worn: 'Comb', technique: 'wire-flower', spec: 'round-11' },
    tray: [
      ['Blush', '#e3b3ad', 'lustre'],
      ['Pollen', '#d9a62e', 'opaque'],
      ['Leaf', '#5d7f4f', 'transparent'],
    ],
  }),
]
